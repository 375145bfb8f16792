import type { Sound } from '@yunta/core';
import { memo, useState } from 'react';
import { EditableText } from '../../ui/EditableText.tsx';
import { useFocusBack } from '../../ui/focus-back.ts';
import type { RowActions } from './MatrixRow.tsx';

interface NameRowProps {
  readonly sound: Sound;
  readonly roles: readonly string[];
  readonly selected: boolean;
  readonly marked: boolean;
  readonly actions: RowActions;
}

/** Who a row is: mark, name, role. Stands beside the cells and does not scroll with them. */
export const NameRow = memo(function NameRow({ sound, roles, selected, marked, actions }: NameRowProps) {
  return (
    <div role="row" aria-selected={selected}>
      <div role="gridcell">
        <input
          type="checkbox"
          aria-label={`Mark ${sound.name}`}
          checked={marked}
          onChange={() => actions.mark(sound)}
        />
      </div>
      <div role="rowheader">
        <RowName name={sound.name} onRename={(name) => actions.rename(sound, name)} />
      </div>
      <div role="gridcell" className="left">
        <select
          className="cellinput"
          style={{ width: 66 }}
          aria-label={`Role of ${sound.name}`}
          value={sound.role}
          onChange={(event) => actions.setRole(sound, event.target.value)}
        >
          <option value="">no role</option>
          {[...new Set([...roles, ...(sound.role === '' ? [] : [sound.role])])].map((role) => (
            <option key={role} value={role}>
              {role}
            </option>
          ))}
        </select>
      </div>
    </div>
  );
});

/** A name that becomes a field when it is pressed: sixty fields in a matrix make every frame slow. */
function RowName({ name, onRename }: { readonly name: string; readonly onRename: (name: string) => void }) {
  const [editing, setEditing] = useState(false);
  const button = useFocusBack<HTMLButtonElement>(editing);
  if (editing)
    return (
      <EditableText
        label={`Name of ${name}`}
        value={name}
        onCommit={onRename}
        autoFocus
        onLeave={() => setEditing(false)}
      />
    );
  return (
    <button
      ref={button}
      className="rowname"
      aria-label={`Rename ${name}`}
      title="Press to rename"
      onClick={() => setEditing(true)}
    >
      {name}
    </button>
  );
}

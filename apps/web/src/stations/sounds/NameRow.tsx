import { Checkbox, UnstyledButton } from '@mantine/core';
import type { Sound } from '@yunta/core';
import { memo, useMemo, useState } from 'react';
import { CellSelect } from '../../ui/CellSelect.tsx';
import { useFocusBack } from '../../ui/focus-back.ts';
import { useReorderRow } from '../../ui/Reorder.tsx';
import { InlineField } from '../../ui/InlineField.tsx';
import type { RowActions } from './MatrixRow.tsx';

interface NameRowProps {
  readonly sound: Sound;
  readonly row: number;
  readonly roles: readonly string[];
  /** Where its slot lies; empty where it has none. */
  readonly slot: string;
  readonly selected: boolean;
  readonly marked: boolean;
  /** The row of the selected cell: the only one that Tab stops in. */
  readonly isHere: boolean;
  readonly actions: RowActions;
}

/** Who a row is: mark, name, role, slot. Stands beside the cells and does not scroll with them. */
export const NameRow = memo(function NameRow({
  sound,
  row,
  roles,
  slot,
  selected,
  marked,
  isHere,
  actions,
}: NameRowProps) {
  const tabIndex = isHere ? 0 : -1;
  const { ref, style, onKeyDown, grip } = useReorderRow(sound.id, sound.name, tabIndex);
  const choices = useMemo(
    () => [
      { value: '', label: 'no role' },
      ...[...new Set([...roles, ...(sound.role === '' ? [] : [sound.role])])].map((role) => ({
        value: role,
        label: role,
      })),
    ],
    [roles, sound.role],
  );
  return (
    <div role="row" aria-selected={selected} ref={ref} style={style} onKeyDown={onKeyDown}>
      <div role="gridcell">{grip}</div>
      <div role="gridcell">
        <Checkbox
          size="xs"
          tabIndex={tabIndex}
          data-place={`${row}.mark`}
          aria-label={`Mark ${sound.name}`}
          checked={marked}
          onChange={() => actions.mark(sound)}
        />
      </div>
      <div role="rowheader">
        <CellText
          text={sound.name}
          shown={sound.basedOn ? `↳ ${sound.name}` : sound.name}
          button={`Rename ${sound.name}`}
          label={`Name of ${sound.name}`}
          place={`${row}.name`}
          tabIndex={tabIndex}
          className="rowname"
          onCommit={(name) => actions.rename(sound, name)}
        />
      </div>
      <div role="gridcell" className="left">
        <CellSelect
          label={`Role of ${sound.name}`}
          value={sound.role}
          choices={choices}
          onPick={(role) => actions.setRole(sound, role)}
          tabIndex={tabIndex}
          place={`${row}.role`}
        />
      </div>
      <div role="gridcell" className="left">
        <CellText
          text={slot}
          shown={slot === '' ? '—' : slot}
          button={`Slot of ${sound.name}: ${slot === '' ? 'none' : slot}`}
          label={`Slot of ${sound.name}`}
          place={`${row}.slot`}
          tabIndex={tabIndex}
          className="rowslot num"
          onCommit={(typed) => actions.place(sound, typed)}
        />
      </div>
    </div>
  );
});

interface CellTextProps {
  readonly text: string;
  readonly shown: string;
  readonly button: string;
  readonly label: string;
  readonly place: string;
  readonly tabIndex: number;
  readonly className: string;
  readonly onCommit: (text: string) => string | null;
}

/** A text that becomes a field when it is pressed, or typed on: sixty fields in a matrix make every frame slow. */
function CellText({ text, shown, button, label, place, tabIndex, className, onCommit }: CellTextProps) {
  const [editing, setEditing] = useState(false);
  const own = useFocusBack<HTMLButtonElement>(editing);
  if (editing)
    return <InlineField label={label} value={text} onCommit={onCommit} autoFocus onLeave={() => setEditing(false)} />;
  return (
    <UnstyledButton
      ref={own}
      className={className}
      aria-label={button}
      data-place={place}
      tabIndex={tabIndex}
      title="Press to change"
      onClick={() => setEditing(true)}
    >
      {shown}
    </UnstyledButton>
  );
}

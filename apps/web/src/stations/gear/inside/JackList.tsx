import {
  anatomyJackKinds,
  editAnatomy,
  jackFacts,
  type JackKind,
  jackKindWords,
  jackWidths,
  type JackWidth,
} from '@yunta/core';
import { useState } from 'react';
import { CellSelect } from '../../../ui/CellSelect.tsx';
import { DataTable } from '../../../ui/DataTable.tsx';
import { LineForm } from '../../../ui/LineForm.tsx';
import { NameCell, NewName, RemoveCell } from './cells.tsx';
import type { Inside } from './use-inside.ts';

const kinds = anatomyJackKinds.map((kind) => ({ value: kind, label: jackKindWords[kind] }));

/** Where plugs go in. */
export function JackList({ anatomy, attempt, edit }: Inside) {
  const [name, setName] = useState('');
  const [kind, setKind] = useState<JackKind>('signal-in');
  const add = () => {
    if (name.trim() === '') return;
    edit(editAnatomy.addJack(anatomy, name.trim(), kind), 'Jacks');
    setName('');
  };
  const returns = anatomy.jacks
    .filter((jack) => jack.kind === 'signal-in')
    .map(({ id, label }) => ({ value: id, label }));
  return (
    <section aria-label="Jacks">
      <h2>Jacks</h2>
      <div className="sheet">
        <LineForm does="Add jack" onAdd={add}>
          <NewName what="jack" placeholder="Aux in" value={name} onType={setName} />
          <CellSelect
            bordered
            label="Kind of the new jack"
            value={kind}
            choices={kinds}
            onPick={(picked) => setKind(picked as JackKind)}
          />
        </LineForm>
        <DataTable
          label="Jacks"
          columns={[{ head: 'Name' }, { head: 'Kind' }, { head: 'Carries' }, { head: 'Comes back at' }, { head: '' }]}
        >
          {anatomy.jacks.map((jack) => (
            <tr key={jack.id}>
              <NameCell
                what="jack"
                name={jack.label}
                onRename={(label) => attempt(editAnatomy.renameJack(anatomy, jack.id, label), 'Jacks')}
              />
              <td>{jackKindWords[jack.kind]}</td>
              <td>
                {jackFacts(jack.kind).carries === 'signal' && (
                  <CellSelect
                    label={`What ${jack.label} carries`}
                    value={editAnatomy.jackWidth(jack)}
                    choices={jackWidths.map((width) => ({ value: width, label: width }))}
                    onPick={(width) => edit(editAnatomy.setJackWidth(anatomy, jack.id, width as JackWidth), 'Jacks')}
                  />
                )}
              </td>
              <td>
                {jack.kind === 'signal-out' && returns.length > 0 && (
                  <CellSelect
                    label={`Where what ${jack.label} sends comes back`}
                    value={editAnatomy.returnOf(anatomy, jack.id) ?? ''}
                    choices={[{ value: '', label: 'nowhere' }, ...returns]}
                    onPick={(back) =>
                      edit(editAnatomy.setReturn(anatomy, jack.id, back === '' ? undefined : back), 'Inserts')
                    }
                  />
                )}
              </td>
              <RemoveCell
                label={`the jack ${jack.label}`}
                onRemove={() => edit(editAnatomy.removeJack(anatomy, jack.id), 'Jacks')}
              />
            </tr>
          ))}
        </DataTable>
      </div>
    </section>
  );
}

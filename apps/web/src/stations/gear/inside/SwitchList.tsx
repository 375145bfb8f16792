import { editAnatomy, movedBy } from '@yunta/core';
import { useState } from 'react';
import { CellSelect } from '../../../ui/CellSelect.tsx';
import { DataTable } from '../../../ui/DataTable.tsx';
import { LineForm } from '../../../ui/LineForm.tsx';
import { LinkButton } from '../../../ui/LinkButton.tsx';
import { NameCell, NewName, RemoveCell } from './cells.tsx';
import type { Inside } from './use-inside.ts';

/** What a foot presses on the device itself. */
export function SwitchList({ anatomy, attempt, edit }: Inside) {
  const [name, setName] = useState('');
  const moved = [
    ...anatomy.controls.map(({ id, label }) => ({ value: id, label })),
    ...(anatomy.presets ? [{ value: 'preset', label: 'the preset' }] : []),
  ];
  const add = () => {
    if (name.trim() === '' || moved.length === 0) return;
    edit(editAnatomy.addSwitch(anatomy, name.trim(), moved[0].value), 'Foot switches');
    setName('');
  };
  return (
    <section aria-label="Foot switches">
      <h2>Foot switches</h2>
      <div className="sheet">
        <LineForm does="Add switch" onAdd={add}>
          <NewName
            what="foot switch"
            placeholder={moved.length === 0 ? 'add a control first' : 'Mode up'}
            value={name}
            onType={setName}
          />
        </LineForm>
        <DataTable
          label="Foot switches"
          columns={[{ head: 'Name' }, { head: 'A press moves' }, { head: 'The pedal’s own on and off' }, { head: '' }]}
        >
          {anatomy.switches.map((footSwitch) => {
            const [action] = footSwitch.actions as readonly (typeof footSwitch.actions)[number][];
            const control = (action === undefined ? undefined : movedBy(action)) ?? '';
            return (
              <tr key={footSwitch.id}>
                <NameCell
                  what="foot switch"
                  name={footSwitch.label}
                  onRename={(label) =>
                    attempt(editAnatomy.setSwitch(anatomy, footSwitch.id, { label }), 'Foot switches')
                  }
                />
                <td>
                  <CellSelect
                    label={`What ${footSwitch.label} moves`}
                    value={control}
                    placeholder={action === undefined ? 'nothing' : 'a contact'}
                    choices={moved}
                    onPick={(picked) =>
                      edit(editAnatomy.setSwitch(anatomy, footSwitch.id, { control: picked }), 'Foot switches')
                    }
                  />
                </td>
                <td>
                  {anatomy.controls.find(({ id }) => id === control)?.domain.kind === 'switch' && (
                    <LinkButton
                      aria-pressed={anatomy.ownSwitch === control}
                      onClick={() =>
                        edit(
                          editAnatomy.setOwnSwitch(anatomy, anatomy.ownSwitch === control ? undefined : control),
                          'Foot switches',
                        )
                      }
                    >
                      {anatomy.ownSwitch === control ? 'yes' : 'no'}
                    </LinkButton>
                  )}
                </td>
                <RemoveCell
                  label={`the foot switch ${footSwitch.label}`}
                  onRemove={() => edit(editAnatomy.removeSwitch(anatomy, footSwitch.id), 'Foot switches')}
                />
              </tr>
            );
          })}
        </DataTable>
      </div>
    </section>
  );
}

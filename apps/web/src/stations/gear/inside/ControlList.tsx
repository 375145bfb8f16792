import { TextInput } from '@mantine/core';
import {
  type Control,
  domainLabel,
  domainTyped,
  domainValues,
  domainWords,
  editAnatomy,
  type Owner,
  type PowerUp,
  scopeWords,
} from '@yunta/core';
import { useState } from 'react';
import { CellSelect } from '../../../ui/CellSelect.tsx';
import { DataTable } from '../../../ui/DataTable.tsx';
import { InlineField } from '../../../ui/InlineField.tsx';
import { LineForm } from '../../../ui/LineForm.tsx';
import { ownerWords } from '../gear-words.ts';
import { NameCell, NewName, RemoveCell } from './cells.tsx';
import type { Inside } from './use-inside.ts';

const badValues = 'Values with commas between them, such as off, on or low, mid, high; or a range such as 0 to 127.';
const weights = { none: 'nothing else', channel: 'the channel', mute: 'a mute', level: 'the level' } as const;

/** What can be set on the device, and what it may be. */
export function ControlList(inside: Inside) {
  const { anatomy, edit } = inside;
  const [name, setName] = useState('');
  const [values, setValues] = useState('off, on');
  const [refused, setRefused] = useState<string | null>(null);
  const add = () => {
    const domain = domainTyped(values);
    if (!domain) return setRefused(badValues);
    if (name.trim() === '') return;
    setRefused(null);
    edit(editAnatomy.addControl(anatomy, name.trim(), domain), 'Controls');
    setName('');
  };
  return (
    <section aria-label="Controls">
      <h2>Controls</h2>
      <div className="sheet">
        <LineForm does="Add control" onAdd={add}>
          <NewName what="control" placeholder="Mode" value={name} onType={setName} />
          <TextInput
            className="grow"
            aria-label="Values of the new control"
            error={refused}
            value={values}
            onChange={(event) => {
              setValues(event.currentTarget.value);
              setRefused(null);
            }}
          />
        </LineForm>
        <div style={{ overflowX: 'auto' }}>
          <DataTable
            label="Controls"
            columns={[
              { head: 'Name' },
              { head: 'May be' },
              { head: 'Kept by' },
              { head: 'After power-up' },
              { head: 'Set by' },
              { head: 'Decides' },
              { head: 'Contact' },
              { head: '' },
            ]}
          >
            {anatomy.controls.map((control) => (
              <ControlRow key={control.id} control={control} inside={inside} />
            ))}
          </DataTable>
        </div>
      </div>
    </section>
  );
}

function ControlRow({ control, inside }: { readonly control: Control; readonly inside: Inside }) {
  const { anatomy, attempt, edit } = inside;
  const name = control.label;
  const set = (change: Parameters<typeof editAnatomy.setControl>[2]) =>
    edit(editAnatomy.setControl(anatomy, control.id, change), 'Controls');
  const contacts = anatomy.jacks.filter((jack) => jack.kind === 'contact-in');
  return (
    <tr>
      <NameCell
        what="control"
        name={name}
        onRename={(label) => attempt(editAnatomy.setControl(anatomy, control.id, { label }), 'Controls')}
      />
      <td>
        <InlineField
          label={`What ${name} may be`}
          value={domainWords(control)}
          maxLength={2_000}
          onCommit={(typed) => {
            const domain = domainTyped(typed);
            return domain ? attempt(editAnatomy.setDomain(anatomy, control.id, domain), 'Controls') : badValues;
          }}
        />
      </td>
      <td>
        <CellSelect
          label={`What keeps ${name}`}
          value={control.scope}
          choices={(Object.keys(scopeWords) as Control['scope'][])
            .filter((scope) => scope !== 'preset' || anatomy.presets !== undefined)
            .map((scope) => ({ value: scope, label: scopeWords[scope] }))}
          onPick={(scope) => set({ scope: scope as Control['scope'] })}
        />
      </td>
      <td>
        <CellSelect
          label={`${name} after power-up`}
          value={control.powerUp.is === 'value' ? `=${control.powerUp.value}` : control.powerUp.is}
          choices={powerUpChoices(control)}
          onPick={(picked) => set({ powerUp: powerUpPicked(control, picked) })}
        />
      </td>
      <td>
        <CellSelect
          label={`Who sets ${name}`}
          value={control.owner}
          choices={(Object.keys(ownerWords) as Owner[]).map((owner) => ({ value: owner, label: ownerWords[owner] }))}
          onPick={(owner) => set({ owner: owner as Owner })}
        />
      </td>
      <td>
        <CellSelect
          label={`What ${name} decides`}
          value={control.weight ?? 'none'}
          choices={Object.entries(weights).map(([value, label]) => ({ value, label }))}
          onPick={(weight) => set({ weight: weight === 'none' ? undefined : (weight as Control['weight']) })}
        />
      </td>
      <td>
        {contacts.length > 0 && (
          <CellSelect
            label={`Contact that sets ${name}`}
            value={control.contacts?.inputs[0] ?? ''}
            choices={[{ value: '', label: 'none' }, ...contacts.map(({ id, label }) => ({ value: id, label }))]}
            onPick={(jack) =>
              edit(editAnatomy.setContact(anatomy, control.id, jack === '' ? undefined : jack), 'Controls')
            }
          />
        )}
      </td>
      <RemoveCell
        label={`the control ${name}`}
        onRemove={() => edit(editAnatomy.removeControl(anatomy, control.id), 'Controls')}
      />
    </tr>
  );
}

/** Each value where they are few, its two ends where it is a range; as it was left; anything. */
function powerUpChoices({ domain, powerUp }: Control) {
  const ends = domain.kind === 'range' ? [domain.min, domain.max] : domainValues(domain);
  const values = powerUp.is === 'value' ? [...new Set([...ends, powerUp.value])] : ends;
  return [
    ...values.map((value) => ({ value: `=${value}`, label: domainLabel(domain, value) })),
    { value: 'last-state', label: 'as it was left' },
    { value: 'any', label: 'nobody knows' },
  ];
}

function powerUpPicked({ domain }: Control, picked: string): PowerUp {
  if (picked === 'last-state' || picked === 'any') return { is: picked };
  const value = domainValues(domain).find((each) => `=${each}` === picked);
  return value === undefined ? { is: 'any' } : { is: 'value', value };
}

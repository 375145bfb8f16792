import { Button, Checkbox } from '@mantine/core';
import { type Anatomy, editAnatomy, modeWords, repeatWords } from '@yunta/core';
import { CellSelect } from '../../../ui/CellSelect.tsx';
import { DataTable } from '../../../ui/DataTable.tsx';
import { InlineField } from '../../../ui/InlineField.tsx';
import { LineForm } from '../../../ui/LineForm.tsx';
import { LinkButton } from '../../../ui/LinkButton.tsx';
import { IntegerField } from '../IntegerField.tsx';
import { RemoveCell } from './cells.tsx';
import type { Inside } from './use-inside.ts';

type Mode = keyof typeof modeWords;
const always = '';

/** The control changes that it answers to, and its presets. */
export function MessageList(inside: Inside) {
  const { anatomy, attempt, edit } = inside;
  const controls = [
    ...anatomy.controls.map(({ id, label }) => ({ value: id, label })),
    ...(anatomy.presets ? [{ value: 'preset', label: 'the preset' }] : []),
  ];
  return (
    <section aria-label="Messages">
      <h2>Messages</h2>
      <div className="sheet">
        <LineForm
          does="Add message"
          onAdd={() => controls[0] && edit(editAnatomy.addMessage(anatomy, controls[0].value), 'Messages')}
        >
          <span className="grow soft">Control changes that it answers to. A program change recalls a preset.</span>
        </LineForm>
        {anatomy.messages.length > 0 && (
          <DataTable
            label="Messages"
            columns={[
              { head: 'CC', width: 56 },
              { head: 'Moves' },
              { head: 'How' },
              { head: 'Only while' },
              { head: '' },
            ]}
          >
            {anatomy.messages.map((message, at) => {
              const said = `CC ${message.cc}`;
              return (
                <tr key={at}>
                  <td>
                    <InlineField
                      label={`Number of ${said}`}
                      value={String(message.cc)}
                      look="mono"
                      maxLength={3}
                      onCommit={(typed) =>
                        /^\d{1,3}$/.test(typed) && Number(typed) <= 127
                          ? attempt(editAnatomy.setMessage(anatomy, at, { cc: Number(typed) }), 'Messages')
                          : 'A number from 0 to 127.'
                      }
                    />
                  </td>
                  <td>
                    <CellSelect
                      label={`What ${said} moves`}
                      value={message.control}
                      choices={controls}
                      onPick={(control) =>
                        edit(
                          editAnatomy.addMessage(editAnatomy.removeMessage(anatomy, at), control, message.cc),
                          'Messages',
                        )
                      }
                    />
                  </td>
                  <td>
                    <CellSelect
                      label={`How ${said} moves it`}
                      value={message.mode}
                      choices={(Object.keys(modeWords) as Mode[]).map((mode) => ({
                        value: mode,
                        label: modeWords[mode],
                      }))}
                      onPick={(mode) =>
                        edit(
                          editAnatomy.setMessage(anatomy, at, {
                            mode: mode as Mode,
                            ...(mode === 'next' ? { by: 1, wrap: true } : { by: undefined, wrap: undefined }),
                          }),
                          'Messages',
                        )
                      }
                    />
                  </td>
                  <td>
                    <ArmedBy inside={inside} at={at} />
                  </td>
                  <RemoveCell label={said} onRemove={() => edit(editAnatomy.removeMessage(anatomy, at), 'Messages')} />
                </tr>
              );
            })}
          </DataTable>
        )}
        <Presets {...inside} />
      </div>
    </section>
  );
}

/** A message may work only while a switch is on, or off. */
function ArmedBy({ inside: { anatomy, edit }, at }: { readonly inside: Inside; readonly at: number }) {
  const { armed, cc } = anatomy.messages[at];
  const switches = anatomy.controls.filter(({ domain }) => domain.kind === 'switch');
  return (
    <CellSelect
      label={`When CC ${cc} works`}
      value={armed ? `${armed.control} ${armed.values.join()}` : always}
      choices={[
        { value: always, label: 'always' },
        ...switches.flatMap(({ id, label }) => [
          { value: `${id} 1`, label: `${label} is on` },
          { value: `${id} 0`, label: `${label} is off` },
        ]),
      ]}
      onPick={(picked) => {
        const [control, value] = picked.split(' ');
        edit(
          editAnatomy.setMessage(anatomy, at, {
            armed: picked === always ? undefined : { control, values: [Number(value)] },
          }),
          'Messages',
        );
      }}
    />
  );
}

const schemes = { none: 'none', msb: 'MSB (CC 0)', lsb: 'LSB (CC 32)', both: 'both' } as const;
type Presets = NonNullable<Anatomy['presets']>;

function Presets({ anatomy, edit }: Inside) {
  const { presets } = anatomy;
  if (!presets)
    return (
      <div style={{ padding: 8 }}>
        <Button
          variant="default"
          onClick={() => edit(editAnatomy.setPresets(anatomy, editAnatomy.typicalPresets), 'Presets')}
        >
          It stores presets
        </Button>
      </div>
    );
  const set = (change: Partial<Presets>) => edit(editAnatomy.setPresets(anatomy, { ...presets, ...change }), 'Presets');
  const numbers = 'list' in presets.numbers ? null : presets.numbers;
  return (
    <fieldset
      style={{ display: 'flex', flexWrap: 'wrap', gap: 12, alignItems: 'end', border: 0, padding: 10, margin: 0 }}
    >
      <legend className="visually-hidden">Presets</legend>
      {numbers && (
        <IntegerField
          label="Presets"
          min={1}
          max={16_384}
          value={numbers.count}
          onCommit={(count) => set({ numbers: { ...numbers, count } })}
        />
      )}
      <label className="soft">
        Bank select{' '}
        <CellSelect
          bordered
          label="Bank select"
          value={presets.scheme}
          choices={Object.entries(schemes).map(([value, label]) => ({ value, label }))}
          onPick={(scheme) => set({ scheme: scheme as Presets['scheme'] })}
        />
      </label>
      <label className="soft">
        A repeated recall{' '}
        <CellSelect
          bordered
          label="A repeated recall"
          value={presets.repeat.is}
          choices={(['reload', 'ignored', 'alternates'] as const).map((is) => ({ value: is, label: repeatWords[is] }))}
          onPick={(is) => set({ repeat: { is: is as 'reload' } })}
        />
      </label>
      <Checkbox
        label="Remembers its bank"
        checked={presets.sticky}
        onChange={(event) => set({ sticky: event.currentTarget.checked })}
      />
      <LinkButton onClick={() => edit(editAnatomy.setPresets(anatomy, undefined), 'Presets')}>No presets</LinkButton>
    </fieldset>
  );
}

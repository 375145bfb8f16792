import { TextInput } from '@mantine/core';
import { commands, type Device, type NoteValue, noteValues, noteWords, type StoredPreset } from '@yunta/core';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { useShow } from '../../api/rig.tsx';
import { CellSelect } from '../../ui/CellSelect.tsx';
import { InlineField } from '../../ui/InlineField.tsx';
import { LinkButton } from '../../ui/LinkButton.tsx';

/** What is known of what the device stores: names and values by panel number. What is not entered counts as unknown. */
export function StoredPresets({ device }: { readonly device: Device }) {
  const { show, run, wiring, attempt, id: rig, selectDevice } = useShow();
  const [typed, setTyped] = useState('');
  const [reason, setReason] = useState<string | null>(null);
  const navigate = useNavigate();
  const stored = wiring.device.get(device.id)!.anatomy.controls.filter((control) => control.scope === 'preset');
  const numbers = Object.keys(device.presets)
    .map(Number)
    .sort((a, b) => a - b);
  const edit = (number: number, preset: StoredPreset | null) => commands.setPreset(show, device.id, number, preset);
  const set = (number: number, preset: StoredPreset | null) => run(edit(number, preset));
  const add = () => {
    const panel = Number(typed);
    if (!Number.isInteger(panel) || typed.trim() === '' || panel < device.firstPresetNumber)
      return setReason(
        `“${typed}” is not a preset number of ${device.name}: its panel counts from ${device.firstPresetNumber}.`,
      );
    setReason(null);
    const wire = String(panel - device.firstPresetNumber);
    if (!(wire in device.presets)) set(Number(wire), { values: {} });
    setTyped('');
  };
  const toTable = (
    <LinkButton
      onClick={() => {
        selectDevice(null);
        void navigate(`/rig/${rig}/gear?presets=${encodeURIComponent(device.id)}`);
      }}
    >
      Edit presets as a table
    </LinkButton>
  );
  if (stored.length > mostBeside)
    return (
      <fieldset>
        <legend>Stored presets, as far as known</legend>
        <p style={{ margin: 0 }}>
          {numbers.length === 0 ? 'None is entered yet.' : `${numbers.length} entered.`} Each holds {stored.length}{' '}
          things.
        </p>
        {toTable}
      </fieldset>
    );
  return (
    <fieldset>
      <legend>Stored presets, as far as known</legend>
      {numbers.map((number) => {
        const preset = device.presets[String(number)];
        const panel = number + device.firstPresetNumber;
        return (
          <div key={number} className="preset">
            <span className="mono" title={`sent as ${number}`}>
              {panel}
            </span>
            <InlineField
              label={`Name of preset ${panel}`}
              value={preset.name ?? ''}
              placeholder="name"
              onCommit={(name) => attempt(edit(number, { ...preset, name }))}
            />
            {stored.map((control) => (
              <InlineField
                key={control.id}
                look="mono"
                label={`${control.label} of preset ${panel}`}
                value={
                  preset.values[control.id] === undefined || preset.values[control.id] === null
                    ? ''
                    : String(preset.values[control.id])
                }
                placeholder={`${control.label.toLowerCase()} ?`}
                onCommit={(value) => {
                  const asNumber = Number(value);
                  const stored = value === '' ? null : Number.isNaN(asNumber) ? value : asNumber;
                  return attempt(edit(number, { ...preset, values: { ...preset.values, [control.id]: stored } }));
                }}
              />
            ))}
            <CellSelect
              label={`Note value of preset ${panel}`}
              value={preset.sync ?? ''}
              choices={[
                { value: '', label: 'not synced' },
                ...(Object.keys(noteValues) as NoteValue[]).map((note) => ({ value: note, label: noteWords[note] })),
              ]}
              onPick={(note) => set(number, withSync(preset, note))}
            />
            <LinkButton aria-label={`Forget preset ${panel}`} onClick={() => set(number, null)}>
              ×
            </LinkButton>
          </div>
        );
      })}
      <form
        style={{ display: 'flex', gap: 6 }}
        onSubmit={(event) => {
          event.preventDefault();
          add();
        }}
      >
        <TextInput
          style={{ flex: 1 }}
          error={reason}
          aria-label="Preset number as its panel shows it"
          placeholder="panel number"
          value={typed}
          onChange={(event) => setTyped(event.currentTarget.value)}
        />
        <LinkButton type="submit">Add</LinkButton>
      </form>
      {toTable}
    </fieldset>
  );
}

/** What stores more is entered in a table of its own. */
const mostBeside = 3;

function withSync({ sync: _, ...preset }: StoredPreset, note: string): StoredPreset {
  return note === '' ? preset : { ...preset, sync: note as NoteValue };
}

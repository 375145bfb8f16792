import { commands, type Device, type NoteValue, noteValues, noteWords, type StoredPreset } from '@yunta/core';
import { useState } from 'react';
import { useShow } from '../../api/rig.tsx';
import { EditableText } from '../../ui/EditableText.tsx';

/** What is known of what the device stores: names and values by panel number. What is not entered counts as unknown. */
export function StoredPresets({ device }: { readonly device: Device }) {
  const { show, run, wiring, store } = useShow();
  const [typed, setTyped] = useState('');
  const stored = wiring.device.get(device.id)!.anatomy.controls.filter((control) => control.scope === 'preset');
  const numbers = Object.keys(device.presets)
    .map(Number)
    .sort((a, b) => a - b);
  const set = (number: number, preset: StoredPreset | null) => run(commands.setPreset(show, device.id, number, preset));
  const add = () => {
    const panel = Number(typed);
    if (!Number.isInteger(panel) || typed.trim() === '' || panel < device.firstPresetNumber)
      return store.refuse(
        `“${typed}” is not a preset number of ${device.name}: its panel counts from ${device.firstPresetNumber}.`,
      );
    const wire = String(panel - device.firstPresetNumber);
    if (!(wire in device.presets)) set(Number(wire), { values: {} });
    setTyped('');
  };
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
            <EditableText
              label={`Name of preset ${panel}`}
              value={preset.name ?? ''}
              placeholder="name"
              onCommit={(name) => set(number, { ...preset, name })}
            />
            {stored.map((control) => (
              <EditableText
                key={control.id}
                className="cellinput mono"
                label={`${control.label} of preset ${panel}`}
                value={
                  preset.values[control.id] === undefined || preset.values[control.id] === null
                    ? ''
                    : String(preset.values[control.id])
                }
                placeholder={`${control.label.toLowerCase()} ?`}
                onCommit={(value) => {
                  const number_ = Number(value);
                  set(number, {
                    ...preset,
                    values: {
                      ...preset.values,
                      [control.id]: value === '' ? null : Number.isNaN(number_) ? value : number_,
                    },
                  });
                }}
              />
            ))}
            <select
              className="cellinput"
              aria-label={`SetEvent of preset ${panel}`}
              value={preset.sync ?? ''}
              onChange={(event) => set(number, withSync(preset, event.target.value))}
            >
              <option value="">not synced</option>
              {(Object.keys(noteValues) as NoteValue[]).map((note) => (
                <option key={note} value={note}>
                  {noteWords[note]}
                </option>
              ))}
            </select>
            <button className="linkish" aria-label={`Forget preset ${panel}`} onClick={() => set(number, null)}>
              ×
            </button>
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
        <input
          className="cellinput"
          style={{ border: '1px solid var(--line)' }}
          aria-label="Preset number as its panel shows it"
          placeholder="panel number"
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
        />
        <button className="linkish" type="submit">
          Add
        </button>
      </form>
    </fieldset>
  );
}

function withSync({ sync: _, ...preset }: StoredPreset, note: string): StoredPreset {
  return note === '' ? preset : { ...preset, sync: note as NoteValue };
}

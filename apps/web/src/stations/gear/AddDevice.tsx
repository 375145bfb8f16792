import { Autocomplete, Button } from '@mantine/core';
import { type CatalogueEntry, combine, type Command, commands, findTypes, type Show } from '@yunta/core';
import { useRef, useState } from 'react';
import { useShow } from '../../api/rig.tsx';
import { freshId, freshName } from '../../ui/ids.ts';
import { onPasteLines } from '../../ui/pasted-lines.ts';

/** Adds a generic device by typing any of its words. */
export function AddDevice() {
  const { show, run, selectDevice } = useShow();
  const [typed, setTyped] = useState('');
  const found = findTypes(typed);
  /** What no type fits; empty: the line that stands there. */
  const [missed, setMissed] = useState<string | null>(null);
  /** The field puts a chosen name into itself afterwards: not a thing that anybody typed. */
  const chosen = useRef<string | null>(null);
  const add = (entry: CatalogueEntry | undefined) => {
    if (!entry) return setMissed('');
    const { id, command } = adding(show, entry);
    if (!run(command)) return;
    selectDevice(id);
    setTyped('');
    setMissed(null);
  };
  /** A pasted column: all of it, or none with the lines that no type fits. */
  const addLines = (lines: readonly string[]) => {
    const entries = lines.map((line) => findTypes(line)[0] as CatalogueEntry | undefined);
    const unknown = lines.filter((_, i) => !entries[i]);
    if (unknown.length > 0) return setMissed(unknown.slice(0, 5).join(', '));
    const facts = { count: lines.length, what: 'devices' };
    const makes = entries.map((entry) => (now: Show) => adding(now, entry!).command);
    if (run(combine(show, { name: 'add-several', facts }, makes))) setMissed(null);
  };
  return (
    <form
      className="addline sheet"
      onSubmit={(event) => {
        event.preventDefault();
        add(typed.trim() === '' ? undefined : (found.find((entry) => entry.type.name === typed) ?? found[0]));
      }}
    >
      <Autocomplete
        className="grow"
        aria-label="Add a device"
        placeholder="Add a device: drive, delay, switcher, valve amp …"
        value={typed}
        onChange={(value) => {
          setTyped(value === chosen.current ? '' : value);
          chosen.current = null;
          setMissed(null);
        }}
        openOnFocus={false}
        onPaste={onPasteLines(addLines)}
        data={found.map((entry) => entry.type.name)}
        filter={({ options }) => options}
        limit={12}
        error={
          missed === null
            ? undefined
            : missed === ''
              ? 'No generic type has these words. Try: guitar, drive, delay, switcher, amp, cabinet.'
              : `Nothing was added: no generic type fits ${missed}.`
        }
        onOptionSubmit={(name) => {
          chosen.current = name;
          add(found.find((entry) => entry.type.name === name));
        }}
        selectFirstOptionOnChange
        comboboxProps={{ shadow: 'none' }}
      />
      <Button type="submit">Add device</Button>
    </form>
  );
}

/** A device of a type, under a name and an id that are free. */
function adding({ rig, songbook }: Show, entry: CatalogueEntry): { readonly id: string; readonly command: Command } {
  const devices = Object.values(rig.devices);
  const name = freshName(
    plainName(entry),
    devices.map((device) => device.name),
  );
  const id = freshId(name, rig.devices, 'device');
  const place = rig.places[entry.place] ? entry.place : (Object.keys(rig.places)[0] ?? 'board');
  const facts = entry.listens ? { channel: freeChannel(devices.map((device) => device.channel)) } : {};
  return { id, command: commands.addDevice({ rig, songbook }, id, entry.type, name, place, facts) };
}

/** `Loop switcher, 10 loops` is called *Loop switcher* on the rig. */
const plainName = (entry: CatalogueEntry): string => entry.type.name.split(',')[0];

function freeChannel(taken: readonly (number | 'omni' | null)[]): number {
  return Array.from({ length: 16 }, (_, i) => i + 1).find((channel) => !taken.includes(channel)) ?? 1;
}

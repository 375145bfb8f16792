import { Autocomplete, Button } from '@mantine/core';
import { type CatalogueEntry, commands, findTypes } from '@yunta/core';
import { useRef, useState } from 'react';
import { useShow } from '../../api/rig.tsx';
import { freshId, freshName } from '../../ui/ids.ts';

/** Adds a generic device by typing any of its words. */
export function AddDevice() {
  const { show, run, wiring, selectDevice } = useShow();
  const [typed, setTyped] = useState('');
  const found = findTypes(typed);
  const [missed, setMissed] = useState(false);
  /** The field puts a chosen name into itself afterwards: not a thing that anybody typed. */
  const chosen = useRef<string | null>(null);
  const add = (entry: CatalogueEntry | undefined) => {
    if (!entry) return setMissed(true);
    const name = freshName(
      plainName(entry),
      wiring.devices.map((wired) => wired.device.name),
    );
    const id = freshId(name, show.rig.devices, 'device');
    const place = show.rig.places[entry.place] ? entry.place : (Object.keys(show.rig.places)[0] ?? 'board');
    if (
      !run(
        commands.addDevice(
          show,
          id,
          entry.type,
          name,
          place,
          entry.listens ? { channel: freeChannel(wiring.devices.map((wired) => wired.device.channel)) } : {},
        ),
      )
    )
      return;
    selectDevice(id);
    setTyped('');
    setMissed(false);
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
          setMissed(false);
        }}
        data={found.map((entry) => entry.type.name)}
        filter={({ options }) => options}
        limit={12}
        error={
          missed ? 'No generic type has these words. Try: guitar, drive, delay, switcher, amp, cabinet.' : undefined
        }
        onOptionSubmit={(name) => {
          chosen.current = name;
          add(found.find((entry) => entry.type.name === name));
        }}
        selectFirstOptionOnChange
        comboboxProps={{ shadow: 'none' }}
      />
      <Button type="submit" variant="default">
        Add device
      </Button>
    </form>
  );
}

/** `Loop switcher, 10 loops` is called *Loop switcher* on the rig. */
const plainName = (entry: CatalogueEntry): string => entry.type.name.split(',')[0];

function freeChannel(taken: readonly (number | 'omni' | null)[]): number {
  return Array.from({ length: 16 }, (_, i) => i + 1).find((channel) => !taken.includes(channel)) ?? 1;
}

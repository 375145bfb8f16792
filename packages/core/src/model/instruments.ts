import type { Show } from './documents.ts';
import type { Part } from './songbook.ts';
import type { WiredDevice, Wiring } from './wiring.ts';

/** The rig's own sources: instruments, microphones. */
export const instrumentsOf = (wiring: Wiring): readonly WiredDevice[] =>
  wiring.devices.filter(({ anatomy }) => anatomy.source !== undefined);

/** What a part is played on: its own instrument where it has one, else its song's. */
export const instrumentOfPart = ({ songbook }: Show, part: Part): string | undefined =>
  part.instrument ?? songbook.songs[part.song]?.instrument;

/**
 * The instrument of the rig that a name means; undefined where none is called so. Where there is only one, whatever a
 * song is played on is plugged in there.
 */
export function instrumentNamed(wiring: Wiring, name: string): WiredDevice | undefined {
  const instruments = instrumentsOf(wiring);
  if (instruments.length === 1) return instruments[0];
  const said = name.trim().toLowerCase();
  return instruments.find(({ device }) => device.name.toLowerCase() === said);
}

/** The jacks that an instrument is plugged into: *Selector A*; empty where it hangs in the air. */
export const inputsOf = (wiring: Wiring, instrument: string): readonly string[] =>
  wiring.signalCables.flatMap(({ plugs }) =>
    plugs.some((plug) => plug.device === instrument)
      ? plugs.flatMap(({ device, jack }) => {
          const wired = wiring.device.get(device);
          return device === instrument || !wired ? [] : [`${wired.device.name} ${wired.jack.get(jack)?.label ?? jack}`];
        })
      : [],
  );

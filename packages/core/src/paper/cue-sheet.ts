import { castOf, type Show, splitRef } from '../model/documents.ts';
import { controlLabel, valueLabel } from '../model/labels.ts';
import { chosenSetList, partsInSetOrder } from '../model/set-order.ts';
import { slotLabel } from '../model/slots.ts';
import { ownerOf, type Wiring } from '../model/wiring.ts';
import type { Sheet, SheetLine } from './sheet.ts';

/** What hands and feet do tonight: part by part in set order. */
export function cueSheet(show: Show, wiring: Wiring): Sheet {
  const { songbook, rig } = show;
  const parts = partsInSetOrder(show).map((id) => songbook.parts[id]);
  const songs = [...new Set(parts.map((part) => part.song))].map((id) => songbook.songs[id]);
  const list = chosenSetList(show);
  return {
    title: 'Cue sheet',
    about: [rig.name, list?.name].filter(Boolean).join(', '),
    look: 'cues',
    columns: ['Part', 'Bars', 'Press', 'Sound', 'Feet', 'Hands'],
    groups: songs.map((song, i) => ({
      heading: [
        `${i + 1}. ${song.name}`,
        song.tempo === null ? 'no tempo' : `${song.tempo} BPM`,
        song.meter ? `${song.meter.beats}/${song.meter.unit}` : undefined,
        song.instrument,
        song.tuning,
      ]
        .filter(Boolean)
        .join(' · '),
      lines: parts
        .filter((part) => part.song === song.id)
        .map((part): SheetLine => {
          const cast = castOf(rig, part.id);
          const slot = cast && rig.slots[cast.slot];
          const sound = slot?.sound ? rig.sounds[slot.sound] : undefined;
          const actions = [...(cast?.before ?? []), ...(cast?.after ?? [])];
          const feet = actions.flatMap((action) =>
            action.kind === 'foot'
              ? [
                  `${wiring.device.get(action.device)?.device.name}: ${wiring.device.get(action.device)?.anatomy.switches.find((footSwitch) => footSwitch.id === action.switch)?.label ?? action.switch}`,
                ]
              : [],
          );
          const written = actions.flatMap((action) =>
            action.kind === 'cue' ? [cueLabel(wiring, action.control, action.value)] : [],
          );
          const hands = [...written, ...(sound ? handCues(wiring, sound.wants) : [])];
          const change = [part.instrument, part.tuning].filter(Boolean).join(', ');
          return {
            id: `part/${part.id}`,
            cells: [
              part.name,
              part.bars === undefined ? '' : String(part.bars),
              slot ? slotLabel(slot) : part.silent ? 'silent' : '—',
              sound?.name ?? '',
              feet.join(', '),
              [change, ...new Set(hands)].filter(Boolean).join(', '),
            ],
          };
        }),
    })),
    notes: [],
  };
}

/** What a sound asks of the hands. */
const handCues = (wiring: Wiring, wants: Readonly<Record<string, string | number>>): string[] =>
  Object.entries(wants).flatMap(([ref, value]) => {
    const { device, control } = splitRef(ref);
    const wired = wiring.device.get(device);
    const own = wired?.control.get(control);
    return wired && own && ownerOf(wired, own) !== 'programmed' ? [cueLabel(wiring, ref, value)] : [];
  });

/** “Guitar selector neck”: a cue as hands are told it. */
export const cueLabel = (wiring: Wiring, ref: string, value: string | number): string =>
  `${controlLabel(wiring, ref)} ${valueLabel(wiring, ref, value)}`;

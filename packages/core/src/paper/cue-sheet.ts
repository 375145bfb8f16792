import { type Moment, moments, slotOfCast, soundOfCast } from '../model/casting.ts';
import { castOf, type Show, splitRef } from '../model/documents.ts';
import { inputsOf, instrumentNamed, instrumentOfPart, instrumentsOf } from '../model/instruments.ts';
import type { Part } from '../model/songbook.ts';
import { actionLabel, cueLabel } from '../model/labels.ts';
import type { CastAction, ControlRef } from '../model/rig.ts';
import { chosenSetList, partsInSetOrder } from '../model/set-order.ts';
import { slotLabel, slotPlace } from '../model/slots.ts';
import { ownerOf, type Wiring } from '../model/wiring.ts';
import type { Sheet, SheetLine } from './sheet.ts';

/** What is done for a part, in time: before its bar line, on it, after it. */
export interface PartSteps {
  readonly part: string;
  readonly steps: readonly { readonly when: Moment; readonly action: CastAction | null }[];
  /** Of a part that feet and hands bring up: whether they do. */
  readonly judgement: { readonly verdict: string } | null;
}

/** What brings a sound up whatever came before; `steps` null where one has to look. */
export interface SoundReset {
  readonly sound: string;
  readonly steps: readonly ({ readonly slot: string } | CastAction)[] | null;
  readonly lookAt: readonly ControlRef[];
  readonly isUnknown: boolean;
}

/**
 * What hands and feet do tonight: part by part in set order. `played`: the set as it is played; `resets`: how to be
 * sure of the sounds that feet and hands bring up.
 */
export function cueSheet(
  show: Show,
  wiring: Wiring,
  played: readonly PartSteps[],
  resets: readonly SoundReset[] = [],
): Sheet {
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
        song.instrument && playedOnWords(wiring, song.instrument),
        song.tuning,
      ]
        .filter(Boolean)
        .join(' · '),
      lines: parts
        .filter((part) => part.song === song.id)
        .map((part): SheetLine => {
          const cast = castOf(rig, part.id);
          const slot = cast && slotOfCast(rig, cast);
          const sound = cast && soundOfCast(rig, cast);
          const steps = played.find((other) => other.part === part.id);
          const byFeet = !slot && sound !== undefined;
          const done = (kind: CastAction['kind']): string[] =>
            moments.flatMap((when) => {
              const labels = (steps?.steps ?? []).flatMap((event) =>
                event.when === when && event.action?.kind === kind ? [actionLabel(wiring, event.action)] : [],
              );
              if (labels.length === 0) return [];
              // Of what is done beside a slot's press, only what comes after it is told apart.
              return when === 'before' && !byFeet ? labels : [`${when}: ${labels.join(', ')}`];
            });
          const isDone = !byFeet || steps?.judgement?.verdict === 'recalls';
          const feet = [...(isDone ? [] : ['nothing brings it up for certain']), ...done('foot')];
          const hands = [
            ...done('cue'),
            ...(sound && !byFeet ? handCues(wiring, sound.wants, notPlayed(show, wiring, part)) : []),
          ];
          const change = [part.instrument && playedOnWords(wiring, part.instrument), part.tuning]
            .filter(Boolean)
            .join(', ');
          return {
            id: `part/${part.id}`,
            cells: [
              part.name,
              part.bars === undefined ? '' : String(part.bars),
              slot ? slotLabel(slot) : byFeet ? 'by feet' : part.silent ? 'silent' : '—',
              sound?.name ?? '',
              feet.join(', '),
              [change, ...new Set(hands)].filter(Boolean).join(', '),
            ],
          };
        }),
    })),
    notes: resets.flatMap((reset) => resetNote(show, wiring, reset)),
  };
}

/** “To be sure of Clear: Preset down, then Preset down.” Nothing where nothing can go wrong. */
const resetNote = (show: Show, wiring: Wiring, reset: SoundReset): string[] =>
  reset.steps?.length === 0
    ? []
    : [`To be sure of ${show.rig.sounds[reset.sound].name}: ${resetWords(show, wiring, reset)}.`];

/** What brings a sound up whatever came before; what to look at where nothing does. */
export function resetWords(
  { rig }: Show,
  wiring: Wiring,
  { steps, lookAt, isUnknown }: Omit<SoundReset, 'sound'>,
): string {
  if (isUnknown) return 'not known: too much to try, or contents that nobody entered';
  if (!steps) {
    const pieces = [...new Set(lookAt.map((ref) => wiring.device.get(splitRef(ref).device)?.device.name ?? ref))];
    return pieces.length > 0 ? `look at ${pieces.join(', ')}: no press sets it` : 'look: no press sets it';
  }
  if (steps.length === 0) return 'nothing to do: it cannot be wrong';
  return steps
    .map((step) => ('slot' in step ? slotPlace(rig.slots[step.slot]) : actionLabel(wiring, step)))
    .join(', then ');
}

/** “Acoustic (Selector In B)” where there are several inputs; else its name. */
export function playedOnWords(wiring: Wiring, name: string): string {
  const wired = instrumentsOf(wiring).length > 1 ? instrumentNamed(wiring, name) : undefined;
  const inputs = wired ? inputsOf(wiring, wired.device.id) : [];
  return inputs.length === 0 ? name : `${name} (${inputs.join(', ')})`;
}

/** Instruments that wait while a part is played on another: what a sound asks of their knobs is for other songs. */
function notPlayed(show: Show, wiring: Wiring, part: Part): ReadonlySet<string> {
  const name = instrumentOfPart(show, part);
  const played = name === undefined ? undefined : instrumentNamed(wiring, name);
  return new Set(played ? instrumentsOf(wiring).flatMap((each) => (each === played ? [] : [each.device.id])) : []);
}

/** What a sound asks of the hands, but for devices that wait. */
const handCues = (
  wiring: Wiring,
  wants: Readonly<Record<string, string | number>>,
  waiting: ReadonlySet<string>,
): string[] =>
  Object.entries(wants).flatMap(([ref, value]) => {
    const { device, control } = splitRef(ref);
    if (waiting.has(device)) return [];
    const wired = wiring.device.get(device);
    const own = wired?.control.get(control);
    return wired && own && ownerOf(wired, own) !== 'programmed' ? [cueLabel(wiring, ref, value)] : [];
  });

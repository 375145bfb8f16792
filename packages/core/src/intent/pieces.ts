import { mainJacks } from '../entry/jack-words.ts';
import type { Anatomy, Insert, Jack } from '../model/anatomy.ts';
import type { DeviceIntent, Rig } from '../model/rig.ts';
import type { WiredDevice } from '../model/wiring.ts';

/** What is asked of a piece where loops are given out, said or guessed. */
export type WantedPlace = NonNullable<DeviceIntent['place']> | 'anywhere';
export type Means = NonNullable<DeviceIntent['means']>;

/** A device that the signal goes into and comes out of, by these jacks; an amp's are its input and its send. */
export interface Piece {
  readonly wired: WiredDevice;
  readonly in: string;
  readonly out: string;
  /** A preamp that the line goes through, and its power amp's way in, which is where the line ends. */
  readonly ampReturn: string | null;
}

/** Pieces at the ends of a line, or where it parts or meets: they stay as they are wired. */
const ends = new Set([
  'instrument',
  'receiver',
  'selector',
  'router',
  'splitter',
  'mixer',
  'panel',
  'direct-box',
  'load-box',
  'power-amp',
  'cabinet',
  'line',
]);

/** A device as a piece of the line; null where it is none. */
export function pieceOf(wired: WiredDevice): Piece | null {
  const { anatomy, device } = wired;
  if (anatomy.source !== undefined || anatomy.destination !== undefined) return null;
  if ((anatomy.controller?.loops.length ?? 0) > 0 || ends.has(device.type.archetype)) return null;
  const into = onlyOne(mainJacks(anatomy, 'in', 'signal'));
  if (!into) return null;
  if (isAmp(anatomy)) {
    const insert = anatomy.inserts?.[0];
    return insert ? { wired, in: into.id, out: insert.send, ampReturn: insert.return } : null;
  }
  const out = onlyOne(mainJacks(anatomy, 'out', 'signal').filter(({ speaker }) => !speaker));
  return out ? { wired, in: into.id, out: out.id, ampReturn: null } : null;
}

const isAmp = ({ jacks, sections }: Anatomy): boolean =>
  jacks.some(({ speaker, kind }) => speaker && kind === 'signal-out') && sections.length > 0;

/** The one jack of one side; the right one goes with it. */
function onlyOne(jacks: readonly Jack[]): Jack | undefined {
  const left = jacks.filter(({ twin }) => twin === undefined);
  return left.length === 1 ? left[0] : undefined;
}

/** What can switch a piece, as far as its type tells. */
export function guessedMeans({ wired, ampReturn }: Piece, rig: Rig): Means {
  const { anatomy, device } = wired;
  if (ampReturn !== null) return ['loop'];
  const own = anatomy.ownSwitch;
  const isSwitched = Object.values(rig.sounds).some(({ pedals }) => Object.hasOwn(pedals, device.id));
  if (own === undefined) return isSwitched ? ['loop'] : [];
  const control = wired.control.get(own);
  const hearsMessages = device.channel !== null && anatomy.jacks.some(({ kind }) => kind === 'midi-in');
  const byMessage =
    hearsMessages &&
    (anatomy.messages.some((message) => message.control === own) ||
      (anatomy.presets !== undefined && control?.scope === 'preset'));
  const byFoot = anatomy.switches.some(({ actions }) =>
    actions.some((action) => 'toggle' in action && action.toggle === own),
  );
  return [
    'loop',
    ...(byMessage || control?.contacts ? (['message'] as const) : []),
    ...(byFoot ? (['foot'] as const) : []),
  ];
}

/** Where pieces of a kind mostly stand along the line. */
export function usualPlace({ wired, ampReturn }: Piece, isTimeInFront: boolean): number {
  if (ampReturn !== null) return isTimeInFront ? 12 : 8;
  const { anatomy, device } = wired;
  const { archetype, id } = device.type;
  if (archetype === 'tuner') return 0;
  if (archetype === 'volume-pedal') return 7;
  if (archetype === 'looping-station' || id.startsWith('looper')) return 14;
  if (/wah|filter|octave/.test(id)) return 1;
  if (/fuzz/.test(id)) return 2.5;
  const effect = anatomy.sections.find((section) => section.active && section.effect)?.effect ?? 'other';
  return usual[effect];
}

const usual = {
  pitch: 1,
  compressor: 2,
  drive: 3,
  boost: 4,
  equaliser: 5,
  gate: 6,
  other: 7,
  modulation: 9,
  delay: 10,
  reverb: 11,
  'cabinet-simulation': 13,
} as const;

export const insertOf = ({ anatomy }: WiredDevice): Insert | null => anatomy.inserts?.[0] ?? null;

/** After how many loops the insert of a switcher stands, as its type says; null where it has none. */
export function insertAfter(wired: WiredDevice): number | null {
  if (!insertOf(wired)) return null;
  const said = wired.device.type.params.insertAfter;
  return typeof said === 'number' ? said : (wired.anatomy.controller?.loops.length ?? 0);
}

import type { Plan, SwitchedBy } from '../allocate/plan.ts';
import { type AllocationPiece, type AllocationProblem, out, type Pin, zoneOfLoop } from '../allocate/problem.ts';
import { soundOfCast, castsByPart } from '../model/casting.ts';
import { inOrder, type Show } from '../model/documents.ts';
import { conventionOf, type Sound, type SwitchingMeans } from '../model/rig.ts';
import { partsInSetOrder } from '../model/set-order.ts';
import type { Line, LinePiece } from './line.ts';

/** What may be given up, tried beside what was asked for. */
export interface Changed {
  readonly loops?: number;
  readonly isFrozen?: boolean;
  /** No foot switches anything. */
  readonly withoutFoot?: boolean;
  /** Every piece may be left on. */
  readonly leftOn?: boolean;
  /** A piece is held somewhere else than it is wanted. */
  readonly held?: { readonly piece: string; readonly pin: Pin };
}

/** The sounds that a plan is for: all but those that are to be silent. */
export const plannedSounds = ({ rig }: Show): readonly Sound[] => inOrder(rig.sounds).filter(({ silence }) => !silence);

/** What is asked of a line, as pieces, loops and sounds; pieces are named by their devices, sounds by their ids. */
export function allocationOf(show: Show, line: Line, changed: Changed = {}): AllocationProblem {
  const { rig } = show;
  const pieces = line.pieces.map((piece) => allocationPiece(line, piece, changed));
  const movable = new Set(pieces.flatMap(({ name, line: fixed }) => (fixed === undefined ? [name] : [])));
  const sounds = plannedSounds(show);
  return {
    pieces,
    loops: changed.loops ?? line.loops.length,
    ...(line.taken.length > 0 ? { taken: line.taken } : {}),
    insertAfter: line.insertAfter,
    sounds: sounds.map((sound) => {
      const wanted = [...movable].map((id) => [id, wantedIn(line, sound, id)] as const);
      const all = (state: 'on' | 'off' | 'any') => wanted.flatMap(([id, is]) => (is === state ? [id] : []));
      const off = new Set(all('off'));
      return {
        name: sound.id,
        on: all('on'),
        any: all('any'),
        tolerates: (sound.tolerates ?? []).filter((id) => off.has(id)),
      };
    }),
    set: playedSounds(show),
    isFrozen: changed.isFrozen ?? conventionOf(rig, 'order') === 'as it is wired',
  };
}

/** The sounds of the set in their order; each once where there is no set yet. */
function playedSounds(show: Show): readonly string[] {
  const casts = castsByPart(show.rig);
  const played = partsInSetOrder(show).flatMap((part) => {
    const cast = casts.get(part);
    const sound = cast && soundOfCast(show.rig, cast);
    return sound && !sound.silence ? [sound.id] : [];
  });
  return played.length > 0 ? played : plannedSounds(show).map(({ id }) => id);
}

/** A sound says it; an amp that the line goes through is there where none says otherwise. */
function wantedIn({ pieces }: Line, sound: Sound, device: string): 'on' | 'off' | 'any' {
  const piece = pieces.find(({ id }) => id === device)!;
  const said = (sound.pedals as Readonly<Record<string, 'on' | 'off' | undefined>>)[device];
  if (said !== undefined) return said;
  if (piece.ampReturn !== null) return 'on';
  const own = piece.wired.anatomy.ownSwitch;
  const switched = own === undefined ? undefined : sound.wants[`${device}/${own}`];
  if (switched !== undefined) return switched === 0 ? 'off' : 'on';
  return Object.keys(sound.wants).some((ref) => ref.startsWith(`${device}/`)) ? 'on' : 'any';
}

function allocationPiece(line: Line, piece: LinePiece, changed: Changed): AllocationPiece {
  const { id, now } = piece;
  const isOnAtPowerUp = powersUpOn(piece);
  const held = changed.held?.piece === id ? changed.held.pin : undefined;
  // One that stays as it is wired stands there for good.
  const stays = piece.place === 'kept' && (now === 'front' || now === 'insert' || now === 'after');
  const place = stays ? now : piece.place;
  const means = stays ? [] : meansOf(piece, changed);
  const isInLine = place === 'front' || place === 'after' || (place === 'insert' && line.insertAfter !== null);
  // So do an amp in the insert or with its own loop in line, and a piece that nothing switches.
  if (held === undefined && isInLine && (piece.ampReturn !== null || means.length === 0))
    return { name: id, line: place, means: [], isOnAtPowerUp };
  if (held === undefined && means.length === 0 && place !== 'left out')
    return { name: id, line: 'front', means: [], isOnAtPowerUp };
  const pin = held ?? pinOf(line, place);
  const allowed: readonly SwitchingMeans[] = means.length > 0 ? means : ['always'];
  if (pin === undefined) return { name: id, means: allowed, isOnAtPowerUp };
  // Held where none of its means is any good: a loop has to do, or it is left on.
  const isLoop = pin === 'loop' || typeof pin === 'number';
  const isGood = pin === 'left out' || allowed.some((each) => (each === 'loop') === isLoop);
  return { name: id, means: isGood ? allowed : [...allowed, isLoop ? 'loop' : 'always'], isOnAtPowerUp, pinnedTo: pin };
}

function meansOf({ means, ampReturn }: LinePiece, { withoutFoot, leftOn }: Changed): readonly SwitchingMeans[] {
  const left = means.filter((each) => !(withoutFoot && each === 'foot'));
  const mayBeLeftOn = leftOn && ampReturn === null && means.length > 0 && !means.includes('always');
  return mayBeLeftOn ? [...left, 'always'] : left;
}

function pinOf({ loops, insertAfter }: Line, place: LinePiece['place']): Pin | undefined {
  if (place === 'anywhere' || place === 'kept' || place === 'wet') return undefined;
  if (typeof place === 'number') return place <= loops.length ? place : undefined;
  return place === 'insert' && insertAfter === null ? undefined : place;
}

function powersUpOn({ wired: { device, anatomy, control } }: LinePiece): boolean {
  if (anatomy.ownSwitch === undefined) return true;
  const powerUp = device.powerUps[anatomy.ownSwitch] ?? control.get(anatomy.ownSwitch)?.powerUp;
  return powerUp?.is === 'value' && powerUp.value === 1;
}

/** Today's wiring as a plan of the same problem; what stands nowhere is left out. */
export function planAsWired(line: Line, problem: AllocationProblem): Plan {
  const zones: number[] = [];
  const by: SwitchedBy[] = [];
  const last = problem.loops + (problem.insertAfter === null ? 1 : 2);
  line.pieces.forEach(({ now }, i) => {
    const piece = problem.pieces[i];
    const zone =
      now === 'front'
        ? 0
        : now === 'after'
          ? last
          : now === 'unwired' || now === 'wet'
            ? out
            : now === 'insert'
              ? problem.insertAfter! + 1
              : zoneOfLoop(now.loop, problem.insertAfter);
    const inLine = (['message', 'foot'] as const).find((each) => piece.means.includes(each)) ?? 'always';
    zones.push(zone);
    by.push(piece.line !== undefined ? 'fixed' : typeof now === 'object' ? 'loop' : inLine);
  });
  return { zones, by };
}

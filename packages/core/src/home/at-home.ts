import { combine } from '../change/combine.ts';
import { command, type Command, remove } from '../change/command.ts';
import { connect, removeDevice } from '../change/commands.ts';
import { castsByPart, soundOfCast } from '../model/casting.ts';
import { inOrder, type Show, splitRef } from '../model/documents.ts';
import { freshCableId } from '../model/names.ts';
import { playedParts } from '../model/set-order.ts';
import type { Cable, Device, Plug, Sound } from '../model/rig.ts';
import { anatomyOf } from '../model/archetypes/registry.ts';
import { jackFacts } from '../model/jack-kinds.ts';
import { jackOf } from '../model/jacks.ts';
import { type Totals, totalsOf } from '../pack/totals.ts';
import { homeCurve, type HomePoint } from './curve.ts';

export interface AtHome extends HomePoint {
  /** Of what comes along. */
  readonly figures: Totals;
  /** The names of the songs that are lost. */
  readonly songs: readonly string[];
}

/** Pieces that might stay at home: the signal passes them, and they are no end of it and call no slots. */
export const candidates = ({ rig }: Show): readonly Device[] =>
  inOrder(rig.devices).filter(({ type }) => {
    const { source, destination, controller, jacks } = anatomyOf(type);
    const carries = (direction: 'in' | 'out') =>
      jacks.some(({ kind }) => jackFacts(kind).carries === 'signal' && jackFacts(kind).direction === direction);
    return source === undefined && destination === undefined && !controller && carries('in') && carries('out');
  });

/** The pieces that a sound cannot do without: those that it wants on, and those of which it wants something. */
export function neededBy(sound: Sound): ReadonlySet<string> {
  const needed = new Set<string>();
  for (const [device, state] of Object.entries(sound.pedals)) if (state === 'on') needed.add(device);
  for (const ref of Object.keys(sound.wants)) {
    const { device } = splitRef(ref);
    if (sound.pedals[device] !== 'off') needed.add(device);
  }
  return needed;
}

/** For each number of pieces left at home what it costs in songs of the set, and what it saves. */
export function whatCanStayAtHome(show: Show): readonly AtHome[] {
  const { rig, songbook } = show;
  const casts = castsByPart(rig);
  const needsOfSong = new Map<string, Set<string>>();
  for (const part of playedParts(show)) {
    const cast = casts.get(part.id);
    const sound = cast && soundOfCast(rig, cast);
    const needs = needsOfSong.get(part.song) ?? new Set<string>();
    if (sound) for (const device of neededBy(sound)) needs.add(device);
    needsOfSong.set(part.song, needs);
  }
  const songs = [...needsOfSong.keys()];
  const pieces = candidates(show).map((device) => ({
    id: device.id,
    songs: songs.flatMap((song, i) => (needsOfSong.get(song)!.has(device.id) ? [i] : [])),
    saves: device.type.body?.grams ?? 0,
  }));
  return homeCurve(pieces, songs.length).map((point) => ({
    ...point,
    songs: point.lost.map((i) => songbook.songs[songs[i]].name),
    figures: totalsOf(inOrder(rig.devices).filter(({ id }) => !point.left.includes(id))),
  }));
}

/** Each sound that is not what it was without some pieces, with those that it loses. */
export const losses = (
  { rig }: Show,
  left: readonly string[],
): readonly { readonly sound: Sound; readonly pieces: readonly string[] }[] =>
  inOrder(rig.sounds).flatMap((sound) => {
    const needed = neededBy(sound);
    const pieces = left.filter((device) => needed.has(device));
    return pieces.length > 0 ? [{ sound, pieces }] : [];
  });

/**
 * Leaves pieces at home: each goes with its cables, and where one cable came in and one went out the line goes on
 * without it. Null where there is nothing to leave.
 */
export function leaveAtHome(show: Show, left: readonly string[]): Command | null {
  return combine(
    show,
    { name: 'leave-at-home', facts: { count: left.length } },
    left.flatMap((id) => [
      (now: Show) => bridged(now, id),
      (now: Show) => (Object.hasOwn(now.rig.devices, id) ? removeDevice(now, id) : null),
    ]),
  );
}

/** The line past a device: what comes in goes where its output went. Null where that is not one way in and one out. */
function bridged(show: Show, id: string): Command | null {
  const { rig } = show;
  const at = (cable: Cable, direction: 'in' | 'out'): boolean =>
    cable.kind === 'signal' &&
    cable.plugs.some(({ device, jack }) => {
      const kind = device === id ? jackOf(rig.devices[device], jack)?.kind : undefined;
      return kind === (direction === 'in' ? 'signal-in' : 'signal-out');
    });
  const cables = inOrder(rig.cables);
  const [into, from] = [cables.filter((cable) => at(cable, 'in')), cables.filter((cable) => at(cable, 'out'))];
  if (into.length !== 1 || from.length !== 1 || into[0] === from[0]) return null;
  const others = (cable: Cable): readonly Plug[] => cable.plugs.filter(({ device }) => device !== id);
  const plugs = [...others(into[0]), ...others(from[0])];
  if (plugs.length < 2 || into[0].poles || from[0].poles) return null;
  const without = { ...show, rig: { ...rig, cables: withoutCables(rig.cables, [into[0].id, from[0].id]) } };
  return command('leave-at-home', {}, [
    ...[into[0], from[0]].map((cable) => remove(['cables', cable.id], cable)),
    ...connect(without, freshCableId(rig), plugs).steps,
  ]);
}

const withoutCables = (cables: Show['rig']['cables'], gone: readonly string[]): Show['rig']['cables'] =>
  Object.fromEntries(Object.entries(cables).filter(([id]) => !gone.includes(id)));

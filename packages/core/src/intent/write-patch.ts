import type { Plan } from '../allocate/plan.ts';
import { type CompiledProblem, loopAtZone, out } from '../allocate/problem.ts';
import { combine } from '../change/combine.ts';
import { type Command, connect, layOut, setCable, setConvention, setDevice, wantPedal } from '../change/commands.ts';
import { command, remove } from '../change/command.ts';
import { Draft, type DraftDevice } from '../entry/draft.ts';
import type { End } from '../entry/end-reader.ts';
import { mainJacks } from '../entry/jack-words.ts';
import { LinkReader } from '../entry/link-reader.ts';
import type { AddedCable } from '../entry/rig-text.ts';
import type { Show } from '../model/documents.ts';
import { freshCableId } from '../model/names.ts';
import { conventionOf, type Cable, type Device, type Plug } from '../model/rig.ts';
import { sameData } from '../units/same-data.ts';
import { insertOf } from './pieces.ts';
import type { Line } from './line.ts';
import { plannedSounds } from './allocation-of.ts';
import { controlLinks } from './control-links.ts';

/** One stretch of cables: jack to jack, from an output through pieces to an input. */
interface Stop {
  readonly device: string;
  readonly in: string;
  readonly out: string;
}

/** Another way that cables go: what is unplugged, what is moved, what is new. */
export interface PatchChange {
  readonly stays: readonly string[];
  readonly moved: readonly { readonly cable: string; readonly plugs: readonly Plug[] }[];
  readonly gone: readonly string[];
  readonly added: readonly Pick<AddedCable, 'plugs' | 'poles'>[];
  /** Plugs that a hand pulls or puts in. */
  readonly plugs: number;
}

/**
 * The cables of a plan as one edit over what is there: those that stay keep their names, lengths and tags, one of which
 * one end stays is moved by the other, the rest is unplugged and plugged anew. Then what the plan switches by foot
 * belongs to the foot, missing cables for messages and contacts are added, and sounds without a slot get one. Null
 * where nothing changes.
 */
export function writePatch(show: Show, line: Line, compiled: CompiledProblem, plan: Plan): Command | null {
  const change = patchChange(show, line, compiled, plan);
  const makes: ((now: Show) => Command | null)[] = [];
  for (const id of change.gone)
    makes.push((now) => command('disconnect', {}, [remove(['cables', id], now.rig.cables[id])]));
  // Pulled first, so that a jack is free when another plug goes in.
  const moves = change.moved.map(
    ({ cable, plugs }) =>
      (now: Show) =>
        setCable(now, cable, 'plugs', plugs),
  );
  makes.push((now) => together(now, moves));
  for (const { plugs, poles } of change.added)
    makes.push((now) => connect(now, freshCableId(now.rig), plugs.map(plain), null, poles));
  makes.push(...footCommands(line, plan), ...switchingCommands(line));
  makes.push(...ampCommands(show, line, compiled, plan));
  makes.push((now) => controlLinks(now, line));
  makes.push((now) => (needsSlots(now) ? layOut(now, line.switcher.device.id) : null));
  return combine(show, { name: 'write-patch', facts: { plugs: change.plugs } }, makes);
}

const plain = ({ device, jack }: Plug): Plug => ({ device, jack });

/** Moves of cables as one list of steps: jacks change hands in the middle of them. */
function together(show: Show, makes: readonly ((now: Show) => Command)[]): Command | null {
  const steps = makes.flatMap((make) => make(show).steps);
  return steps.length === 0 ? null : command('set-cable', {}, steps);
}

const needsSlots = ({ rig }: Show): boolean =>
  Object.keys(rig.sounds).length > 0 && Object.keys(rig.slots).length === 0;

/** What changes between the cables as they are and those of a plan. */
export function patchChange(show: Show, line: Line, compiled: CompiledProblem, plan: Plan): PatchChange {
  const wanted = plannedCables(show, line, compiled, plan);
  const olds = line.cables.map((id) => show.rig.cables[id]);
  const left = [...wanted];
  const stays: string[] = [];
  const others: Cable[] = [];
  for (const old of olds) {
    const same = left.findIndex((cable) => isSame(old, cable));
    if (same < 0) others.push(old);
    else {
      left.splice(same, 1);
      stays.push(old.id);
    }
  }
  const moved: { cable: string; plugs: readonly Plug[] }[] = [];
  const gone: Cable[] = [];
  for (const old of others) {
    const next = left.findIndex((cable) => sharedEnd(old, cable) !== null);
    if (next < 0) {
      gone.push(old);
      continue;
    }
    const [cable] = left.splice(next, 1);
    moved.push({ cable: old.id, plugs: replugged(old, cable) });
  }
  const plugs =
    moved.length +
    gone.reduce((sum, cable) => sum + cable.plugs.length, 0) +
    left.reduce((sum, cable) => sum + cable.plugs.length, 0);
  return { stays, moved, gone: gone.map(({ id }) => id), added: left, plugs };
}

const nameOf = ({ device, jack }: Plug): string => `${device}/${jack}`;

function isSame(old: Cable, { plugs, poles }: Pick<AddedCable, 'plugs' | 'poles'>): boolean {
  const [a, b] = [old.plugs.map(nameOf), plugs.map(nameOf)];
  if (a.length !== b.length || !b.every((name) => a.includes(name))) return false;
  return sameData(a, b) ? sameData(old.poles, poles) : old.poles === undefined && poles === undefined;
}

/** The end that two plain cables have in common; null where there is none. */
function sharedEnd(old: Cable, { plugs, poles }: Pick<AddedCable, 'plugs' | 'poles'>): string | null {
  if (old.plugs.length !== 2 || plugs.length !== 2 || old.poles || poles) return null;
  return old.plugs.map(nameOf).find((name) => plugs.map(nameOf).includes(name)) ?? null;
}

/** The plugs of a cable moved to those of another, that which stays at its place. */
function replugged(old: Cable, cable: Pick<AddedCable, 'plugs'>): readonly Plug[] {
  const stays = sharedEnd(old, cable)!;
  const other = cable.plugs.find((plug) => nameOf(plug) !== stays)!;
  return old.plugs.map((plug) => (nameOf(plug) === stays ? plug : plain(other)));
}

/** The cables of a plan, jack by jack; stereo where both ends are, mono where one is not or the rig plays mono. */
export function plannedCables(
  show: Show,
  line: Line,
  compiled: CompiledProblem,
  plan: Plan,
): readonly Pick<AddedCable, 'plugs' | 'poles'>[] {
  const unplugged = new Set(line.cables);
  const bare: Show = {
    ...show,
    rig: {
      ...show.rig,
      cables: Object.fromEntries(Object.entries(show.rig.cables).filter(([id]) => !unplugged.has(id))),
    },
  };
  const draft = new Draft(bare, []);
  const deviceOf = (id: string): DraftDevice => draft.devices.find((device) => device.id === id)!;
  const end = (device: string, jack: string): End => {
    const found = deviceOf(device);
    const label = found.anatomy.jacks.find(({ id }) => id === jack)!.label;
    return { typed: found.name, device: found, words: { in: label, out: label } };
  };
  const isWide = (device: string, jack: string): boolean =>
    deviceOf(device).anatomy.jacks.some((each) => (each.id === jack && each.stereo) || each.twin === jack);
  const isMono = show.rig.settings.width === 'mono';
  const cables: AddedCable[] = [];
  const run = (from: readonly Plug[], stops: readonly Stop[], to: readonly Plug[]) => {
    const links = new LinkReader(draft, (at) => at, {}, 'signal');
    let here = from;
    const hop = (next: readonly Plug[]) => {
      const isTwo = next.length === 2 && here.length === 1 && isWide(here[0].device, here[0].jack);
      const wide =
        !isMono &&
        here.length === 1 &&
        isWide(here[0].device, here[0].jack) &&
        (isTwo || (next.length === 1 && isWide(next[0].device, next[0].jack)));
      const ends = (plugs: readonly Plug[]) => plugs.map(({ device, jack }) => end(device, jack));
      // To one side where the other end has but one.
      const right = next.length === 2 && isRightOf(deviceOf(next[0].device), next);
      links.link(ends(here), ends(right ? next.slice(0, 1) : next), null, 'plan', wide);
    };
    for (const stop of stops) {
      hop([{ device: stop.device, jack: stop.in } as Plug]);
      here = [{ device: stop.device, jack: stop.out } as Plug];
    }
    hop(to);
    cables.push(...links.cables);
  };
  const { switcher, loops } = line;
  const id = switcher.device.id;
  const at = (jack: string): Plug => ({ device: id, jack }) as Plug;
  const stopsAt = (zone: number): readonly Stop[] =>
    line.pieces.flatMap((piece, i) =>
      plan.zones[i] === zone ? [{ device: piece.id, in: piece.in, out: piece.out }] : [],
    );
  const [into] = mainJacks(switcher.anatomy, 'in', 'signal');
  const [exit] = mainJacks(switcher.anatomy, 'out', 'signal');
  run(line.from, stopsAt(0), [at(into.id)]);
  for (let zone = 1; zone < compiled.lastZone; zone += 1) {
    const stops = stopsAt(zone);
    if (stops.length === 0) continue;
    const loop = loopAtZone(compiled, zone);
    const jacks = loop === undefined ? insertOf(switcher)! : loops[loop - 1];
    run([at(jacks.send)], stops, [at(jacks.return)]);
  }
  const after = stopsAt(compiled.lastZone);
  const last = after.at(-1) ?? { device: id, out: exit.id };
  const inTwo = line.right && !isMono && isWide(last.device, last.out);
  run([at(exit.id)], after, inTwo ? [...line.to, line.right!] : line.to);
  const { wet } = line;
  if (wet && wet.pieces.length > 0)
    run(
      [wet.from],
      wet.pieces.map((piece) => ({ device: piece.id, in: piece.in, out: piece.out })),
      wet.to,
    );
  for (const [from, to] of line.beyond) run([from], [], [to]);
  return cables;
}

/** Whether the second of two plugs is the right side of the first: one way in, of two sides. */
const isRightOf = ({ anatomy }: DraftDevice, [left, right]: readonly Plug[]): boolean =>
  left.device === right.device && anatomy.jacks.some(({ id, twin }) => id === right.jack && twin === left.jack);

/** What a plan switches by foot belongs to the foot; what it does not, and did, belongs to the slot again. */
function footCommands({ pieces }: Line, plan: Plan): ((now: Show) => Command | null)[] {
  const makes: ((now: Show) => Command | null)[] = [];
  pieces.forEach(({ id, wired }, i) => {
    const own = wired.anatomy.ownSwitch;
    if (own === undefined || plan.zones[i] === out) return;
    const isByFoot = plan.by[i] === 'foot';
    const switches = wired.anatomy.switches
      .filter(({ actions }) => actions.some((action) => 'toggle' in action && action.toggle === own))
      .map((each) => each.id);
    makes.push((now) => {
      const { owners } = now.rig.devices[id];
      if (isByFoot === (owners[own] === 'foot')) return null;
      const { [own]: _, ...others } = owners;
      return setDevice(now, id, 'owners', isByFoot ? { ...owners, [own]: 'foot' } : others);
    });
    makes.push((now) => {
      const { plannedSwitches } = now.rig.devices[id];
      const rest = plannedSwitches.filter((each) => !switches.includes(each));
      const planned = isByFoot ? [...rest, switches[0]] : rest;
      return sameData(planned, plannedSwitches) ? null : setDevice(now, id, 'plannedSwitches', planned);
    });
  });
  if (plan.by.some((by, i) => by === 'foot' && plan.zones[i] !== out))
    makes.push((now) =>
      conventionOf(now.rig, 'foot') === 'stored sounds' ? setConvention(now, 'foot', 'mixed') : null,
    );
  return makes;
}

/** Of an amp in a loop each sound has to say that it is there. */
function ampCommands(
  show: Show,
  { pieces }: Line,
  compiled: CompiledProblem,
  plan: Plan,
): ((now: Show) => Command | null)[] {
  return pieces.flatMap(({ id, ampReturn }, i) =>
    ampReturn === null || loopAtZone(compiled, plan.zones[i]) === undefined
      ? []
      : plannedSounds(show)
          .filter(({ pedals }) => !Object.hasOwn(pedals, id))
          .map((sound) => (now: Show) => wantPedal(now, sound.id, id, 'on')),
  );
}

/** Which loop holds a piece is told by the new cables. */
const switchingCommands = ({ pieces }: Line): ((now: Show) => Command | null)[] =>
  pieces.map(({ id }) => (now) => {
    const { switching } = now.rig.devices[id];
    if (switching?.loop === undefined) return null;
    const { loop: _, ...rest } = switching;
    return setDevice(now, id, 'switching', (Object.keys(rest).length > 0 ? rest : undefined) as Device['switching']);
  });

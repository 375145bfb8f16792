import type { Literal } from '../model/anatomy.ts';
import type { Sound } from '../model/documents.ts';
import { encode, hex, type MidiMessage } from '../midi/message.ts';
import { Delivery, type Watcher } from './delivery.ts';
import { begin, type RigEvent } from './events.ts';
import type { Sequence } from './answer.ts';
import type { Stone } from './sequence.ts';
import { type Laid, unwanted } from './laid.ts';
import type { Prover } from './proof.ts';
import type { Plant, PlantSlot } from './plant.ts';
import { powerUp } from './power.ts';
import { WholeStore } from './store.ts';

/** What went over the wires during one event. */
export interface Heard {
  readonly from: string;
  readonly bytes: string;
  /** Microseconds from the start of the event to the last byte. */
  readonly at: number;
}

export interface PlayedStone {
  readonly stone: Stone | { readonly kind: 'power-up' };
  readonly heard: readonly Heard[];
  readonly quiet: boolean;
  /** Controls that changed, by their refs. */
  readonly changed: readonly { readonly ref: string; readonly from: Literal | null; readonly to: Literal | null }[];
}

export interface PlayedWant {
  readonly ref: string;
  readonly wanted: Literal;
  readonly cameUp: Literal | null;
  readonly right: boolean;
}

export interface Played {
  readonly stones: readonly PlayedStone[];
  /** Each want of the sound against what came up. */
  readonly wants: readonly PlayedWant[];
  /** Whether nothing is heard at the end, in a sound that wants to be. */
  readonly silent: boolean;
}

/** Plays a sequence on the simulated rig: the same interpreter as the proof, with every variable. Wants in document order. */
export function play(prover: Prover, sequence: Sequence, sound: Sound): Played {
  const { plant } = prover;
  const store = poweredUp(plant, sequence);
  const stones: PlayedStone[] = [{ stone: { kind: 'power-up' }, heard: [], quiet: true, changed: [] }];
  for (const stone of sequence.stones) stones.push(playStone(plant, store, stone));
  const laid = prover.layOf(sound);
  const heard = prover.hearing.judge((variable) => store.get(variable), laid, { obey: true, pins: new Map() });
  return { stones, wants: [...wantsAt(prover, store, laid)], silent: heard.is === 'wrong' && heard.silent };
}

const firstWrongs = new WeakMap<Sequence, { readonly pressed: readonly (PlantSlot | undefined)[]; readonly devices: Plant['devices']; readonly laid: Laid; readonly wrong: PlayedWant | undefined }>();

/** The first want, in document order, that comes up wrong at the end of a sequence; played again only where a slot that it presses is another. */
export function firstWrong(prover: Prover, sequence: Sequence, sound: Sound): PlayedWant | undefined {
  const { plant } = prover;
  const laid = prover.layOf(sound);
  const pressed = sequence.stones.map((stone) => (stone.kind === 'press' ? plant.slot.get(stone.slot) : undefined));
  const known = firstWrongs.get(sequence);
  if (known && known.devices === plant.devices && known.laid === laid && pressed.every((slot, i) => slot === known.pressed[i])) return known.wrong;
  const store = poweredUp(plant, sequence);
  for (const stone of sequence.stones) run(plant, store, stone);
  let wrong: PlayedWant | undefined;
  for (const want of wantsAt(prover, store, laid))
    if (!want.right) {
      wrong = want;
      break;
    }
  firstWrongs.set(sequence, { pressed, devices: plant.devices, laid, wrong });
  return wrong;
}

function poweredUp(plant: Plant, sequence: Sequence): WholeStore {
  const store = new WholeStore(new Int32Array(plant.variables.length), new Map());
  for (const device of plant.devices) {
    const needs = sequence.needs.filter((need) => need.device === device.id).map((need) => need.value);
    powerUp(plant, device, store, true, (values) => (needs.length === 0 ? undefined : values.find((value) => needs.includes(String(plant.values.literal(value))))) ?? values[0]);
  }
  return store;
}

function* wantsAt(prover: Prover, store: WholeStore, laid: Laid): Generator<PlayedWant> {
  const { plant } = prover;
  const differing = [...laid.named].filter((variable) => store.get(variable) !== laid.wants(variable) && !laid.obeyed.has(variable));
  const audible = new Set(prover.outlook.audible(laid, differing, prover.outlook.settledGround((variable) => store.get(variable))));
  for (const [ref, variable] of plant.variableOf) {
    const wanted = laid.wants(variable);
    if (wanted === unwanted || !laid.named.has(variable)) continue;
    const right = !audible.has(variable) || !isHeard(prover, store, laid, variable);
    yield { ref, wanted: plant.values.literal(wanted) ?? '?', cameUp: plant.values.literal(store.get(variable)) ?? null, right };
  }
}

/** Whether laying this one want over the state changes what sounds. */
function isHeard(prover: Prover, store: WholeStore, laid: Laid, variable: number): boolean {
  const device = prover.plant.variables[variable].device;
  const loads = prover.plant.device.get(device)?.presets?.variable === variable ? [...laid.variables].filter((other) => !laid.named.has(other) && prover.plant.variables[other].device === device) : [];
  const heard = prover.hearing.judge((v) => store.get(v), laid.restrictedTo(new Set([variable, ...loads]), variable), { obey: false, pins: new Map() });
  return heard.is !== 'right';
}

function playStone(plant: Plant, store: WholeStore, stone: Stone): PlayedStone {
  const before = store.state.slice();
  const heard: Heard[] = [];
  const quiet = run(plant, store, stone, { sent: (from, message: MidiMessage, at) => heard.push({ from, bytes: hex(encode(message)), at }) });
  const changed = [...plant.variableOf].flatMap(([ref, variable]) =>
    before[variable] === store.state[variable] ? [] : [{ ref, from: plant.values.literal(before[variable]) ?? null, to: plant.values.literal(store.state[variable]) ?? null }],
  );
  return { stone, heard, quiet, changed };
}

/** Lets a stone happen; whether it falls quiet. */
function run(plant: Plant, store: WholeStore, stone: Stone, watcher?: Watcher): boolean {
  const event = eventOf(plant, stone);
  if (!event) return true;
  if (event.kind === 'restart') {
    powerUp(plant, event.device, store, false, (values) => values[0]);
    return true;
  }
  const delivery = new Delivery(plant, store, { ...(watcher ? { watcher } : {}), ...(stone.lost === undefined ? {} : { lost: stone.lost.point }) });
  begin(plant, event, delivery);
  return delivery.settle() === 'quiet';
}

function eventOf(plant: Plant, stone: Stone): RigEvent | undefined {
  switch (stone.kind) {
    case 'press': {
      const slot = plant.slot.get(stone.slot);
      return slot && { kind: 'press', slot };
    }
    case 'bank':
      return { kind: 'bank', controller: plant.device.get(stone.controller)!, by: stone.by };
    case 'hold':
    case 'release':
      return { kind: stone.kind, controller: plant.device.get(stone.controller)!, momentary: stone.momentary };
    case 'foot': {
      const device = plant.device.get(stone.device)!;
      const footSwitch = device.wired.anatomy.switches.find((one) => one.id === stone.switch);
      return footSwitch && { kind: 'foot', device, footSwitch, stray: stone.stray };
    }
    case 'cue': {
      const variable = plant.variableOf.get(stone.control);
      const literal = Number.isNaN(Number(stone.value)) ? stone.value : Number(stone.value);
      return variable === undefined ? undefined : { kind: 'cue', control: stone.control, variable, value: plant.values.id(literal) };
    }
    case 'outside': {
      const device = plant.device.get(stone.device)!;
      const channel = Object.values(plant.wiring.rig.outside).find((one) => one.device === stone.device && one.program === stone.program)?.channel ?? 1;
      return { kind: 'outside', device, message: { kind: 'program', channel, program: stone.program } };
    }
    case 'restart':
      return { kind: 'restart', device: plant.device.get(stone.device)! };
  }
}

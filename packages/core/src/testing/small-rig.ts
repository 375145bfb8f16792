import type { Literal } from '../model/anatomy.ts';
import { proverOf } from '../recall/prove.ts';
import { Delivery } from '../recall/delivery.ts';
import { begin, type RigEvent } from '../recall/events.ts';
import type { Prover } from '../recall/proof.ts';
import { powerUp } from '../recall/power.ts';
import type { Stone } from '../recall/sequence.ts';
import { WholeStore } from '../recall/store.ts';
import { adaptCase, type CaseRig } from './recall-adapter.ts';

/** A small rig under the hand: press, hold, step, restart, and read what every control is. */
export class SmallRig {
  readonly prover: Prover;
  private readonly store: WholeStore;

  constructor(rig: CaseRig) {
    this.prover = proverOf(adaptCase(rig).show);
    const { plant } = this.prover;
    this.store = new WholeStore(new Int32Array(plant.variables.length), new Map());
    for (const device of plant.devices) powerUp(plant, device, this.store, true, (values) => values[0]);
  }

  /** `press sw.A`, `hold sw.m`, `release sw.m`, `up sw`, `down sw`, `foot D.f`, `restart D`, one after the other. */
  do(...deeds: readonly string[]): this {
    for (const deed of deeds) this.happen(this.eventOf(deed));
    return this;
  }

  /** `D.preset`, `D.mix`, `sw.L1`: what it is now. */
  read(name: string): Literal | undefined {
    const [device, control] = name.split('.');
    const { plant } = this.prover;
    return plant.values.literal(this.store.get(plant.variableOf.get(`d.${device}/${control}`)!));
  }

  private eventOf(deed: string): RigEvent {
    const [kind, what] = deed.split(' ');
    const [id, part] = what.split('.');
    const { plant } = this.prover;
    const device = plant.device.get(`d.${id}`)!;
    switch (kind) {
      case 'press':
        return { kind, slot: plant.slot.get(`slot.${id}.${part}`)! };
      case 'hold':
      case 'release':
        return { kind, controller: device, momentary: part };
      case 'up':
      case 'down':
        return { kind: 'bank', controller: device, by: kind === 'up' ? 1 : -1 };
      case 'foot':
        return { kind, device, footSwitch: device.wired.anatomy.switches.find((one) => one.id === part)!, stray: false };
      case 'restart':
        return { kind, device };
      default:
        throw new Error(`what is "${deed}"?`);
    }
  }

  private happen(event: RigEvent): void {
    const { plant } = this.prover;
    if (event.kind === 'restart') return powerUp(plant, event.device, this.store, false, (values) => values[0]);
    const delivery = new Delivery(plant, this.store);
    begin(plant, event, delivery);
    if (delivery.settle() !== 'quiet') throw new Error('not quiet');
  }
}

/** A sequence in a few words, as the tests write it: `A up B`, `stray amp.fs A`. */
export const stonesInShort = (stones: readonly Stone[]): string => stones.map(inShort).join(' ');

const plain = (id: string): string => id.replace(/^(slot\.\w+\.|d\.)/, '');

function inShort(stone: Stone): string {
  const lost = stone.lost ? ' (lost)' : '';
  switch (stone.kind) {
    case 'press':
      return plain(stone.slot) + lost;
    case 'bank':
      return stone.by === 1 ? 'up' : 'down';
    case 'hold':
    case 'release':
      return `${stone.kind} ${stone.momentary}`;
    case 'foot':
      return `${stone.stray ? 'stray' : 'foot'} ${plain(stone.device)}.${stone.switch}`;
    case 'cue':
      return `cue ${plain(stone.control)}=${stone.value}`;
    case 'outside':
      return `outside ${stone.program}`;
    case 'restart':
      return `restart ${plain(stone.device)}`;
  }
}

import { assertNever } from '../units/problem.ts';
import type { ControlValue } from '../model/anatomy.ts';
import type { Sequence, SequenceStep } from '../recall/deliver/sequence.ts';
import { ChoiceSequence } from '../recall/deliver/choice-sequence.ts';
import { proverOf } from '../recall/prove/prover-of.ts';
import type { Prover } from '../recall/prove/prover.ts';
import { SimulatedRig } from '../recall/deliver/simulated-rig.ts';
import { adaptCase, type CaseRig } from './recall-adapter.ts';

/** A small rig under the hand: press, hold, step, restart, and read what every control is. */
export class SmallRig {
  readonly prover: Prover;
  private readonly rig: SimulatedRig;

  constructor(rig: CaseRig, needs: Sequence['needs'] = []) {
    this.prover = proverOf(adaptCase(rig).show);
    const choices = new ChoiceSequence();
    choices.begin();
    this.rig = new SimulatedRig(this.prover.model, choices);
    this.rig.comeUp({ needs });
  }

  /** `press sw.A`, `hold sw.m`, `release sw.m`, `up sw`, `down sw`, `foot D.f`, `restart D`, one after the other. */
  do(...updates: readonly string[]): this {
    for (const update of updates) if (!this.rig.happen(stepOf(update))) throw new Error('not quiet');
    return this;
  }

  /** `D.preset`, `D.mix`, `sw.L1`: what it is now. */
  read(name: string): ControlValue | undefined {
    const [device, control] = name.split('.');
    const { model } = this.prover;
    return model.values.controlValue(this.rig.store.get(model.variableOf.get(`d.${device}/${control}`)!));
  }
}

function stepOf(update: string): SequenceStep {
  const [kind, what] = update.split(' ');
  const [id, part] = what.split('.');
  const device = `d.${id}`;
  switch (kind) {
    case 'press':
      return { kind, slot: `slot.${id}.${part}` };
    case 'hold':
    case 'release':
      return { kind, controller: device, momentary: part };
    case 'up':
    case 'down':
      return { kind: 'bank', controller: device, by: kind === 'up' ? 1 : -1 };
    case 'foot':
      return { kind, device, switch: part, stray: false };
    case 'restart':
      return { kind, device };
    default:
      throw new Error(`what is "${update}"?`);
  }
}

/** A sequence in a few words, as the tests write it: `A up B`, `stray amp.fs A`. */
export const stepsInShort = (steps: readonly SequenceStep[]): string => steps.map(inShort).join(' ');

const plain = (id: string): string => id.replace(/^(slot\.\w+\.|d\.)/, '');

function inShort(step: SequenceStep): string {
  const lost = step.lost ? ' (lost)' : '';
  switch (step.kind) {
    case 'press':
      return plain(step.slot) + lost;
    case 'bank':
      return step.by === 1 ? 'up' : 'down';
    case 'hold':
    case 'release':
      return `${step.kind} ${step.momentary}`;
    case 'foot':
      return `${step.stray ? 'stray' : 'foot'} ${plain(step.device)}.${step.switch}`;
    case 'cue':
      return `cue ${plain(step.control)}=${step.value}`;
    case 'outside':
      return `outside ${step.program}`;
    case 'restart':
      return `restart ${plain(step.device)}`;
    default:
      return assertNever(step, 'step');
  }
}

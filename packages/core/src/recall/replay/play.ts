import type { ControlValue } from '../../model/anatomy.ts';
import { memoised } from '../../model/memo.ts';
import type { Sound } from '../../model/rig.ts';
import type { Heard } from '../audible/sound-comparison.ts';
import { type SoundTarget, unwanted } from '../audible/sound-target.ts';
import { ChoiceSequence } from '../deliver/choice-sequence.ts';
import type { Sequence, SequenceStep } from '../deliver/sequence.ts';
import { type Sent, SimulatedRig } from '../deliver/simulated-rig.ts';
import type { Prover } from '../prove/prover.ts';
import type { Level } from '../prove/verdict.ts';
import type { VariableId } from '../state/ids.ts';
import type { ModelSlot, StateModel } from '../state/state-model.ts';
import type { WholeStore } from '../state/store.ts';
import { type ContentSymbol, NeedPin } from '../state/values.ts';

export interface PlayedStep {
  readonly step: SequenceStep | { readonly kind: 'power-up' };
  readonly heard: readonly Sent[];
  readonly quiet: boolean;
  /** Controls that changed, by their refs. */
  readonly changed: readonly {
    readonly ref: string;
    readonly from: ControlValue | null;
    readonly to: ControlValue | null;
  }[];
}

export interface PlayedWant {
  readonly ref: string;
  readonly wanted: ControlValue;
  readonly cameUp: ControlValue | null;
  readonly right: boolean;
}

export interface Played {
  /** Power-up, the steps of the sequence, and what is let go after them. */
  readonly steps: readonly PlayedStep[];
  /** Each want of the sound against what came up. */
  readonly wants: readonly PlayedWant[];
  /** Whether what sounds at the end is what the sound wants; unknown where it turns on contents that nobody entered. */
  readonly heard: Heard['is'];
  /** Whether nothing is heard at the end, in a sound that wants to be. */
  readonly silent: boolean;
}

/**
 * Plays a sequence on the simulated rig: the same interpreter as the proof, with every variable. What the sequence
 * leaves open is chosen so that it goes wrong, where it can. In set order (level 1) cues are done only where they are
 * planned; else the sound's own are taken as done. Wants in document order.
 */
export function play(prover: Prover, sequence: Sequence, sound: Sound, level: Level): Played {
  const target = level === 1 ? prover.targetOf(sound).withoutCues() : prover.targetOf(sound);
  const { rig, heard, steps } = goneWrong(prover, sequence, target, 'told');
  return {
    steps,
    wants: [...wantsAt(prover, rig.store, target)],
    heard: heard.is,
    silent: heard.is === 'wrong' && heard.silent,
  };
}

/** Ways to choose what a sequence leaves open that are tried. */
const tries = 400;

interface Run {
  readonly rig: SimulatedRig;
  readonly heard: Heard;
  readonly isSettled: boolean;
  /** Each step as it was played. */
  readonly steps: readonly PlayedStep[];
}

/** The first run of a sequence that ends wrong or never settles; where none does, the first. */
function goneWrong(prover: Prover, sequence: Sequence, target: SoundTarget, how: 'told' | 'untold'): Run {
  /** Contents that nobody entered and that what happens turns on: assumed, one way after the other. */
  const assumed: ContentSymbol[] = [];
  let choices = new ChoiceSequence();
  let first: Run | undefined;
  for (let i = 0; i < tries; i += 1) {
    choices.begin();
    const pins = new Map(assumed.map((symbol) => [symbol.id, choices.of(symbol.options.length)]));
    try {
      const run = playOnce(prover, sequence, target, new SimulatedRig(prover.model, choices, pins), how);
      if (!run.isSettled || run.heard.is === 'wrong') return run;
      first ??= run;
      if (!choices.next()) break;
    } catch (reason) {
      if (!(reason instanceof NeedPin)) throw reason;
      assumed.push(reason.symbol);
      choices = new ChoiceSequence();
    }
  }
  return first!;
}

function playOnce(
  prover: Prover,
  sequence: Sequence,
  target: SoundTarget,
  rig: SimulatedRig,
  how: 'told' | 'untold',
): Run {
  const { model } = prover;
  const steps: PlayedStep[] = [];
  let isSettled = true;
  const noting = (step: PlayedStep['step'], before: Int32Array | null, quiet: boolean) => {
    isSettled &&= quiet;
    if (how === 'told')
      steps.push({ step, heard: rig.sent, quiet, changed: before ? changesOf(model, before, rig.store.state) : [] });
    rig.sent = [];
  };
  const happen = (step: SequenceStep) => {
    const before = how === 'told' ? rig.store.state.slice() : null;
    noting(step, before, rig.happen(step));
  };
  noting({ kind: 'power-up' }, null, rig.comeUp(sequence));
  for (const step of sequence.steps) happen(step);
  for (let held = rig.held(); held; held = rig.held()) happen(held);
  return {
    rig,
    steps,
    isSettled,
    heard: prover.comparison.judge((variable) => rig.store.get(variable), target, { obey: true, pins: rig.store.pins }),
  };
}

const changesOf = ({ values, variableOf }: StateModel, before: Int32Array, after: Int32Array): PlayedStep['changed'] =>
  [...variableOf].flatMap(([ref, variable]) =>
    before[variable] === after[variable]
      ? []
      : [
          {
            ref,
            from: values.controlValue(before[variable]) ?? null,
            to: values.controlValue(after[variable]) ?? null,
          },
        ],
  );

/** By the sequence played. */
const firstWrongs = memoised(
  ({ modelMemo }: StateModel) => modelMemo,
  () =>
    new WeakMap<
      Sequence,
      {
        readonly pressed: readonly (ModelSlot | undefined)[];
        readonly target: SoundTarget;
        readonly wrong: PlayedWant | undefined;
      }
    >(),
);

/**
 * The first want, in document order, that comes up wrong at the end of a sequence; played again only where a slot that
 * it presses is another.
 */
export function firstWrong(prover: Prover, sequence: Sequence, sound: Sound): PlayedWant | undefined {
  const { model } = prover;
  const target = prover.targetOf(sound);
  const pressed = sequence.steps.map((step) => (step.kind === 'press' ? model.slot.get(step.slot) : undefined));
  const known = firstWrongs(model).get(sequence);
  if (known && known.target === target && pressed.every((slot, i) => slot === known.pressed[i])) return known.wrong;
  const { rig } = goneWrong(prover, sequence, target, 'untold');
  let wrong: PlayedWant | undefined;
  for (const want of wantsAt(prover, rig.store, target))
    if (!want.right) {
      wrong = want;
      break;
    }
  firstWrongs(model).set(sequence, { pressed, target, wrong });
  return wrong;
}

function* wantsAt(prover: Prover, store: WholeStore, target: SoundTarget): Generator<PlayedWant> {
  const { model } = prover;
  const differing = [...target.named].filter(
    (variable) => store.get(variable) !== target.wants(variable) && !target.cues.has(variable),
  );
  const audible = new Set(
    prover.threeValued.audible(
      target,
      differing,
      prover.threeValued.settledGround((variable) => store.get(variable)),
    ),
  );
  for (const [ref, variable] of model.variableOf) {
    const wanted = target.wants(variable);
    if (wanted === unwanted || !target.named.has(variable)) continue;
    const right = !audible.has(variable) || !isHeard(prover, store, target, variable);
    yield {
      ref,
      wanted: model.values.controlValue(wanted) ?? '?',
      cameUp: model.values.controlValue(store.get(variable)) ?? null,
      right,
    };
  }
}

/** Whether laying this one want over the state changes what sounds. */
function isHeard(prover: Prover, store: WholeStore, target: SoundTarget, variable: VariableId): boolean {
  const device = prover.model.variables[variable].device;
  const loads =
    prover.model.device.get(device)?.presets?.variable === variable
      ? [...target.variables].filter(
          (other) => !target.named.has(other) && prover.model.variables[other].device === device,
        )
      : [];
  const heard = prover.comparison.judge(
    (v) => store.get(v),
    target.restrictedTo(new Set([variable, ...loads]), variable),
    {
      obey: false,
      pins: store.pins,
    },
  );
  return heard.is !== 'right';
}

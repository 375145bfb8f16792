import type { Literal } from '../../model/anatomy.ts';
import type { Sound } from '../../model/documents.ts';
import { memoised } from '../../model/memo.ts';
import type { Level } from '../prove/verdict.ts';
import { ChoiceSequence } from '../deliver/choice-sequence.ts';
import type { Heard } from '../audible/sound-comparison.ts';
import { type SoundTarget, unwanted } from '../audible/sound-target.ts';
import type { StateModel, ModelSlot } from '../state/state-model.ts';
import type { Prover } from '../prove/prover.ts';
import type { Sequence, SequenceStep } from '../prove/sequence.ts';
import { type Sent, SimulatedRig } from '../deliver/simulated-rig.ts';
import type { WholeStore } from '../state/store.ts';
import { type ContentSymbol, NeedPin } from '../state/values.ts';

export interface PlayedStep {
  readonly step: SequenceStep | { readonly kind: 'power-up' };
  readonly heard: readonly Sent[];
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
  const laid = level === 1 ? prover.layOf(sound).withoutCues() : prover.layOf(sound);
  const { rig, heard, steps } = goneWrong(prover, sequence, laid, 'told');
  return {
    steps,
    wants: [...wantsAt(prover, rig.store, laid)],
    heard: heard.is,
    silent: heard.is === 'wrong' && heard.silent,
  };
}

/** Ways to choose what a sequence leaves open that are tried. */
const tries = 400;

interface Run {
  readonly rig: SimulatedRig;
  readonly heard: Heard;
  readonly isQuiet: boolean;
  /** Each step as it was played. */
  readonly steps: readonly PlayedStep[];
}

/** The first run of a sequence that ends wrong or never settles; where none does, the first. */
function goneWrong(prover: Prover, sequence: Sequence, laid: SoundTarget, how: 'told' | 'untold'): Run {
  /** Contents that nobody entered and that what happens turns on: assumed, one way after the other. */
  const assumed: ContentSymbol[] = [];
  let choices = new ChoiceSequence();
  let first: Run | undefined;
  for (let i = 0; i < tries; i += 1) {
    choices.begin();
    const pins = new Map(assumed.map((symbol) => [symbol.id, choices.of(symbol.options.length)]));
    try {
      const run = playOnce(prover, sequence, laid, new SimulatedRig(prover.model, choices, pins), how);
      if (!run.isQuiet || run.heard.is === 'wrong') return run;
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
  laid: SoundTarget,
  rig: SimulatedRig,
  how: 'told' | 'untold',
): Run {
  const { model } = prover;
  const steps: PlayedStep[] = [];
  let isQuiet = true;
  const noting = (step: PlayedStep['step'], before: Int32Array | null, quiet: boolean) => {
    isQuiet &&= quiet;
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
    isQuiet,
    heard: prover.hearing.judge((variable) => rig.store.get(variable), laid, { obey: true, pins: rig.store.pins }),
  };
}

const changesOf = ({ values, variableOf }: StateModel, before: Int32Array, after: Int32Array): PlayedStep['changed'] =>
  [...variableOf].flatMap(([ref, variable]) =>
    before[variable] === after[variable]
      ? []
      : [{ ref, from: values.literal(before[variable]) ?? null, to: values.literal(after[variable]) ?? null }],
  );

/** By the sequence played. */
const firstWrongs = memoised(
  ({ machinery }: StateModel) => machinery,
  () =>
    new WeakMap<
      Sequence,
      {
        readonly pressed: readonly (ModelSlot | undefined)[];
        readonly laid: SoundTarget;
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
  const laid = prover.layOf(sound);
  const pressed = sequence.steps.map((step) => (step.kind === 'press' ? model.slot.get(step.slot) : undefined));
  const known = firstWrongs(model).get(sequence);
  if (known && known.laid === laid && pressed.every((slot, i) => slot === known.pressed[i])) return known.wrong;
  const { rig } = goneWrong(prover, sequence, laid, 'untold');
  let wrong: PlayedWant | undefined;
  for (const want of wantsAt(prover, rig.store, laid))
    if (!want.right) {
      wrong = want;
      break;
    }
  firstWrongs(model).set(sequence, { pressed, laid, wrong });
  return wrong;
}

function* wantsAt(prover: Prover, store: WholeStore, laid: SoundTarget): Generator<PlayedWant> {
  const { model } = prover;
  const differing = [...laid.named].filter(
    (variable) => store.get(variable) !== laid.wants(variable) && !laid.cues.has(variable),
  );
  const audible = new Set(
    prover.outlook.audible(
      laid,
      differing,
      prover.outlook.settledGround((variable) => store.get(variable)),
    ),
  );
  for (const [ref, variable] of model.variableOf) {
    const wanted = laid.wants(variable);
    if (wanted === unwanted || !laid.named.has(variable)) continue;
    const right = !audible.has(variable) || !isHeard(prover, store, laid, variable);
    yield {
      ref,
      wanted: model.values.literal(wanted) ?? '?',
      cameUp: model.values.literal(store.get(variable)) ?? null,
      right,
    };
  }
}

/** Whether laying this one want over the state changes what sounds. */
function isHeard(prover: Prover, store: WholeStore, laid: SoundTarget, variable: number): boolean {
  const device = prover.model.variables[variable].device;
  const loads =
    prover.model.device.get(device)?.presets?.variable === variable
      ? [...laid.variables].filter((other) => !laid.named.has(other) && prover.model.variables[other].device === device)
      : [];
  const heard = prover.hearing.judge((v) => store.get(v), laid.restrictedTo(new Set([variable, ...loads]), variable), {
    obey: false,
    pins: store.pins,
  });
  return heard.is !== 'right';
}

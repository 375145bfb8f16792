import type { SoundComparison } from '../audible/sound-comparison.ts';
import { SoundTarget } from '../audible/sound-target.ts';
import type { ThreeValuedJudge } from '../audible/three-valued-judge.ts';
import type { CompiledEvent } from '../explore/event-table.ts';
import { TooManyStates } from '../explore/row.ts';
import type { VariableId } from '../state/ids.ts';
import type { StateModel } from '../state/state-model.ts';
import { NeedPin } from '../state/values.ts';
import { judgeBeliefs, type Rightness } from './judge.ts';
import { type Belief, type Machine, OneMachine, Unsettled } from './machine.ts';
import { Beliefs, heardVariables, Machines } from './machines.ts';
import { type Move, Moves } from './moves.ts';
import { fewestMoves, type Found } from './search.ts';

/** What feet and hands do for a part that no slot plays. */
export interface Derived {
  /** In time, before the bar line: what the part before does not mind. */
  readonly before: readonly Move[];
  /** On the bar line. */
  readonly on: readonly Move[];
  /** Why there is nothing to do that brings the sound up; null where there is. */
  readonly failed:
    null | { readonly is: 'stuck'; readonly controls: readonly VariableId[] } | { readonly is: 'unknown' };
}

/** What a part is planned from. */
export interface PartToPlan {
  readonly target: SoundTarget;
  /** Written steps after the bar line, which the sound is judged after. */
  readonly after: readonly CompiledEvent[];
  /** What sounds until the bar line; null where there is time, between songs or in a pause. */
  readonly soundBefore: SoundTarget | null;
}

/**
 * Follows a set from power-up and says, part by part, what feet and hands have to do. Machines are joined where they
 * turn out to be one: what is asked of them stands inside `joining`.
 */
export class FootPlanner {
  readonly moves: Moves;
  /** Variables that turned out to belong together. */
  private readonly joined: (readonly VariableId[])[];
  private split: Machines;
  /** What sounds can turn on. */
  private readonly heard: ReadonlySet<VariableId>;
  private readonly happened: CompiledEvent[] = [];
  private here: Beliefs | null = null;

  constructor(
    readonly model: StateModel,
    readonly comparison: SoundComparison,
    readonly threeValued: ThreeValuedJudge,
  ) {
    this.moves = new Moves(model);
    const heard = heardVariables(comparison);
    this.heard = heard;
    this.joined = [
      ...this.moves.feet.map(({ compiled }) => [...compiled.summary.written]),
      // Where power-up leaves open which preset is there, what it stores comes up with it.
      ...model.devices.flatMap(({ presets }) =>
        presets ? [[presets.variable, ...presets.loads.map(({ variable }) => variable)]] : [],
      ),
    ].map((group) => group.filter((variable) => heard.has(variable)));
    this.split = this.splitAnew();
  }

  private splitAnew(): Machines {
    return new Machines(
      this.model,
      this.heard,
      this.joined.filter((group) => group.length > 0),
    );
  }

  /** Something happens that is not derived: a press, a bank move, a written step. */
  follow(compiled: CompiledEvent): void {
    const { here } = this;
    this.happened.push(compiled);
    if (!here) return;
    try {
      this.here = here.after(compiled);
    } catch (reason) {
      if (!(reason instanceof OneMachine) && !isUnknowable(reason)) throw reason;
      // Followed anew when somebody asks: with these machines joined, or to learn that nothing is known.
      if (reason instanceof OneMachine) this.join(reason);
      this.here = null;
    }
  }

  /** What is done for a part; it has happened then. */
  derive(part: PartToPlan): Derived {
    try {
      const derived = this.joining(() => this.search(part));
      for (const { compiled } of [...derived.before, ...derived.on]) this.follow(compiled);
      return derived;
    } catch (reason) {
      if (!isUnknowable(reason)) throw reason;
      return { before: [], on: [], failed: { is: 'unknown' } };
    }
  }

  /** Whether a sound is right as things are, its cues taken as done or not; `unknown` where it cannot be told. */
  judge(target: SoundTarget, obey = false): Rightness {
    try {
      return this.joining(() => this.judgeAt(this.now(), target, obey));
    } catch (reason) {
      if (!isUnknowable(reason)) throw reason;
      return 'unknown';
    }
  }

  /** What hands set in the course of the set. */
  get cues(): readonly CompiledEvent[] {
    return this.happened.filter(({ event }) => event.kind === 'cue');
  }

  /** What everything may be now. */
  now(): Beliefs {
    return (this.here ??= this.happened.reduce(
      (here, compiled) => here.after(compiled),
      Beliefs.atPowerUp(this.machines),
    ));
  }

  private judgeAt(beliefs: Beliefs, target: SoundTarget, obey = false): Rightness {
    return judgeBeliefs(this.comparison, this.machines, (machine) => beliefs.of(machine), target, obey);
  }

  get machines(): Machines {
    return this.split;
  }

  /** Tries again, with machines joined that turned out to be one. */
  joining<T>(attempt: () => T): T {
    for (;;) {
      try {
        return attempt();
      } catch (reason) {
        if (!(reason instanceof OneMachine)) throw reason;
        this.join(reason);
      }
    }
  }

  private join({ variables }: OneMachine): void {
    this.joined.push(variables);
    this.split = this.splitAnew();
    this.here = null;
  }

  private search({ target, after, soundBefore }: PartToPlan): Derived {
    const start = this.now();
    const { machines, comparison, threeValued } = this;
    const then = (machine: Machine, belief: Belief) =>
      after.reduce(
        (here, compiled) => (machines.movedBy(compiled).includes(machine) ? machine.after(here, compiled) : here),
        belief,
      );
    const movesOn = (machine: Machine, belief: Belief) => [
      ...this.moves.feetOn(machines, machine),
      ...this.moves.handsOn(machine, belief, target, true),
    ];
    const search = {
      machines,
      comparison,
      threeValued,
      target,
      beliefOf: (machine: Machine) => start.of(machine),
      then,
    };
    const concerns = this.concerning(target);
    let found: Found = fewestMoves({
      ...search,
      movesOn: (machine, belief) => movesOn(machine, belief).filter(concerns),
    });
    if (found.is === 'none' && this.maySilence(target, (machine) => then(machine, start.of(machine))))
      found = fewestMoves({ ...search, movesOn });
    if (found.is === 'none') return { before: [], on: [], failed: { is: 'stuck', controls: found.stuck } };
    if (found.is === 'unknown') return { before: [], on: [], failed: { is: 'unknown' } };
    return { ...this.inTime(found.moves, start, soundBefore), failed: null };
  }

  /**
   * Whether a move touches anything that a sound asks for: what it leaves open stays as it is, so that no piece is
   * switched off to hide a setting that nothing reaches. Turning a page that no sound can tell is such a move too,
   * where it decides what another of them does.
   */
  concerning(target: SoundTarget): (move: Move) => boolean {
    const decides = new Set<VariableId>();
    const concerns = ({ compiled: { summary } }: Move): boolean =>
      summary.written.some((variable) => target.has(variable)) ||
      (summary.written.length > 0 && summary.written.every((variable) => decides.has(variable)));
    for (let before = -1; before < decides.size;) {
      before = decides.size;
      for (const move of this.moves.feet)
        if (concerns(move)) for (const variable of move.armedBy) if (!this.heard.has(variable)) decides.add(variable);
    }
    return concerns;
  }

  /** Whether nothing may be heard, in a sound that wants to be. */
  private maySilence({ sound }: SoundTarget, beliefOf: (machine: Machine) => Belief): boolean {
    const anything = SoundTarget.ofAnything(sound, this.model.variables.length);
    return !sound.silence && judgeBeliefs(this.comparison, this.machines, beliefOf, anything) !== 'right';
  }

  /** Moves that can be made before the bar line, unheard: in order, each where those before it on its machine can. */
  private inTime(
    moves: readonly Move[],
    start: Beliefs,
    soundBefore: SoundTarget | null,
  ): Pick<Derived, 'before' | 'on'> {
    if (!soundBefore) return { before: moves, on: [] };
    if (this.judgeAt(start, soundBefore) !== 'right') return { before: [], on: moves };
    const before: Move[] = [];
    const on: Move[] = [];
    let here = start;
    for (const move of moves) {
      const moved = this.machines.movedBy(move.compiled);
      const waits = on.some(({ compiled }) =>
        this.machines.movedBy(compiled).some((machine) => moved.includes(machine)),
      );
      const next = here.after(move.compiled);
      if (waits || this.judgeAt(next, soundBefore) !== 'right') on.push(move);
      else {
        before.push(move);
        here = next;
      }
    }
    return { before, on };
  }
}

/** What makes everything after it unknown. */
export const isUnknowable = (reason: unknown): boolean =>
  reason instanceof Unsettled || reason instanceof TooManyStates || reason instanceof NeedPin;

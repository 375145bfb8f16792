import type { SoundTarget } from '../audible/sound-target.ts';
import type { CompiledEvent } from '../explore/event-table.ts';
import { type FootPlanner, isUnknowable } from './foot-planner.ts';
import { judgeBeliefs } from './judge.ts';
import type { Belief, Machine } from './machine.ts';
import { Beliefs } from './machines.ts';

/** A part as it is planned: what is done for it, and what it is meant to sound like. */
export interface PlannedPart {
  readonly events: readonly CompiledEvent[];
  /** Null where no sound is judged. */
  readonly target: SoundTarget | null;
}

/** One press that was left out, or one too many, and what comes of it while all else is done as planned. */
export interface Mistake {
  readonly kind: 'missed' | 'extra';
  /** The press; of a missed one the very event of the plan. */
  readonly compiled: CompiledEvent;
  /** The part for which it was missed, or in which it was one too many. */
  readonly at: number;
  /** Parts that come up wrong, which would come up right. */
  readonly wrong: readonly number[];
  /** The first part from which on all is right again; null where nothing of the set is. */
  readonly heals: number | null;
}

/**
 * Every single mistake in a set that is heard: each press of the plan missed, and after each part each switch pressed
 * once too often. In set order, missed ones first.
 */
export function mistakesIn(planner: FootPlanner, parts: readonly PlannedPart[]): readonly Mistake[] {
  try {
    return planner.joining(() => new Rehearsal(planner, parts).mistakes());
  } catch (reason) {
    if (!isUnknowable(reason)) throw reason;
    return [];
  }
}

/** Machines that are otherwise than planned, and what they may be. */
type Off = ReadonlyMap<Machine, Belief>;

class Rehearsal {
  /** What everything may be as planned: before each event, and after the last. */
  private readonly planned: readonly Beliefs[];
  private readonly events: readonly { readonly compiled: CompiledEvent; readonly part: number }[];
  /** How many events have happened when a part is judged. */
  private readonly ends: readonly number[];
  private readonly isRight: readonly boolean[];
  /** Parts that come up wrong from a part on, by what is off there. */
  private readonly known = new Map<string, readonly number[]>();

  constructor(
    private readonly planner: FootPlanner,
    private readonly parts: readonly PlannedPart[],
  ) {
    this.events = parts.flatMap(({ events }, part) => events.map((compiled) => ({ compiled, part })));
    let count = 0;
    this.ends = parts.map(({ events }) => (count += events.length));
    const planned = [Beliefs.atPowerUp(planner.machines)];
    for (const { compiled } of this.events) planned.push(planned[planned.length - 1].after(compiled));
    this.planned = planned;
    this.isRight = parts.map(({ target }, i) => target !== null && this.judge(i, target, new Map()) === 'right');
  }

  mistakes(): readonly Mistake[] {
    const { machines, moves } = this.planner;
    const missed = this.events.flatMap(({ compiled, part }, i): Mistake[] => {
      if (compiled.event.kind !== 'foot' && compiled.event.kind !== 'press') return [];
      const off = new Map(
        machines
          .movedBy(compiled)
          .filter((machine) => this.planned[i].of(machine) !== this.planned[i + 1].of(machine))
          .map((machine) => [machine, this.planned[i].of(machine)]),
      );
      return this.told('missed', compiled, part, this.wrongFrom(i + 1, part, off));
    });
    const extra = this.parts.flatMap((_, part) =>
      moves.feet.flatMap(({ compiled }): readonly Mistake[] => {
        const here = this.planned[this.ends[part]];
        const off = new Map<Machine, Belief>();
        if (this.isLifted(compiled)) return [];
        for (const machine of machines.movedBy(compiled)) {
          const next = machine.after(here.of(machine), compiled);
          if (next !== here.of(machine)) off.set(machine, next);
        }
        return this.told('extra', compiled, part, this.wrongFrom(this.ends[part], part, off));
      }),
    );
    return [...missed, ...extra];
  }

  /** A planned mute: the player lifts it, looking, before anything is played. */
  private isLifted({ event, summary }: CompiledEvent): boolean {
    const { comparison, machines } = this.planner;
    if (event.kind !== 'foot') return false;
    const moved = [...summary.written].filter((variable) => machines.machineOf(variable) !== undefined);
    return moved.length > 0 && moved.every((variable) => comparison.isLifted(variable));
  }

  private told(kind: Mistake['kind'], compiled: CompiledEvent, at: number, wrong: readonly number[]): Mistake[] {
    if (wrong.length === 0) return [];
    const next = wrong[wrong.length - 1] + 1;
    return [{ kind, compiled, at, wrong, heals: next < this.parts.length ? next : null }];
  }

  /** Goes on as planned from an event of a part with some machines off. */
  private wrongFrom(from: number, part: number, start: Off): readonly number[] {
    const off = new Map(start);
    for (let i = from; i < this.ends[part]; i += 1) this.step(i, off);
    if (off.size === 0) return [];
    const key = `${part}|${[...off]
      .map(([machine, { key }]) => `${machine.index}:${key}`)
      .sort()
      .join('|')}`;
    let wrong = this.known.get(key);
    if (!wrong) {
      const { target } = this.parts[part];
      const isWrong = this.isRight[part] && this.judge(part, target!, off) === 'wrong';
      const later = part + 1 < this.parts.length ? this.wrongFrom(this.ends[part], part + 1, off) : [];
      this.known.set(key, (wrong = isWrong ? [part, ...later] : later));
    }
    return wrong;
  }

  private step(i: number, off: Map<Machine, Belief>): void {
    const { compiled } = this.events[i];
    for (const machine of this.planner.machines.movedBy(compiled)) {
      const here = off.get(machine);
      if (!here) continue;
      const next = machine.after(here, compiled);
      if (next === this.planned[i + 1].of(machine)) off.delete(machine);
      else off.set(machine, next);
    }
  }

  private judge(part: number, target: SoundTarget, off: Off) {
    const { comparison, machines } = this.planner;
    const planned = this.planned[this.ends[part]];
    return judgeBeliefs(comparison, machines, (machine) => off.get(machine) ?? planned.of(machine), target);
  }
}

import type { Sound } from '../../model/rig.ts';
import type { Part } from '../../model/songbook.ts';
import { SoundComparison } from '../audible/sound-comparison.ts';
import type { SoundTarget } from '../audible/sound-target.ts';
import { ThreeValuedJudge } from '../audible/three-valued-judge.ts';
import { isStray } from '../deliver/events.ts';
import { type CompiledEvent, EventTable, type FreeLevel } from '../explore/event-table.ts';
import { neverSettlingAndUnused } from '../explore/settling.ts';
import type { Limits } from '../explore/state-space.ts';
import type { VariableId } from '../state/ids.ts';
import type { ModelSlot, StateModel } from '../state/state-model.ts';
import { hasPartsByFeet, playSet, type SetRun } from './set-run.ts';

/** What the proof of one model stands on, made once a revision: every question reads it, none changes it. */
export class ProofBase {
  readonly comparison: SoundComparison;
  readonly threeValued: ThreeValuedJudge;
  readonly table: EventTable;
  /** Slots that may never settle and that no part uses: left out of what may happen before. */
  readonly excluded: ReadonlySet<number>;
  /** Variables that letting go of a held switch may move. */
  readonly releasable: ReadonlySet<VariableId>;
  /** Whether a bank move does nothing but move the bank, and a press puts it where its slot is. */
  readonly movesOnlyBanks: boolean;
  private played: SetRun | undefined;
  private readonly targets = new Map<string, SoundTarget>();
  private readonly unquiet = new Map<FreeLevel, readonly CompiledEvent[]>();

  /** `kept`: the base before an edit, where it lends what it knows (`lendsTo`). */
  constructor(
    readonly model: StateModel,
    readonly limits: Limits,
    private readonly parts: readonly Part[],
    kept?: ProofBase,
  ) {
    this.comparison = kept ? kept.comparison : new SoundComparison(model);
    this.threeValued = kept ? kept.threeValued : new ThreeValuedJudge(this.comparison);
    const serving = kept && kept.alwaysSettles && kept.table.serves(model) ? kept.table : undefined;
    const derived = hasPartsByFeet(model)
      ? this.set.parts.flatMap(({ events }) =>
          events.flatMap(({ isDerived, action }) => (isDerived && action ? [action] : [])),
        )
      : [];
    const table = serving ?? new EventTable(model, none, kept?.table, derived);
    this.excluded = serving ? none : neverSettlingAndUnused(model, table, limits);
    this.table = this.excluded.size === 0 ? table : new EventTable(model, this.excluded, undefined, derived);
    this.releasable = new Set(
      this.table.ordinary
        .filter(({ event }) => event.kind === 'release')
        .flatMap(({ summary }) => [...summary.written]),
    );
    this.movesOnlyBanks =
      !model.mayFeedBack &&
      model.devices.every(
        ({ controller }) =>
          !controller ||
          (controller.powerUpSlot === undefined &&
            controller.facts.bankMove === 'silent' &&
            controller.facts.repeatPress !== 'alternates'),
      );
  }

  /** The set as it is played. */
  get set(): SetRun {
    return (this.played ??= playSet(this, this.parts));
  }

  /** Whether every event settles, whatever came before it. */
  get alwaysSettles(): boolean {
    return this.excluded.size === 0 && this.mayNotSettle(2).length === 0;
  }

  /**
   * Events of a level that may not settle, or of which it is not known; of stray feet the one alone, where one is given
   * by its index.
   */
  mayNotSettle(level: FreeLevel, stray?: number): readonly CompiledEvent[] {
    let events = this.unquiet.get(level);
    if (!events) {
      const faults = new Set(this.model.wiring.rig.settings.faults);
      events = this.table.at(level, faults).filter((compiled) => this.mayStayUnquiet(compiled));
      this.unquiet.set(level, events);
    }
    return stray === undefined ? events : events.filter(({ event, index }) => !isStray(event) || index === stray);
  }

  private mayStayUnquiet({ event, outcome, operations }: CompiledEvent): boolean {
    if (outcome !== 'settled') return true;
    if (operations !== null || !this.model.mayFeedBack) return false;
    return event.kind !== 'restart' || event.device.controller?.powerUpSlot !== undefined;
  }

  targetOf(sound: Sound): SoundTarget {
    let target = this.targets.get(sound.id);
    if (!target) this.targets.set(sound.id, (target = this.comparison.resolveTarget(sound)));
    return target;
  }

  /** Silent bank moves make every slot pressable. */
  isPlayable(slot: ModelSlot): boolean {
    return this.model.device.get(slot.slot.controller)!.controller!.facts.bankMove === 'silent';
  }

  /** Bank variables of controllers whose bank moves cost a press. */
  banksOf(controllers: readonly string[]): number[] {
    return [...new Set(controllers)].flatMap((id) => {
      const controller = this.model.device.get(id)?.controller;
      return controller && controller.facts.banks > 1 ? [controller.bank] : [];
    });
  }
}

/**
 * Whether what was worked out of a model stays true of another: only the actions of slots differ, and an event fires no
 * slot but its own.
 */
export const lendsTo = (before: StateModel, now: StateModel): boolean =>
  before.devices === now.devices &&
  !hasPartsByFeet(before) &&
  !hasPartsByFeet(now) &&
  !now.mayFeedBack &&
  now.devices.every(
    ({ controller }) =>
      !controller ||
      (controller.powerUpSlot === undefined &&
        controller.facts.bankMove === 'silent' &&
        controller.facts.repeatPress === 'fires'),
  );

const none: ReadonlySet<never> = new Set();

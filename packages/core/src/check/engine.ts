import type { Show } from '../model/documents.ts';
import type { Slot, Waiver } from '../model/rig.ts';
import { playedParts } from '../model/set-order.ts';
import { isWiredAlike, relabelled, buildWiring } from '../model/wiring.ts';
import { compiler, type SlotActions } from '../program/compile.ts';
import { Prover } from '../recall/prove/prover.ts';
import { buildStateModel } from '../recall/state/build-state-model.ts';
import { withSlots } from '../recall/state/with-slots.ts';
import { Tracer } from '../trace/trace.ts';
import { withCauses } from './causes.ts';
import type { Compiled, Context, Finding, Rule, Severity } from './define-rule.ts';

/**
 * A show resolved for asking. With the context of the show before, what an edit did not touch is taken over: the
 * wiring, the traces, the model and what was proved of it where signal and messages go the same ways, the actions of
 * slots whose sound is the very same.
 */
export function contextOf(show: Show, before?: Context): Context {
  const kept = before && isWiredAlike(before.show.rig, show.rig) ? before : undefined;
  const wiring = kept ? relabelled(kept.wiring, show.rig) : buildWiring(show.rig);
  const tracer = kept ? kept.tracer : new Tracer(wiring);
  const compile = compiler(wiring);
  const compiled = new Map<Slot, Compiled>();
  const actionsOf = (slot: Slot): SlotActions => {
    const sound = slot.sound === null ? undefined : show.rig.sounds[slot.sound];
    const known = kept?.compiled.get(slot);
    const actions = known && known.sound === sound ? known.actions : compile(slot);
    compiled.set(slot, { sound, actions });
    return actions;
  };
  const reslotted = kept && withSlots(kept.prover.model, wiring, actionsOf);
  const model = reslotted ?? buildStateModel(wiring, actionsOf);
  return {
    show,
    wiring,
    tracer,
    compiled,
    prover: new Prover(model, playedParts(show), undefined, reslotted ? kept!.prover : undefined),
  };
}

export interface Checked {
  readonly findings: readonly Finding[];
  /** Findings that somebody accepted, each with the reason. */
  readonly waived: readonly { readonly finding: Finding; readonly waiver: Waiver }[];
  /** Rules that threw: a bug in a rule never hides the others' findings. */
  readonly broken: readonly { readonly ruleId: string; readonly reason: string }[];
}

const rank: Record<Severity, number> = { 'stops-the-show': 0, 'fix-before-load-in': 1, 'worth-knowing': 2 };

/** Runs the given rules; the engine knows none of them by name. */
export function check(context: Context, rules: readonly Rule[]): Checked {
  const findings: Finding[] = [];
  const broken: { ruleId: string; reason: string }[] = [];
  for (const rule of rules) {
    try {
      for (const reported of rule.check(context))
        findings.push({ ...reported, ruleId: rule.meta.id, severity: reported.severity ?? rule.meta.severity });
    } catch (reason) {
      broken.push({ ruleId: rule.meta.id, reason: reason instanceof Error ? reason.message : String(reason) });
    }
  }
  findings.sort((a, b) => rank[a.severity] - rank[b.severity]);
  const waivers = Object.values(context.show.rig.waivers ?? {});
  const waiverOf = (finding: Finding) => waivers.find((waiver) => isAbout(waiver, finding));
  return {
    findings: withCauses(
      context,
      findings.filter((finding) => !waiverOf(finding)),
    ),
    waived: findings.flatMap((finding) => {
      const waiver = waiverOf(finding);
      return waiver ? [{ finding, waiver }] : [];
    }),
    broken,
  };
}

/** The same rule about the same place. */
const isAbout = (waiver: Pick<Waiver, 'rule' | 'at'>, finding: Finding): boolean =>
  waiver.rule === finding.ruleId &&
  (['sound', 'slot', 'device', 'part'] as const).every((what) => waiver.at[what] === finding.at[what]);

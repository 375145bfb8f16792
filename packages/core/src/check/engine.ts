import type { Show } from '../model/documents.ts';
import { partsInSetOrder } from '../model/set-order.ts';
import { wire } from '../model/wiring.ts';
import { compiler } from '../program/compile.ts';
import { buildPlant } from '../recall/plant.ts';
import { Prover } from '../recall/proof.ts';
import { Tracer } from '../trace/trace.ts';
import type { Context, Finding, Rule, Severity } from './define-rule.ts';

export function contextOf(show: Show): Context {
  const wiring = wire(show.rig);
  return { show, wiring, tracer: new Tracer(wiring), prover: new Prover(buildPlant(wiring, compiler(wiring)), partsInSetOrder(show)) };
}

export interface Checked {
  readonly findings: readonly Finding[];
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
      for (const reported of rule.check(context)) findings.push({ ...reported, ruleId: rule.meta.id, severity: reported.severity ?? rule.meta.severity });
    } catch (reason) {
      broken.push({ ruleId: rule.meta.id, reason: reason instanceof Error ? reason.message : String(reason) });
    }
  }
  return { findings: findings.sort((a, b) => rank[a.severity] - rank[b.severity]), broken };
}

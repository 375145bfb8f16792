import {
  applySteps,
  check,
  contextOf,
  type Context,
  type Finding,
  type FootPlan,
  footPlan,
  formatFinding,
  type Level,
  type PartPlan,
  partPlans,
  play,
  type Played,
  rules,
  type Sequence,
  type Show,
  type StrayReport,
  strayReports,
} from '@yunta/core';
import type { Judged, JudgeRequest, Proved, ToldFinding } from './judge-types.ts';

/**
 * Judges shows side by side, each under its id: a rig and a variant of it, or two that are compared. Of each it holds
 * the newest with its memo tables: steps come in, findings go out, and the newest request wins. `turn` lets whatever
 * has come in meanwhile be taken first.
 */
export class Judging {
  private readonly sessions = new Map<string, Session>();

  constructor(private readonly turn: () => Promise<void>) {}

  /**
   * What is found after an edit; null where a newer one came meanwhile, `out of step` where the whole show must be
   * sent.
   */
  async judge(id: string, request: JudgeRequest): Promise<Judged | null | 'out of step'> {
    const session = this.session(id);
    if (!session.takeIn(request)) return 'out of step';
    const mine = session.serial;
    await this.turn();
    return mine === session.serial ? session.judge() : null;
  }

  /** Verdicts of one level; null where a newer show came meanwhile. Gives way between slots. */
  async prove(id: string, level: Level): Promise<Proved | null> {
    const session = this.session(id);
    const { context, serial } = session;
    if (!context) return null;
    const started = performance.now();
    let last = started;
    const judgements = [];
    for (const { slot, sound } of context.prover.pairs()) {
      judgements.push(context.prover.judge(slot, sound, level));
      if (performance.now() - last < 30) continue;
      await this.turn();
      if (serial !== session.serial) return null;
      last = performance.now();
    }
    const sizes = context.prover.spaceSizes();
    return {
      level,
      judgements,
      byFeet: partPlans(context.prover).flatMap(({ judgement }) => judgement ?? []),
      milliseconds: performance.now() - started,
      spaces: sizes.length,
      states: sizes.reduce((sum, size) => sum + size.states, 0),
    };
  }

  /** What is done for each part of the set, as the cue sheet has it. */
  partPlans(id: string): readonly PartPlan[] {
    const context = this.session(id).newest();
    return context ? partPlans(context.prover) : [];
  }

  /** What feet and hands do without slots, what a mistake costs, how to get back; null where every part has a slot. */
  footPlan(id: string): FootPlan | null {
    const context = this.session(id).newest();
    return context ? footPlan(context.prover) : null;
  }

  /** Level 3 switch by switch. */
  strays(id: string): readonly StrayReport[] {
    const { context } = this.session(id);
    return context ? strayReports(context.prover) : [];
  }

  play(id: string, sequence: Sequence, sound: string, level: Level): Played | null {
    const { context } = this.session(id);
    const held = context?.show.rig.sounds[sound];
    return context && held ? play(context.prover, sequence, held, level) : null;
  }

  /** Forgets a show that nobody looks at any more. */
  forget(id: string): void {
    this.sessions.delete(id);
  }

  private session(id: string): Session {
    let session = this.sessions.get(id);
    if (!session) this.sessions.set(id, (session = new Session()));
    return session;
  }
}

/** One show as it was told last, with what was worked out of it. */
class Session {
  context: Context | null = null;
  /** Counts the shows taken in. */
  serial = 0;
  private show: Show | null = null;

  /** Takes an edit or a whole show in; false where the steps do not apply to what is held. */
  takeIn(request: JudgeRequest): boolean {
    if ('show' in request) this.show = request.show;
    else {
      const result = this.show ? applySteps(this.show, request.steps) : null;
      if (!result?.ok) return false;
      this.show = result.value;
    }
    this.serial += 1;
    return true;
  }

  /** The context of the newest show, judged or not. */
  newest(): Context | null {
    if (this.show && this.context?.show !== this.show) this.context = contextOf(this.show, this.context ?? undefined);
    return this.context;
  }

  judge(): Judged {
    const started = performance.now();
    this.context = contextOf(this.show!, this.context ?? undefined);
    const { findings, waived, broken } = check(this.context, rules);
    return {
      serial: this.serial,
      findings: byCause(findings),
      waived: waived.map(({ finding, waiver }) => ({ finding: inWords(finding), waiver })),
      broken,
      milliseconds: performance.now() - started,
    };
  }
}

/** The causes, each with what follows from it. */
function byCause(findings: readonly Finding[]): readonly ToldFinding[] {
  const key = ({ ruleId, at }: NonNullable<Finding['follows']>) => JSON.stringify([ruleId, at]);
  const following = new Map<string, ToldFinding[]>();
  for (const finding of findings) {
    if (!finding.follows) continue;
    const list = following.get(key(finding.follows)) ?? [];
    list.push(inWords(finding));
    following.set(key(finding.follows), list);
  }
  return findings.flatMap((finding) => (finding.follows ? [] : [inWords(finding, following.get(key(finding)))]));
}

function inWords(finding: Finding, following: readonly ToldFinding[] = []): ToldFinding {
  const { title, why, remedy, source } = rules.find((rule) => rule.meta.id === finding.ruleId)!.meta;
  return { ...finding, text: formatFinding(finding, rules), title, why, remedy, source, following };
}

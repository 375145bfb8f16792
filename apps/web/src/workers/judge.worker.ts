import { applySteps, check, contextOf, type Context, type Finding, formatFinding, type Level, play, type Played, rules, type Sequence, type Show, type Step, type StrayReport, strayReports } from '@yunta/core';
import { expose } from 'comlink';
import type { Judged, Proved, ToldFinding } from './judge-types.ts';

/** Holds the newest show and its memo tables: steps come in, findings go out; the newest request wins. */
let show: Show | null = null;
let context: Context | null = null;
let serial = 0;

function judged(): Judged {
  const started = performance.now();
  context = contextOf(show!, context ?? undefined);
  const { findings, waived, broken } = check(context, rules);
  const told = (finding: Finding): ToldFinding => {
    const { title, why, remedy, source } = rules.find((rule) => rule.meta.id === finding.ruleId)!.meta;
    return { ...finding, text: formatFinding(finding, rules), title, why, remedy, source };
  };
  return { findings: findings.map(told), waived: waived.map(({ finding, waiver }) => ({ finding: told(finding), waiver })), broken, milliseconds: performance.now() - started };
}

/** Lets whatever has come in meanwhile be taken first. */
const turn = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 0));

const api = {
  /** Takes a whole show in. */
  load(whole: Show): void {
    show = whole;
    serial += 1;
  },

  /** Takes an edit in; false where its steps do not apply here, so that the whole show must be sent. */
  edit(steps: readonly Step[]): boolean {
    const result = show ? applySteps(show, steps) : null;
    if (!result?.ok) return false;
    show = result.value;
    serial += 1;
    return true;
  },

  /** What is found in the show last taken in; null where a newer one came meanwhile. */
  async judge(): Promise<Judged | null> {
    const mine = serial;
    await turn();
    return mine === serial && show ? judged() : null;
  },

  /** Verdicts of one level; null where a newer show came meanwhile. Gives way between slots. */
  async prove(level: Level): Promise<Proved | null> {
    const mine = serial;
    const asked = context;
    if (!asked) return null;
    const started = performance.now();
    let last = started;
    const judgements = [];
    for (const { slot, sound } of asked.prover.pairs()) {
      judgements.push(asked.prover.judge(slot, sound, level));
      if (performance.now() - last < 30) continue;
      await turn();
      if (mine !== serial) return null;
      last = performance.now();
    }
    const sizes = asked.prover.machineSizes();
    return { level, judgements, milliseconds: performance.now() - started, machines: sizes.length, states: sizes.reduce((sum, size) => sum + size.states, 0) };
  },

  /** Level 3 switch by switch. */
  strays(): readonly StrayReport[] {
    return context ? strayReports(context.prover) : [];
  },

  play(sequence: Sequence, sound: string): Played | null {
    const held = context?.show.rig.sounds[sound];
    return context && held ? play(context.prover, sequence, held) : null;
  },
};

export type JudgeApi = typeof api;
expose(api);

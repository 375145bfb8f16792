import type { Finding, Judgement, Level, PartJudgement, Show, Step, Waiver } from '@yunta/core';

/** A finding with its words. */
export interface ToldFinding extends Finding {
  readonly text: string;
  readonly title: string;
  readonly why: string;
  readonly remedy: string;
  readonly source: string;
  /** What follows from it, and is not counted beside it. */
  readonly following: readonly ToldFinding[];
}

/** What the worker is told: the steps of an edit, or a whole show. */
export type JudgeRequest = { readonly steps: readonly Step[] } | { readonly show: Show };

export interface Judged {
  /** Counts the shows that the worker has taken in. */
  readonly serial: number;
  readonly findings: readonly ToldFinding[];
  readonly waived: readonly { readonly finding: ToldFinding; readonly waiver: Waiver }[];
  readonly broken: readonly { readonly ruleId: string; readonly reason: string }[];
  readonly milliseconds: number;
}

export interface Proved {
  readonly level: Level;
  readonly judgements: readonly Judgement[];
  /** Parts that feet and hands bring up, judged in set order whatever the level. */
  readonly byFeet: readonly PartJudgement[];
  readonly milliseconds: number;
  readonly spaces: number;
  readonly states: number;
}

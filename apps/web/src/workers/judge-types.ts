import type { Finding, Judgement } from '@yunta/core';

export interface ToldFinding extends Finding {
  readonly text: string;
  readonly title: string;
  readonly why: string;
  readonly remedy: string;
  readonly source: string;
}

export interface Judged {
  readonly findings: readonly ToldFinding[];
  readonly broken: readonly { readonly ruleId: string; readonly reason: string }[];
  readonly milliseconds: number;
}

export type ProofRow = Judgement;

import type { Step } from '../change/steps.ts';
import type { Show } from '../model/documents.ts';
import type { Slot, Sound } from '../model/rig.ts';
import type { Wiring } from '../model/wiring.ts';
import type { SlotActions } from '../program/compile.ts';
import type { Prover } from '../recall/prove/prover.ts';
import type { Tracer } from '../trace/trace.ts';

export type Severity = 'stops-the-show' | 'fix-before-load-in' | 'worth-knowing';
export const severityWords: Record<Severity, string> = {
  'stops-the-show': 'stops the show',
  'fix-before-load-in': 'fix before load-in',
  'worth-knowing': 'worth knowing',
};

export type Facts = Readonly<Record<string, string | number>>;

/** What a finding is about, so that screens can show it where it belongs. */
export interface Where {
  readonly sound?: string;
  readonly slot?: string;
  readonly device?: string;
  readonly part?: string;
}

/** A judgement as facts; its words are made by formatFinding. */
export interface Finding<M extends string = string> {
  readonly ruleId: string;
  readonly messageId: M;
  readonly severity: Severity;
  readonly at: Where;
  readonly data: Facts;
  readonly fix?: { readonly label: string; readonly steps: readonly Step[] };
  /** The finding that this one follows from: not counted, since it cannot be told apart before that one is mended. */
  readonly follows?: Cause;
}

/** A finding, by its rule and its place. */
export interface Cause {
  readonly ruleId: string;
  readonly at: Where;
}

export type Reported<M extends string> = Omit<Finding<M>, 'ruleId' | 'severity' | 'follows'> & {
  readonly severity?: Severity;
};

/** Everything a rule may ask; each part is worked out at most once a revision. */
export interface Context {
  readonly show: Show;
  readonly wiring: Wiring;
  readonly tracer: Tracer;
  readonly prover: Prover;
  /** What each slot does, with the sound that it was compiled from. */
  readonly compiled: ReadonlyMap<Slot, Compiled>;
}

export interface Compiled {
  readonly sound: Sound | undefined;
  readonly actions: SlotActions;
}

export interface Rule<M extends string = string> {
  readonly meta: {
    readonly id: string;
    readonly severity: Severity;
    readonly title: string;
    readonly why: string;
    readonly remedy: string;
    readonly source: string;
    readonly messages: Readonly<Record<M, string>>;
  };
  readonly check: (context: Context) => readonly Reported<M>[];
}

export const defineRule = <M extends string>(rule: Rule<M>): Rule<M> => rule;

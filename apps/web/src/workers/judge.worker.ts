import { check, contextOf, type Context, formatFinding, type Level, play, rules, type Sequence, type Show } from '@yunta/core';
import { expose } from 'comlink';
import type { Judged, ProofRow, ToldFinding } from './judge-types.ts';

/** Holds the newest show and its memo tables; the newest request wins. */
let context: Context | null = null;
let serial = 0;

const api = {
  /** Takes a show in and says what it finds; null where a newer show came meanwhile. */
  judge(show: Show): Judged | null {
    const mine = (serial += 1);
    const started = performance.now();
    context = contextOf(show);
    const { findings, broken } = check(context, rules);
    if (mine !== serial) return null;
    const told: ToldFinding[] = findings.map((finding) => {
      const rule = rules.find((one) => one.meta.id === finding.ruleId)!;
      return { ...finding, text: formatFinding(finding, rules), title: rule.meta.title, why: rule.meta.why, remedy: rule.meta.remedy, source: rule.meta.source };
    });
    return { findings: told, broken, milliseconds: performance.now() - started };
  },

  /** Verdicts of one level, for the show last taken in. */
  prove(level: Level): ProofRow[] {
    return context ? context.prover.all(level) : [];
  },

  play(sequence: Sequence, sound: string) {
    const held = context?.show.rig.sounds[sound];
    return context && held ? play(context.prover, sequence, held) : null;
  },
};

export type JudgeApi = typeof api;
expose(api);

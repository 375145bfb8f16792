import {
  applySteps,
  check,
  contextOf,
  type Context,
  type Finding,
  formatFinding,
  type Level,
  play,
  type Played,
  readSmf,
  type Result,
  rules,
  type Sequence,
  type Show,
  songsFromMidi,
  type SongsFromMidi,
  type StrayReport,
  strayReports,
} from '@yunta/core';
import { expose } from 'comlink';
import type { Judged, JudgeRequest, Proved, ToldFinding } from './judge-types.ts';

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
  return {
    serial,
    findings: findings.map(told),
    waived: waived.map(({ finding, waiver }) => ({ finding: told(finding), waiver })),
    broken,
    milliseconds: performance.now() - started,
  };
}

/** Lets whatever has come in meanwhile be taken first: a message to itself goes behind those that wait. */
const turn = (): Promise<void> =>
  new Promise((resolve) => {
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => {
      port1.close();
      resolve();
    };
    port2.postMessage(null);
  });

/** Takes an edit or a whole show in; false where the steps do not apply to what is held. */
function takeIn(request: JudgeRequest): boolean {
  if ('show' in request) show = request.show;
  else {
    const result = show ? applySteps(show, request.steps) : null;
    if (!result?.ok) return false;
    show = result.value;
  }
  serial += 1;
  return true;
}

const api = {
  /**
   * What is found after an edit; null where a newer one came meanwhile, `out of step` where the whole show must be
   * sent.
   */
  async judge(request: JudgeRequest): Promise<Judged | null | 'out of step'> {
    if (!takeIn(request)) return 'out of step';
    const mine = serial;
    await turn();
    return mine === serial ? judged() : null;
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
    const sizes = asked.prover.spaceSizes();
    return {
      level,
      judgements,
      milliseconds: performance.now() - started,
      machines: sizes.length,
      states: sizes.reduce((sum, size) => sum + size.states, 0),
    };
  },

  /** Level 3 switch by switch. */
  strays(): readonly StrayReport[] {
    return context ? strayReports(context.prover) : [];
  },

  /** Songs of a MIDI file: read here, since a long one takes a while. */
  songsOf(bytes: Uint8Array, name: string): Result<SongsFromMidi> {
    const smf = readSmf(bytes);
    return smf.ok ? { ok: true, value: songsFromMidi(smf.value, name) } : smf;
  },

  play(sequence: Sequence, sound: string, level: Level): Played | null {
    const held = context?.show.rig.sounds[sound];
    return context && held ? play(context.prover, sequence, held, level) : null;
  },
};

export type JudgeApi = typeof api;
expose(api);

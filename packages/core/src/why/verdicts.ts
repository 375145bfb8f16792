import type { Judgement, Level, PartJudgement, Verdict } from '../recall/prove/verdict.ts';
import type { StrayEffect, StrayReport } from '../recall/replay/accidental-presses.ts';
import { counted, type Evidence } from './evidence.ts';

const before: Record<Level, string> = {
  1: 'power-up, then the set list part by part',
  2: 'any presses, bank moves, planned feet and cues',
  3: 'the same, and one foot action that nobody planned',
  4: 'the same as from anywhere, and one message or pulse lost or one device restarted',
};
const rests = 'the facts entered for each device: how it counts, recalls, loads and powers up';

/**
 * “34 of 37 recall, 1 cannot be known, 2 not played”; `byFeet`: the judgements of parts that feet and hands bring up,
 * which are judged in set order alone.
 */
export function recalled(
  level: Level,
  judgements: readonly Judgement[],
  byFeet: readonly PartJudgement[] = [],
): Evidence {
  const count = (verdict: Verdict) => judgements.filter((judgement) => judgement.verdict === verdict).length;
  const played = judgements.length - count('not-played');
  const more = (['cannot-be-known', 'not-played'] as const).flatMap((verdict) =>
    count(verdict) > 0 ? [`${count(verdict)} ${verdict.replaceAll('-', ' ')}`] : [],
  );
  const right = byFeet.filter(({ verdict }) => verdict === 'recalls').length;
  const feet =
    byFeet.length === 0
      ? []
      : level === 1
        ? [`${right} of ${counted(byFeet.length, 'part')} by feet`]
        : [`${counted(byFeet.length, 'part')} played by feet`];
  const slots = judgements.length === 0 && byFeet.length > 0 ? [] : [`${count('recalls')} of ${played} recall`];
  return {
    of: 'Sounds that come up right',
    value: [...slots, ...more, ...feet].join(', '),
    inputs: [
      ...feetInputs(level, byFeet.length, right),
      ['slots with a sound', String(judgements.length)],
      ['recall', String(count('recalls'))],
      ['do not', String(count('does-not'))],
      ['cannot be known', String(count('cannot-be-known'))],
      ['not played', String(count('not-played'))],
      ['what may come before', before[level]],
    ],
    formula: 'a slot recalls when its press, from every state that may be, leaves what sounds as wanted',
    source: `every reachable state of the simulated rig; ${rests}`,
    rests: 'entered',
  };
}

function feetInputs(level: Level, parts: number, right: number): Evidence['inputs'] {
  if (parts === 0) return [];
  return [
    ['parts that feet and hands bring up', String(parts)],
    level === 1
      ? ['of them come up right', String(right)]
      : ['of them judged at this level', 'none: it speaks of slots'],
  ];
}

/** Level 3 by the switch that is pressed: which of them cost more than the piece itself. */
export function accidental(reports: readonly StrayReport[]): Evidence {
  const count = (effect: StrayEffect) => reports.filter((report) => report.effect === effect).length;
  const own = count('changes-itself');
  const [silences, spoils] = [count('silences'), count('spoils-others')];
  const beyond = [
    ...(silences > 0 ? [`${silences} ${silences === 1 ? 'switch silences' : 'switches silence'} the rig`] : []),
    ...(spoils > 0 ? [`${spoils} ${spoils === 1 ? 'spoils' : 'spoil'} more than its own piece`] : []),
  ];
  const said = beyond.length > 0 || own === 0 ? beyond : ['each switch changes its own piece alone'];
  return {
    of: 'What an accidental press costs',
    value: said.length > 0 ? said.join(', ') : 'nothing is heard of any',
    inputs: [
      ['switches that no foot is planned for', String(reports.length)],
      ['silence sounds', String(count('silences'))],
      ['spoil more than their own piece', String(count('spoils-others'))],
      ['change their own piece alone', String(own)],
      ['not heard in any sound', String(count('unheard'))],
    ],
    formula: 'each sound brought up by its slot, then the switch pressed once',
    source: `the simulated rig; ${rests}`,
    rests: 'entered',
  };
}

/** How short the way to a wrong sound is; null where there is none. */
export function shortestWay({ length, sequence, gaveUp, level }: Judgement): Evidence | null {
  if (length === null) return null;
  const kinds = new Map<string, number>();
  for (const step of sequence?.steps ?? []) kinds.set(step.kind, (kinds.get(step.kind) ?? 0) + 1);
  return {
    of: level === 1 ? 'First time that it goes wrong in the set' : 'Shortest way to a wrong sound',
    value: String(length),
    inputs: [
      ...[...kinds].map(([kind, count]) => [kindWords[kind] ?? kind, String(count)] as const),
      ['what may come before', before[level]],
      ...(gaveUp === undefined ? [] : [['left open', gaveUp] as const]),
    ],
    formula: 'presses, bank moves, feet and cues, power-up not counted',
    source:
      level === 1
        ? `the set list followed from power-up, part by part; ${rests}`
        : `breadth first from power-up: nothing shorter goes wrong; ${rests}`,
    rests: 'entered',
  };
}

const kindWords: Readonly<Record<string, string>> = {
  press: 'slots pressed',
  bank: 'bank moves',
  hold: 'switches held',
  release: 'switches released',
  foot: 'feet on pedals',
  cue: 'cues',
  outside: 'messages from outside',
  restart: 'devices restarted',
};

/** What was looked through. */
export const explored = (spaces: number, states: number, milliseconds: number, gaveUp: number): Evidence => ({
  of: 'What the proof looked through',
  value: gaveUp === 0 ? 'every combination checked' : `too many combinations for ${counted(gaveUp, 'slot')}`,
  inputs: [
    ['groups of settings that decide each other', String(spaces)],
    ['combinations in all', String(states)],
    ['worked out in', milliseconds < 1 ? 'less than 1 ms' : `${Math.round(milliseconds)} ms`],
  ],
  formula: 'each group is followed from power-up through everything that may happen',
  source: 'counted while proving; what an earlier judgement looked through is used again',
  rests: 'exact',
});

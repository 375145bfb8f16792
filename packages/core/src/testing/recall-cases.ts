import { validateRig, validateSongbook } from '../model/validate.ts';
import type { Level, Verdict } from '../recall/prove/verdict.ts';
import { proverOf } from '../recall/prove/prover-of.ts';
import { BruteForce } from './brute-force/brute-force.ts';
import { adaptCase, type CaseRig } from './recall-adapter.ts';

const letters: Record<Verdict, string> = { recalls: 'R', 'does-not': 'N', 'cannot-be-known': 'U', 'not-played': '-' };

export type RecallAnswer = Record<string, { levels: string; lengths: (number | null)[] }>;

/** Verdicts and lengths of one reference rig, through the documents and the application's own proof. */
export function answerRecallCase(rig: CaseRig): RecallAnswer {
  const { show, names } = adaptCase(rig);
  for (const checked of [validateRig(show.rig), validateSongbook(show.songbook)])
    if (!checked.ok) throw new Error(JSON.stringify(checked.problems));
  const prover = proverOf(show);
  const answer: RecallAnswer = {};
  for (const { slot, sound } of prover.pairs()) {
    const judgements = ([1, 2, 3, 4] as Level[]).map((level) => prover.judge(slot, sound, level));
    answer[names.get(slot.slot.id)!] = {
      levels: judgements.map((judgement) => letters[judgement.verdict]).join(''),
      lengths: judgements.map((judgement) => judgement.length),
    };
  }
  return answer;
}

/** Where brute force says otherwise than expected: `controller.slot/sound`, level, and what it says. */
export function bruteForceMisses(rig: CaseRig, expected: RecallAnswer): readonly string[] {
  const enumeration = new BruteForce(
    rig,
    (controller, slot) => rig.controllers?.[controller].slots?.[slot].actions ?? [],
    20_000,
  );
  return Object.entries(expected).flatMap(([name, { levels, lengths }]) =>
    ([1, 2, 3, 4] as Level[]).flatMap((level) => {
      const [controller, slot] = name.split('/')[0].split('.');
      const answer = enumeration.judge(controller, slot, level);
      const length = lengths[level - 1];
      const isSame =
        letters[answer.verdict] === levels[level - 1] &&
        (length === null || answer.lengths.length === 0 || answer.lengths.includes(length));
      return isSame ? [] : [`${name} ${level}: ${answer.verdict} ${answer.lengths.join(' or ')}`];
    }),
  );
}

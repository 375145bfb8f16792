import type { Show } from '../model/documents.ts';
import { validateRig } from '../model/validate.ts';
import type { Level, Verdict } from '../recall/prove/verdict.ts';
import { proverOf } from '../recall/prove/prover-of.ts';
import { Oracle, RigTooLarge } from './oracle.ts';
import { Random } from './random.ts';
import { randomRig } from './random-rig.ts';
import { adaptCase } from './recall-adapter.ts';

export interface Disagreement {
  readonly seed: number;
  readonly slot: string;
  readonly level: Level;
  readonly proof: string;
  readonly oracle: string;
}

export interface Compared {
  readonly compared: number;
  readonly failing: boolean;
  readonly joint: boolean;
  readonly verdicts: readonly Verdict[];
  readonly sizes: readonly number[];
  readonly disagreements: readonly Disagreement[];
}

/** The seed's rig; some slots are generated from their sounds instead of written by hand. */
export function seededShow(seed: number): Show {
  const r = new Random(seed);
  const { show } = adaptCase(randomRig(r));
  const slots = Object.fromEntries(
    Object.entries(show.rig.slots).map(([id, slot]) => [
      id,
      slot.sound !== null && r.chance(0.15) ? { ...slot, actions: null } : slot,
    ]),
  );
  return { ...show, rig: { ...show.rig, slots } };
}

/** Proof against whole-rig enumeration on one seeded rig; null where the rig is too large to enumerate. */
export function compareSeed(seed: number, limit = 250): Compared | null {
  const found = compareShow(seed, seededShow(seed), limit);
  if (!found || found.disagreements.length === 0) return found;
  // The enumeration follows every variable, so that a circle of messages may take it past the message limit before
  // it comes round; a space of few variables sees it come round sooner. With room enough both must say the same.
  const again = compareShow(seed, withMessageLimit(seededShow(seed), 1_500), limit);
  return again ? { ...found, disagreements: again.disagreements } : found;
}

const withMessageLimit = (show: Show, messageLimit: number): Show => ({
  ...show,
  rig: { ...show.rig, settings: { ...show.rig.settings, messageLimit } },
});

function compareShow(seed: number, show: Show, limit: number): Compared | null {
  const checked = validateRig(show.rig);
  if (!checked.ok) throw new Error(`seed ${seed}: ${JSON.stringify(checked.problems)}`);
  const prover = proverOf(show);
  const disagreements: Disagreement[] = [];
  const verdicts: Verdict[] = [];
  try {
    const oracle = new Oracle(prover.model, show, limit);
    for (const { slot, sound } of prover.pairs())
      for (const level of [1, 2, 3, 4] as Level[]) {
        const truth = oracle.judge(slot, sound, level);
        const mine = prover.judge(slot, sound, level);
        verdicts.push(truth.verdict);
        if (truth.verdict !== mine.verdict || (truth.length !== undefined && truth.length !== mine.length))
          disagreements.push({
            seed,
            slot: slot.slot.id,
            level,
            proof: `${mine.verdict} ${mine.length}`,
            oracle: `${truth.verdict} ${truth.length}`,
          });
      }
  } catch (reason) {
    if (reason instanceof RigTooLarge) return null;
    throw reason;
  }
  const joint = prover.spaceSizes().some((size) => size.joint);
  return {
    compared: verdicts.length,
    failing: verdicts.some((verdict) => verdict === 'does-not'),
    joint,
    verdicts,
    sizes: prover.spaceSizes().map((size) => size.states),
    disagreements,
  };
}

import { compareSeed } from './compare.ts';

/** Compares proof and whole-rig enumeration on seeded rigs from `first` on, until `count` have been enumerated. */
export function runOracle(count: number, first: number, log: (line: string) => void): number {
  const verdicts = new Map<string, number>();
  const sizes = new Map<string, number>();
  let compared = 0;
  let pairs = 0;
  let failing = 0;
  let joint = 0;
  let tooLarge = 0;
  let disagreeing = 0;
  for (let seed = first; compared < count; seed += 1) {
    const result = compareSeed(seed);
    if (!result) {
      tooLarge += 1;
      continue;
    }
    compared += 1;
    pairs += result.compared;
    failing += result.failing ? 1 : 0;
    joint += result.joint ? 1 : 0;
    for (const verdict of result.verdicts) verdicts.set(verdict, (verdicts.get(verdict) ?? 0) + 1);
    for (const size of result.sizes) sizes.set(bucket(size), (sizes.get(bucket(size)) ?? 0) + 1);
    disagreeing += result.disagreements.length;
    for (const disagreement of result.disagreements.slice(0, 4))
      log(
        `disagree: seed ${disagreement.seed} ${disagreement.slot} level ${disagreement.level}: proof ${disagreement.proof}, enumeration ${disagreement.oracle}`,
      );
    if (compared % 1000 === 0) log(`${compared} rigs, ${disagreeing} disagreements`);
  }
  log(`rigs ${compared} (${tooLarge} more were too large to enumerate), judgements ${pairs}`);
  log(
    `failing rigs ${failing} (${percent(failing, compared)}), joint exploration ${joint} (${percent(joint, compared)})`,
  );
  log(`verdicts: ${histogram(verdicts)}`);
  log(`states of spaces: ${histogram(sizes)}`);
  log(`disagreements: ${disagreeing}`);
  return disagreeing;
}

const percent = (part: number, whole: number): string => `${Math.round((100 * part) / whole)} %`;
const histogram = (counts: ReadonlyMap<string, number>): string =>
  [...counts]
    .sort(([a], [b]) => (a.padStart(12) < b.padStart(12) ? -1 : 1))
    .map(([name, n]) => `${name}: ${n}`)
    .join(', ');

function bucket(size: number): string {
  let top = 1;
  while (top < size) top *= 2;
  return top === 1 ? '1' : `≤${top}`;
}

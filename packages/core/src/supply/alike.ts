import type { CompiledSupply } from './problem.ts';

/**
 * What may be swapped without a difference: outputs that are alike in all that counts, pairs of outputs that may be
 * joined, loads that say the same. Of plans that differ by such a swap only one is looked into.
 */
export interface Alike {
  /** By load: whether it says the same as the load before it in this order. */
  readonly order: readonly number[];
  readonly isLikeBefore: readonly boolean[];
  /** Whether a closed feed is the first of those that it could be swapped with, given which outputs have an owner. */
  readonly isFirst: (f: number, isFree: (output: number) => boolean) => boolean;
}

export function alikeOf(problem: CompiledSupply, hardness: (load: number) => readonly number[]): Alike {
  const { loads, held, source } = problem;
  const wordOf = loads.map((load, l) =>
    held[l] === undefined ? JSON.stringify({ ...load, name: '' }) : `held ${load.name}`,
  );
  const order = loads
    .map((_, l) => ({ l, hard: hardness(l), word: wordOf[l] }))
    .sort((a, b) => {
      for (let i = 0; i < a.hard.length; i += 1) if (a.hard[i] !== b.hard[i]) return a.hard[i] - b.hard[i];
      return a.word < b.word ? -1 : a.word > b.word ? 1 : a.l - b.l;
    })
    .map(({ l }) => l);
  const pinned = new Set(Object.values(source.pins ?? {}).flatMap((pin) => (typeof pin === 'string' ? [] : pin)));
  return {
    order,
    isLikeBefore: order.map((l, i) => i > 0 && wordOf[l] === wordOf[order[i - 1]]),
    isFirst: firstOfBlocks(problem, pinned),
  };
}

/** Outputs stand in blocks of one, or of two that may be joined with each other and with nothing else. */
function firstOfBlocks(problem: CompiledSupply, pinned: ReadonlySet<string>): Alike['isFirst'] {
  const { source, feeds } = problem;
  const sharing = new Map<string, number>();
  for (const { rail } of source.outputs) if (rail !== null) sharing.set(rail, (sharing.get(rail) ?? 0) + 1);
  const words = source.outputs.map(({ name, rail, ...facts }) =>
    JSON.stringify({
      ...facts,
      rail: rail !== null && (sharing.get(rail) ?? 0) > 1 ? rail : '',
      limits: problem.limits.flatMap(({ outputs }, i) =>
        outputs.includes(source.outputs.findIndex((output) => output.name === name)) ? [i] : [],
      ),
      pinned: pinned.has(name) ? name : '',
    }),
  );
  const joinsOf = source.outputs.map((_, o) =>
    feeds.flatMap((feed, f) => (feed.how !== 'alone' && feed.outputs.includes(o) ? [f] : [])),
  );
  interface Block {
    readonly outputs: readonly number[];
    readonly word: string;
  }
  const blocks: Block[] = [];
  const blockOf: number[] = [];
  source.outputs.forEach((_, o) => {
    if (blockOf[o] !== undefined) return;
    const joins = joinsOf[o];
    const partner = joins.length === 1 ? feeds[joins[0]].outputs.find((other) => other !== o)! : undefined;
    const isPair = partner !== undefined && joinsOf[partner].length === 1;
    // What may be joined with several is like nothing else.
    const block: Block = isPair
      ? {
          outputs: words[o] <= words[partner] ? [o, partner] : [partner, o],
          word: `${feeds[joins[0]].how} ${[words[o], words[partner]].sort().join(' ')}`,
        }
      : { outputs: [o], word: joins.length === 0 ? words[o] : `only ${o}` };
    for (const output of block.outputs) blockOf[output] = blocks.length;
    blocks.push(block);
  });
  const likeBefore = blocks.map(({ word }, b) =>
    blocks.flatMap((other, i) => (i < b && other.word === word ? [i] : [])),
  );
  return (f, isFree) => {
    const { outputs } = feeds[f];
    const b = blockOf[outputs[0]];
    if (blockOf[outputs.at(-1)!] !== b) return true;
    const block = blocks[b];
    const isUntouched = (at: number): boolean => blocks[at].outputs.every(isFree);
    if (isUntouched(b) && likeBefore[b].some(isUntouched)) return false;
    if (outputs.length > 1) return true;
    return !block.outputs.some((other) => other < outputs[0] && words[other] === words[outputs[0]] && isFree(other));
  };
}

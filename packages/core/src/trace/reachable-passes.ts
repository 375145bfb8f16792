import type { Pass } from './passes.ts';
import type { Trace } from './trace.ts';

/** Passes that the signal comes to after this one, whichever way it takes. */
export function passesAfter(trace: Trace, pass: Pass): readonly Pass[] {
  const seen = new Set<number>();
  const queue = [...pass.next];
  while (queue.length > 0) {
    const at = queue.pop()!;
    if (seen.has(at)) continue;
    seen.add(at);
    queue.push(...trace.passes[at].next);
  }
  return trace.passes.filter((pass) => seen.has(pass.index));
}

import type { Jack } from './anatomy.ts';
import { jackFacts } from './jack-kinds.ts';
import { jackRef } from './documents.ts';
import type { Cable, EndFacts, Plug } from './rig.ts';
import type { Wiring } from './wiring.ts';

/** One plug of a cable. */
export interface CableEnd {
  /** Its place among the cable's plugs. */
  readonly index: number;
  readonly plug: Plug;
  readonly jack: Jack | undefined;
}

/** What somebody has said of one end of a cable. */
export function endFacts({ ends }: Pick<Cable, 'ends'>, plug: Plug): EndFacts | undefined {
  const at = jackRef(plug);
  return ends && Object.hasOwn(ends, at) ? ends[at] : undefined;
}

/** Whether something comes out of a jack. */
export const isOut = (jack: Pick<Jack, 'kind'>): boolean => jackFacts(jack.kind).direction === 'out';

/**
 * The ends of a cable (a Y cord has three or more): those in jacks that something comes out of, and the others. Where
 * all are alike, the first counts as what it comes from.
 */
export function endsOf(
  { device }: Pick<Wiring, 'device'>,
  cable: Pick<Cable, 'plugs'>,
): { readonly from: readonly CableEnd[]; readonly to: readonly CableEnd[] } {
  const ends = cable.plugs.map((plug, index): CableEnd => ({
    index,
    plug,
    jack: device.get(plug.device)?.jack.get(plug.jack),
  }));
  const from = ends.filter(({ jack }) => jack !== undefined && isOut(jack));
  return from.length === 0 || from.length === ends.length
    ? { from: ends.slice(0, 1), to: ends.slice(1) }
    : { from, to: ends.filter((end) => !from.includes(end)) };
}

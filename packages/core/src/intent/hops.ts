import type { Plug } from '../model/rig.ts';
import type { Wiring } from '../model/wiring.ts';
import type { Piece } from './pieces.ts';

/** Pieces passed in the order of the signal, and the plugs behind the last of them. */
export interface Hop {
  readonly passed: readonly string[];
  readonly end: readonly Plug[];
}

/** Pieces that the signal passes from an output on, until it comes to what is no piece of the line. */
export function hopsFrom(wiring: Wiring, pieces: ReadonlyMap<string, Piece>, from: Plug, home?: string): Hop {
  const passed: string[] = [];
  let at = from;
  for (;;) {
    const takers = takersOf(wiring, at);
    const [taker] = takers;
    const piece = takers.length === 1 && taker.device !== home ? pieces.get(taker.device) : undefined;
    const goesOn = piece?.in === taker?.jack && piece !== undefined && !passed.includes(taker.device);
    // An amp is passed where its send goes on; else the line ends in it.
    if (!goesOn || (piece.ampReturn !== null && takersOf(wiring, outOf(taker, piece)).length === 0)) {
      const right = rightOf(wiring, at);
      return { passed, end: right ? [...takers, ...takersOf(wiring, right)] : takers };
    }
    passed.push(taker.device);
    at = outOf(taker, piece);
  }
}

const outOf = ({ device }: Plug, { out }: Piece): Plug => ({ device, jack: out });

function takersOf({ signalCables, device }: Wiring, from: Plug): readonly Plug[] {
  const cable = signalCables.find(({ plugs }) =>
    plugs.some((plug) => plug.device === from.device && plug.jack === from.jack),
  );
  return cable?.plugs.filter((plug) => device.get(plug.device)?.jack.get(plug.jack)?.kind === 'signal-in') ?? [];
}

/** The right side of an output that has one of its own. */
function rightOf({ device }: Wiring, { device: id, jack }: Plug): Plug | undefined {
  const right = device.get(id)?.anatomy.jacks.find((other) => other.twin === jack);
  return right && { device: id as Plug['device'], jack: right.id };
}

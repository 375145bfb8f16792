import { isOut } from '../model/cable-ends.ts';
import { inOrder } from '../model/documents.ts';
import type { Jack } from '../model/anatomy.ts';
import type { Cable, Plug } from '../model/rig.ts';
import type { Wiring } from '../model/wiring.ts';
import type { Context } from './define-rule.ts';

/** A cable at the loudspeaker output of a power amp, with every end that takes the power in. */
export interface SpeakerCable {
  readonly cable: Cable;
  readonly from: Plug;
  readonly ends: readonly { readonly plug: Plug; readonly jack: Jack }[];
}

const jackAt = ({ device }: Wiring, plug: Plug) => device.get(plug.device)?.jack.get(plug.jack);

/** Whether power that comes in at these ends ends at a load; what only taps it passes it on. */
export function hasLoad(
  cables: readonly SpeakerCable[],
  ends: SpeakerCable['ends'],
  seen: ReadonlySet<string> = new Set(),
): boolean {
  return ends.some(({ plug, jack }) => {
    if (jack.passesPowerTo === undefined) return true;
    const next = `${plug.device}:${jack.passesPowerTo}`;
    const on = cables.find(({ from }) => `${from.device}:${from.jack}` === next);
    return on !== undefined && !seen.has(next) && hasLoad(cables, on.ends, new Set([...seen, next]));
  });
}

/** Whether a power amp drives this jack. */
export const isPowered = (jack: Jack | undefined): boolean =>
  jack !== undefined && jack.speaker === true && isOut(jack);

/** The cables that carry a power amp's output, in document order. */
export const speakerCables = ({ show, wiring }: Context): readonly SpeakerCable[] =>
  inOrder(show.rig.cables).flatMap((cable) => {
    const from = cable.plugs.find((plug) => isPowered(jackAt(wiring, plug)));
    if (!from) return [];
    const ends = cable.plugs.flatMap((plug) => {
      const jack = jackAt(wiring, plug);
      return jack && !isOut(jack) ? [{ plug, jack }] : [];
    });
    return [{ cable, from, ends }];
  });

import { isOut } from '../../../model/cable-ends.ts';
import { inOrder } from '../../../model/documents.ts';
import { type Cable, type Plug } from '../../../model/rig.ts';
import type { Wiring } from '../../../model/wiring.ts';
import { defineRule, type Reported } from '../../define-rule.ts';
import { nameOf, none } from '../../queries.ts';

type Joined = 'signal' | 'speaker' | 'midi' | 'instruments';

export const outputsJoined = defineRule({
  meta: {
    id: 'routing/outputs-joined',
    severity: 'fix-before-load-in',
    title: 'Two outputs joined by a cable',
    why: 'A Y cord splits; it does not mix. Two driven outputs work into each other: level and treble go, and between power amplifiers something breaks.',
    remedy:
      'Put a mixer or a merger there, or unplug one end. Power amplifiers: each its own load, as its maker says; ask a technician.',
    source: 'common practice; MIDI 1.0 joins no outputs',
    messages: {
      signal: '{tag} joins {outputs} without a mixer.',
      speaker: '{tag} joins the loudspeaker outputs of {outputs}: that can destroy an amplifier.',
      instruments:
        '{tag} joins {outputs} at one input: each is the other’s load, and one turned down takes both down. A selector or a mixer keeps them apart.',
      midi: '{tag} joins {outputs}: two MIDI outputs on one cable garble what both send.',
    },
  },
  check: ({ show, wiring }) =>
    inOrder(show.rig.cables).flatMap((cable): readonly Reported<Joined>[] => {
      const { kind } = cable;
      if (!isJudged(kind) || !joinsOutputs(wiring, cable)) return none;
      const outputs = cable.plugs.filter((plug) => isOutput(wiring, plug));
      const instruments = outputs.filter((plug) => wiring.device.get(plug.device)?.anatomy.source !== undefined);
      if (cable.kind === 'signal' && instruments.length > 1)
        return [
          {
            messageId: 'instruments',
            at: { device: instruments[0].device },
            data: {
              tag: cable.tag,
              outputs: instruments.map((plug) => nameOf({ wiring }, plug.device)).join(' and '),
            },
          },
        ];
      const driven = outputs.filter((plug) => isDriven(wiring, plug));
      if (driven.length < 2) return none;
      const labels = driven
        .map((plug) => `${nameOf({ wiring }, plug.device)} ${jackAt(wiring, plug)!.label.toLowerCase()}`)
        .join(' and ');
      return [
        {
          messageId: kind,
          ...(cable.kind === 'speaker' ? { severity: 'stops-the-show' } : {}),
          at: { device: driven[0].device },
          data: { tag: cable.tag, outputs: labels },
        },
      ];
    }),
});

/** Outputs of supplies are another matter: their own papers say which may be joined. */
const isJudged = (kind: Cable['kind']): kind is 'signal' | 'speaker' | 'midi' =>
  kind === 'signal' || kind === 'speaker' || kind === 'midi';

/** Mostly not: asked of every cable before anything else. What a cord joins wire by wire is joined there alone. */
function joinsOutputs(wiring: Wiring, { plugs, poles }: Cable): boolean {
  let count = 0;
  for (let i = 0; i < plugs.length; i += 1) if (isOutput(wiring, plugs[i])) count += 1;
  if (count < 2) return false;
  return !poles || poles.some((wire) => wire.filter(({ plug }) => isOutput(wiring, plugs[plug])).length > 1);
}

const jackAt = ({ device }: Wiring, plug: Plug) => device.get(plug.device)?.jack.get(plug.jack);

function isOutput(wiring: Wiring, plug: Plug): boolean {
  const jack = jackAt(wiring, plug);
  return jack !== undefined && isOut(jack);
}

/** Whether something in the device drives an output: pickups do not, nor does a wire that only passes on. */
function isDriven(wiring: Wiring, plug: Plug): boolean {
  if (jackAt(wiring, plug)!.kind !== 'signal-out') return true;
  const { anatomy } = wiring.device.get(plug.device)!;
  const isAtJack = (point: string) => point === plug.jack || point.startsWith(`${plug.jack}.`);
  return anatomy.sections.some((section) => section.active && section.from !== anatomy.source && isAtJack(section.to));
}

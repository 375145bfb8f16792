import { endsOf, isOut, type CableEnd } from '../../../model/cable-ends.ts';
import { type Cable, inOrder } from '../../../model/documents.ts';
import type { Wiring } from '../../../model/wiring.ts';
import { defineRule, type Reported } from '../../define-rule.ts';

type Joined = 'signal' | 'speaker' | 'midi';

export const outputsJoined = defineRule({
  meta: {
    id: 'routing/outputs-joined',
    severity: 'fix-before-load-in',
    title: 'Two outputs joined by a cable',
    why: 'A Y cord splits; it does not mix. Two driven outputs work into each other: level and treble go, and between power amplifiers something breaks.',
    remedy: 'Put a mixer or a merger there, or pull one end. Power amplifiers: each its own load, as its maker says; ask a technician.',
    source: 'common practice; MIDI 1.0 joins no outputs',
    messages: {
      signal: '{tag} joins {outputs} without a mixer.',
      speaker: '{tag} joins the loudspeaker outputs of {outputs}: that can destroy an amplifier.',
      midi: '{tag} joins {outputs}: two MIDI outputs on one cable garble what both send.',
    },
  },
  check: ({ show, wiring }) =>
    inOrder(show.rig.cables).flatMap((cable): readonly Reported<Joined>[] => {
      if (outputsOf(wiring, cable) < 2) return none;
      const driven = endsOf(wiring, cable).from.filter((end) => isDriven(wiring, end));
      if (cable.kind === 'contact' || driven.length < 2) return [];
      const outputs = driven.map(({ plug, jack }) => `${wiring.device.get(plug.device)!.device.name} ${jack!.label.toLowerCase()}`).join(' and ');
      return [{ messageId: cable.kind, ...(cable.kind === 'speaker' ? { severity: 'stops-the-show' } : {}), at: { device: driven[0].plug.device }, data: { tag: cable.tag, outputs } }];
    }),
});

const none: readonly never[] = [];

/** How many of its plugs are in outputs: mostly one, and there is nothing to tell. */
function outputsOf({ device }: Wiring, { plugs }: Cable): number {
  let count = 0;
  for (const plug of plugs) {
    const jack = device.get(plug.device)?.jack.get(plug.jack);
    if (jack && isOut(jack)) count += 1;
  }
  return count;
}

/** Whether something in the device drives the jack: pickups do not, nor does a wire that only passes on. */
function isDriven({ device }: Wiring, { plug, jack }: CableEnd): boolean {
  if (!jack || !isOut(jack)) return false;
  if (jack.kind !== 'signal-out') return true;
  const { anatomy } = device.get(plug.device)!;
  const isAtJack = (point: string) => point === jack.id || point.startsWith(`${jack.id}.`);
  return anatomy.sections.some((section) => section.active && section.from !== anatomy.source && isAtJack(section.to));
}

import { stronglyConnected } from '../../../trace/components.ts';
import { defineRule } from '../../define-rule.ts';

export const chainCircle = defineRule({
  meta: {
    id: 'midi/chain-circle',
    severity: 'stops-the-show',
    title: 'A MIDI chain that comes back to itself',
    why: 'Every hop of the circle passes on what comes in: one message goes round for ever and fills the line.',
    remedy: 'Unplug one cable of the circle, or switch the through of one device off.',
    source: 'MIDI 1.0: a through port repeats what its input receives',
    messages: { round: 'MIDI goes round in a circle: {devices}.' },
  },
  check: ({ wiring }) => {
    const index = new Map(wiring.devices.map((wired, i) => [wired.device.id, i]));
    const edges = wiring.midiLinks
      .filter((link) => link.port !== 'out')
      .map((link) => ({ from: index.get(link.from)!, to: index.get(link.to)! }));
    const component = stronglyConnected(wiring.devices.length, edges);
    const inside = new Set(
      edges.filter((edge) => component[edge.from] === component[edge.to]).map((edge) => component[edge.from]),
    );
    return [...inside].map((circle) => {
      const members = wiring.devices.filter((_, i) => component[i] === circle);
      return {
        messageId: 'round' as const,
        at: { device: members[0].device.id },
        data: { devices: members.map((wired) => wired.device.name).join(', ') },
      };
    });
  },
});

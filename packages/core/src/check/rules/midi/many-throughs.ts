import type { MidiLink } from '../../../model/wiring.ts';
import { defineRule } from '../../define-rule.ts';
import { nameOf } from '../../queries.ts';

/** Each through adds to the distortion of the edges of the bits. */
const mostThroughs = 4;

export const manyThroughs = defineRule({
  meta: {
    id: 'midi/many-throughs',
    severity: 'worth-knowing',
    title: 'More than four devices by through',
    why: 'Each opto-isolator on the way rounds the edges of the bits a little; after a handful of them messages get lost now and then.',
    remedy: 'Split the chain with a through box near the controller.',
    source: 'common practice; the MIDI 1.0 electrical specification allows each receiver 2 µs of rise and fall time',
    messages: { far: 'MIDI reaches {device} through {count} other devices.' },
  },
  check: (context) => {
    const { wiring } = context;
    // A panel or a multi-core is only wire: nothing is isolated there.
    const isWire = (id: string): boolean => wiring.device.get(id)?.device.type.archetype === 'panel';
    const far = throughsBefore(wiring.midiLinks, isWire);
    return wiring.devices.flatMap(({ device: { id } }) => {
      const count = far.get(id) ?? 0;
      return count > mostThroughs
        ? [{ messageId: 'far' as const, at: { device: id }, data: { device: nameOf(context, id), count } }]
        : [];
    });
  },
});

/** Of each device the fewest throughs that a message passes on its way to it. */
function throughsBefore(links: readonly MidiLink[], isWire: (device: string) => boolean): ReadonlyMap<string, number> {
  const before = new Map(links.filter(({ port }) => port !== 'thru').map(({ to }) => [to, 0]));
  for (let grew = true; grew;) {
    grew = false;
    for (const { from, port, to } of links) {
      const here = before.get(from);
      const passed = (here ?? 0) + (isWire(from) ? 0 : 1);
      if (port !== 'thru' || here === undefined || passed >= (before.get(to) ?? Infinity)) continue;
      before.set(to, passed);
      grew = true;
    }
  }
  return before;
}

import { inOrder } from '../../../model/documents.ts';
import { standsMains } from '../../../power/mains.ts';
import { defineRule, type Reported } from '../../define-rule.ts';
import { basis, graded, rangeWords } from '../../power-queries.ts';
import { none } from '../../queries.ts';

export const otherMains = defineRule({
  meta: {
    id: 'power/other-mains',
    severity: 'stops-the-show',
    title: 'Not made for the mains of a venue',
    why: 'A mains voltage that a device is not made for destroys it, or is too little for it; a transformer made for 60 Hz runs hot on 50.',
    remedy:
      'Another supply, or a transformer that is rated for it. Mains is for a licensed electrician, under the local code; the device’s own papers have the last word.',
    source: 'the device’s own papers; common practice',
    messages: {
      volts: '{device} is made for {range} V; {venue} has {volts} V{basis}.',
      hertz: '{device} is made for {range} Hz; {venue} has {hertz} Hz{basis}.',
    },
  },
  check: (context) => {
    const { rig } = context.show;
    return (rig.settings.power?.venues ?? []).flatMap((venue) =>
      inOrder(rig.devices).flatMap((device): readonly Reported<'volts' | 'hertz'>[] => {
        const found = standsMains(device, venue);
        if (found === 'yes') return none;
        const mains = device.type.power!.mains!;
        return [
          {
            messageId: found,
            at: { device: device.id },
            ...graded('stops-the-show', [{ device }]),
            data: {
              device: device.name,
              range: rangeWords(mains[found]),
              venue: venue.name,
              volts: venue.volts,
              hertz: venue.hertz,
              basis: basis([{ device }]),
            },
          },
        ];
      }),
    );
  },
});

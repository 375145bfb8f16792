import { displayFaults } from '../../../program/display-name.ts';
import { slotLabel } from '../../../model/slots.ts';
import { defineRule } from '../../define-rule.ts';

export const displayNames = defineRule({
  meta: {
    id: 'midi/display-names',
    severity: 'worth-knowing',
    title: 'A name that the display cannot tell',
    why: 'The foot looks down and reads the display: two slots that show the same, or half a name, are pressed by mistake.',
    remedy: 'Give the slot a short name of its own on Program.',
    source: 'the length of the display, as entered for this unit',
    messages: {
      same: '{slot} of {device} shows “{name}”, as {other} does.',
      long: '{slot} of {device} is named “{name}”: its display shows {length} characters.',
    },
  },
  check: ({ show, wiring }) =>
    wiring.devices.flatMap(({ device, anatomy }) => {
      const length = anatomy.controller?.nameLength;
      if (length === undefined) return [];
      return displayFaults(show.rig, device.id, length).map(({ slot, name, like }) => ({
        messageId: like ? ('same' as const) : ('long' as const),
        at: { slot: slot.id, device: device.id },
        data: {
          slot: slotLabel(slot),
          device: device.name,
          name,
          length,
          other: like ? slotLabel(like) : '',
        },
      }));
    }),
});

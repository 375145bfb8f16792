import { controlRef } from '../../../model/documents.ts';
import { isOrder, listedOrder, orderWords, placesIn, type ValueOf } from '../../../model/orders.ts';
import { panelNumber } from '../../../model/labels.ts';
import { slotLabel } from '../../../model/slots.ts';
import { defineRule, type Reported } from '../../define-rule.ts';
import { generateFix } from '../../fix.ts';
import { soundsOf } from '../../queries.ts';
import { slotOrders } from '../../stored-order.ts';

export const orderRepeats = defineRule({
  meta: {
    id: 'routing/order-repeats',
    severity: 'fix-before-load-in',
    title: 'Two things at one place of an order',
    why: 'A place holds one thing: where two share one another is empty, and the line ends there.',
    remedy: 'Write the order with each of them once.',
    source: 'definition: an order is a permutation',
    messages: {
      sound: '{sound} wants {device} in the order {order}: two at one place.',
      slot: '{slot}, written by hand, puts {device} in the order {order}: two at one place.',
      preset: 'Preset {preset} of {device} has the order {order}: two at one place.',
    },
  },
  check: (context) => {
    const { wiring } = context;
    const found: Reported<'sound' | 'slot' | 'preset'>[] = [];
    for (const wired of wiring.devices)
      for (const order of wired.anatomy.orders ?? []) {
        const { device } = wired;
        for (const sound of soundsOf(context)) {
          const valueOf: ValueOf = (control) => sound.wants[controlRef(device.id, control)];
          const places = placesIn(order, valueOf);
          if (!places || isOrder(places)) continue;
          found.push({
            messageId: 'sound',
            at: { sound: sound.id, device: device.id },
            data: { sound: sound.name, device: device.name, order: orderWords(order, valueOf)! },
            fix: {
              label: `Put ${device.name} in its listed order`,
              steps: [...listedOrder(order)].map(([control, value]) => {
                const ref = controlRef(device.id, control);
                const old = sound.wants[ref];
                return {
                  doc: 'rig',
                  op: 'set',
                  at: ['sounds', sound.id, 'wants', ref],
                  value,
                  ...(old === undefined ? {} : { old }),
                };
              }),
            },
          });
        }
        for (const [number, { values }] of Object.entries(device.presets)) {
          const valueOf: ValueOf = (control) => values[control];
          const places = placesIn(order, valueOf);
          if (places && !isOrder(places))
            found.push({
              messageId: 'preset',
              at: { device: device.id },
              data: {
                preset: panelNumber(wiring, device.id, Number(number)),
                device: device.name,
                order: orderWords(order, valueOf)!,
              },
            });
        }
      }
    for (const { wired, order, slots } of slotOrders(context))
      for (const { slot, places, valueOf } of slots)
        if (slot.actions !== null && places && !isOrder(places))
          found.push({
            messageId: 'slot',
            at: { slot: slot.id, device: wired.device.id },
            data: { slot: slotLabel(slot), device: wired.device.name, order: orderWords(order, valueOf)! },
            ...(slot.sound === null ? {} : { fix: generateFix(slot) }),
          });
    return found;
  },
});

import type { Step } from '../../../change/steps.ts';
import type { StoredOrder } from '../../../model/anatomy.ts';
import { controlRef } from '../../../model/documents.ts';
import { isOrder, orderControls, orderWords, type ValueOf } from '../../../model/orders.ts';
import type { Sound } from '../../../model/rig.ts';
import { slotLabel } from '../../../model/slots.ts';
import { type Context, defineRule, type Reported } from '../../define-rule.ts';
import { actionsFix } from '../../fix.ts';
import { none } from '../../queries.ts';
import { type SlotOrder, slotOrders } from '../../stored-order.ts';

/** So many slots in one order make it the usual one. */
const usual = 3;

export const oddOrder = defineRule({
  meta: {
    id: 'recall/odd-order',
    severity: 'worth-knowing',
    title: 'One slot in an order of its own',
    why: 'All the others share one order. It may be meant; it may be left over from an evening of trying things.',
    remedy: 'Accept it with its reason, or put it in the order of the others.',
    source: 'common practice',
    messages: {
      heard: '{slot} alone has {device} in the order {order}; {count} others have {others}. It is heard.',
      unheard: '{slot} alone has {device} in the order {order}; {count} others have {others}. Nothing of it is heard.',
    },
  },
  check: (context) =>
    slotOrders(context).flatMap(({ wired, order, slots }): readonly Reported<'heard' | 'unheard'>[] => {
      const { id, name } = wired.device;
      const alike = new Map<string, SlotOrder[]>();
      for (const each of slots)
        if (each.sound && each.places && isOrder(each.places)) {
          const words = orderWords(order, each.valueOf)!;
          alike.set(words, [...(alike.get(words) ?? []), each]);
        }
      const [most] = [...alike].sort(([, a], [, b]) => b.length - a.length);
      if (!most || most[1].length < usual) return none;
      const [others, sharing] = most;
      const usually = sharing[0].valueOf;
      return [...alike].flatMap(([words, [odd, ...more]]): readonly Reported<'heard' | 'unheard'>[] => {
        if (more.length > 0) return none;
        const { slot } = odd;
        const sound = odd.sound!;
        const isHeard = heardIn(context, sound, id, order, odd.valueOf) !== heardIn(context, sound, id, order, usually);
        return [
          {
            messageId: isHeard ? 'heard' : 'unheard',
            at: { slot: slot.id, sound: sound.id, device: id },
            data: {
              slot: `${slotLabel(slot)}, ${sound.name},`,
              device: name,
              order: words,
              count: sharing.length,
              others,
            },
            fix: asTheOthers(odd, `Put it in the order ${others}`, id, order, usually),
          },
        ];
      });
    }),
});

/** What is heard of a sound with a device in some order. */
function heardIn({ tracer }: Context, sound: Sound, device: string, order: StoredOrder, valueOf: ValueOf): string {
  const wants = {
    ...sound.wants,
    ...Object.fromEntries(
      orderControls(order).map((control) => [controlRef(device, control), valueOf(control) ?? sound.wants[control]]),
    ),
  };
  return tracer.heard({ ...sound, wants });
}

function asTheOthers(
  { slot, sound }: SlotOrder,
  label: string,
  device: string,
  order: StoredOrder,
  usually: ValueOf,
): ReturnType<typeof actionsFix> {
  const controls = orderControls(order);
  if (slot.actions !== null)
    return actionsFix(
      label,
      slot,
      slot.actions.map((action) =>
        action.kind === 'set' && controls.includes(action.control)
          ? { ...action, value: usually(action.control) ?? action.value }
          : action,
      ),
    );
  const steps = controls.map((control): Step => {
    const ref = controlRef(device, control);
    const old = sound!.wants[ref];
    return {
      doc: 'rig',
      op: 'set',
      at: ['sounds', sound!.id, 'wants', ref],
      value: usually(control) ?? old,
      ...(old === undefined ? {} : { old }),
    };
  });
  return { label, steps };
}

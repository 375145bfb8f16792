import { orderControls, orderOf, orderWords } from '../model/orders.ts';
import type { WiredDevice } from '../model/wiring.ts';
import type { SlotActions, Step } from './compile.ts';

/** Where a slot puts each thing of an order at its place, one after the other, it is told as one step: the order. */
export function withOrders({ device, anatomy }: WiredDevice, steps: SlotActions): SlotActions {
  if (!anatomy.orders) return steps;
  const told: Step[] = [];
  for (let at = 0; at < steps.length;) {
    const { action } = steps[at];
    const order = action.kind === 'set' ? orderOf(anatomy, action.control) : undefined;
    const controls = order ? orderControls(order) : [];
    const run = steps.slice(at, at + controls.length);
    const put = new Map(
      run.flatMap((step) => (step.action.kind === 'set' ? [[step.action.control, step.action.value]] : [])),
    );
    if (!order || !controls.every((control) => put.has(control))) {
      told.push(steps[at]);
      at += 1;
      continue;
    }
    told.push({
      action: {
        kind: 'set',
        control: order.id,
        value: orderWords(order, (control) => put.get(control))!,
      },
      intent: run.some(({ intent }) => intent.kind === 'by-hand')
        ? { kind: 'by-hand' }
        : { kind: 'order', device: device.id, wanted: run.some(({ intent }) => intent.kind === 'want') },
    });
    at += run.length;
  }
  return told;
}

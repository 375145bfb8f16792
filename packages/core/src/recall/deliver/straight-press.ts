import { restOf } from '../../model/anatomy.ts';
import { byteLength, byteMicroseconds } from '../../midi/message.ts';
import type { Action } from '../../model/rig.ts';
import { heardBy } from '../device/midi-receivers.ts';
import { noPoints, type Recording } from '../device/recording.ts';
import { setUpdates } from '../device/stored-controls.ts';
import type { ModelController, ModelDevice } from '../state/state-model.ts';
import { type Carrier, leavesRest, setContact } from './contacts.ts';

/**
 * Performs a controller's actions where nothing comes round and nobody asks what may be lost on the way: its messages
 * then come up in the order in which it sends them, and are taken down without a queue. This is what makes a large
 * rig's presses compile fast. Nothing in it sends on, or models would feed back. Between two waits its loops and
 * contacts move first, for they take no time. Returns over how many cables its messages went.
 */
export function performStraight(
  carrier: Carrier,
  into: Recording,
  device: ModelDevice,
  controller: ModelController,
  actions: readonly Action[],
  time: number,
  held: 'press' | 'stay',
): number {
  const { model } = carrier;
  const sets = setUpdates(model, device);
  const sending: Extract<Action, { readonly kind: 'program' | 'control' }>[] = [];
  const moved: string[] = [];
  let messages = 0;
  let now = time;
  let line = time;
  for (let at = 0; at <= actions.length; at += 1) {
    let wait = 0;
    sending.length = 0;
    for (; at < actions.length; at += 1) {
      const action = actions[at];
      if (action.kind === 'set') {
        const set = sets.get(action.control)?.get(action.value);
        if (set) into.take(set, now, noPoints);
      } else if (action.kind === 'program' || action.kind === 'control') sending.push(action);
      else if (action.kind === 'wait') {
        wait = Math.round(action.ms * 1000);
        break;
      } else {
        carrier.actNow(device, action, now, noPoints);
        if (action.kind === 'contact' && held === 'press' && leavesRest(controller, action)) moved.push(action.contact);
      }
    }
    if (at === actions.length)
      for (const contact of moved)
        setContact(carrier, controller, contact, restOf(controller.facts, contact), now, noPoints);
    line = Math.max(line, now);
    for (const message of sending) {
      line += byteLength(message) * byteMicroseconds;
      const { hops, updates } = heardBy(model, device, message);
      messages += hops;
      for (let k = 0; k < updates.length; k += 1) into.take(updates[k], line, noPoints);
    }
    if (at < actions.length) now = Math.max(now, line) + wait;
  }
  return messages;
}

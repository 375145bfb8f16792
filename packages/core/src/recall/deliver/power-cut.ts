import { restOf } from '../../model/anatomy.ts';
import type { ModelDevice, StateModel } from '../state/state-model.ts';
import type { Store } from '../state/store.ts';
import { setContact } from './contacts.ts';
import { Delivery } from './delivery.ts';

/** The power of a device goes: its contacts go to rest, and whatever they are wired to sees it. */
export function openContacts(model: StateModel, device: ModelDevice, store: Store): void {
  if (!device.controller) return;
  const opening = new Delivery(model, store);
  for (const contact of device.controller.contact.keys())
    setContact(opening, device.controller, contact, restOf(device.controller.facts, contact), 0, []);
}

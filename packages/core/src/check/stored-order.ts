import type { StoredOrder } from '../model/anatomy.ts';
import { type Places, placesIn, type ValueOf } from '../model/orders.ts';
import type { Slot, Sound } from '../model/rig.ts';
import { slotsOfController } from '../model/slots.ts';
import type { WiredDevice } from '../model/wiring.ts';
import { compiler } from '../program/compile.ts';
import type { Context } from './define-rule.ts';

/** What a slot stores of an order of its controller. */
export interface SlotOrder {
  readonly slot: Slot;
  readonly sound: Sound | undefined;
  /** Undefined where it stores nothing of it, which leaves the order as it was. */
  readonly places: Places | undefined;
  readonly valueOf: ValueOf;
}

export interface OrderOfSlots {
  readonly wired: WiredDevice;
  readonly order: StoredOrder;
  readonly slots: readonly SlotOrder[];
}

/** Each order that slots store, with what each of them puts there. */
export function slotOrders({ show, wiring, compiled }: Context): readonly OrderOfSlots[] {
  const compile = compiler(wiring);
  return wiring.devices.flatMap((wired) =>
    (wired.anatomy.orders ?? [])
      .filter(({ of }) => wired.control.get(of[0].control)!.scope === 'slot')
      .map((order) => ({
        wired,
        order,
        slots: slotsOfController(show.rig, wired.device.id).map((slot): SlotOrder => {
          const put = new Map(
            (compiled.get(slot)?.actions ?? compile(slot)).flatMap(({ action }) =>
              action.kind === 'set' ? [[action.control, action.value]] : [],
            ),
          );
          const valueOf: ValueOf = (control) => put.get(control);
          return {
            slot,
            sound: slot.sound === null ? undefined : show.rig.sounds[slot.sound],
            places: placesIn(order, valueOf),
            valueOf,
          };
        }),
      })),
  );
}

import { slotLabel } from '../../../model/slots.ts';
import { compiler } from '../../../program/compile.ts';
import { listActions } from '../../../program/listing.ts';
import { sameData } from '../../../units/same-data.ts';
import { defineRule, type Reported } from '../../define-rule.ts';
import { actionsFix } from '../../fix.ts';
import { none } from '../../queries.ts';

export const copyDiffers = defineRule({
  meta: {
    id: 'recall/copy-differs',
    severity: 'fix-before-load-in',
    title: 'A copy of a slot that has drifted',
    why: 'The slot is meant to do what another does. One of the two was changed alone.',
    remedy: 'Put it back to what the other does, or let it go its own way on Program.',
    source: 'declared by the rig',
    messages: { differs: '{slot} is to do what {base} does; {what}.' },
  },
  check: ({ show, wiring }) => {
    const compile = compiler(wiring);
    return Object.values(show.rig.slots).flatMap((slot): readonly Reported<'differs'>[] => {
      const base = slot.copyOf === undefined ? undefined : show.rig.slots[slot.copyOf];
      if (!base || slot.actions === null) return none;
      const actions = compile(base).map(({ action }) => action);
      if (sameData(actions, slot.actions)) return none;
      const [own, other] = [slot.actions, actions].map((list) =>
        listActions(wiring, slot.controller, list).map(({ words }) => words),
      );
      const more = own.filter((words) => !other.includes(words));
      const less = other.filter((words) => !own.includes(words));
      const what = [
        ...(more.length > 0 ? [`it has ${more.join(', ')}`] : []),
        ...(less.length > 0 ? [`the other has ${less.join(', ')}`] : []),
      ];
      return [
        {
          messageId: 'differs',
          at: { slot: slot.id, device: slot.controller },
          data: {
            slot: slotLabel(slot),
            base: slotLabel(base),
            what: what.length > 0 ? what.join('; ') : 'it does the same in another order',
          },
          fix: actionsFix(`Put ${slotLabel(slot)} back to what ${slotLabel(base)} does`, slot, actions),
        },
      ];
    });
  },
});

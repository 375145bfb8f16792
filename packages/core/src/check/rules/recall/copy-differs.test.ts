import { expect, test } from '@jest/globals';
import { withFollowers } from '../../../change/based-on.ts';
import { copySlot, setSlotActions } from '../../../change/commands.ts';
import { applySteps, type Step } from '../../../change/steps.ts';
import type { Show } from '../../../model/documents.ts';
import type { Action } from '../../../model/rig.ts';
import { buildWiring } from '../../../model/wiring.ts';
import { compiler } from '../../../program/compile.ts';
import { ordinary } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { copyDiffers } from './copy-differs.ts';

const applied = (show: Show, steps: readonly Step[]): Show => {
  const result = applySteps(show, steps);
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.value;
};
const actionsOf = (show: Show, slot: string): readonly Action[] =>
  compiler(buildWiring(show.rig))(show.rig.slots[slot]).map(({ action }) => action);
const loop = (value: 0 | 1): Action => ({ kind: 'set', control: 'loop-4', value });
/** The clean slot does what the lead one does, both written by hand. */
function copied(): Show {
  const { show } = ordinary();
  const own = applied(show, setSlotActions(show, 'slot-lead', [...actionsOf(show, 'slot-lead')]).steps);
  return applied(own, copySlot(own, 'slot-clean', { slot: 'slot-lead', actions: actionsOf(own, 'slot-lead') }).steps);
}

test('fires where it must, and is quiet on the ordinary rig', () => {
  const show = copied();
  const alone = applied(show, setSlotActions(show, 'slot-clean', [loop(1)]).steps);
  expect(
    ruleFaults(copyDiffers, {
      clean: {
        'a copy that does the same': show,
        'one that goes its own way': applied(alone, copySlot(alone, 'slot-clean', undefined).steps),
        'a copy of what is gone': applied(show, copySlot(show, 'slot-clean', { slot: 'slot-gone', actions: [] }).steps),
      },
      faulty: {
        'one that was changed alone': { show: alone, messages: ['differs'], fixable: true },
        'the same in another order': {
          show: applied(show, setSlotActions(show, 'slot-clean', [...actionsOf(show, 'slot-lead')].reverse()).steps),
          messages: ['differs'],
          fixable: true,
        },
      },
    }),
  ).toEqual([]);
});

test('what is edited in the other goes into a copy that did the same, and leaves one that did not', () => {
  const show = copied();
  const next = [...actionsOf(show, 'slot-lead'), loop(1)];
  const after = applied(show, withFollowers(show, setSlotActions(show, 'slot-lead', next).steps));
  expect(after.rig.slots['slot-clean'].actions).toEqual(next);
  const alone = applied(show, setSlotActions(show, 'slot-clean', [loop(0)]).steps);
  const later = applied(alone, withFollowers(alone, setSlotActions(alone, 'slot-lead', next).steps));
  expect(later.rig.slots['slot-clean'].actions).toEqual([loop(0)]);
});

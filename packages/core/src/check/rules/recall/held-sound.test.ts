import { expect, test } from '@jest/globals';
import { setCast, setDevice, setParam, want } from '../../../change/commands.ts';
import type { Show } from '../../../model/documents.ts';
import { applySteps } from '../../../change/steps.ts';
import { ShowBuilder } from '../../../testing/build-show.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { heldSound } from './held-sound.ts';

/** Two sounds of one song over a freeze that a foot presses where `presses` says. */
function frozen(
  presses: Readonly<Record<string, number>>,
  ...more: readonly ((show: Show) => { steps: never[] })[]
): Show {
  const rig = new ShowBuilder().text(
    'guitar > switcher = loop switcher, 4 loops\n1: drive\nswitcher > freeze = delay midi > amp = valve amp one > cabinet\nmidi: switcher > freeze',
  );
  rig.do(setParam(rig.show, 'freeze', 'holds', true)).do(setParam(rig.show, 'freeze', 'holdCc', 70));
  let { show } = rig
    .sound('verse', { name: 'Verse' })
    .sound('end', { name: 'End', pedals: { drive: 'on' } })
    .laid();
  const apply = (steps: Parameters<typeof applySteps>[1]) => {
    const result = applySteps(show, steps);
    if (!result.ok) throw new Error(JSON.stringify(result.problems));
    show = result.value;
  };
  for (const make of more) apply(make(show).steps);
  for (const [part, count] of Object.entries(presses)) {
    const cast = Object.values(show.rig.casting).find((each) => each.part === part)!;
    const press = { kind: 'foot' as const, device: 'freeze' as never, switch: 'hold' };
    apply(
      setCast(
        show,
        cast.id,
        'after',
        Array.from({ length: count }, () => press),
      ).steps,
    );
  }
  return show;
}
const planned = (show: Show) => setDevice(show, 'freeze', 'plannedSwitches', ['hold']) as never;

test('fires where it must, and is quiet on the ordinary rig', () => {
  const off = (show: Show) =>
    ({
      steps: [...want(show, 'verse', 'freeze/hold', 0).steps, ...want(show, 'end', 'freeze/hold', 0).steps],
    }) as never;
  expect(
    ruleFaults(heldSound, {
      clean: {
        'nobody presses it': frozen({}),
        'pressed and let go in the last part, and slots send it off': frozen({ 'part-verse': 1, 'part-end': 2 }, off),
        'the slot of the last part sends it off': frozen({ 'part-verse': 1 }, off),
        'planned for the foot, and slots send it off': frozen({}, off, planned),
      },
      faulty: {
        'pressed in the first part and never again': {
          show: frozen({ 'part-verse': 1 }),
          messages: ['rings'],
          fixable: true,
        },
        'pressed in the last part, after its slot sent it off': {
          show: frozen({ 'part-end': 1 }, off),
          messages: ['rings'],
          fixable: true,
        },
        'pressed and let go by the foot alone': {
          show: frozen({ 'part-verse': 1, 'part-end': 1 }),
          messages: ['only-foot'],
        },
        'planned for the foot, and no slot sends it off': { show: frozen({}, planned), messages: ['only-foot'] },
      },
    }),
  ).toEqual([]);
});

import { expect, test } from '@jest/globals';
import { addPart, addSong, layOut, setDevice } from '../../../change/commands.ts';
import { applySteps } from '../../../change/steps.ts';
import { cellarBarRig } from '../../../demo/by-feet.ts';
import { demoShow } from '../../../demo/demo.ts';
import { ShowBuilder } from '../../../testing/build-show.ts';
import { ordinary } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { proverOf } from '../../../recall/prove/prover-of.ts';
import { unplanned } from './unplanned-cues.ts';

/** A drive in front of the switcher that the foot works, an echo that the slots recall. */
function mixed() {
  const builder = new ShowBuilder()
    .device('guitar', 'guitar', 'Guitar')
    .device('drive', 'drive', 'Drive', { plannedSwitches: ['switch'] })
    .device('floor', 'foot-controller', 'Floor')
    .device('echo', 'midi-delay', 'Echo', { channel: 2 })
    .device('desk', 'desk', 'Desk')
    .cables('Guitar > Drive', 'Drive > Echo', 'Echo Out > Desk', 'Floor MIDI out > Echo MIDI in')
    .sound('clean', { pedals: { drive: 'off' }, wants: { 'echo/preset': 1 } })
    .sound('loud', { pedals: { drive: 'on' }, wants: { 'echo/preset': 2 } });
  builder.do(setDevice(builder.show, 'drive', 'owners', { on: 'foot' })).do(layOut(builder.show, 'floor'));
  builder.do(addSong(builder.show, 'song', 'Song'));
  for (const [i, sound] of ['clean', 'loud', 'clean'].entries())
    builder.do(addPart(builder.show, `part-${i}`, 'song', `Part ${i + 1}`, { slot: `slot-${sound}` }));
  return builder.show;
}

test('fires where it must, and is quiet on the ordinary rig', () => {
  const faults = ruleFaults(unplanned, {
    clean: {
      'all is programmed': ordinary().show,
      'hands’ cues stand beside their parts': demoShow(),
      'by feet alone: worked out': cellarBarRig(),
    },
    faulty: { 'a drive that the foot works beside the slots': { show: mixed(), messages: ['several'], fixable: true } },
  });
  expect(faults).toEqual([]);
});

test('planned with one press, every part comes up right in set order', () => {
  const show = mixed();
  const before = proverOf(show);
  const verdicts = (prover: typeof before) =>
    prover.pairs().map(({ slot, sound }) => prover.judge(slot, sound, 1).verdict);
  expect(verdicts(before)).toContain('does-not');
  const [{ fix }] = unplanned.check({ show, wiring: before.model.wiring, prover: before } as never);
  const fixed = applySteps(show, fix!.steps);
  if (!fixed.ok) throw new Error('the fix is refused');
  expect(verdicts(proverOf(fixed.value))).toEqual(['recalls', 'recalls']);
});

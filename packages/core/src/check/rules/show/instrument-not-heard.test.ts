import { expect, test } from '@jest/globals';
import { setDevice } from '../../../change/commands.ts';
import { applySteps } from '../../../change/steps.ts';
import { demoShow } from '../../../demo/demo.ts';
import { buildWiring } from '../../../model/wiring.ts';
import { inputsOf } from '../../../model/instruments.ts';
import { proverOf } from '../../../recall/prove/prover-of.ts';
import { ordinary } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { twoInstruments } from '../../../testing/instrument-rigs.ts';
import { contextOf } from '../../engine.ts';
import { instrumentNotHeard } from './instrument-not-heard.ts';

const fixed = (show: ReturnType<typeof demoShow>) => {
  const [{ fix }] = instrumentNotHeard.check(contextOf(show));
  const after = applySteps(show, fix!.steps);
  if (!after.ok) throw new Error('the fix is refused');
  return after.value;
};

test('fires where it must, and is quiet on the ordinary rig', () => {
  const byHand = twoInstruments(['Guitar', 'Acoustic']);
  const faults = ruleFaults(instrumentNotHeard, {
    clean: {
      'no instrument said': ordinary().show,
      'one input, whatever is plugged in there': demoShow(),
      'the one whose input is on': twoInstruments(['Guitar', 'Guitar']),
      'one that is not there is told elsewhere': twoInstruments(['Guitar', 'Mandolin']),
      'the move is planned': fixed(byHand),
    },
    faulty: {
      'the other input is on': { show: byHand, messages: ['one'], fixable: true },
      'in two songs': {
        show: twoInstruments(['Acoustic', 'Acoustic', 'Guitar']),
        messages: ['several'],
        fixable: true,
      },
      'the sound itself wants the other': {
        show: twoInstruments(['Guitar'], { 'selector/input': 'B' }),
        messages: ['one'],
        fixable: true,
      },
    },
  });
  expect(faults).toEqual([]);
});

test('planned with one press, one sound is played on both and comes up right', () => {
  const show = fixed(twoInstruments(['Guitar', 'Acoustic', 'Guitar']));
  const prover = proverOf(show);
  expect(prover.pairs().map(({ slot, sound }) => prover.judge(slot, sound, 1).verdict)).toEqual(['recalls']);
  expect(inputsOf(buildWiring(show.rig), 'acoustic')).toEqual(['Selector In B']);
});

test('a selector that slots must set is not moved by a hand', () => {
  const show = twoInstruments(['Acoustic']);
  const after = applySteps(show, setDevice(show, 'selector', 'owners', { input: 'programmed' }).steps);
  if (!after.ok) throw new Error('refused');
  expect(instrumentNotHeard.check(contextOf(after.value)).map(({ fix }) => fix)).toEqual([undefined]);
});

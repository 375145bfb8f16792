import { expect, test } from '@jest/globals';
import type { DeviceType } from '../../../model/rig.ts';
import { ShowBuilder } from '../../../testing/build-show.ts';
import { ordinary } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { channelUnreachable } from './channel-unreachable.ts';

/** A three-channel amp at a switcher with two contacts: 00 clean, 01 crunch, 10 and 11 lead. */
const amp = (cables: readonly string[], wanted: readonly string[], params: DeviceType['params'] = {}) =>
  wanted.reduce(
    (builder, channel) => builder.sound(channel, { wants: { 'head/channel': channel } }),
    new ShowBuilder()
      .device('guitar', 'guitar', 'Guitar')
      .device('switcher', 'switcher-8', 'Switcher')
      .device('head', 'valve-head-3', 'Head', {}, params)
      .device('cab', 'cabinet', 'Cabinet')
      .cables('Guitar > Switcher In', 'Switcher Out > Head Input', 'Head Loudspeaker > Cabinet', ...cables),
  ).show;

const first = 'Switcher Contact 1 > Head Remote 1';
const second = 'Switcher Contact 2 > Head Remote 2';

test('fires where it must, and is quiet on the ordinary rig', () => {
  const faults = ruleFaults(channelUnreachable, {
    clean: {
      'the four-cable rig': ordinary().show,
      'both contacts plugged in': amp([first, second], ['clean', 'crunch', 'lead']),
      'one plugged in, which gives what is wanted': amp([first], ['clean', 'lead']),
      'none plugged in: its own switch works': amp([], ['clean', 'crunch', 'lead']),
      'inputs that only write: its own switch works beside them': amp([first], ['crunch'], { inputsDo: 'write' }),
    },
    faulty: {
      'only the first plugged in: crunch takes the second': {
        show: amp([first], ['clean', 'crunch', 'lead']),
        messages: ['unreached'],
        fixable: false,
      },
      'only the second: lead takes the first': { show: amp([second], ['crunch', 'lead']), messages: ['unreached'] },
    },
  });
  expect(faults).toEqual([]);
});

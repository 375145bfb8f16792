import { describe, expect, test } from '@jest/globals';
import { switchingOf, buildWiring } from '@yunta/core';
import { fourCable } from '@yunta/core/testing';
import { channelWords, doesWords, plugsOf, switchedBy } from './gear-words.ts';

const { show } = fourCable().device('boost', 'boost', 'Boost').device('none', 'midi-delay', 'Deaf echo');
const wiring = buildWiring(show.rig);
const switching = switchingOf(wiring);
const wired = (id: string) => wiring.device.get(id)!;

describe('a row of the gear table, in words', () => {
  test.each([
    ['drive', 'Switcher loop 1'],
    ['combo', 'Switcher loop 2'],
    ['delay', 'Switcher loop 3, CC 102'],
    ['boost', 'its own switch'],
    ['cabinet', ''],
  ])('%s is switched by: %s', (id, expected) => expect(switchedBy(wiring, switching.get(id) ?? {})).toBe(expected));
  test('a loop of a device that is gone is still called something', () =>
    expect(switchedBy(wiring, { loop: 'gone/loop-1' })).toBe('gone loop'));
  test.each([
    ['delay', '2'],
    ['none', 'none'],
    ['drive', ''],
  ])('the channel of %s: %s', (id, expected) => expect(channelWords(wired(id).device, wired(id))).toBe(expected));
  test('what it does, each effect once', () =>
    expect([doesWords(wired('drive')), doesWords(wired('delay')), doesWords(wired('cabinet'))]).toEqual([
      'drive',
      'delay',
      '',
    ]));
  test('plugs it holds, of the jacks that it has', () =>
    expect([plugsOf(wired('drive')), plugsOf(wired('boost'))]).toEqual(['2 of 2', '0 of 2']));
});

import { describe, expect, test } from '@jest/globals';
import { clean, fourCable, lead } from '../../testing/build-show.ts';
import { proverOf } from '../prove/prover-of.ts';
import type { Possible } from './range-table.ts';

const prover = proverOf(fourCable().sound('lead', lead).sound('clean', clean).laid().show);
const { model, threeValued } = prover;
const at = (ref: string): number => model.variableOf.get(ref as `${string}/${string}`)!;
const id = (controlValue: string | number): number => model.values.id(controlValue);
const target = (sound: string) => prover.targetOf(prover.pairs().find((pair) => pair.sound.id === sound)!.sound);
/** All as wanted by a sound, the empty loop out, but for some. */
const like = (sound: string, other: Record<string, string | number | null> = {}): Possible => {
  const wanted = target(sound);
  const given = new Map(
    Object.entries({ 'switcher/loop-4': 0, ...other }).map(
      ([ref, value]) => [at(ref), value === null ? null : [id(value)]] as const,
    ),
  );
  return (variable) =>
    given.has(variable) ? given.get(variable)! : wanted.has(variable) ? [wanted.wants(variable)] : null;
};
const status = (sound: string, now: Record<string, string | number>, possible: Possible) =>
  threeValued.status(
    target(sound),
    new Map(Object.entries(now).map(([ref, value]) => [at(ref), id(value)])),
    threeValued.ground(possible),
    new Map(),
  );

describe('what a few variables settle of a sound', () => {
  test.each([
    ['a drive that is wanted and out', 'lead', { 'switcher/loop-1': 0 }, 'wrong'],
    ['a drive that is not wanted and in', 'clean', { 'switcher/loop-1': 1, 'drive/on': 1 }, 'wrong'],
    ['the other channel of the amp', 'lead', { 'combo/channel': 'clean' }, 'wrong'],
    ['another preset of an echo that is heard', 'lead', { 'delay/preset': 6 }, 'wrong'],
    ['another mix of an echo that its own switch takes out', 'clean', { 'delay/mix': 99 }, 'inaudible'],
    ['all as wanted', 'lead', { 'switcher/loop-1': 1 }, 'inaudible'],
    ['an empty loop that cuts the line', 'lead', { 'switcher/loop-4': 1 }, 'wrong'],
  ] as const)('%s: %s is %s', (_, sound, now, expected) => {
    expect(status(sound, now, like(sound))).toBe(expected);
  });
  test('where an empty loop may cut the line, nothing is sure to be heard, and the answer stays open', () => {
    expect(status('lead', { 'switcher/loop-1': 0 }, like('lead', { 'switcher/loop-4': null }))).toBe('open');
    expect(status('lead', { 'switcher/loop-1': 0 }, like('lead', { 'switcher/loop-4': 1 }))).toBe('wrong');
  });
  test('an echo that its loop takes out is still missed: its preset is heard once the wants are target over', () => {
    expect(status('lead', { 'delay/preset': 6 }, like('lead', { 'switcher/loop-3': 0, 'delay/on': null }))).toBe(
      'wrong',
    );
  });
  test('what may be heard at all, of a few that are not as wanted', () => {
    const few = [at('delay/preset'), at('combo/channel')];
    expect(threeValued.audible(target('lead'), few, threeValued.ground(like('lead')))).toEqual(few);
    const wanted = target('clean');
    const cut: Possible = (variable) =>
      variable === at('switcher/loop-3') ? [id(0)] : wanted.has(variable) ? [wanted.wants(variable)] : null;
    expect(threeValued.audible(target('clean'), few, threeValued.ground(cut))).toEqual([at('combo/channel')]);
  });
  test('what a switch that stays off shuts cannot be heard; what it bypasses can', () => {
    const stays = (ref: string, controlValue: string | number) => (variable: number) =>
      variable === at(ref) ? id(controlValue) : -1;
    expect(threeValued.isBlocked(at('delay/preset'), stays('delay/on', 0))).toBe(true);
    expect(threeValued.isBlocked(at('delay/preset'), stays('delay/on', 1))).toBe(false);
    expect(threeValued.isBlocked(at('delay/preset'), stays('drive/on', 0))).toBe(false);
    expect(threeValued.isBlocked(at('delay/on'), stays('delay/on', 0))).toBe(false);
    expect(threeValued.isBlocked(at('combo/channel'), stays('switcher/loop-2', 0))).toBe(false);
  });
  test('values that no section tells apart are of one class, and the wanted one is told', () => {
    const classOf = (sound: string, ref: string, controlValue: string | number) =>
      threeValued.classOf(target(sound), at(ref), id(controlValue));
    expect(classOf('lead', 'delay/preset', 6)).toBe(classOf('lead', 'delay/preset', 7));
    expect(classOf('lead', 'delay/preset', 5)).not.toBe(classOf('lead', 'delay/preset', 6));
    expect(classOf('lead', 'combo/channel', 'clean')).not.toBe(classOf('lead', 'combo/channel', 'lead'));
  });
});

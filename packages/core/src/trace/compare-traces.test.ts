import { describe, expect, test } from '@jest/globals';
import { contextOf } from '../check/engine.ts';
import { commands } from '../testing/commands.ts';
import { applySteps } from '../change/steps.ts';
import { clean, fourCable, lead } from '../testing/build-show.ts';
import { seededShow } from '../testing/compare.ts';
import { compareTraces, settingDifferences } from './compare-traces.ts';

const show = fourCable().sound('lead', lead).sound('clean', clean).show;
const { tracer } = contextOf(show);
const trace = (sound: string) => tracer.trace(show.rig.sounds[sound]);
const devices = (sound: string, which: ReadonlySet<number>) =>
  [...which].map((index) => trace(sound).passes[index].device);

describe('two runs side by side', () => {
  test('what only one of them passes, or passes otherwise, is told of it', () => {
    const { onlyFirst, onlySecond } = compareTraces(trace('lead'), trace('clean'));
    expect(devices('lead', onlyFirst)).toEqual([
      'switcher',
      'drive',
      'switcher',
      'combo',
      'switcher',
      'delay',
      'switcher',
    ]);
    expect(devices('clean', onlySecond)).toEqual(['switcher', 'combo', 'switcher']);
  });
  test('an edit before and after', () => {
    const undone = commands.disconnect(
      show,
      Object.values(show.rig.cables).find(({ plugs }) => plugs[1].device === 'delay')!.id,
    );
    const after = applySteps(show, undone.steps);
    if (!after.ok) throw new Error('refused');
    const changed = contextOf(after.value).tracer.trace(after.value.rig.sounds.lead);
    const { onlyFirst, onlySecond } = compareTraces(trace('lead'), changed);
    expect(devices('lead', onlyFirst)).toContain('delay');
    expect(onlySecond.size).toBeLessThan(onlyFirst.size);
  });
  test('laws: a run with itself differs nowhere; the other way round the two change places; what is left agrees', () => {
    for (let seed = 900; seed < 930; seed += 1) {
      const random = seededShow(seed);
      const its = contextOf(random).tracer;
      const traces = Object.values(random.rig.sounds).map((sound) => its.trace(sound));
      for (const one of traces) {
        expect(compareTraces(one, one)).toEqual({ onlyFirst: new Set(), onlySecond: new Set() });
        for (const other of traces) {
          const there = compareTraces(one, other);
          const back = compareTraces(other, one);
          expect(one.passes.length - there.onlyFirst.size).toBe(other.passes.length - there.onlySecond.size);
          expect([back.onlySecond.size, back.onlyFirst.size]).toEqual([there.onlyFirst.size, there.onlySecond.size]);
        }
      }
    }
  });
});

test('settings heard in both are told where they differ', () => {
  const louder = fourCable()
    .sound('lead', { ...lead, wants: { ...lead.wants, 'delay/preset': 3 } })
    .sound('far', { ...lead, wants: { ...lead.wants, 'delay/preset': 5 } }).show;
  const its = contextOf(louder).tracer;
  const at = (sound: string) => ({ tracer: its, sound: louder.rig.sounds[sound] });
  expect(settingDifferences(at('lead'), at('far'))).toEqual([{ ref: 'delay/preset', first: 3, second: 5 }]);
  expect(settingDifferences(at('lead'), at('lead'))).toEqual([]);
});

import { readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import { cellarBarRig, ferryRig, hallwayRig, twoLineBassRig } from '../demo/by-feet.ts';
import { demoShow, flyShow } from '../demo/demo.ts';
import { exportShow, importShow } from '../formats/json.ts';
import type { Show } from '../model/documents.ts';
import { starters } from '../starters/starters.ts';
import { madeByCommands } from '../testing/by-commands.ts';
import { seededRig } from '../testing/compare.ts';
import { copied, type Json, mutate } from '../testing/mutate.ts';
import { Random } from '../testing/random.ts';
import { adaptCase } from '../testing/recall-adapter.ts';
import { addVariant, setVariant } from '../variants/edit.ts';
import { buildOn, setTwin } from './based-on.ts';
import * as commands from './commands.ts';
import { sameData } from '../units/same-data.ts';
import { applySteps } from './steps.ts';

const straightWire = [
  [
    { plug: 0, pole: 'tip' },
    { plug: 1, pole: 'tip' },
  ],
];

/** The demo with everything that a document may hold and the demo does without. */
function filled(): Show {
  const made = [
    (show: Show) =>
      commands.waive(show, 'w', 'recall/left-over', { sound: 'sound-7' }, 'mended on Friday', 'Left over'),
    (show: Show) => commands.addOutside(show, { id: 'o', device: 'echo', channel: 2 as never, program: 4 as never }),
    (show: Show) =>
      commands.setDevice(show, 'switcher', 'calls', {
        channel: 1 as never,
        programs: { '4': 'slot-sound-1' as never },
      }),
    (show: Show) => commands.setDevice(show, 'switcher', 'powerUpSlot', 'slot-sound-2' as never),
    (show: Show) => commands.setDevice(show, 'switcher', 'oneWay', ['send-9']),
    (show: Show) => commands.setDevice(show, 'echo', 'onlyFor', [{ to: ['cab' as never], control: 'mix' }]),
    (show: Show) => commands.setDevice(show, 'drive-1', 'switching', { loop: 'switcher/loop-2' }),
    (show: Show) => commands.setLengthUnit(show, 'ft'),
    (show: Show) => commands.setSetting(show, 'width', 'mono'),
    (show: Show) => commands.setCable(show, 'cable-1', 'poles', straightWire),
    (show: Show) => commands.setConvention(show, 'tempo', 'tapped'),
    (show: Show) => commands.castPart(show, 'part-1', { sound: 'sound-2' }),
    (show: Show) => buildOn(show, 'sound-2', 'sound-1'),
    (show: Show) => setTwin(show, 'sound-2', ['echo/mix']),
    (show: Show) => addVariant(show, 'tonight', 'Tonight'),
    (show: Show) =>
      setVariant(show, 'tonight', 'steps', [{ op: 'set', at: ['devices', 'echo', 'channel'], value: 9, old: 2 }]),
  ].reduce((show, make) => {
    const result = applySteps(show, make(show).steps);
    if (!result.ok) throw new Error(JSON.stringify(result.problems));
    return result.value;
  }, demoShow());
  return made;
}

describe('whatever can be imported can be made by commands', () => {
  const recall = JSON.parse(readFileSync(new URL('../../fixtures/recall-cases.json', import.meta.url), 'utf8'));
  const shows: Readonly<Record<string, Show>> = {
    'the demo': demoShow(),
    'the fly rig': flyShow(),
    'with all that a document may hold': filled(),
    'pedals by feet': cellarBarRig(),
    'no amp by feet': hallwayRig(),
    'a floor unit': ferryRig(),
    'two lines': twoLineBassRig(),
    ...Object.fromEntries(starters.map((starter) => [starter.name, starter.make('rig', 'Rig')])),
    ...Object.fromEntries(
      recall.topics['13_recall'].cases.map((item: { name: string; inputs: { rig: never } }) => [
        `case ${item.name}`,
        adaptCase(item.inputs.rig).show,
      ]),
    ),
  };
  test.each(Object.entries(shows))('%s', (_, show) => {
    expect(sameData(madeByCommands(show), show)).toBe(true);
  });

  test('random rigs, and the demo changed at random as far as it is still taken', () => {
    const wrong: unknown[] = [];
    for (const seed of [5, 20_000_001, 30_000_002, 30_000_003])
      if (!sameData(madeByCommands(seededRig(seed).show), seededRig(seed).show)) wrong.push(seed);
    const whole = JSON.parse(exportShow(filled())) as Json;
    const r = new Random(11);
    let taken = 0;
    for (let i = 0; i < 400 && taken < 25; i += 1) {
      const changed = copied(whole);
      mutate(changed, r);
      const result = importShow(JSON.stringify(changed));
      if (!result.ok) continue;
      taken += 1;
      if (!sameData(madeByCommands(result.value), result.value)) wrong.push(changed);
    }
    expect(taken).toBeGreaterThan(10);
    expect(wrong).toEqual([]);
  });
});

test('the comparison tells shows apart', () => expect(sameData(madeByCommands(flyShow()), demoShow())).toBe(false));

test('and what commands have made can be exported and imported, and is the same then', () => {
  for (const show of [filled(), hallwayRig(), ferryRig(), madeByCommands(flyShow())]) {
    const result = importShow(exportShow(show));
    expect(result.ok && sameData(result.value, show)).toBe(true);
  }
});

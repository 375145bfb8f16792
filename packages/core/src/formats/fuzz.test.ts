import { describe, expect, test } from '@jest/globals';
import { Ajv2020 } from 'ajv/dist/2020.js';
import { typeById } from '../catalogue/types.ts';
import * as commands from '../change/commands.ts';
import { applySteps, invertSteps } from '../change/steps.ts';
import { check, contextOf } from '../check/engine.ts';
import { formatFinding } from '../check/format-finding.ts';
import { rules } from '../check/rules/index.ts';
import { demoShow } from '../demo/demo.ts';
import type { Show } from '../model/documents.ts';
import { patchList } from '../paper/patch-list.ts';
import { cueSheet } from '../paper/cue-sheet.ts';
import { worksheet } from '../paper/worksheet.ts';
import { partPlans } from '../recall/replay/foot-plan.ts';
import { setFile } from '../show/song-midi.ts';
import { starters } from '../starters/starters.ts';
import { mutate, copied, type Json } from '../testing/mutate.ts';
import { Random } from '../testing/random.ts';
import { describeProblem, type Problem } from '../units/problem.ts';
import { readBatch } from './batch.ts';
import { exportShow, importShow, showSchema } from './json.ts';
import { readSmf, writeSmf } from './smf.ts';

// A file mutated at random is refused with a place and a reason, or taken; and whatever is taken can be worked with.

/** Everything that a screen or a command would ask of a show. */
function worked(show: Show): void {
  const context = contextOf(show);
  const { findings, broken } = check(context, rules);
  expect(broken).toEqual([]);
  for (const finding of findings) expect(formatFinding(finding, rules)).not.toMatch(/[{}]|undefined|NaN|\[object/);
  for (const sound of Object.values(show.rig.sounds)) context.tracer.trace(sound);
  for (const level of [1, 2] as const)
    for (const { verdict, sequence } of context.prover.all(level))
      if (verdict === 'recalls' || verdict === 'not-played') expect(sequence).toBeNull();
  const cues = cueSheet(show, context.wiring, partPlans(context.prover));
  for (const sheet of [worksheet(show, context.wiring), patchList(show, context.wiring), cues])
    expect(JSON.stringify(sheet)).not.toMatch(/undefined|NaN|\[object/);
  expect(readSmf(writeSmf(setFile(show, context.wiring).smf)).ok).toBe(true);
}

const schema = new Ajv2020({ strict: false }).compile(showSchema);

function tried(text: string): 'taken' | 'refused' {
  const result = importShow(text);
  if (result.ok) {
    expect(schema(JSON.parse(exportShow(result.value)))).toBe(true);
    expect(importShow(exportShow(result.value))).toEqual(result);
    worked(result.value);
    return 'taken';
  }
  expectPlaced(result.problems);
  return 'refused';
}

/** Where, and why, in words. */
function expectPlaced(problems: readonly Problem[]): void {
  expect(problems.length).toBeGreaterThan(0);
  for (const problem of problems) {
    expect(problem.pointer).toMatch(/^(\/|$)/);
    expect(describeProblem(problem)).toMatch(/\.$/);
    expect(describeProblem(problem)).not.toMatch(/undefined|\[object/);
  }
}

describe('batches mutated at random', () => {
  const demo = demoShow();
  const before = JSON.stringify(demo);
  const batches: readonly Json[] = [
    commands.want(demo, 'sound-1', 'echo/preset', 9),
    commands.removeDevice(demo, 'echo'),
    commands.addDevice(demo, 'wah', typeById('drive').type, 'Wah', 'board'),
    commands.setDevice(demo, 'switcher', 'type', { ...demo.rig.devices.switcher.type }),
    commands.setSlotActions(demo, 'slot-sound-1', [
      { kind: 'program', channel: 2, program: 5 },
      { kind: 'wait', ms: 30 },
    ]),
    commands.addSong(demo, 'new', 'New'),
  ].map((command, i) => copied({ id: `batch-${i}`, ...command } as unknown as Json));

  test('are refused with a place and a reason, or applied and can be taken back; the show stays as it was', () => {
    const tally = { applied: 0, 'not applied': 0, unread: 0 };
    for (let seed = 1; seed <= 600; seed += 1) {
      const r = new Random(seed);
      const data = copied(r.pick(batches));
      mutate(data, r);
      const read = readBatch(data);
      if (!read.ok) {
        tally.unread += 1;
        expectPlaced(read.problems);
        continue;
      }
      const result = applySteps(demo, read.value.steps);
      tally[result.ok ? 'applied' : 'not applied'] += 1;
      if (!result.ok) expectPlaced(result.problems);
      else expect(applySteps(result.value, invertSteps(read.value.steps))).toEqual({ ok: true, value: demo });
    }
    expect(JSON.stringify(demo)).toBe(before);
    for (const count of Object.values(tally)) expect(count).toBeGreaterThan(30);
  });
});

describe('files mutated at random', () => {
  const files: readonly (readonly [string, string, number])[] = [
    ['the demo', exportShow(demoShow()), 20],
    // Mutated once more, one of them is a switcher of a hundred loops in a stored order: a minute of proof.
    ...starters.map(({ id, make }): readonly [string, string, number] => [
      id,
      exportShow(make(id, id)),
      id === 'stored-order' ? 60 : 100,
    ]),
  ];
  const tally = { taken: 0, refused: 0 };

  test.each(files)('%s', (_, text, count) => {
    for (let seed = 1; seed <= count; seed += 1) {
      const r = new Random(seed);
      const data = JSON.parse(text) as Json;
      for (let bends = r.chance(0.7) ? 1 : 3; bends > 0; bends -= 1) mutate(data, r);
      try {
        tally[tried(JSON.stringify(data))] += 1;
      } catch (reason) {
        throw new Error(`seed ${seed}`, { cause: reason });
      }
    }
  });

  test('many were taken and many refused', () => {
    expect(tally.taken).toBeGreaterThan(40);
    expect(tally.refused).toBeGreaterThan(100);
  });

  test('cut short or with a byte changed, a file is refused or taken all the same', () => {
    const [, text] = files[1];
    const cut = { taken: 0, refused: 0 };
    for (let seed = 1; seed <= 150; seed += 1) {
      const r = new Random(seed);
      const place = r.below(text.length);
      const mutated = r.chance(0.3)
        ? text.slice(0, place)
        : `${text.slice(0, place)}${String.fromCharCode(r.below(128))}${text.slice(place + 1)}`;
      cut[tried(mutated)] += 1;
    }
    expect(cut.taken).toBeGreaterThan(3);
    expect(cut.refused).toBeGreaterThan(50);
  });
});

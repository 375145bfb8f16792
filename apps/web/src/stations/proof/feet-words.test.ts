import { expect, test } from '@jest/globals';
import { buildWiring, footPlan, type MistakeReport, proverOf, resetWords } from '@yunta/core';
import { cellarBarRig, ferryRig, twoLineBassRig } from '@yunta/core/testing';
import { alike, byPress, mistakeWords, reachWords, stillThere } from './feet-words.ts';

const show = cellarBarRig();
const wiring = buildWiring(show.rig);
const { mistakes, resets } = footPlan(proverOf(show))!;

test('mistakes by what is pressed; presses that reach as far are said once', () => {
  const presses = byPress(show, wiring, mistakes);
  expect(presses.map(({ label }) => label).sort()).toEqual(['Boost', 'Combo', 'Compressor', 'Drive', 'Echo']);
  expect(alike(presses)).toEqual([
    {
      labels: presses.map(({ label }) => label),
      missed: 'to the end of the set: nothing sets it right',
      extra: 'to the end of the set: nothing sets it right',
    },
  ]);
});

test('how far a mistake reaches, and where it heals', () => {
  const mistake = (wrong: readonly string[], heals: string | null): MistakeReport => ({
    kind: 'missed',
    press: { device: 'drive', switch: 'switch' },
    at: 'song-1-part-1',
    wrong,
    heals,
  });
  const short = mistake(['song-1-part-1', 'song-1-part-2'], 'song-1-part-3');
  const late = mistake(['song-1-part-2'], 'song-1-part-3');
  const lasting = mistake(['song-2-part-2'], null);
  expect(reachWords([])).toBe('not heard');
  expect(reachWords([short, late])).toBe('2 parts at most, then right again');
  expect(reachWords([late])).toBe('1 part at most, then right again');
  expect(reachWords([late, lasting])).toBe('to the end of the set in 1 of 2 places');
  expect(mistakeWords(show, short)).toBe(
    'missed at Cellar Waltz, verse: 2 parts wrong, right again at Cellar Waltz, solo',
  );
  expect(mistakeWords(show, { ...late, kind: 'extra' })).toBe(
    'once too often in Cellar Waltz, verse: 1 part wrong from Cellar Waltz, chorus on, right again at Cellar Waltz, solo',
  );
});

test('how to be sure of a sound: by looking, by nothing at all, by presses and a slot', () => {
  expect(resetWords(show, wiring, resets[0])).toBe('look at Compressor, Drive, Boost, Combo, Echo: no press sets it');
  const bass = twoLineBassRig();
  expect(resetWords(bass, buildWiring(bass.rig), footPlan(proverOf(bass))!.resets[0])).toBe(
    'nothing to do: it cannot be wrong',
  );
  const ferry = ferryRig();
  const foot = (name: string) => ({ kind: 'foot', device: 'unit', switch: name }) as const;
  const steps = [foot('down'), foot('up'), { kind: 'cue', control: 'guitar/volume', value: 3 } as const];
  expect(
    resetWords(ferry, buildWiring(ferry.rig), {
      steps: steps.slice(0, 2),
      lookAt: [],
      isUnknown: false,
    }),
  ).toBe('Floor unit: Preset down, then Floor unit: Preset up');
  expect(resetWords(show, wiring, { steps: null, lookAt: [], isUnknown: true })).toMatch(/^not known/);
});

test('a plan from before an edit says nothing of parts, sounds and slots that are gone', () => {
  const plan = footPlan(proverOf(show))!;
  expect(stillThere(show, plan)).toEqual(plan);
  const { 'song-1-part-3': _, ...parts } = show.songbook.parts;
  const { rhythm: __, ...sounds } = show.rig.sounds;
  const edited = { rig: { ...show.rig, sounds }, songbook: { ...show.songbook, parts } };
  const left = stillThere(edited, {
    ...plan,
    resets: [...plan.resets, { sound: 'solo', steps: [{ slot: 'gone' }], lookAt: [], isUnknown: false }],
  });
  expect(left.parts.map(({ part }) => part)).toEqual(['song-1-part-2', 'song-2-part-1']);
  expect(left.resets.map(({ sound, steps }) => [sound, steps])).toEqual([
    ['crunch', null],
    ['solo', null],
  ]);
  expect(left.mistakes.length).toBeGreaterThan(0);
  for (const mistake of left.mistakes) expect(mistakeWords(edited, mistake)).not.toMatch(/undefined/);
});

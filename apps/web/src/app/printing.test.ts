import { expect, test } from '@jest/globals';
import { buildWiring, demoShow, emptyShow, footPlan, partPlans, proverOf, Tracer } from '@yunta/core';
import { printables, printedOf, usualPaper } from './printing.ts';

const opened = (show: ReturnType<typeof demoShow>) => {
  const wiring = buildWiring(show.rig);
  const prover = proverOf(show);
  const played = partPlans(prover);
  const resets = footPlan(prover)?.resets ?? [];
  return { show, wiring, tracer: new Tracer(wiring), sound: Object.values(show.rig.sounds)[0] ?? null, played, resets };
};
const all = printables.map(([what]) => what);

test('everything that can be printed of the demo, in the order of the paper; of an empty rig only its drawing', () => {
  const titles = printedOf(opened(demoShow()), all).map((each) =>
    each.kind === 'sheet' ? each.sheet.title : each.title,
  );
  expect(titles).toEqual([
    'Settings',
    'Programming of Switcher',
    'What differs on Switcher',
    'Bank plan of Switcher',
    'Patch list',
    'Power plan',
    'Cable schedule',
    'Shopping list',
    'Packing list',
    'Tags',
    'Routing',
    'Cue sheet',
  ]);
  expect(printedOf(opened(emptyShow('rig', 'Rig')), all).map(({ kind }) => kind)).toEqual(['drawing']);
  expect(printedOf(opened(demoShow()), ['patch'])).toHaveLength(1);
});

test('Letter where it is usual, A4 elsewhere', () => {
  expect(['en-US', 'fr-CA', 'es-MX', 'en-GB', 'de', 'es-UY'].map(usualPaper)).toEqual([
    'LETTER',
    'LETTER',
    'LETTER',
    'A4',
    'A4',
    'A4',
  ]);
});

import { describe, expect, test } from '@jest/globals';
import { demoShow } from '../demo/demo.ts';
import { buildWiring } from '../model/wiring.ts';
import { compiler } from '../program/compile.ts';
import { clean, fourCable, lead } from '../testing/build-show.ts';
import { bankPlans } from './bank-plan.ts';
import { programmingSheets } from './programming.ts';

describe('the programming of two sounds', () => {
  const { show } = fourCable().sound('lead', lead).sound('clean', clean).laid();
  const sheets = programmingSheets(show, buildWiring(show.rig));

  test('is settings and one matrix: a row a slot, a column for each thing that is set or sent', () => {
    expect(sheets.map(({ title, look }) => [title, look])).toEqual([
      ['Settings', 'list'],
      ['Programming of Switcher', 'matrix'],
    ]);
    const [, matrix] = sheets;
    expect(matrix.columns).toEqual([
      'Slot',
      'Sound',
      'Loop 1 Drive',
      'Loop 2 Combo',
      'Loop 3 Delay',
      'Contact 1',
      'Delay preset',
      'Delay CC 102',
    ]);
    expect(matrix.groups[0].lines.map(({ cells }) => cells)).toEqual([
      ['1·1', 'Lead', '●', '●', '●', '●', '6', '127'],
      ['1·2', 'Clean', '○', '●', '○', '○', '', '0'],
    ]);
    expect(matrix.notes.join()).toContain('Off in every slot, with nothing in them: Loop 4');
  });
});

describe('the demo', () => {
  const show = demoShow();
  const wiring = buildWiring(show.rig);
  const sheets = programmingSheets(show, wiring);
  const lines = (look: string) => sheets.filter((sheet) => sheet.look === look).flatMap(({ groups }) => groups);

  test('every slot is in the matrix, or line by line: once', () => {
    const inMatrix = lines('matrix').flatMap((group) => group.lines.map(({ id }) => id));
    const byLine = lines('list').flatMap((group) => group.lines.map(({ id }) => id.split('/').slice(0, 2).join('/')));
    const slots = new Set([...inMatrix, ...byLine.filter((id) => id.startsWith('slot/'))]);
    expect(slots.size).toBe(Object.keys(show.rig.slots).length);
    expect(inMatrix.length).toBeGreaterThan(30);
  });

  test('the matrix says what the slots do, no more and no less', () => {
    const compile = compiler(wiring);
    const matrix = sheets.find(({ look }) => look === 'matrix')!;
    for (const { id, cells } of matrix.groups[0].lines) {
      const actions = compile(show.rig.slots[id.slice(5)]).filter(({ action }) => action.kind !== 'wait');
      const idle = actions.filter(({ action }) => action.kind === 'set' && /loop-(8|9|10)$/.test(action.control));
      expect(cells.slice(2).filter((cell) => cell !== '')).toHaveLength(actions.length - idle.length);
    }
  });

  test('its bank plan shows each slot under its switch', () => {
    const [plan] = bankPlans(show, wiring);
    const cells = plan.groups[0].lines.flatMap((line) => line.cells);
    expect(cells.slice(0, 3)).toEqual(['1', '1  Slow Lock, verse', '2  Ferry Bell, verse']);
    expect(cells.filter((cell) => /^\d+ {2}./.test(cell))).toHaveLength(Object.keys(show.rig.slots).length);
  });
});

test('a slot that does a thing twice is told line by line', () => {
  const { show } = fourCable().sound('lead', lead).sound('clean', clean).laid();
  const [first] = Object.values(show.rig.slots);
  const actions = [
    { kind: 'program', channel: 2, program: 5 },
    { kind: 'set', control: 'loop-1', value: 1 },
    { kind: 'program', channel: 2, program: 6 },
  ];
  const rig = { ...show.rig, slots: { ...show.rig.slots, [first.id]: { ...first, actions } } } as typeof show.rig;
  const titles = programmingSheets({ ...show, rig }, buildWiring(rig)).map(({ title, groups }) => [
    title,
    groups.length,
  ]);
  expect(titles).toContainEqual(['What differs on Switcher', 1]);
});

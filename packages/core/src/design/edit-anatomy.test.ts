import { describe, expect, test } from '@jest/globals';
import { catalogue, typeById } from '../catalogue/types.ts';
import { type Anatomy, effectKinds, emptyAnatomy } from '../model/anatomy.ts';
import { checkAnatomy } from '../model/archetypes/check-anatomy.ts';
import { anatomyOf } from '../model/archetypes/registry.ts';
import { anatomyJackKinds } from '../model/jack-kinds.ts';
import { Random } from '../testing/random.ts';
import { anatomyDifferences } from './anatomy-differences.ts';
import { anatomyLines, conditionWords } from './anatomy-words.ts';
import * as edit from './edit-anatomy.ts';
import { openedType } from './opened-type.ts';
import { schematicOf } from './schematic.ts';

const faults = (anatomy: Anatomy) => checkAnatomy(anatomy as unknown as Record<string, unknown>, '');
const idsOf = (list: readonly { readonly id: string }[]) => list.map(({ id }) => id);
const blank = anatomyOf(typeById('blank-device').type);

/** Any one edit, of whatever is there. */
function edited(r: Random, anatomy: Anatomy): Anatomy {
  const jack = r.pick(['', ...idsOf(anatomy.jacks)]);
  const path = r.pick(['', ...idsOf(anatomy.sections)]);
  const control = anatomy.controls.length > 0 ? r.pick(anatomy.controls) : undefined;
  const points = [...idsOf(anatomy.jacks), ...edit.innerPoints(anatomy), edit.freshPoint(anatomy)];
  const [from, to] = [r.pick(points), r.pick(points)];
  switch (r.below(19)) {
    case 0:
      return edit.addJack(anatomy, r.pick(['In', 'Out 2', 'Écho']), r.pick(anatomyJackKinds));
    case 1:
      return edit.removeJack(anatomy, jack);
    case 2:
      return edit.setJackWidth(anatomy, jack, r.pick(edit.jackWidths));
    case 3:
      return from === to ? anatomy : edit.addPath(anatomy, 'Path', { from, to }, r.pick([undefined, ...effectKinds]));
    case 4:
      return edit.setPathEffect(anatomy, path, r.pick([undefined, ...effectKinds]));
    case 5:
      return jack === '' ? anatomy : edit.setPathPlug(anatomy, path, jack, r.pick([true, false, undefined]));
    case 6:
      return control?.domain.kind === 'switch'
        ? edit.setPathControl(anatomy, path, control.id, r.pick([[0], [1], undefined]))
        : anatomy;
    case 7:
      return edit.removePath(anatomy, path);
    case 8:
      return edit.addControl(anatomy, r.pick(['On', 'Preset', 'Mode']), { kind: 'switch' });
    case 9:
      return control
        ? edit.setDomain(anatomy, control.id, r.pick([{ kind: 'choice', values: ['low', 'high'] }, { kind: 'switch' }]))
        : anatomy;
    case 10:
      return control ? edit.removeControl(anatomy, control.id) : anatomy;
    case 11:
      return control ? edit.addSwitch(anatomy, 'Switch', control.id) : anatomy;
    case 12:
      return control ? edit.addMessage(anatomy, control.id) : anatomy;
    case 13:
      return edit.removeMessage(anatomy, r.below(4));
    case 14:
      return edit.setPresets(anatomy, r.chance(0.5) ? edit.typicalPresets : undefined);
    case 15: {
      const input = anatomy.inputs.at(0)?.id;
      return control ? edit.setContact(anatomy, control.id, r.chance(0.5) ? input : undefined) : anatomy;
    }
    case 16:
      return control ? edit.setHeard(anatomy, path, control.id, r.chance(0.7)) : anatomy;
    case 17:
      return jack === '' ? anatomy : edit.setReturn(anatomy, jack, r.pick([undefined, ...idsOf(anatomy.jacks)]));
    default:
      return control ? edit.setOwnSwitch(anatomy, r.chance(0.7) ? control.id : undefined) : anatomy;
  }
}

describe('edits', () => {
  test('whatever is edited, whatever device one begins with: nothing names what is not there', () => {
    const r = new Random(16);
    for (let run = 0; run < 60; run += 1) {
      let anatomy = anatomyOf(openedType(r.pick(catalogue).type, 'own'));
      for (let n = 0; n < 25; n += 1) {
        const before = anatomy;
        anatomy = edited(r, anatomy);
        expect({ run, n, faults: faults(anatomy), before }).toEqual({ run, n, faults: [], before });
      }
    }
  });

  test('a jack goes with its paths, its insert, its contact and whoever asked for its plug', () => {
    const amp = anatomyOf(openedType(typeById('valve-combo').type, 'own'));
    const back = amp.jacks.find((jack) => /return/i.test(jack.label))!.id;
    expect(amp.sections.some(({ from }) => from === back)).toBe(true);
    expect(amp.sections.some(({ when }) => when?.plugs && back in when.plugs)).toBe(true);
    const without = edit.removeJack(amp, back);
    expect(without.sections.some(({ from, when }) => from === back || (when?.plugs && back in when.plugs))).toBe(false);
    expect(JSON.stringify(without)).not.toContain(`"${back}"`);
  });

  test('a control goes with its messages, its switch and what asked for it', () => {
    const told = edit.addMessage(blank, 'on', 20);
    expect(told.messages).toEqual([{ cc: 20, control: 'on', mode: 'switch' }]);
    expect(told.jacks.at(-1)).toMatchObject({ kind: 'midi-in' });
    const without = edit.removeControl(told, 'on');
    expect(without.messages).toEqual([]);
    expect(without.switches).toEqual([{ id: 'switch', label: 'Switch', actions: [] }]);
    expect(without.ownSwitch).toBeUndefined();
    expect(without.sections.map(({ when }) => when)).toEqual([undefined, undefined]);
  });

  test('a control with fewer values: what asked for one that is gone asks no more', () => {
    const three = edit.addControl(blank, 'Mode', { kind: 'choice', values: ['a', 'b', 'c'] });
    const asking = edit.setPathControl(three, 'effect', 'mode', ['b', 'c']);
    expect(conditionWords(asking, asking.sections[0].when)).toBe('On is on, Mode is b or c');
    const two = edit.setDomain(asking, 'mode', { kind: 'choice', values: ['a', 'b'] });
    expect(conditionWords(two, two.sections[0].when)).toBe('On is on, Mode is b');
    const other = edit.setDomain(two, 'mode', { kind: 'switch' });
    expect(conditionWords(other, other.sections[0].when)).toBe('On is on');
  });

  test('a switch steps what has more than two values, and turns over what has two', () => {
    const mode = edit.addControl(blank, 'Mode', { kind: 'choice', values: ['a', 'b', 'c'] });
    const both = edit.addSwitch(edit.addSwitch(mode, 'Stomp', 'on'), 'Stomp', 'mode');
    expect(both.switches.slice(1)).toEqual([
      { id: 'stomp', label: 'Stomp', actions: [{ toggle: 'on' }] },
      { id: 'stomp-2', label: 'Stomp', actions: [{ next: 'mode', by: 1, wrap: true }] },
    ]);
  });
});

describe('what is declared is held together', () => {
  const on = blank.controls[0];
  test.each<[string, Anatomy, string]>([
    ['two jacks of one id', { ...blank, jacks: [...blank.jacks, blank.jacks[0]] }, '/jacks/2/id'],
    ['a path from nowhere', edit.setPath(blank, 'effect', { from: 'aux' }), '/sections/0/from'],
    ['a ring that a jack has not', edit.setPath(blank, 'effect', { from: 'in.ring' }), '/sections/0/from'],
    ['a path to where it begins', edit.setPath(blank, 'effect', { to: 'in' }), '/sections/0/to'],
    [
      'a value that the control cannot have',
      edit.setPathControl(blank, 'effect', 'on', [2]),
      '/sections/0/when/controls/on',
    ],
    ['a plug of no jack', edit.setPathPlug(blank, 'effect', 'aux', true), '/sections/0/when/plugs'],
    [
      'a power-up value that it cannot have',
      { ...blank, controls: [{ ...on, powerUp: { is: 'value', value: 'up' } }] },
      '/controls/0/powerUp',
    ],
    [
      'a range upside down',
      { ...blank, controls: [on, { ...on, id: 'x', domain: { kind: 'range', min: 9, max: 1 } }] },
      '/controls/1/domain',
    ],
    ['an insert of no jack', edit.setReturn(blank, 'out', 'aux'), '/inserts/0/return'],
    ['a contact that is no contact jack', { ...blank, inputs: [{ id: 'in', kind: 'edge', powerUp: 0 }] }, '/inputs/0'],
    ['a message for no control', edit.addMessage(blank, 'volume'), '/messages/0/control'],
  ])('%s', (_, anatomy, pointer) => expect(faults(anatomy).map((fault) => fault.pointer)).toEqual([pointer]));
});

describe('drawn', () => {
  test('every path has a row of its own and goes on to the right, but for what closes a circle', () => {
    for (const { type } of catalogue) {
      const anatomy = anatomyOf(type);
      const { points, paths } = schematicOf(anatomy);
      expect(paths.map(({ row }) => row)).toEqual(anatomy.sections.map((_, i) => i));
      expect(new Set(points.map(({ column }) => column)).size).toBe(points.length);
      // Where an order is stored any thing may come before any other: there are circles, of which a slot opens none.
      if (anatomy.orders) continue;
      for (const { from, to, section } of paths)
        expect([type.id, section.id, from < to]).toEqual([type.id, section.id, true]);
    }
  });
  test('a circle inside is drawn, not followed', () => {
    const looped = edit.addPath(edit.addPath(blank, 'Feed', { from: 'out', to: '*1' }), 'Back', {
      from: '*1',
      to: 'in',
    });
    const { paths } = schematicOf(looped);
    expect(paths).toHaveLength(4);
    expect(paths.filter(({ from, to }) => to < from).length).toBeGreaterThan(0);
  });
  test('five hundred jacks in a row, each joined to the next by two ways', () => {
    const many = Array.from({ length: 500 }, (_, i) => i);
    const long: Anatomy = {
      ...emptyAnatomy,
      jacks: many.map((i) => ({ id: `j${i}`, label: `Jack ${i}`, kind: i % 2 === 0 ? 'signal-in' : 'signal-out' })),
      sections: many
        .slice(1)
        .flatMap((i) =>
          ['a', 'b'].map((way) => ({ id: `${way}${i}`, label: 'Way', from: `j${i - 1}`, to: `j${i}`, active: false })),
        ),
    };
    expect(faults(long)).toEqual([]);
    const { points, paths } = schematicOf(long);
    expect([points.length, paths.length]).toEqual([500, 998]);
    expect(paths.every(({ from, to }) => from < to)).toBe(true);
  });
  test('a jack that nothing is joined to is drawn all the same', () => {
    const { points } = schematicOf(edit.addJack(emptyAnatomy, 'Aux', 'signal-in'));
    expect(points).toMatchObject([{ label: 'Aux', is: 'in' }]);
  });
});

test('differences are told list by list, in words', () => {
  const changed = edit.renameJack(edit.removePath(blank, 'bypass'), 'in', 'Input');
  expect(anatomyDifferences(changed, blank)).toEqual([
    { list: 'Jacks', added: ['Input: signal in'], gone: ['In: signal in'] },
    {
      list: 'Paths',
      added: ['Effect: Input to Out, while On is on'],
      gone: ['Effect: In to Out, while On is on', 'Bypass: In to Out, wire, while On is off'],
    },
  ]);
  expect(anatomyDifferences(blank, blank)).toEqual([]);
  for (const { type } of catalogue) expect(Object.keys(anatomyLines(anatomyOf(type)))).toHaveLength(8);
});

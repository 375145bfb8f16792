import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { catalogue, typeById } from '../../catalogue/types.ts';
import { bitPatterns } from './amp.ts';
import { checkAnatomy } from './check-anatomy.ts';
import { anatomiesOf, anatomyOf } from './registry.ts';

const expanded = (id: string, params: Record<string, string | number | boolean> = {}) => {
  const { type } = typeById(id);
  return anatomyOf({ ...type, params: { ...type.params, ...params } });
};
const jacks = (id: string, params?: Record<string, string | number | boolean>) =>
  expanded(id, params).jacks.map((jack) => jack.id);

describe('a loop switcher', () => {
  test('has a send, a return and a control a loop, and each loop passes or is passed by', () => {
    const anatomy = expanded('switcher-4', { loops: 3, insertAfter: 0, contacts: 1 });
    expect(anatomy.jacks.map((jack) => jack.id)).toEqual([
      'in',
      'send-1',
      'return-1',
      'send-2',
      'return-2',
      'send-3',
      'return-3',
      'out',
      'contact-1',
      'midi-in',
      'midi-out',
    ]);
    expect(anatomy.controls.map((control) => control.id)).toEqual(['loop-1', 'loop-2', 'loop-3']);
    expect(
      anatomy.sections
        .filter((section) => section.when?.controls?.['loop-2'])
        .map((section) => `${section.from} > ${section.to} at ${section.when!.controls!['loop-2'].join()}`),
    ).toEqual(['*bus1 > send-2 at 1', 'return-2 > *bus2 at 1', '*bus1 > *bus2 at 0']);
  });
  test('its insert lies where it says, and closes itself while nothing is in its return', () => {
    const anatomy = expanded('switcher-4', { loops: 2, insertAfter: 1 });
    expect(anatomy.inserts).toEqual([{ send: 'insert-send', return: 'insert-return' }]);
    expect(
      anatomy.sections
        .filter((section) => section.id.startsWith('insert'))
        .map((section) => [section.from, section.to, section.when?.plugs?.['insert-return']]),
    ).toEqual([
      ['*bus1', 'insert-send', undefined],
      ['insert-return', '*inserted', true],
      ['*bus1', '*inserted', false],
    ]);
    expect(anatomy.sections.find((section) => section.id === 'to-2')!.from).toBe('*inserted');
  });
  test('its loop switches may lie on pages: the same switch is another loop on each, and one turns the pages over', () => {
    const { controls, switches } = expanded('switcher-4', { loops: 5, directSwitches: true, directAPage: 2 });
    expect(controls.find(({ id }) => id === 'page')!.domain).toEqual({ kind: 'choice', values: [1, 2, 3] });
    expect(switches.map(({ label }) => label)).toEqual([
      'Loop 1 or 3 or 5 directly, by page',
      'Loop 2 or 4 directly, by page',
      'Next page of the loop switches',
    ]);
    expect(switches[1].actions).toEqual([
      { toggle: 'loop-2', armed: { control: 'page', values: [1] } },
      { toggle: 'loop-4', armed: { control: 'page', values: [2] } },
    ]);
  });
  test('with a switch for each loop there are no pages', () => {
    for (const directAPage of [0, 5, 9]) {
      const { controls, switches } = expanded('switcher-4', { loops: 5, directSwitches: true, directAPage });
      expect(controls.map(({ id }) => id)).not.toContain('page');
      expect(switches).toHaveLength(5);
    }
    expect(expanded('switcher-4', { loops: 5, directAPage: 2 }).controls).toHaveLength(5);
  });
  test('law: whatever its size, its anatomy holds together, from input to output', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 40 }),
        fc.integer({ min: 0, max: 40 }),
        fc.integer({ min: 0, max: 12 }),
        fc.integer({ min: 0, max: 12 }),
        (loops, insertAfter, contacts, directAPage) => {
          const pages = { directSwitches: true, directAPage };
          const anatomy = expanded('switcher-4', {
            loops,
            insertAfter: Math.min(insertAfter, loops),
            contacts,
            ...pages,
          });
          expect(checkAnatomy(JSON.parse(JSON.stringify(anatomy)), '')).toEqual([]);
          expect(anatomy.controller!.loops).toHaveLength(loops);
          expect(anatomy.controller!.contacts).toHaveLength(contacts);
          // With every loop out there is one way through.
          const out = anatomy.sections.filter(
            (section) =>
              !Object.values(section.when?.controls ?? {}).some((values) => !values.includes(0)) &&
              section.when?.plugs?.['insert-return'] !== true,
          );
          const reached = new Set(['in']);
          for (let grown = true; grown;) {
            grown = false;
            for (const { from, to } of out)
              if (reached.has(from) && !reached.has(to)) {
                reached.add(to);
                grown = true;
              }
          }
          expect(reached.has('out')).toBe(true);
          expect([...reached].some((node) => node.startsWith('send-'))).toBe(false);
        },
      ),
      { numRuns: 40 },
    );
  });
});

describe('a valve amp', () => {
  test('has a channel by contact, a send and a return that closes itself', () => {
    const anatomy = expanded('valve-combo');
    const [channel] = anatomy.controls;
    expect(channel).toMatchObject({
      id: 'channel',
      domain: { kind: 'choice' },
      owner: 'programmed',
      powerUp: { is: 'value', value: 'clean' },
    });
    expect(channel.contacts!.table).toEqual({ 0: 'clean', 1: 'lead' });
    expect(
      anatomy.sections
        .filter((section) => section.when?.plugs)
        .map((section) => [section.id, section.when!.plugs!.return]),
    ).toEqual([
      ['loop-normal', false],
      ['from-return', true],
    ]);
  });
  test('with no contact inputs its channel is its own foot switch’s', () => {
    const anatomy = expanded('valve-combo', { contactInputs: 0 });
    expect(anatomy.controls[0]).toMatchObject({ owner: 'foot' });
    expect(anatomy.controls[0].contacts).toBeUndefined();
    expect(jacks('valve-combo', { contactInputs: 0 }).filter((id) => id.startsWith('remote'))).toEqual([]);
  });
  test('bits are written first input leftmost', () => {
    expect(bitPatterns(2)).toEqual(['00', '01', '10', '11']);
  });
});

describe('a MIDI effect', () => {
  test('has presets by its scheme, and a mix only where a controller moves it', () => {
    const anatomy = expanded('midi-delay', { presets: 300, scheme: 'lsb', mixCc: 20 });
    expect(anatomy.presets).toMatchObject({ scheme: 'lsb' });
    expect(anatomy.messages.map((message) => `${message.cc} ${message.control} ${message.mode}`)).toEqual(
      expect.arrayContaining(['20 mix absolute']),
    );
  });
  test('that loads for a while is busy for as long', () => {
    expect(expanded('midi-delay', { loadMs: 0 }).busy).toBeUndefined();
    expect(expanded('midi-delay', { loadMs: 35 }).busy).toMatchObject({ ms: 35 });
  });
});

test('types that say the same share one anatomy, also where they were read apart; others do not', () => {
  const copy = <T>(data: T): T => JSON.parse(JSON.stringify(data)) as T;
  const types = catalogue.map(({ type }) => type);
  const [switcher, drive] = [typeById('switcher-4').type, typeById('drive').type];
  const wider = { ...switcher, params: { ...switcher.params, loops: 3 } };
  const renamed = { ...copy(drive), name: 'Another name' };
  const read = [...types.map(copy), ...types.map(copy), wider, renamed];
  const anatomies = anatomiesOf(read);
  types.forEach((_, i) => expect(anatomies[types.length + i]).toBe(anatomies[i]));
  for (let i = 0; i < types.length; i += 1)
    for (let k = 0; k < i; k += 1) {
      const isSame =
        types[i].archetype === types[k].archetype &&
        JSON.stringify(types[i].params) === JSON.stringify(types[k].params);
      expect([types[i].name, types[k].name, anatomies[i] === anatomies[k]]).toEqual([
        types[i].name,
        types[k].name,
        isSame,
      ]);
    }
  expect(anatomies).toEqual(read.map((type) => anatomyOf(copy(type))));
  expect(anatomies.at(-2)!.controller!.loops).toHaveLength(3);
  expect(anatomies.at(-1)).toBe(anatomies[types.indexOf(drive)]);
});

import { describe, expect, test } from '@jest/globals';
import { checkAnatomy } from '../../model/archetypes/check-anatomy.ts';
import { adaptCase, type CaseRig } from '../../testing/recall-adapter.ts';
import { answerRecallCase, bruteForceMisses, type RecallAnswer } from '../../testing/recall-cases.ts';

// Verdicts and lengths thought through by hand before the code; the oracle, which has an interpreter of its own, is
// asked too.
const at = (letters: string, ...lengths: readonly (number | null)[]) => ({
  levels: letters,
  lengths: lengths.length > 0 ? [...lengths] : [null, null, null, null],
});
const line = { sources: ['n0'], dests: ['n1'] };

const cases: readonly (readonly [string, CaseRig, RecallAnswer])[] = [
  [
    'a message armed by the preset does nothing on another one: B, pressed first, leaves the block off',
    {
      controllers: {
        sw: {
          slots: {
            A: {
              pos: 0,
              sound: 'a',
              actions: [
                { pc: 2, ch: 1 },
                { cc: 20, val: 127, ch: 1 },
              ],
            },
            B: { pos: 1, sound: 'a', actions: [{ cc: 20, val: 127, ch: 1 }] },
          },
        },
      },
      devices: {
        D: {
          ch: 1,
          presets: { stored: { 1: {}, 2: {} } },
          controls: { b: { domain: [0, 1] } },
          cc: [{ cc: 20, control: 'b', mode: 'switch', armed: { control: 'preset', values: [2] } }],
        },
      },
      midi: [['sw', 'out', 'D']],
      topology: { ...line, edges: [{ id: 'D', from: 'n0', to: 'n1', when: { 'D.b': 1 } }] },
      sounds: { a: { wants: { 'D.b': 1 } } },
      set: [
        ['sw', 'A'],
        ['sw', 'B'],
      ],
    },
    { 'sw.A/a': at('RRRR'), 'sw.B/a': at('RNNN', null, 1, 1, 1) },
  ],
  [
    'a control change sets the word at its place; one past the last sets nothing, and what was before stays',
    {
      controllers: {
        sw: {
          slots: {
            A: { pos: 0, sound: 'lead', actions: [{ cc: 30, val: 1, ch: 9 }] },
            B: { pos: 1, sound: 'clean', actions: [{ cc: 30, val: 5, ch: 9 }] },
            C: { pos: 2, sound: 'clean', actions: [{ cc: 31, val: 64, ch: 9 }] },
          },
        },
      },
      devices: {
        amp: {
          ch: 9,
          controls: { chan: { domain: ['clean', 'lead'] } },
          cc: [
            { cc: 30, control: 'chan', mode: 'abs' },
            { cc: 31, control: 'chan', mode: 'abs', table: { 0: 'lead', 64: 'clean' } },
          ],
        },
      },
      midi: [['sw', 'out', 'amp']],
      topology: { ...line, edges: [{ id: 'amp', from: 'n0', to: 'n1', gov: ['amp.chan'] }] },
      sounds: { lead: { wants: { 'amp.chan': 'lead' } }, clean: { wants: { 'amp.chan': 'clean' } } },
      set: [
        ['sw', 'B'],
        ['sw', 'A'],
        ['sw', 'C'],
      ],
    },
    { 'sw.A/lead': at('RRRR'), 'sw.B/clean': at('RNNN', null, 2, 2, 2), 'sw.C/clean': at('RRRR') },
  ],
  [
    'the preset decides the path: on another one the signal goes round what the sound wants',
    {
      controllers: {
        sw: {
          slots: {
            A: { pos: 0, sound: 'a', actions: [{ pc: 1, ch: 1 }] },
            B: { pos: 1, sound: 'a', actions: [] },
            C: { pos: 2, actions: [{ pc: 2, ch: 1 }] },
          },
        },
      },
      devices: { D: { ch: 1, presets: { stored: { 1: {}, 2: {} } } } },
      midi: [['sw', 'out', 'D']],
      topology: {
        ...line,
        edges: [
          { id: 'D', from: 'n0', to: 'n1', when: { 'D.preset': 1 } },
          { id: 'round', from: 'n0', to: 'n1', when: { 'D.preset': 2 }, wire: true },
        ],
      },
      sounds: { a: { wants: { 'D.preset': 1 } } },
      set: [['sw', 'A']],
    },
    { 'sw.A/a': at('RRRR'), 'sw.B/a': at('-NNN', null, 2, 2, 2) },
  ],
  [
    'a unit whose own switches recall its own presets',
    {
      controllers: { U: { slots: { A: { sound: 'a', actions: [{ pc: 2, ch: 1 }] } } } },
      devices: { U: { ch: 1, presets: { stored: { 1: {}, 2: {} } } } },
      midi: [['U', 'out', 'U']],
      topology: { ...line, edges: [{ id: 'U', from: 'n0', to: 'n1', gov: ['U.preset'] }] },
      sounds: { a: { wants: { 'U.preset': 2 } } },
      set: [['U', 'A']],
    },
    { 'U.A/a': at('RRRR') },
  ],
  [
    'an input that comes up as it was left may be either way; a held contact says no more than that it is held',
    {
      controllers: {
        sw: {
          slots: { A: { sound: 'lead', actions: [{ contact: 'c' }] } },
          contacts: { c: { kind: 'held' } },
        },
      },
      devices: {
        amp: {
          inputs: { in1: { kind: 'edge', powerup: 'as left' } },
          controls: { chan: { domain: ['clean', 'lead'], bits: ['in1'], table: { 0: 'clean', 1: 'lead' } } },
        },
      },
      contacts: [['sw', 'c', 'amp', 'in1']],
      topology: { ...line, edges: [{ id: 'amp', from: 'n0', to: 'n1', gov: ['amp.chan'] }] },
      sounds: { lead: { wants: { 'amp.chan': 'lead' } } },
      set: [['sw', 'A']],
    },
    { 'sw.A/lead': at('NNNN', 1, 1, 1, 1) },
  ],
  [
    'a contact that is closed at rest: the amp comes up on its second channel, and a slot opens it',
    {
      controllers: {
        sw: {
          slots: {
            A: { pos: 0, sound: 'clean', actions: [{ contact: 'c', to: 0 }] },
            B: { pos: 1, sound: 'lead', actions: [] },
          },
          contacts: { c: { kind: 'latched', rests: 1 } },
        },
      },
      devices: {
        amp: {
          inputs: { in1: { kind: 'level' } },
          controls: { chan: { domain: ['clean', 'lead'], bits: ['in1'], table: { 0: 'clean', 1: 'lead' } } },
        },
      },
      contacts: [['sw', 'c', 'amp', 'in1']],
      topology: { ...line, edges: [{ id: 'amp', from: 'n0', to: 'n1', gov: ['amp.chan'] }] },
      sounds: { clean: { wants: { 'amp.chan': 'clean' } }, lead: { wants: { 'amp.chan': 'lead' } } },
      set: [
        ['sw', 'B'],
        ['sw', 'A'],
      ],
    },
    { 'sw.A/clean': at('RRRR'), 'sw.B/lead': at('RNNN', null, 2, 2, 2) },
  ],
  [
    'a held contact that is closed at rest opens while it is held: an input that answers to closing does so after',
    {
      controllers: {
        sw: {
          slots: { A: { sound: 'lead', actions: [{ contact: 'c', to: 0 }] } },
          contacts: { c: { kind: 'held', rests: 1 } },
        },
      },
      devices: {
        amp: {
          inputs: { in1: { kind: 'edge', powerup: 0 } },
          controls: { chan: { domain: ['clean', 'lead'], bits: ['in1'], table: { 0: 'clean', 1: 'lead' } } },
        },
      },
      contacts: [['sw', 'c', 'amp', 'in1']],
      topology: { ...line, edges: [{ id: 'amp', from: 'n0', to: 'n1', gov: ['amp.chan'] }] },
      sounds: { lead: { wants: { 'amp.chan': 'lead' } } },
      set: [['sw', 'A']],
    },
    { 'sw.A/lead': at('RNNN', null, 2, 2, 2) },
  ],
];

describe('units that store where the signal goes, and what answers', () => {
  test.each(cases)('%s', (_, rig, expected) => {
    expect(answerRecallCase(rig)).toEqual(expected);
    expect(bruteForceMisses(rig, expected)).toEqual([]);
  });
});

test('what a description does not say is refused by name', () => {
  const [, , , , [, held]] = cases;
  const latched = { ...held, controllers: { sw: { ...held.controllers!.sw, contacts: { c: { kind: 'latched' } } } } };
  expect(() => adaptCase(latched as CaseRig)).toThrow(/sw: where the contact c goes is not said/);
  const odd = { ...held, devices: { amp: { ...held.devices!.amp, inputs: { in1: { kind: 'edge', colour: 1 } } } } };
  expect(() => adaptCase(odd as never)).toThrow(/amp.in1: the field "colour" is not understood/);
});

test('a reference that leads nowhere is refused, never skipped', () => {
  const anatomy = {
    controls: [],
    sections: [{ id: 's', label: '', from: 'a', to: 'b', active: true, when: { controls: { preset: [1] } } }],
    messages: [{ cc: 1, control: 'gone', mode: 'switch', armed: { control: 'preset', values: [1] } }],
    switches: [{ id: 'f', label: '', actions: [{ toggle: 'gone' }, { flip: 'gone' }] }],
    ownSwitch: 'gone',
  };
  expect(checkAnatomy(anatomy, '').map(({ pointer }) => pointer)).toEqual([
    '/sections/0/from',
    '/sections/0/to',
    '/sections/0/when/controls',
    '/messages/0/control',
    '/messages/0/armed/control',
    '/switches/0/actions/0',
    '/switches/0/actions/1',
    '/ownSwitch',
  ]);
});

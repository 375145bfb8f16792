import { describe, expect, test } from '@jest/globals';
import { setParam } from '../change/commands.ts';
import { contextOf } from '../check/engine.ts';
import { demoShow } from '../demo/demo.ts';
import type { Sound } from '../model/rig.ts';
import { validateRig } from '../model/validate.ts';
import { buildWiring } from '../model/wiring.ts';
import { ChoiceSequence } from '../recall/deliver/choice-sequence.ts';
import { SimulatedRig } from '../recall/deliver/simulated-rig.ts';
import { clean, fourCable, lead, ShowBuilder } from '../testing/build-show.ts';
import { compiler } from './compile.ts';
import { layByRole } from './layout.ts';
import { listSlot } from './listing.ts';

/** The bytes of one sound's slot, for a delay of given facts, wanted on a preset. */
function bytes(params: Record<string, string | number | boolean>, preset: number, facts: object = {}): string {
  const { show } = fourCable()
    .sound('lead', { ...lead, wants: { 'delay/preset': preset } })
    .laid();
  const delay = show.rig.devices.delay;
  const rig = {
    ...show.rig,
    devices: {
      ...show.rig.devices,
      delay: {
        ...delay,
        ...facts,
        type: {
          ...delay.type,
          params: { ...delay.type.params, loadMs: 0, bypassCc: -1, footswitch: false, ...params },
        },
      },
    },
  };
  const listed = listSlot(buildWiring(rig), rig.slots['slot-lead']);
  return listed.actions
    .map((action) => action.hex)
    .filter(Boolean)
    .join(' ');
}

// Source: the worked bytes of engine §6, themselves MIDI 1.0 (status byte | channel − 1, seven-bit data).
describe('presets become bytes', () => {
  test('panel 13 counted from 1 on channel 3', () => expect(bytes({}, 12, { channel: 3 })).toBe('C2 0C'));
  test('panel 200 from 1, LSB only, banks of 128', () =>
    expect(bytes({ scheme: 'lsb', presets: 300 }, 199, { channel: 3 })).toBe('B2 20 01 C2 47'));
  test('panel 200 from 1, LSB only, banks of 100', () =>
    expect(bytes({ scheme: 'lsb', presets: 300, bankSize: 100 }, 199, { channel: 3 })).toBe('B2 20 01 C2 63'));
  test('MSB only', () => expect(bytes({ scheme: 'msb', presets: 300 }, 130)).toBe('B1 00 01 C1 02'));
  test('both, MSB first', () =>
    expect(bytes({ scheme: 'both', presets: 16_384 }, 16_383)).toBe('B1 00 00 B1 20 7F C1 7F'));
  test('omni is spoken to on channel 1', () => expect(bytes({}, 5, { channel: 'omni' })).toBe('C0 05'));
  test('a device with no channel is not spoken to', () => expect(bytes({}, 5, { channel: null })).toBe(''));
});

test('another control that a controller’s slots store is set where the sound wants it, and comes up so', () => {
  const { show } = fourCable().sound('lead', lead).sound('clean', clean).laid();
  const anatomy = {
    jacks: [],
    sections: [],
    controls: [
      {
        id: 'order',
        label: 'Order',
        domain: { kind: 'choice', values: ['ab', 'ba', 'b'] },
        scope: 'slot',
        powerUp: { is: 'value', value: 'ab' },
        owner: 'programmed',
      },
    ],
    messages: [],
    inputs: [],
    switches: [],
    controller: {
      banks: 1,
      positions: 4,
      loops: [],
      contacts: [],
      momentaries: [],
      firesWhileHeld: true,
      bankMove: 'silent',
      repeatPress: 'fires',
      callRepeat: 'fires',
    },
  };
  const { switcher } = show.rig.devices;
  const matrix = {
    ...switcher,
    id: 'matrix',
    name: 'Matrix',
    type: { id: 'matrix', revision: 1, name: 'Matrix', archetype: 'declared', params: { anatomy } },
  };
  const wanting = (sound: Sound, order: string): Sound => ({
    ...sound,
    wants: { ...sound.wants, 'matrix/order': order },
  });
  const { sounds, slots, devices } = show.rig;
  const slotOf = (id: string, position: number, sound: string) => ({
    ...slots['slot-lead'],
    id,
    controller: 'matrix',
    position,
    sound,
  });
  const rig = {
    ...show.rig,
    devices: { ...devices, matrix },
    sounds: { lead: wanting(sounds.lead, 'ba'), clean: wanting(sounds.clean, 'ab') },
    slots: { ...slots, m1: slotOf('m1', 0, 'lead'), m2: slotOf('m2', 1, 'clean') },
  };
  expect(validateRig(rig, '')).toEqual({ ok: true, value: rig });
  const compile = compiler(buildWiring(rig));
  expect(compile(rig.slots.m1).map(({ action }) => action)).toEqual([{ kind: 'set', control: 'order', value: 'ba' }]);
  expect(listSlot(buildWiring(rig), rig.slots.m2).actions.map(({ words }) => words)).toEqual(['Order ab']);
  const { prover } = contextOf({ ...show, rig });
  const orderAfter = (press: string) => {
    const choices = new ChoiceSequence();
    choices.begin();
    const simulated = new SimulatedRig(prover.model, choices);
    simulated.comeUp({ needs: [] });
    simulated.happen({ kind: 'press', slot: press });
    return prover.model.values.controlValue(simulated.store.get(prover.model.variableOf.get('matrix/order')!));
  };
  expect([orderAfter('m1'), orderAfter('m2')]).toEqual(['ba', 'ab']);
});

describe('a slot generated from its sound', () => {
  const { show } = fourCable()
    .sound('lead', { ...lead, wants: { ...lead.wants, 'delay/mix': 40 } })
    .sound('clean', clean)
    .laid();
  const wiring = buildWiring(show.rig);

  test('every loop, then contacts, then bank, program, wait, overrides; each with the intent it came from', () => {
    expect(
      listSlot(wiring, show.rig.slots['slot-lead']).actions.map((action) => [action.hex, action.words, action.why]),
    ).toEqual([
      ['', 'Loop 1 on', 'Drive: on'],
      ['', 'Loop 2 on', 'Combo: on'],
      ['', 'Loop 3 on', 'Delay: on'],
      ['', 'Loop 4 off', 'nothing in this loop'],
      ['', 'Contact 1 closed', 'Combo wanted with channel lead'],
      ['C1 05', 'Program 5 (panel 6), channel 2: Delay', 'Delay wanted on preset 6'],
      ['', 'Wait 20 ms', 'Delay is loading'],
      ['B1 66 7F', 'Control 102 = 127, channel 2: Delay', 'Delay wanted on'],
      ['B1 14 28', 'Control 20 = 40, channel 2: Delay', 'Delay wanted with mix 40'],
    ]);
  });
  test('says its bytes and their time on the wire: 320 µs a byte', () => {
    expect(listSlot(wiring, show.rig.slots['slot-lead'])).toMatchObject({ bytes: 8, microseconds: 2560 });
  });
  test('an override that the preset is known to store is left out where a repeat reloads, sent where it may not', () => {
    const stored = (repeat: string) => {
      const { delay } = show.rig.devices;
      const rig = {
        ...show.rig,
        devices: {
          ...show.rig.devices,
          delay: {
            ...delay,
            presets: { '5': { values: { mix: 40 } } },
            type: { ...delay.type, params: { ...delay.type.params, repeat } },
          },
        },
      };
      return listSlot(buildWiring(rig), rig.slots['slot-lead']).actions.some((action) => action.hex === 'B1 14 28');
    };
    expect([stored('reload'), stored('ignored')]).toEqual([false, true]);
  });
  test('the generated program, run on the simulated rig, reaches every sound from anywhere and after a fault', () => {
    const { prover } = contextOf(show);
    for (const level of [1, 2, 4] as const)
      expect(prover.all(level).map((judgement) => judgement.verdict)).toEqual(['recalls', 'recalls']);
  });
});

describe('banks by role', () => {
  test('the same kind of sound lies under the same foot in every bank of the demo', () => {
    const { rig } = demoShow();
    const laid = layByRole(rig, 'switcher')!;
    for (const slot of laid) expect(rig.settings.roles.indexOf(rig.sounds[slot.sound!].role)).toBe(slot.position);
    expect(new Set(laid.map((slot) => `${slot.bank}.${slot.position}`)).size).toBe(laid.length);
  });
  test('laying out again changes nothing, and keeps what was written by hand', () => {
    const { rig } = demoShow();
    expect(layByRole(rig, 'switcher')).toEqual(expect.arrayContaining(Object.values(rig.slots)));
  });
  test('only a controller has switches', () => expect(layByRole(demoShow().rig, 'echo')).toBeNull());
});

describe('two groups of switches', () => {
  const { show } = (() => {
    const rig = new ShowBuilder().text('guitar > switcher = loop switcher, 4 loops');
    for (const [name, value] of Object.entries({ groupFromLoop: 3, groupFromSwitch: 3 }))
      rig.do(setParam(rig.show, 'switcher', name, value));
    return rig
      .text('1: compressor; 2: drive; 3: chorus; 4: echo = delay\nswitcher > amp = valve amp one > cabinet')
      .sound('gain', { pedals: { compressor: 'off', drive: 'on' } })
      .sound('clean', { pedals: { compressor: 'on', drive: 'off' } })
      .sound('wide', { pedals: { chorus: 'on', echo: 'off' } })
      .sound('far', { pedals: { chorus: 'off', echo: 'on' } })
      .laid();
  })();
  test('a slot stores the loops of its own group, and leaves the other as it was', () => {
    const wiring = buildWiring(show.rig);
    const stored = Object.values(show.rig.slots).map((slot) => [
      slot.position,
      listSlot(wiring, slot).actions.map(({ words }) => words),
    ]);
    expect(stored.sort()).toEqual([
      [0, ['Loop 1 off', 'Loop 2 on']],
      [1, ['Loop 1 on', 'Loop 2 off']],
      [2, ['Loop 3 on', 'Loop 4 off']],
      [3, ['Loop 3 off', 'Loop 4 on']],
    ]);
  });
  test('each recalls from anywhere: what it says nothing of is the other group’s', () => {
    expect(
      contextOf(show)
        .prover.all(2)
        .map(({ verdict }) => verdict),
    ).toEqual(['recalls', 'recalls', 'recalls', 'recalls']);
  });
});

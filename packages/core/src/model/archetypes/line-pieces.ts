import { type Control, emptyAnatomy, type Section } from '../anatomy.ts';
import { choiceByContacts, contactParams } from './amp.ts';
import type { Archetype } from './archetype.ts';
import { lastState, midiIn, signalIn, signalOut, value } from './common.ts';

/** Pieces of a line that are no effect: what chooses, splits, sums, turns down, carries or drives. */

const inId = (name: string): string => `in-${idOf(name)}`;
const outId = (name: string): string => `out-${idOf(name)}`;
const idOf = (name: string): string => name.toLowerCase().replace(/[^a-z0-9]+/g, '-');

/** One of several inputs to one output: two guitars at one board. */
export const selector: Archetype = {
  id: 'selector',
  params: {
    inputs: { kind: 'words', default: ['A', 'B'], label: 'Inputs', max: 8 },
    ...contactParams(0),
  },
  expand: (p) => {
    const inputs = p.words('inputs');
    const choice = choiceByContacts(p, 'input', 'Input', inputs, 'channel');
    return {
      ...emptyAnatomy,
      ...choice,
      jacks: [...inputs.map((name) => signalIn(inId(name), `In ${name}`)), signalOut(), ...choice.jacks],
      sections: inputs.map((name): Section => ({
        id: `from-${idOf(name)}`,
        label: `From ${name}`,
        from: inId(name),
        to: 'out',
        active: false,
        when: { controls: { input: [name] } },
      })),
    };
  },
};

/** One input to one of several outputs, or, where each has a switch of its own, to any of them. */
export const router: Archetype = {
  id: 'router',
  params: {
    outputs: { kind: 'words', default: ['A', 'B', 'C'], label: 'Outputs', max: 8 },
    several: { kind: 'boolean', default: false, label: 'Several at once' },
    ...contactParams(0),
  },
  expand: (p) => {
    const outputs = p.words('outputs');
    const side = (name: string, controls: Record<string, readonly (string | number)[]>): Section => ({
      id: `to-${idOf(name)}`,
      label: `To ${name}`,
      from: 'in',
      to: outId(name),
      active: false,
      when: { controls },
    });
    const jacks = [signalIn(), ...outputs.map((name) => signalOut(outId(name), `Out ${name}`))];
    if (!p.yes('several')) {
      const choice = choiceByContacts(p, 'output', 'Output', outputs, 'channel');
      return {
        ...emptyAnatomy,
        ...choice,
        jacks: [...jacks, ...choice.jacks],
        sections: outputs.map((name) => side(name, { output: [name] })),
      };
    }
    return {
      ...emptyAnatomy,
      jacks,
      controls: outputs.map((name, i): Control => ({
        id: `to-${idOf(name)}`,
        label: `To ${name}`,
        domain: { kind: 'switch' },
        scope: 'global',
        powerUp: p.yes('remembersChannel') ? lastState : value(i === 0 ? 1 : 0),
        owner: 'foot',
        weight: 'channel',
      })),
      sections: outputs.map((name) => side(name, { [`to-${idOf(name)}`]: [1] })),
      switches: outputs.map((name) => ({
        id: idOf(name),
        label: `To ${name}`,
        actions: [{ toggle: `to-${idOf(name)}` }],
      })),
    };
  },
};

/** Several inputs summed. */
export const mixer: Archetype = {
  id: 'mixer',
  params: { inputs: { kind: 'integer', min: 2, max: 16, default: 2, label: 'Inputs' } },
  expand: (p) => {
    const inputs = Array.from({ length: p.int('inputs') }, (_, i) => i + 1);
    return {
      ...emptyAnatomy,
      jacks: [...inputs.map((i) => signalIn(`in-${i}`, `In ${i}`)), signalOut()],
      sections: inputs.map((i): Section => ({
        id: `channel-${i}`,
        label: `Channel ${i}`,
        from: `in-${i}`,
        to: 'out',
        active: true,
      })),
    };
  },
};

/** Its position belongs to the player: a sound may say where it should stand, as a cue. A tuner hears what comes in. */
export const volumePedal: Archetype = {
  id: 'volume-pedal',
  params: {
    tunerOut: { kind: 'boolean', default: true, label: 'Tuner output' },
    silentAtHeel: { kind: 'boolean', default: true, label: 'Silent with the heel down' },
  },
  expand: (p) => {
    const positions = Array.from({ length: 11 }, (_, i) => i);
    return {
      ...emptyAnatomy,
      jacks: [signalIn(), signalOut(), ...(p.yes('tunerOut') ? [signalOut('tuner', 'Tuner out')] : [])],
      controls: [
        {
          id: 'position',
          label: 'Position',
          domain: { kind: 'range', min: 0, max: 10 },
          scope: 'global',
          powerUp: value(10),
          owner: 'live',
          weight: 'level',
        },
      ],
      sections: [
        {
          id: 'volume',
          label: 'Volume',
          from: 'in',
          to: 'out',
          active: true,
          parameters: ['position'],
          ...(p.yes('silentAtHeel') ? { when: { controls: { position: positions.slice(1) } } } : {}),
        },
        ...(p.yes('tunerOut') ? [{ id: 'tuner', label: 'Tuner out', from: 'in', to: 'tuner', active: false }] : []),
      ],
    };
  },
};

/** A line for the desk out of an instrument's or a pedal's output, which goes on through it. */
export const directBox: Archetype = {
  id: 'direct-box',
  params: {},
  expand: () => ({
    ...emptyAnatomy,
    jacks: [signalIn(), signalOut('through', 'Through'), signalOut('line', 'Line out')],
    sections: [
      { id: 'through', label: 'Through', from: 'in', to: 'through', active: false },
      { id: 'line', label: 'Line', from: 'in', to: 'line', active: true },
    ],
  }),
};

/** A wireless receiver; what is plugged into its transmitter goes in. */
export const receiver: Archetype = {
  id: 'receiver',
  params: { mutes: { kind: 'boolean', default: true, label: 'Mute switch' } },
  expand: (p) => ({
    ...emptyAnatomy,
    jacks: [signalIn('in', 'Transmitter'), signalOut()],
    controls: p.yes('mutes')
      ? [
          {
            id: 'mute',
            label: 'Mute',
            domain: { kind: 'switch' },
            scope: 'global',
            powerUp: value(0),
            owner: 'hand',
            weight: 'mute',
          },
        ]
      : [],
    sections: [
      {
        id: 'radio',
        label: 'Radio link',
        from: 'in',
        to: 'out',
        active: true,
        ...(p.yes('mutes') ? { when: { controls: { mute: [0] } } } : {}),
      },
    ],
  }),
};

/** Drives a loudspeaker from a line. */
export const powerAmp: Archetype = {
  id: 'power-amp',
  params: {},
  expand: () => ({
    ...emptyAnatomy,
    jacks: [signalIn(), { ...signalOut('speaker', 'Loudspeaker'), speaker: true }],
    sections: [{ id: 'power', label: 'Power amp', from: 'in', to: 'speaker', active: true }],
  }),
};

/** Takes an amp's power in place of a loudspeaker, and gives a line of it; one may be plugged in behind it. */
export const loadBox: Archetype = {
  id: 'load-box',
  params: {
    simulates: { kind: 'boolean', default: true, label: 'Simulates a cabinet' },
    through: { kind: 'boolean', default: false, label: 'Loudspeaker through' },
  },
  expand: (p) => ({
    ...emptyAnatomy,
    jacks: [
      { ...signalIn('in', 'Amp in'), speaker: true },
      signalOut('line', 'Line out'),
      ...(p.yes('through') ? [{ ...signalOut('through', 'Loudspeaker through'), speaker: true }] : []),
    ],
    sections: [
      {
        id: 'line',
        label: 'Line',
        from: 'in',
        to: 'line',
        active: true,
        ...(p.yes('simulates') ? { effect: 'cabinet-simulation' as const } : {}),
      },
      ...(p.yes('through')
        ? [{ id: 'through', label: 'Loudspeaker through', from: 'in', to: 'through', active: false }]
        : []),
    ],
  }),
};

/** Passes MIDI on to several outputs, each as it comes in. */
export const midiThroughBox: Archetype = {
  id: 'midi-through-box',
  params: { outputs: { kind: 'integer', min: 1, max: 16, default: 4, label: 'Outputs' } },
  expand: (p) => ({
    ...emptyAnatomy,
    jacks: [
      midiIn,
      ...Array.from({ length: p.int('outputs') }, (_, i) => ({
        id: `thru-${i + 1}`,
        label: `MIDI through ${i + 1}`,
        kind: 'midi-thru' as const,
      })),
    ],
  }),
};

/** Joins several MIDI lines into one, message after message. */
export const midiMerger: Archetype = {
  id: 'midi-merger',
  params: { inputs: { kind: 'integer', min: 2, max: 8, default: 2, label: 'Inputs' } },
  expand: (p) => ({
    ...emptyAnatomy,
    jacks: [
      ...Array.from({ length: p.int('inputs') }, (_, i) => ({
        id: `midi-in-${i + 1}`,
        label: `MIDI in ${i + 1}`,
        kind: 'midi-in' as const,
      })),
      { id: 'merged', label: 'MIDI out', kind: 'midi-merge' as const },
    ],
  }),
};

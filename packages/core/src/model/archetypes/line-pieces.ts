import { type Control, emptyAnatomy, type Section } from '../anatomy.ts';
import { choiceByContacts, contactParams } from './amp.ts';
import type { Archetype } from './archetype.ts';
import { idOf, lastState, midiIn, signalIn, signalOut, value } from './common.ts';
import { endsOf, throughOf, throughSections, widthParams } from './stereo.ts';

/** Pieces of a line that are no effect: what chooses, splits, sums, turns down, carries or drives. */

const inId = (name: string): string => `in-${idOf(name)}`;
const outId = (name: string): string => `out-${idOf(name)}`;

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

/** Several inputs summed; a monitor mixer is one whose levels the player sets. */
export const mixer: Archetype = {
  id: 'mixer',
  params: {
    inputs: { kind: 'integer', min: 2, max: 16, default: 2, label: 'Inputs' },
    stereo: { kind: 'boolean', default: false, label: 'Stereo' },
    levels: { kind: 'boolean', default: false, label: 'Levels as cues' },
  },
  expand: (p) => {
    const inputs = Array.from({ length: p.int('inputs') }, (_, i) => i + 1);
    const output = endsOf(signalOut(), p.yes('stereo'));
    const inputOf = (i: number) => endsOf(signalIn(`in-${i}`, `In ${i}`), p.yes('stereo'));
    return {
      ...emptyAnatomy,
      jacks: [...inputs.flatMap((i) => inputOf(i).jacks), ...output.jacks],
      controls: p.yes('levels')
        ? inputs.map((i): Control => ({
            id: `level-${i}`,
            label: `Level ${i}`,
            domain: { kind: 'range', min: 0, max: 10 },
            scope: 'global',
            powerUp: lastState,
            owner: 'hand',
            weight: 'level',
          }))
        : [],
      sections: inputs.flatMap((i) =>
        throughSections(
          { input: inputOf(i), output },
          {
            id: `channel-${i}`,
            label: `Channel ${i}`,
            active: true,
            ...(p.yes('levels') ? { parameters: [`level-${i}`] } : {}),
          },
        ),
      ),
    };
  },
};

/** Its position belongs to the player: a sound may say where it should stand, as a cue. A tuner hears what comes in. */
export const volumePedal: Archetype = {
  id: 'volume-pedal',
  params: {
    kind: { kind: 'choice', values: ['passive', 'active'], default: 'passive', label: 'Kind' },
    potKilohms: { kind: 'integer', min: 1, max: 2_000, default: 250, label: 'Potentiometer, kΩ' },
    tunerOut: { kind: 'boolean', default: true, label: 'Tuner output' },
    silentAtHeel: { kind: 'boolean', default: true, label: 'Silent with the heel down' },
    expressionOut: { kind: 'boolean', default: false, label: 'Serves as an expression pedal too' },
    ...widthParams,
  },
  expand: (p) => {
    const positions = Array.from({ length: 11 }, (_, i) => i);
    const through = throughOf(p);
    const taps = p.yes('tunerOut') ? [signalOut('tuner', 'Tuner out')] : [];
    return {
      ...emptyAnatomy,
      jacks: [
        ...through.jacks,
        ...taps,
        ...(p.yes('expressionOut')
          ? [{ id: 'expression', label: 'Expression out', kind: 'expression-out' as const }]
          : []),
      ],
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
        ...throughSections(through, {
          id: 'volume',
          label: 'Volume',
          active: true,
          parameters: ['position'],
          ...(p.yes('silentAtHeel') ? { when: { controls: { position: positions.slice(1) } } } : {}),
        }),
        ...taps.map((): Section => ({ id: 'tuner', label: 'Tuner out', from: 'in', to: 'tuner', active: false })),
      ],
      settings: [
        {
          label: 'Potentiometer',
          value: p.word('kind') === 'passive' ? `passive, ${p.int('potKilohms')} kΩ` : 'active',
        },
      ],
    };
  },
};

/** A line for the desk out of an instrument's or a pedal's output, which goes on through it. */
export const directBox: Archetype = {
  id: 'direct-box',
  params: {
    kind: { kind: 'choice', values: ['active', 'passive'], default: 'passive', label: 'Kind' },
    stereo: { kind: 'boolean', default: false, label: 'Stereo' },
    lift: { kind: 'choice', values: ['none', 'lifted', 'joined'], default: 'joined', label: 'Audio ground' },
    pad: { kind: 'choice', values: ['none', 'off', 'on'], default: 'off', label: 'Pad' },
  },
  expand: (p) => {
    const input = endsOf(signalIn(), p.yes('stereo'));
    const through = endsOf(signalOut('through', 'Through'), p.yes('stereo'));
    const line = endsOf({ ...signalOut('line', 'Line out'), balanced: true }, p.yes('stereo'));
    return {
      ...emptyAnatomy,
      jacks: [...input.jacks, ...through.jacks, ...line.jacks],
      sections: [
        ...throughSections({ input, output: through }, { id: 'through', label: 'Through', active: false }),
        ...throughSections({ input, output: line }, { id: 'line', label: 'Line', active: true }),
      ],
      settings: [
        ...(p.word('kind') === 'active' ? [{ label: 'Powered by', value: 'phantom or battery' }] : []),
        ...(p.word('lift') === 'none' ? [] : [{ label: 'Audio ground', value: p.word('lift') }]),
        ...(p.word('pad') === 'none' ? [] : [{ label: 'Pad', value: p.word('pad') }]),
      ],
    };
  },
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
  params: { stereo: { kind: 'boolean', default: false, label: 'Stereo' } },
  expand: (p) => {
    const input = endsOf(signalIn(), p.yes('stereo'));
    const output = endsOf({ ...signalOut('speaker', 'Loudspeaker'), speaker: true }, p.yes('stereo'));
    return {
      ...emptyAnatomy,
      jacks: [...input.jacks, ...output.jacks],
      sections: throughSections({ input, output }, { id: 'power', label: 'Power amp', active: true }, { sums: false }),
    };
  },
};

/**
 * Takes an amp's power in place of a loudspeaker and gives a line of it. One that only taps passes the power on: what
 * is plugged in behind it is the load.
 */
export const loadBox: Archetype = {
  id: 'load-box',
  params: {
    simulates: { kind: 'boolean', default: true, label: 'Simulates a cabinet' },
    through: { kind: 'boolean', default: false, label: 'Loudspeaker through' },
    isLoad: { kind: 'boolean', default: true, label: 'Is a load itself' },
  },
  expand: (p) => ({
    ...emptyAnatomy,
    jacks: [
      {
        ...signalIn('in', 'Amp in'),
        speaker: true,
        ...(p.yes('through') && !p.yes('isLoad') ? { passesPowerTo: 'through' } : {}),
      },
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

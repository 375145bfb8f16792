import { type Control, emptyAnatomy, type Section } from '../anatomy.ts';
import type { Archetype } from './archetype.ts';
import { idOf, lastState, midiIn, midiOutput, signalIn, signalOut, value } from './common.ts';
import { endsOf, throughOf, throughSections, widthParams } from './stereo.ts';

/** Pieces that lead a line somewhere, divide it into bands, or are moved by a foot and carry no sound. */

/**
 * Lines through a panel, an entry box or a multi-core, each straight; the first may have a tap for a tuner, and one
 * more may lead MIDI through.
 */
export const panel: Archetype = {
  id: 'panel',
  params: {
    lines: { kind: 'words', default: ['instrument', 'return'], label: 'Lines', max: 24 },
    stereo: { kind: 'words', default: [], label: 'Of these stereo', max: 24, mayBeEmpty: true },
    balanced: { kind: 'words', default: [], label: 'Of these balanced', max: 24, mayBeEmpty: true },
    midi: { kind: 'boolean', default: false, label: 'A MIDI line' },
    tunerTap: { kind: 'boolean', default: false, label: 'Tuner tap on the first' },
    lift: { kind: 'choice', values: ['none', 'lifted', 'joined'], default: 'none', label: 'Audio ground' },
  },
  expand: (p) => {
    const lines = p.words('lines').map((name) => {
      const isStereo = p.words('stereo').includes(name);
      const label = name.charAt(0).toUpperCase() + name.slice(1);
      const balance = p.words('balanced').includes(name) ? { balanced: true } : {};
      return {
        id: idOf(name),
        label,
        input: endsOf({ ...signalIn(`${idOf(name)}-in`, `${label} in`), ...balance }, isStereo),
        output: endsOf({ ...signalOut(`${idOf(name)}-out`, `${label} out`), ...balance }, isStereo),
      };
    });
    return {
      ...emptyAnatomy,
      jacks: [
        ...lines.flatMap(({ input, output }) => [...input.jacks, ...output.jacks]),
        ...(p.yes('tunerTap') ? [signalOut('tuner', 'Tuner tap')] : []),
        ...(p.yes('midi') ? [midiIn, midiOutput('through')] : []),
      ],
      sections: [
        ...lines.flatMap(({ id, label, input, output }) =>
          throughSections({ input, output }, { id, label, active: false }, { sums: false }),
        ),
        ...(p.yes('tunerTap')
          ? [{ id: 'tuner', label: 'Tuner tap', from: lines[0].input.left, to: 'tuner', active: false }]
          : []),
      ],
      settings: p.word('lift') === 'none' ? [] : [{ label: 'Audio ground', value: p.word('lift') }],
    };
  },
};

/** An audio transformer in the line: it parts the grounds of what is before and behind it, never the mains earth. */
export const isolator: Archetype = {
  id: 'isolator',
  params: widthParams,
  expand: (p) => {
    const through = throughOf(p);
    return {
      ...emptyAnatomy,
      jacks: through.jacks,
      sections: throughSections(through, { id: 'transformer', label: 'Transformer', active: false }, { sums: false }),
    };
  },
};

/**
 * Low and high of one signal, each with its own corner, so that a gap or an overlap may lie between them; each goes out
 * by itself, may come back through its return, and both are blended where there is a common output.
 */
export const bandSplit: Archetype = {
  id: 'band-split',
  params: {
    lowUpToHz: { kind: 'integer', min: 20, max: 20_000, default: 250, label: 'Low band up to, Hz' },
    highFromHz: { kind: 'integer', min: 20, max: 20_000, default: 250, label: 'High band from, Hz' },
    loops: { kind: 'boolean', default: true, label: 'Returns and a common output' },
    polarity: { kind: 'choice', values: ['none', 'low', 'high'], default: 'none', label: 'Polarity switch on' },
  },
  expand: (p) => {
    const inverted = p.word('polarity');
    const bands = [
      { id: 'low', label: `Low, up to ${p.int('lowUpToHz')} Hz` },
      { id: 'high', label: `High, from ${p.int('highFromHz')} Hz` },
    ];
    const loops = p.yes('loops');
    const blend: Control = {
      id: 'blend',
      label: 'Blend',
      domain: { kind: 'range', min: 0, max: 10 },
      scope: 'global',
      powerUp: lastState,
      owner: 'hand',
      weight: 'level',
    };
    const polarity: Control = {
      id: 'polarity',
      label: `Polarity of ${inverted}`,
      domain: { kind: 'choice', values: ['normal', 'inverted'] },
      scope: 'global',
      powerUp: lastState,
      owner: 'hand',
    };
    return {
      ...emptyAnatomy,
      jacks: [
        signalIn(),
        ...(loops ? [signalOut()] : []),
        ...bands.flatMap(({ id }) => {
          const label = id === 'low' ? 'Low' : 'High';
          return loops
            ? [signalOut(`${id}-send`, `${label} send`), signalIn(`${id}-return`, `${label} return`)]
            : [signalOut(`${id}-out`, `${label} out`)];
        }),
      ],
      controls: [...(loops ? [blend] : []), ...(inverted === 'none' ? [] : [polarity])],
      sections: bands.flatMap(({ id, label }): readonly Section[] => {
        const heard = inverted === id ? { parameters: ['polarity'] } : {};
        const filter = { id, label, from: 'in', active: true, ...heard };
        if (!loops) return [{ ...filter, to: `${id}-out` }];
        const mix = { label: `Blend, ${id}`, to: 'out', active: true, parameters: ['blend'] };
        return [
          { ...filter, to: `*${id}` },
          { id: `${id}-to`, label: 'Send', from: `*${id}`, to: `${id}-send`, active: false },
          { ...mix, id: `${id}-closed`, from: `*${id}`, when: { plugs: { [`${id}-return`]: false } } },
          { ...mix, id: `${id}-from`, from: `${id}-return`, when: { plugs: { [`${id}-return`]: true } } },
        ];
      }),
      ...(loops ? { inserts: bands.map(({ id }) => ({ send: `${id}-send`, return: `${id}-return` })) } : {}),
    };
  },
};

/** Simulates a loudspeaker for a line; a second output may carry the signal as it came in. */
export const cabinetSimulation: Archetype = {
  id: 'cabinet-simulation',
  params: {
    ...widthParams,
    presets: { kind: 'integer', min: 0, max: 128, default: 0, label: 'Presets (0: none)' },
    through: { kind: 'boolean', default: false, label: 'Output without simulation' },
  },
  expand: (p) => {
    const through = throughOf(p, signalIn(), { ...signalOut(), balanced: true });
    const plain = endsOf(signalOut('through', 'Through'), p.word('width') === 'stereo');
    const presets = p.int('presets');
    return {
      ...emptyAnatomy,
      jacks: [...through.jacks, ...(p.yes('through') ? plain.jacks : []), ...(presets > 0 ? [midiIn] : [])],
      sections: [
        ...throughSections(through, {
          id: 'effect',
          label: 'Cabinet simulation',
          active: true,
          effect: 'cabinet-simulation',
          ...(presets > 0 ? { parameters: ['preset'] } : {}),
        }),
        ...(p.yes('through')
          ? throughSections({ ...through, output: plain }, { id: 'through', label: 'Through', active: false })
          : []),
      ],
      ...(presets > 0
        ? {
            presets: {
              numbers: { from: 0, count: presets },
              powerUp: lastState,
              scheme: 'none',
              bankSize: 128,
              sticky: false,
              home: [0, 0],
              repeat: { is: 'reload' },
            },
          }
        : {}),
    };
  },
};

/** A pedal that only says where it stands. Its position belongs to the player. */
export const expressionPedal: Archetype = {
  id: 'expression-pedal',
  params: {
    potKilohms: { kind: 'integer', min: 1, max: 500, default: 10, label: 'Potentiometer, kΩ' },
    wiper: { kind: 'choice', values: ['tip', 'ring'], default: 'tip', label: 'Wiper on' },
    outputs: { kind: 'integer', min: 1, max: 2, default: 1, label: 'Outputs' },
    heel: { kind: 'integer', min: 0, max: 126, default: 0, label: 'Heel stands at' },
    toe: { kind: 'integer', min: 1, max: 127, default: 127, label: 'Toe stands at' },
  },
  expand: (p) => ({
    ...emptyAnatomy,
    jacks: Array.from({ length: p.int('outputs') }, (_, i) => ({
      id: p.int('outputs') === 1 ? 'out' : `out-${i + 1}`,
      label: p.int('outputs') === 1 ? 'Out' : `Out ${i + 1}`,
      kind: 'expression-out' as const,
    })),
    controls: [
      {
        id: 'position',
        label: 'Position',
        domain: { kind: 'range', min: p.int('heel'), max: Math.max(p.int('heel') + 1, p.int('toe')) },
        scope: 'global',
        powerUp: value(p.int('heel')),
        owner: 'live',
        expression: true,
      },
    ],
    settings: [{ label: 'Potentiometer', value: `${p.int('potKilohms')} kΩ, wiper on the ${p.word('wiper')}` }],
  }),
};

/** Gives the tempo: by MIDI clock and by a contact that taps. What comes in by MIDI goes on. */
export const tempoBox: Archetype = {
  id: 'tempo-box',
  params: { taps: { kind: 'integer', min: 0, max: 4, default: 1, label: 'Tap outputs' } },
  expand: (p) => ({
    ...emptyAnatomy,
    jacks: [
      midiIn,
      { id: 'midi-out', label: 'MIDI out', kind: 'midi-merge' },
      ...Array.from({ length: p.int('taps') }, (_, i) => ({
        id: `tap-${i + 1}`,
        label: p.int('taps') === 1 ? 'Tap' : `Tap ${i + 1}`,
        kind: 'contact-out' as const,
      })),
    ],
  }),
};

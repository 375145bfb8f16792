import {
  type Control,
  type ControlMessage,
  type EffectKind,
  effectKinds,
  emptyAnatomy,
  type Section,
} from '../anatomy.ts';
import type { Archetype } from './archetype.ts';
import {
  holdControl,
  holdParam,
  holdSwitch,
  midiIn,
  midiOutput,
  midiOutputs,
  ownSwitch,
  powerUpOf,
  signalIn,
  signalOut,
  value,
} from './common.ts';
import { presetFactsOf, presetParams } from './preset-params.ts';
import { endsOf, right, type Through, throughOf, throughSections, widthParams } from './stereo.ts';

/** An effect whose stored presets answer to program changes, with a bypass message and a few parameters. */
export const midiEffect: Archetype = {
  id: 'midi-effect',
  params: {
    effect: { kind: 'choice', values: effectKinds, default: 'other', label: 'Does' },
    ...presetParams,
    bypassCc: { kind: 'integer', min: -1, max: 127, default: -1, label: 'Bypass control change (−1: none)' },
    bypassPowersUp: {
      kind: 'choice',
      values: ['off', 'on', 'as left'],
      default: 'on',
      label: 'Engaged after power-up',
    },
    mixCc: { kind: 'integer', min: -1, max: 127, default: -1, label: 'Mix control change (−1: none)' },
    levelSwitch: {
      kind: 'choice',
      values: ['none', 'instrument', 'line'],
      default: 'none',
      label: 'Level switch stands at',
    },
    trails: { kind: 'choice', values: ['none', 'ring on', 'cut'], default: 'none', label: 'Trails when bypassed' },
    mixByPedal: { kind: 'boolean', default: false, label: 'An expression pedal moves the mix' },
    footswitch: { kind: 'boolean', default: true, label: 'Own switch' },
    holds: holdParam,
    holdCc: { kind: 'integer', min: -1, max: 127, default: -1, label: 'Hold control change (−1: none)' },
    midiOut: {
      kind: 'choice',
      values: Object.keys(midiOutputs),
      default: 'through',
      label: 'Its MIDI output sends',
    },
    ...widthParams,
    crosses: { kind: 'boolean', default: false, label: 'Left and right meet inside' },
    channelModes: {
      kind: 'words',
      default: [],
      label: 'Channel modes, stored (mono, stereo, two channels)',
      max: 3,
      mayBeEmpty: true,
    },
  },
  expand: (p) => {
    const modes = p.words('channelModes');
    const through = modes.length > 0 ? twoChannels : throughOf(p);
    const switched = p.int('bypassCc') >= 0 || p.yes('footswitch');
    const mix: Control[] =
      p.int('mixCc') >= 0 || p.yes('mixByPedal')
        ? [
            {
              id: 'mix',
              label: 'Mix',
              domain: { kind: 'range', min: 0, max: 127 },
              scope: 'preset',
              powerUp: value(0),
              owner: 'programmed',
              ...(p.yes('mixByPedal') ? { expression: true } : {}),
            },
          ]
        : [];
    const messages: ControlMessage[] = [
      ...(p.int('bypassCc') >= 0 ? [{ cc: p.int('bypassCc'), control: 'on', mode: 'switch' as const }] : []),
      ...(p.yes('holds') && p.int('holdCc') >= 0
        ? [{ cc: p.int('holdCc'), control: 'hold', mode: 'switch' as const }]
        : []),
      ...(p.int('mixCc') >= 0 ? [{ cc: p.int('mixCc'), control: 'mix', mode: 'absolute' as const }] : []),
    ];
    const mode: Control[] =
      modes.length > 0
        ? [
            {
              id: 'mode',
              label: 'Channels',
              domain: { kind: 'choice', values: modes },
              scope: 'preset',
              powerUp: value(modes[0]),
              owner: 'programmed',
            },
          ]
        : [];
    const effect = {
      id: 'effect',
      label: 'Effect',
      active: true,
      effect: p.word('effect') as EffectKind,
      parameters: ['preset', ...mix.map((control) => control.id), ...(p.yes('holds') ? ['hold'] : [])],
      ...(switched ? { when: { controls: { on: [1] } } } : {}),
    };
    const bypass = { id: 'bypass', label: 'Bypass', active: false, when: { controls: { on: [0] } } };
    return {
      ...emptyAnatomy,
      jacks: [
        ...through.jacks,
        midiIn,
        midiOutput(p.word('midiOut')),
        ...(p.yes('mixByPedal') ? [{ id: 'expression', label: 'Expression', kind: 'expression-in' as const }] : []),
      ],
      controls: [
        ...(switched ? [ownSwitch(powerUpOf(p.word('bypassPowersUp')), 'programmed')] : []),
        ...mix,
        ...mode,
        ...(p.yes('holds') ? [holdControl] : []),
      ],
      sections: [
        ...(modes.length > 0 ? byMode(effect, modes) : throughSections(through, effect, { crosses: p.yes('crosses') })),
        ...(!switched ? [] : modes.length > 0 ? apart(bypass) : throughSections(through, bypass)),
      ],
      messages,
      settings: [
        ...(p.word('levelSwitch') === 'none' ? [] : [{ label: 'Level switch', value: p.word('levelSwitch') }]),
        ...(p.word('trails') === 'none' ? [] : [{ label: 'Trails when bypassed', value: p.word('trails') }]),
      ],
      switches: [
        ...(p.yes('footswitch') ? [{ id: 'switch', label: 'Own switch', actions: [{ toggle: 'on' }] }] : []),
        ...(p.yes('holds') ? [holdSwitch] : []),
      ],
      ...presetFactsOf(p, 'on'),
      ...(switched ? { ownSwitch: 'on' } : {}),
    };
  },
};

/** Two inputs and two outputs, which a stored mode joins or keeps apart. */
const twoChannels: Through = {
  input: endsOf(signalIn(), true),
  output: endsOf(signalOut(), true),
  jacks: [...endsOf(signalIn(), true).jacks, ...endsOf(signalOut(), true).jacks],
};

/** Each channel on its own, so that they may stand in two places of the line. */
const apart = (section: Omit<Section, 'from' | 'to'>, suffix = ''): readonly Section[] => [
  { ...section, id: `${section.id}${suffix}-1`, label: `${section.label} 1`, from: 'in', to: 'out' },
  { ...section, id: `${section.id}${suffix}-2`, label: `${section.label} 2`, from: right('in'), to: right('out') },
];

/** A matrix from left and right in to left and right out: mono is the left alone, stereo mixes, two channels do not. */
function byMode(effect: Omit<Section, 'from' | 'to' | 'pair'>, modes: readonly string[]): readonly Section[] {
  const within = (mode: string, id: string): Omit<Section, 'from' | 'to' | 'pair'> => ({
    ...effect,
    id,
    when: { controls: { ...effect.when?.controls, mode: [mode] } },
  });
  return modes.flatMap((mode): readonly Section[] =>
    mode === 'two channels'
      ? apart(within(mode, 'effect'))
      : mode === 'stereo'
        ? throughSections(twoChannels, within(mode, 'effect-stereo'), { crosses: true })
        : [{ ...within(mode, 'effect-mono'), from: 'in', to: 'out' }],
  );
}

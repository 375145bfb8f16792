import {
  type BankScheme,
  type Control,
  type ControlMessage,
  type EffectKind,
  effectKinds,
  emptyAnatomy,
  type RepeatedRecall,
} from '../anatomy.ts';
import type { Archetype } from './archetype.ts';
import { lastState, midiIn, midiThru, ownSwitch, powerUpOf, signalIn, signalOut, value } from './common.ts';

/** An effect whose stored presets answer to program changes, with a bypass message and a few parameters. */
export const midiEffect: Archetype = {
  id: 'midi-effect',
  params: {
    effect: { kind: 'choice', values: effectKinds, default: 'other', label: 'Does' },
    first: { kind: 'integer', min: 0, max: 16_383, default: 0, label: 'First preset, as sent' },
    presets: { kind: 'integer', min: 1, max: 16_384, default: 128, label: 'Presets' },
    scheme: { kind: 'choice', values: ['none', 'msb', 'lsb', 'both'], default: 'none', label: 'Bank select' },
    bankSize: { kind: 'integer', min: 1, max: 128, default: 128, label: 'Presets a bank' },
    sticky: { kind: 'boolean', default: false, label: 'Remembers its bank' },
    repeat: {
      kind: 'choice',
      values: ['reload', 'ignored', 'alternates', 'flips bypass'],
      default: 'reload',
      label: 'A repeated program change',
    },
    powersUpOn: { kind: 'choice', values: ['first preset', 'as left'], default: 'as left', label: 'Comes up on' },
    loadMs: { kind: 'integer', min: 0, max: 10_000, default: 0, label: 'Load time, ms' },
    whileLoading: { kind: 'choice', values: ['drop', 'queue'], default: 'drop', label: 'Messages while loading' },
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
  },
  expand: (p) => {
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
      ...(p.int('mixCc') >= 0 ? [{ cc: p.int('mixCc'), control: 'mix', mode: 'absolute' as const }] : []),
    ];
    return {
      ...emptyAnatomy,
      jacks: [signalIn(), signalOut(), midiIn, midiThru],
      controls: [...(switched ? [ownSwitch(powerUpOf(p.word('bypassPowersUp')), 'programmed')] : []), ...mix],
      sections: [
        {
          id: 'effect',
          label: 'Effect',
          from: 'in',
          to: 'out',
          active: true,
          effect: p.word('effect') as EffectKind,
          parameters: ['preset', ...mix.map((control) => control.id)],
          ...(switched ? { when: { controls: { on: [1] } } } : {}),
        },
        ...(switched
          ? [{ id: 'bypass', label: 'Bypass', from: 'in', to: 'out', active: false, when: { controls: { on: [0] } } }]
          : []),
      ],
      messages,
      settings: [
        ...(p.word('levelSwitch') === 'none' ? [] : [{ label: 'Level switch', value: p.word('levelSwitch') }]),
        ...(p.word('trails') === 'none' ? [] : [{ label: 'Trails when bypassed', value: p.word('trails') }]),
      ],
      switches: p.yes('footswitch') ? [{ id: 'switch', label: 'Own switch', actions: [{ toggle: 'on' }] }] : [],
      presets: {
        numbers: { from: p.int('first'), count: p.int('presets') },
        powerUp: p.word('powersUpOn') === 'as left' ? lastState : value(p.int('first')),
        scheme: p.word('scheme') as BankScheme,
        bankSize: p.int('bankSize'),
        sticky: p.yes('sticky'),
        home: [0, 0],
        repeat: repeatOf(p.word('repeat')),
      },
      ...(p.int('loadMs') > 0
        ? { busy: { ms: p.int('loadMs'), policy: p.word('whileLoading') as 'drop' | 'queue' } }
        : {}),
      ...(switched ? { ownSwitch: 'on' } : {}),
    };
  },
};

const repeatOf = (word: string): RepeatedRecall =>
  word === 'flips bypass' ? { is: 'flips', control: 'on' } : { is: word as 'reload' | 'ignored' | 'alternates' };

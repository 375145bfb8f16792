import { type Control, type EffectKind, effectKinds, emptyAnatomy } from '../anatomy.ts';
import type { Archetype } from './archetype.ts';
import { ownSwitch, powerUpOf, signalIn, signalOut, value } from './common.ts';

/** Strings, pickups, and what the hands do: positions of the selector and the volume are cues, never sent. */
export const instrument: Archetype = {
  id: 'instrument',
  params: {
    positions: { kind: 'words', default: [], label: 'Selector positions', max: 8, mayBeEmpty: true },
    volume: { kind: 'boolean', default: false, label: 'Volume as a cue' },
  },
  expand: (p) => {
    const positions = p.words('positions');
    const hands: Control[] = [
      ...(positions.length > 0
        ? [hand('selector', 'Selector', { kind: 'choice', values: positions }, positions[0])]
        : []),
      ...(p.yes('volume') ? [hand('volume', 'Volume', { kind: 'range', min: 0, max: 10 }, 10)] : []),
    ];
    return {
      ...emptyAnatomy,
      jacks: [signalOut()],
      controls: hands,
      sections: [
        {
          id: 'pickups',
          label: 'Pickups',
          from: '*strings',
          to: 'out',
          active: true,
          ...(hands.length > 0 ? { parameters: hands.map((control) => control.id) } : {}),
        },
      ],
      source: '*strings',
    };
  },
};

const hand = (id: string, label: string, domain: Control['domain'], rests: string | number): Control => ({
  id,
  label,
  domain,
  scope: 'global',
  powerUp: value(rests),
  owner: 'hand',
});

export const cabinet: Archetype = {
  id: 'cabinet',
  params: {},
  expand: () => ({
    ...emptyAnatomy,
    jacks: [{ ...signalIn(), speaker: true }],
    sections: [{ id: 'cone', label: 'Loudspeaker', from: 'in', to: '*air', active: true }],
    destination: '*air',
  }),
};

export const line: Archetype = {
  id: 'line',
  params: {},
  expand: () => ({
    ...emptyAnatomy,
    jacks: [signalIn()],
    sections: [{ id: 'channel', label: 'Desk channel', from: 'in', to: '*house', active: true }],
    destination: '*house',
  }),
};

/**
 * One effect with its own switch: true bypass and buffered bypass alike put a wire in its place. Knobs are set by hand.
 */
export const pedal: Archetype = {
  id: 'pedal',
  params: {
    effect: { kind: 'choice', values: effectKinds, default: 'other', label: 'Does' },
    bypass: { kind: 'choice', values: ['true', 'buffered'], default: 'true', label: 'Bypass' },
    powersUp: { kind: 'choice', values: ['off', 'on', 'as left'], default: 'as left', label: 'After power-up' },
    hasSwitch: { kind: 'boolean', default: true, label: 'Own switch' },
    knobs: { kind: 'words', default: [], label: 'Knobs', max: 12, mayBeEmpty: true },
  },
  expand: (p) => {
    const knobs = p
      .words('knobs')
      .map((label, i): Control => hand(`knob-${i + 1}`, label, { kind: 'range', min: 0, max: 10 }, 5));
    const effect = {
      id: 'effect',
      label: 'Effect',
      from: 'in',
      to: 'out',
      active: true,
      effect: p.word('effect') as EffectKind,
      ...(knobs.length > 0 ? { parameters: knobs.map((control) => control.id) } : {}),
    };
    const jacks = [signalIn(), signalOut()];
    if (!p.yes('hasSwitch')) return { ...emptyAnatomy, jacks, controls: knobs, sections: [effect] };
    return {
      ...emptyAnatomy,
      jacks,
      controls: [ownSwitch(powerUpOf(p.word('powersUp')), 'programmed'), ...knobs],
      sections: [
        { ...effect, when: { controls: { on: [1] } } },
        { id: 'bypass', label: 'Bypass', from: 'in', to: 'out', active: false, when: { controls: { on: [0] } } },
      ],
      switches: [{ id: 'switch', label: 'Own switch', actions: [{ toggle: 'on' }] }],
      ownSwitch: 'on',
    };
  },
};

export const tuner: Archetype = {
  id: 'tuner',
  params: { mutes: { kind: 'boolean', default: true, label: 'Mutes while tuning' } },
  expand: (p) => ({
    ...emptyAnatomy,
    jacks: [signalIn(), signalOut()],
    controls: p.yes('mutes')
      ? [
          {
            id: 'mute',
            label: 'Mute',
            domain: { kind: 'switch' },
            scope: 'global',
            powerUp: value(0),
            owner: 'foot',
            weight: 'mute',
          },
        ]
      : [],
    sections: [
      {
        id: 'through',
        label: 'Through',
        from: 'in',
        to: 'out',
        active: false,
        ...(p.yes('mutes') ? { when: { controls: { mute: [0] } } } : {}),
      },
    ],
    switches: p.yes('mutes') ? [{ id: 'switch', label: 'Tune', actions: [{ toggle: 'mute' }] }] : [],
  }),
};

import { emptyAnatomy } from '../anatomy.ts';
import type { Archetype } from './archetype.ts';
import { ownSwitch, powerUpOf, signalIn, signalOut, value } from './parts.ts';

export const instrument: Archetype = {
  id: 'instrument',
  params: {},
  expand: () => ({
    ...emptyAnatomy,
    jacks: [signalOut()],
    sections: [{ id: 'pickups', label: 'Pickups', from: '*strings', to: 'out', active: true }],
    source: '*strings',
  }),
};

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

/** One effect with its own switch: true bypass and buffered bypass alike put a wire in its place. */
export const pedal: Archetype = {
  id: 'pedal',
  params: {
    bypass: { kind: 'choice', values: ['true', 'buffered'], default: 'true', label: 'Bypass' },
    powersUp: { kind: 'choice', values: ['off', 'on', 'as left'], default: 'as left', label: 'After power-up' },
    hasSwitch: { kind: 'boolean', default: true, label: 'Own switch' },
  },
  expand: (p) =>
    p.yes('hasSwitch')
      ? {
          ...emptyAnatomy,
          jacks: [signalIn(), signalOut()],
          controls: [ownSwitch(powerUpOf(p.word('powersUp')), 'programmed')],
          sections: [
            { id: 'effect', label: 'Effect', from: 'in', to: 'out', active: true, when: { controls: { on: [1] } } },
            { id: 'bypass', label: 'Bypass', from: 'in', to: 'out', active: false, when: { controls: { on: [0] } } },
          ],
          switches: [{ id: 'switch', label: 'Own switch', does: [{ toggle: 'on' }] }],
          ownSwitch: 'on',
        }
      : {
          ...emptyAnatomy,
          jacks: [signalIn(), signalOut()],
          sections: [{ id: 'effect', label: 'Effect', from: 'in', to: 'out', active: true }],
        },
};

export const tuner: Archetype = {
  id: 'tuner',
  params: { mutes: { kind: 'boolean', default: true, label: 'Mutes while tuning' } },
  expand: (p) => ({
    ...emptyAnatomy,
    jacks: [signalIn(), signalOut()],
    controls: p.yes('mutes')
      ? [{ id: 'mute', label: 'Mute', domain: { kind: 'switch' }, scope: 'global', powerUp: value(0), owner: 'foot', weight: 'mute' }]
      : [],
    sections: [
      { id: 'through', label: 'Through', from: 'in', to: 'out', active: false, ...(p.yes('mutes') ? { when: { controls: { mute: [0] } } } : {}) },
    ],
    switches: p.yes('mutes') ? [{ id: 'switch', label: 'Tune', does: [{ toggle: 'mute' }] }] : [],
  }),
};

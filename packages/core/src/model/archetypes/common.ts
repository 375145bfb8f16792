import type { Control, FootSwitch, Jack, PowerUp } from '../anatomy.ts';

/** Small pieces that several archetypes share. */
export const signalIn = (id = 'in', label = 'In'): Jack => ({ id, label, kind: 'signal-in' });
export const signalOut = (id = 'out', label = 'Out'): Jack => ({ id, label, kind: 'signal-out' });
/** The id of a jack or section that a word names. */
export const idOf = (name: string): string => name.toLowerCase().replace(/[^a-z0-9]+/g, '-');
export const midiIn: Jack = { id: 'midi-in', label: 'MIDI in', kind: 'midi-in' };
/** What a MIDI output that can be set sends: what comes in, what the device makes, or both. */
export const midiOutputs = {
  through: { label: 'MIDI through', kind: 'midi-thru' },
  out: { label: 'MIDI out', kind: 'midi-out' },
  'out and through': { label: 'MIDI out and through', kind: 'midi-merge' },
} as const;
export const midiOutput = (sends: string): Jack => ({
  id: 'midi-thru',
  ...midiOutputs[sends as keyof typeof midiOutputs],
});
export const midiOut: Jack = { id: 'midi-out', label: 'MIDI out', kind: 'midi-out' };

export const value = (is: string | number): PowerUp => ({ is: 'value', value: is });
export const lastState: PowerUp = { is: 'last-state' };
export const powerUpOf = (word: string): PowerUp => (word === 'as left' ? lastState : value(word === 'on' ? 1 : 0));

export const ownSwitch = (powerUp: PowerUp, owner: Control['owner']): Control => ({
  id: 'on',
  label: 'On',
  domain: { kind: 'switch' },
  scope: 'global',
  powerUp,
  owner,
});

/** A foot switch that holds what sounds until it is pressed again; with a message also from outside. */
export const holdParam = { kind: 'boolean', default: false, label: 'Holds a sound (freeze, infinite repeat)' } as const;
export const holdControl: Control = {
  id: 'hold',
  label: 'Hold',
  domain: { kind: 'switch' },
  scope: 'global',
  powerUp: value(0),
  owner: 'programmed',
  holds: true,
};
export const holdSwitch: FootSwitch = { id: 'hold', label: 'Hold', actions: [{ toggle: 'hold' }] };

/** Two jacks, or one socket whose tip sends and whose ring returns. */
export const insertJackParam = {
  kind: 'choice',
  values: ['two jacks', 'one socket'],
  default: 'two jacks',
  label: 'Send and return are',
} as const;

/** A send and its return; in one socket they are told by their poles. */
export function insertJacks(send: Jack, back: Jack, isOneSocket: boolean): readonly [Jack, Jack] {
  return isOneSocket
    ? [
        { ...send, label: `${send.label} (tip)` },
        { ...back, label: `${back.label} (ring)`, shares: send.id },
      ]
    : [send, back];
}

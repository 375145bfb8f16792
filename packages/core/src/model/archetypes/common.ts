import type { Control, Jack, PowerUp } from '../anatomy.ts';

/** Small pieces that several archetypes share. */
export const signalIn = (id = 'in', label = 'In'): Jack => ({ id, label, kind: 'signal-in' });
export const signalOut = (id = 'out', label = 'Out'): Jack => ({ id, label, kind: 'signal-out' });
export const midiIn: Jack = { id: 'midi-in', label: 'MIDI in', kind: 'midi-in' };
export const midiThru: Jack = { id: 'midi-thru', label: 'MIDI through', kind: 'midi-thru' };
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

import type { Anatomy } from '../model/anatomy.ts';
import { type CatalogueEntry, entry } from './entry.ts';

/** What one begins with who makes a device: one way in, one out, an effect between them that a switch bypasses. */
const blankDevice: Anatomy = {
  jacks: [
    { id: 'in', label: 'In', kind: 'signal-in' },
    { id: 'out', label: 'Out', kind: 'signal-out' },
  ],
  sections: [
    {
      id: 'effect',
      label: 'Effect',
      from: 'in',
      to: 'out',
      active: true,
      effect: 'other',
      when: { controls: { on: [1] } },
    },
    { id: 'bypass', label: 'Bypass', from: 'in', to: 'out', active: false, when: { controls: { on: [0] } } },
  ],
  controls: [
    {
      id: 'on',
      label: 'On',
      domain: { kind: 'switch' },
      scope: 'global',
      powerUp: { is: 'last-state' },
      owner: 'programmed',
    },
  ],
  messages: [],
  inputs: [],
  switches: [{ id: 'switch', label: 'Switch', actions: [{ toggle: 'on' }] }],
  ownSwitch: 'on',
};

export const pedals: readonly CatalogueEntry[] = [
  entry('tuner', 'Tuner', 'tuner', 'tune mute'),
  entry('compressor', 'Compressor', 'pedal', 'pedal squash', 'board', { effect: 'compressor', powersUp: 'on' }),
  entry('wah', 'Wah', 'pedal', 'pedal sweep filter', 'board', { effect: 'equaliser', powersUp: 'off' }),
  entry('drive', 'Drive', 'pedal', 'pedal !overdrive distortion fuzz !od', 'board', {
    effect: 'drive',
    powersUp: 'on',
  }),
  entry('fuzz', 'Fuzz', 'pedal', 'pedal drive distortion', 'board', { effect: 'drive', powersUp: 'on' }),
  entry('fuzz-positive', 'Fuzz, positive earth', 'pedal', 'pedal drive distortion germanium', 'board', {
    effect: 'drive',
    powersUp: 'on',
  }),
  entry('boost', 'Boost', 'pedal', 'pedal', 'board', { effect: 'boost', powersUp: 'on' }),
  entry('modulation', 'Chorus', 'pedal', 'pedal modulation phaser flanger tremolo', 'board', {
    effect: 'modulation',
    powersUp: 'on',
    bypass: 'buffered',
  }),
  entry('equaliser', 'Equaliser', 'pedal', 'pedal eq tone', 'board', {
    effect: 'equaliser',
    powersUp: 'on',
    bypass: 'buffered',
  }),
  entry('gate', 'Noise gate', 'pedal', 'pedal noise', 'board', { effect: 'gate', powersUp: 'on', bypass: 'buffered' }),
  entry('delay', 'Delay', 'pedal', '!echo time pedal', 'board', {
    effect: 'delay',
    powersUp: 'on',
    bypass: 'buffered',
  }),
  entry('reverb', 'Reverb', 'pedal', 'hall room time pedal', 'board', {
    effect: 'reverb',
    powersUp: 'on',
    bypass: 'buffered',
  }),
  entry('octave', 'Octave', 'pedal', 'pitch pedal octaver', 'board', { effect: 'pitch', powersUp: 'on' }),
  entry('pitch', 'Pitch shifter', 'pedal', 'harmony bend pedal', 'board', { effect: 'pitch', powersUp: 'off' }),
  entry('filter', 'Envelope filter', 'pedal', 'auto wah funk', 'board', {
    effect: 'equaliser',
    powersUp: 'on',
    bypass: 'buffered',
  }),
  entry('tremolo', 'Tremolo', 'pedal', 'modulation pedal', 'board', { effect: 'modulation', powersUp: 'on' }),
  entry('phaser', 'Phaser', 'pedal', 'modulation pedal', 'board', { effect: 'modulation', powersUp: 'on' }),
  entry('flanger', 'Flanger', 'pedal', 'modulation pedal', 'board', { effect: 'modulation', powersUp: 'on' }),
  entry('vibrato', 'Vibrato', 'pedal', 'modulation pedal rotary', 'board', { effect: 'modulation', powersUp: 'on' }),
  entry('other-device', 'Other device, with a switch', 'pedal', 'anything unknown pedal', 'board', {
    effect: 'other',
    powersUp: 'as left',
  }),
  entry('other-always-on', 'Other device, always on', 'pedal', 'anything unknown box', 'board', {
    effect: 'other',
    hasSwitch: false,
  }),
  entry('blank-device', 'Device of your own', 'declared', '!custom own blank editor unknown', 'board', {
    anatomy: blankDevice,
  }),
  entry('buffer', 'Buffer', 'pedal', 'line driver', 'board', { effect: 'other', hasSwitch: false }),
  entry('line-boost', 'Always-on booster', 'pedal', 'preamp pedal', 'board', { effect: 'boost', hasSwitch: false }),
  entry('volume-pedal', 'Volume pedal', 'volume-pedal', '!volume swell level', 'board'),
  entry('distortion', 'Distortion', 'pedal', 'pedal drive high gain', 'board', { effect: 'drive', powersUp: 'on' }),
  entry('drive-2', 'Drive, two stages', 'pedal', 'pedal overdrive boost stage channel', 'board', {
    effect: 'drive',
    powersUp: 'on',
    secondSwitch: ['low', 'high'],
  }),
  entry('drive-2-remote', 'Drive, two stages, remote', 'pedal', 'pedal overdrive stage contact', 'board', {
    effect: 'drive',
    powersUp: 'on',
    secondSwitch: ['low', 'high'],
    remote: true,
  }),
  entry('bass-drive', 'Bass drive', 'pedal', 'pedal overdrive distortion', 'board', {
    effect: 'drive',
    powersUp: 'on',
  }),
  entry('rotary', 'Rotary simulation', 'pedal', 'modulation pedal organ speed stereo', 'board', {
    effect: 'modulation',
    powersUp: 'on',
    bypass: 'buffered',
    width: 'mono to stereo',
    secondSwitch: ['slow', 'fast'],
  }),
  entry('chorus-stereo', 'Chorus, stereo', 'pedal', 'modulation pedal', 'board', {
    effect: 'modulation',
    powersUp: 'on',
    bypass: 'buffered',
    width: 'mono to stereo',
  }),
  entry('delay-stereo', 'Delay, stereo', 'pedal', 'echo time pedal', 'board', {
    effect: 'delay',
    powersUp: 'on',
    bypass: 'buffered',
    width: 'stereo',
  }),
  entry('reverb-stereo', 'Reverb, stereo', 'pedal', 'hall room time pedal', 'board', {
    effect: 'reverb',
    powersUp: 'on',
    bypass: 'buffered',
    width: 'stereo',
    crosses: true,
  }),
  entry('tape-echo', 'Tape echo', 'pedal', 'delay time pedal', 'board', {
    effect: 'delay',
    powersUp: 'on',
    bypass: 'buffered',
    knobs: ['Time', 'Repeats'],
  }),
  entry('freeze', 'Sustainer, holds a sound', 'pedal', 'freeze infinite hold pedal', 'board', {
    effect: 'reverb',
    powersUp: 'off',
    bypass: 'buffered',
  }),
  entry('looper-pedal', 'Looping pedal', 'pedal', 'loop record station layers', 'board', {
    effect: 'delay',
    hasSwitch: false,
  }),
  entry('acoustic-preamp', 'Acoustic preamp', 'pedal', 'piezo notch room equaliser pedal', 'board', {
    effect: 'equaliser',
    hasSwitch: false,
  }),
  entry('volume-stereo', 'Volume pedal, stereo', 'volume-pedal', 'swell level', 'board', {
    width: 'stereo',
    kind: 'active',
    tunerOut: false,
  }),
  entry('volume-active', 'Volume pedal, active', 'volume-pedal', 'swell level buffered', 'board', { kind: 'active' }),
  entry('volume-low', 'Volume pedal, for the amp’s loop', 'volume-pedal', 'swell level master low impedance', 'board', {
    potKilohms: 25,
    tunerOut: false,
  }),
];

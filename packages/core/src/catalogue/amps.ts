import { type CatalogueEntry, entry } from './entry.ts';

export const amps: readonly CatalogueEntry[] = [
  entry(
    'valve-combo',
    'Valve amp, two channels',
    'amp',
    '!amp !amplifier !combo head channels loop send return',
    'combo',
    {
      channels: ['clean', 'lead'],
      contactInputs: 1,
      inputKind: 'level',
    },
  ),
  entry('valve-amp-1', 'Valve amp, one channel', 'amp', 'amplifier head combo loop send return', 'combo', {
    channels: ['clean'],
    contactInputs: 0,
    footswitch: false,
  }),
  entry('valve-head-3', 'Valve amp, three channels', 'amp', 'amplifier head channels loop send return', 'combo', {
    channels: ['clean', 'crunch', 'lead'],
    contactInputs: 2,
    inputKind: 'level',
  }),
  entry('preamp', 'Preamp, two channels', 'preamp', 'amp-less line channels loop send return', 'board', {
    channels: ['clean', 'lead'],
    contactInputs: 1,
    inputKind: 'level',
  }),
  entry('power-amp', 'Power amp', 'power-amp', 'amplifier loudspeaker', 'combo'),
  entry('load-box', 'Load box', 'load-box', 'attenuator dummy reactive silent', 'combo'),
  entry('load-box-through', 'Load box with a loudspeaker through', 'load-box', 'attenuator line tap', 'combo', {
    simulates: false,
    through: true,
  }),
  entry('cabinet', 'Cabinet', 'cabinet', '!cab loudspeaker speaker', 'combo'),
  entry('cabinet-simulation', 'Cabinet simulation', 'pedal', 'loader speaker amp-less direct line', 'board', {
    effect: 'cabinet-simulation',
    hasSwitch: false,
  }),
  entry('transistor-combo', 'Transistor amp', 'amp', 'amplifier solid state combo send return', 'combo', {
    channels: ['clean', 'drive'],
    contactInputs: 1,
    inputKind: 'edge',
  }),
  entry('bass-amp', 'Bass amp', 'amp', 'amplifier head send return direct out', 'combo', {
    channels: ['clean'],
    distorts: [],
    contactInputs: 0,
    footswitch: false,
    directOut: 'plain',
  }),
  entry('acoustic-amp', 'Acoustic amp', 'amp', 'amplifier combo direct out', 'combo', {
    channels: ['clean'],
    distorts: [],
    contactInputs: 0,
    footswitch: false,
    directOut: 'plain',
  }),
  entry('valve-combo-direct', 'Valve amp, two channels, direct out', 'amp', 'amplifier head combo channel', 'combo', {
    channels: ['clean', 'lead'],
    contactInputs: 1,
    inputKind: 'level',
    directOut: 'cabinet simulation',
  }),
  entry('preamp-1', 'Preamp, one channel', 'preamp', 'amp-less line bass direct', 'board', {
    channels: ['clean'],
    distorts: [],
    contactInputs: 0,
    footswitch: false,
    directOut: 'plain',
  }),
  entry('power-amp-stereo', 'Power amp, stereo', 'power-amp', 'amplifier loudspeaker', 'combo', { stereo: true }),
  entry('tap-box', 'Loudspeaker tap box', 'load-box', 'line wet dry speaker', 'combo', {
    simulates: false,
    through: true,
    isLoad: false,
  }),
  entry('cabinet-stereo', 'Cabinet, stereo', 'cabinet', 'loudspeaker speaker', 'combo', { stereo: true }),
  entry(
    'cabinet-loader',
    'Cabinet simulation, MIDI',
    'cabinet-simulation',
    'loader impulse response amp-less direct',
    'board',
    {
      presets: 128,
      width: 'stereo',
      through: true,
    },
    true,
  ),
];

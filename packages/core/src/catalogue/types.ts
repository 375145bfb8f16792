import type { DeviceType } from '../model/rig.ts';

/** A generic device type with typical values, found by typing any of its words. */
export interface CatalogueEntry {
  readonly type: DeviceType;
  readonly words: string;
  readonly place: string;
  /** Receive channel that a new one is given; null: none. */
  readonly listens: boolean;
}

const entry = (
  id: string,
  name: string,
  archetype: string,
  words: string,
  place = 'board',
  params: DeviceType['params'] = {},
  listens = false,
): CatalogueEntry => ({
  type: { id, revision: 1, name, archetype, params },
  words: `${name} ${words}`.toLowerCase(),
  place,
  listens,
});

/** Typical generic gear (common practice); every value can be changed on the device. */
export const catalogue: readonly CatalogueEntry[] = [
  entry('guitar', 'Guitar', 'instrument', 'instrument electric', 'board', {
    positions: ['bridge', 'middle', 'neck'],
    volume: true,
  }),
  entry('bass', 'Bass', 'instrument', 'instrument electric', 'board', { volume: true }),
  entry('tuner', 'Tuner', 'tuner', 'tune mute'),
  entry('switcher-10', 'Loop switcher, 10 loops', 'loop-switcher', 'switcher loops midi contacts', 'board', {
    loops: 10,
    insertAfter: 5,
    contacts: 2,
    banks: 20,
    positions: 5,
  }),
  entry('switcher-8', 'Loop switcher, 8 loops', 'loop-switcher', 'switcher loops midi contacts', 'board', {
    loops: 8,
    contacts: 2,
    banks: 10,
    positions: 5,
  }),
  entry('switcher-4', 'Loop switcher, 4 loops', 'loop-switcher', 'switcher loops midi contacts', 'board', {
    loops: 4,
    contacts: 1,
    banks: 10,
    positions: 4,
    perRow: 4,
  }),
  entry('compressor', 'Compressor', 'pedal', 'pedal squash', 'board', { effect: 'compressor', powersUp: 'on' }),
  entry('wah', 'Wah', 'pedal', 'pedal sweep filter', 'board', { effect: 'equaliser', powersUp: 'off' }),
  entry('drive', 'Drive', 'pedal', 'pedal overdrive distortion fuzz', 'board', { effect: 'drive', powersUp: 'on' }),
  entry('fuzz', 'Fuzz', 'pedal', 'pedal drive distortion', 'board', { effect: 'drive', powersUp: 'on' }),
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
  entry('delay', 'Delay', 'pedal', 'echo time pedal', 'board', { effect: 'delay', powersUp: 'on', bypass: 'buffered' }),
  entry('reverb', 'Reverb', 'pedal', 'hall room time pedal', 'board', {
    effect: 'reverb',
    powersUp: 'on',
    bypass: 'buffered',
  }),
  entry(
    'midi-delay',
    'Delay, MIDI',
    'midi-effect',
    'echo time pedal presets',
    'board',
    {
      effect: 'delay',
      presets: 128,
      bypassCc: 102,
      mixCc: 20,
      loadMs: 20,
      levelSwitch: 'instrument',
      trails: 'ring on',
    },
    true,
  ),
  entry(
    'midi-reverb',
    'Reverb, MIDI',
    'midi-effect',
    'hall room time pedal presets',
    'board',
    { effect: 'reverb', presets: 128, bypassCc: 102, loadMs: 20, levelSwitch: 'instrument', trails: 'ring on' },
    true,
  ),
  entry(
    'midi-multi',
    'Multi-effect, MIDI',
    'midi-effect',
    'modulation presets banks',
    'board',
    { presets: 300, scheme: 'lsb', bypassCc: 102, loadMs: 60 },
    true,
  ),
  entry('valve-combo', 'Valve amp, two channels', 'amp', 'amplifier head combo channels loop send return', 'combo', {
    channels: ['clean', 'lead'],
    contactInputs: 1,
    inputKind: 'level',
  }),
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
  entry('cabinet-simulation', 'Cabinet simulation', 'pedal', 'loader speaker amp-less direct line', 'board', {
    effect: 'cabinet-simulation',
    hasSwitch: false,
  }),
  entry('splitter', 'A/B/Y box', 'splitter', 'ab aby split switch two amps', 'board', { both: true, contactInputs: 2 }),
  entry('cabinet', 'Cabinet', 'cabinet', 'loudspeaker speaker', 'combo'),
  entry('desk', 'Line to the desk', 'line', 'desk mixer pa output di', 'desk'),
  entry('foot-controller', 'MIDI foot controller', 'midi-controller', 'switches floor song player', 'board', {
    banks: 20,
    positions: 5,
    contacts: 0,
  }),
];

/** Entries that hold every typed word, best first: the very name, then names that begin with it. */
export function findTypes(typed: string): readonly CatalogueEntry[] {
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  const matching = catalogue.filter((catalogueEntry) => words.every((word) => catalogueEntry.words.includes(word)));
  const whole = words.join(' ');
  const rank = (catalogueEntry: CatalogueEntry) =>
    catalogueEntry.type.name.toLowerCase() === whole ? 0 : catalogueEntry.words.startsWith(words[0] ?? '') ? 1 : 2;
  return [...matching].sort((a, b) => rank(a) - rank(b));
}

export const typeById = (id: string): CatalogueEntry => {
  const found = catalogue.find((catalogueEntry) => catalogueEntry.type.id === id);
  if (!found) throw new Error(`no type ${id} in the catalogue`);
  return found;
};

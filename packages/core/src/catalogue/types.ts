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
  entry('selector', 'Selector, two inputs', 'selector', 'two guitars instruments switch ab box input', 'board'),
  entry('selector-3', 'Selector, three inputs', 'selector', 'instruments switch input', 'board', {
    inputs: ['A', 'B', 'C'],
  }),
  entry('router', 'Router, three outputs', 'router', 'switch amps outputs', 'board'),
  entry('router-any', 'Router, any of three outputs', 'router', 'switch amps outputs several', 'board', {
    several: true,
  }),
  entry('mixer-2', 'Mixer, two inputs', 'mixer', 'sum line blend', 'board'),
  entry('mixer-4', 'Mixer, four inputs', 'mixer', 'sum line blend', 'board', { inputs: 4 }),
  entry('volume-pedal', 'Volume pedal', 'volume-pedal', 'swell level', 'board'),
  entry('buffer', 'Buffer', 'pedal', 'line driver', 'board', { effect: 'other', hasSwitch: false }),
  entry('line-boost', 'Always-on booster', 'pedal', 'preamp pedal', 'board', { effect: 'boost', hasSwitch: false }),
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
  entry('receiver', 'Wireless receiver', 'receiver', 'radio transmitter pack', 'board'),
  entry('direct-box', 'Direct box', 'direct-box', 'di line desk balanced', 'board'),
  entry('power-amp', 'Power amp', 'power-amp', 'amplifier loudspeaker', 'combo'),
  entry('load-box', 'Load box', 'load-box', 'attenuator dummy reactive silent', 'combo'),
  entry('load-box-through', 'Load box with a loudspeaker through', 'load-box', 'attenuator line tap', 'combo', {
    simulates: false,
    through: true,
  }),
  entry('acoustic', 'Acoustic guitar', 'instrument', 'piezo instrument', 'board', { volume: true }),
  entry('keyboard', 'Keyboard', 'instrument', 'piano synth organ instrument', 'board', { volume: true }),
  entry('midi-through-box', 'MIDI through box', 'midi-through-box', 'thru splitter', 'board'),
  entry('midi-merger', 'MIDI merger', 'midi-merger', 'merge join', 'board'),
  entry('cabinet', 'Cabinet', 'cabinet', 'loudspeaker speaker', 'combo'),
  entry('desk', 'Line to the desk', 'line', 'desk mixer pa output di', 'desk'),
  entry('foot-controller', 'MIDI foot controller', 'midi-controller', 'switches floor song player', 'board', {
    banks: 20,
    positions: 5,
    contacts: 0,
  }),
];

/** Words that say nothing of a piece: *a selector for two guitars*. */
const littleWords: ReadonlySet<string> = new Set(['a', 'an', 'the', 'for', 'of', 'with', 'and', 'to', 'my']);

/** Entries that hold every typed word, best first: the very name, then names that begin with it. */
export function findTypes(typed: string): readonly CatalogueEntry[] {
  const words = typed
    .toLowerCase()
    .split(/\s+/)
    .filter((word) => word !== '' && !littleWords.has(word));
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

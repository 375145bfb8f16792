import { type CatalogueEntry, entry } from './entry.ts';

export const lineGear: readonly CatalogueEntry[] = [
  entry('mixer-2', 'Mixer, two inputs', 'mixer', 'sum line blend', 'board'),
  entry('mixer-4', 'Mixer, four inputs', 'mixer', 'sum line blend', 'board', { inputs: 4 }),
  entry('receiver', 'Wireless receiver', 'receiver', 'radio transmitter pack', 'board'),
  entry('direct-box', 'Direct box', 'direct-box', 'di line desk balanced', 'board'),
  entry('desk', 'Line to the desk', 'line', 'desk mixer pa output di', 'desk'),
  entry('mixer-stereo', 'Mixer, four stereo inputs', 'mixer', 'sum line blend', 'board', { inputs: 4, stereo: true }),
  entry('monitor-mixer', 'Monitor mixer', 'mixer', 'in-ear own level personal', 'board', { inputs: 4, levels: true }),
  entry('direct-box-active', 'Direct box, active', 'direct-box', 'di line desk balanced phantom', 'board', {
    kind: 'active',
  }),
  entry('direct-box-stereo', 'Direct box, stereo', 'direct-box', 'di line desk balanced two', 'board', {
    stereo: true,
  }),
  entry('band-split', 'Band split', 'band-split', 'crossover bass low high pass blend', 'board'),
  entry('band-split-out', 'Band split, two outputs', 'band-split', 'crossover bass low high pass', 'board', {
    loops: false,
  }),
  entry('isolator', 'Isolation transformer', 'isolator', 'ground hum audio transformer', 'board'),
  entry('edge-panel', 'Edge panel', 'panel', 'patch jacks board connector', 'board', {
    lines: ['instrument', 'output'],
  }),
  entry('edge-panel-midi', 'Edge panel, mains, line and MIDI', 'panel', 'patch jacks board connector', 'board', {
    lines: ['instrument', 'output'],
    balanced: ['output'],
    midi: true,
  }),
  entry('entry-box', 'Entry box', 'panel', 'patch junction board tuner tap lift return', 'board', {
    lines: ['instrument', 'return'],
    tunerTap: true,
    lift: 'joined',
  }),
  entry('multi-core', 'Multi-core', 'panel', 'snake loom multicore lines', 'board', {
    lines: ['amp in', 'amp send', 'amp return', 'spare'],
  }),
  entry('desk-mic', 'Microphone line to the desk', 'line', 'desk mixer pa di stage box', 'desk', {
    takes: 'microphone',
  }),
  entry('desk-stereo', 'Stereo line to the desk', 'line', 'desk mixer pa output di', 'desk', { stereo: true }),
  entry('in-ears', 'In-ears', 'line', 'monitor ear phones', 'desk', { goesTo: 'in-ears', stereo: true }),
  entry('wedge', 'Wedge', 'line', 'monitor floor', 'desk', { goesTo: 'wedge' }),
  entry('recorder', 'Recorder', 'line', 'recording interface', 'desk', { goesTo: 'recording', stereo: true }),
  entry('supply', 'Power supply', 'declared', 'psu mains isolated current eight outputs'),
  entry('supply-4', 'Power supply, four outputs', 'declared', 'psu mains isolated current'),
  entry('supply-12', 'Power supply, twelve outputs', 'declared', 'psu mains isolated current'),
  entry('supply-rail', 'Power supply, one rail', 'declared', 'psu mains shared daisy chain'),
  entry('adapter', 'Mains adapter, 9 V', 'declared', 'psu wall supply'),
  entry('adapter-ac', 'Mains adapter, 9 V AC', 'declared', 'psu wall supply alternating'),
  entry('battery-supply', 'Battery supply', 'declared', 'power bank accumulator'),
  entry('multi-core-power', 'Multi-core, two supply lines', 'panel', 'snake loom multicore lines power', 'board', {
    lines: ['amp in', 'amp send', 'amp return', 'spare'],
  }),
  entry('outlet-strip', 'Mains outlet strip', 'declared', 'power distribution socket', 'stage'),
];

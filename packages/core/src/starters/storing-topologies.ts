import { anatomyOf } from '../model/archetypes/registry.ts';
import type { ControlValue } from '../model/anatomy.ts';
import { typeById } from '../catalogue/types.ts';
import { orderTyped } from '../model/orders.ts';
import { makerOf } from './topologies.ts';

/** An order of a type of the library as it is typed, as values by control. */
function order(type: string, typed: string): Readonly<Record<string, ControlValue>> {
  const values = orderTyped(anatomyOf(typeById(type).type).orders![0], typed);
  if (typeof values === 'string') throw new Error(values);
  return Object.fromEntries(values);
}
const wanted = (device: string, values: Readonly<Record<string, ControlValue>>): Record<string, ControlValue> =>
  Object.fromEntries(Object.entries(values).map(([control, value]) => [`${device}/${control}`, value]));

/** Each slot has its own order of the loops: the echo before the drive in one, behind it in another. */
export const storedOrder = makerOf({
  text: `guitar > 6 m > tuner > switcher = loop switcher, 8 loops, order by slot
1: compressor; 2: drive; 3: echo = delay; 4: chorus
switcher > 6 m > amp = valve amp one > cabinet`,
  controller: 'switcher',
  off: ['compressor', 'drive', 'echo', 'chorus'],
  sounds: {
    clean: {
      name: 'Clean',
      role: 'clean',
      pedals: { compressor: 'on', chorus: 'on' },
      wants: wanted('switcher', order('switcher-8-orders', '1 2 3 4')),
    },
    behind: {
      name: 'Echo behind the drive',
      role: 'rhythm',
      pedals: { drive: 'on', echo: 'on' },
      wants: wanted('switcher', order('switcher-8-orders', '1 2 3 4')),
    },
    before: {
      name: 'Echo into the drive',
      role: 'solo',
      pedals: { drive: 'on', echo: 'on' },
      wants: { ...wanted('switcher', order('switcher-8-orders', '3 2 1 4')), 'switcher/gain': 4 },
    },
  },
});

const allOff = {
  'block-compressor': 0,
  'block-drive': 0,
  'block-amp': 0,
  'block-cabinet': 0,
  'block-modulation': 0,
  'block-delay': 0,
  'block-reverb': 0,
  'loop-1': 0,
};

/** Pedals before the modeller, a reverb behind it; a booster that is never off. */
export const modellerInTheMiddle = makerOf({
  text: `guitar > 6 m > boost = other device, always on > drive > hub = modeller > hall = reverb midi > box = direct box
box > 10 m > desk
floor = midi foot controller
midi: floor > hub > hall`,
  controller: 'floor',
  byFoot: ['drive'],
  params: { hub: { width: 'mono' } },
  presets: {
    hub: {
      0: {
        ...allOff,
        ...order('modeller', 'compressor > amp > cabinet'),
        'block-compressor': 1,
        'block-amp': 1,
        'block-cabinet': 1,
      },
      1: {
        ...allOff,
        ...order('modeller', 'amp > cabinet > delay'),
        'block-amp': 1,
        'block-cabinet': 1,
        'block-delay': 1,
      },
    },
  },
  sounds: {
    clean: {
      name: 'Clean',
      role: 'clean',
      pedals: { drive: 'off', hall: 'on' },
      wants: { 'hub/preset': 0, 'hall/preset': 0 },
    },
    lead: {
      name: 'Lead',
      role: 'solo',
      pedals: { drive: 'on', hall: 'on' },
      wants: { 'hub/preset': 1, 'hall/preset': 1 },
    },
  },
});

/** No amp: a simulator with a delay in its loop, which its own preset moves; a stage of the drive by a contact. */
export const silentStage = makerOf({
  text: `guitar > 6 m > tuner > compressor = other device, always on > wah > drive = drive two stages remote
drive > simulator = modeller
simulator send 1 > echo = delay midi > simulator return 1
simulator => 10 m => desk stereo
floor = midi foot controller ten switches
floor contact 1 > drive
midi: floor > simulator > echo`,
  controller: 'floor',
  byFoot: ['wah'],
  params: {
    simulator: { sendsOn: 2, midiOut: 'out and through', order: 'fixed', blocks: ['Amp', 'Cabinet', 'Loop 1', 'Room'] },
  },
  presets: {
    simulator: {
      0: { 'block-amp': 1, 'block-cabinet': 1, 'loop-1': 0, 'block-room': 1 },
      1: { 'block-amp': 1, 'block-cabinet': 1, 'loop-1': 1, 'block-room': 1 },
    },
  },
  sounds: {
    clean: {
      name: 'Clean',
      role: 'clean',
      pedals: { wah: 'off', drive: 'on' },
      wants: { 'drive/second': 'low', 'simulator/preset': 0 },
    },
    lead: {
      name: 'Lead',
      role: 'solo',
      pedals: { wah: 'off', drive: 'on', echo: 'on' },
      wants: { 'drive/second': 'high', 'simulator/preset': 1, 'echo/preset': 1 },
    },
  },
});

/** One press, or one message, moves gain and echo between two stored values, where the preset has it armed. */
export const oneMove = makerOf({
  text: `guitar > 6 m > tuner > multi = multi-effect external switches > 6 m > amp = valve amp one > cabinet
floor = midi foot controller
midi: floor > multi`,
  controller: 'floor',
  params: { multi: { width: 'mono', assignmentsFromCc: 40 } },
  presets: {
    multi: {
      0: {
        'block-drive': 1,
        'block-modulation': 0,
        'block-delay': 1,
        'block-reverb': 0,
        'move-solo': 0,
        'armed-solo': 1,
        'move-swell': 0,
        'armed-swell': 0,
      },
    },
  },
  sounds: {
    verse: { name: 'Verse', role: 'rhythm', wants: { 'multi/preset': 0, 'multi/move-solo': 0 } },
    solo: { name: 'Solo', role: 'solo', wants: { 'multi/preset': 0, 'multi/move-solo': 1 } },
  },
});

/** Pedals before the hub and in one of its loops; the other is brought to the edge of the board. */
export const modellerAsHub = makerOf({
  text: `panel = edge panel
guitar > 6 m > panel instrument in
panel instrument out > drive > hub = modeller two loops
hub send 1 > chorus > hub return 1
hub => 10 m => desk stereo
pedal = expression two outputs
floor = midi foot controller
midi: floor > hub`,
  controller: 'floor',
  byFoot: ['drive', 'chorus'],
  params: { hub: { parameters: ['Room mix'], pedal: 'Room mix' } },
  then: 'pedal > hub expression',
  presets: {
    hub: {
      0: { 'block-amp-model': 1, 'loop-1': 0, 'loop-2': 0, 'block-room': 1, 'value-room-mix': 30 },
      1: { 'block-amp-model': 1, 'loop-1': 1, 'loop-2': 0, 'block-room': 1, 'value-room-mix': 70 },
    },
  },
  sounds: {
    plain: { name: 'Plain', role: 'clean', pedals: { drive: 'off' }, wants: { 'hub/preset': 0 } },
    wide: { name: 'Wide', role: 'colour', pedals: { drive: 'on', chorus: 'on' }, wants: { 'hub/preset': 1 } },
  },
});

/** A looping station in the amp’s loop, two guitars by a selector; a song player sends the number of the memory. */
export const loopingHub = makerOf({
  text: `guitar > 6 m > pick = selector; acoustic > 6 m > pick B
pick > tuner > amp = valve amp two
amp send > station = looping station three inputs; station out A > amp return
station out B > desk 10 m
percussion = piezo pickup > station In B
amp > cabinet
player = song player
midi: player > station`,
  controller: 'player',
  presets: {
    station: {
      1: {
        ...{ 'track-1': 'empty', 'track-2': 'empty', 'track-3': 'empty', input: 'A' },
        ...{ 'track-1-out': 'A', 'track-2-out': 'B', 'track-3-out': 'B' },
      },
      2: {
        ...{ 'track-1': 'empty', 'track-2': 'empty', 'track-3': 'empty', input: 'all' },
        ...{ 'track-1-out': 'B', 'track-2-out': 'B', 'track-3-out': 'B' },
      },
    },
  },
  sounds: {
    alone: { name: 'Alone', role: 'clean', wants: { 'station/preset': 1, 'pick/input': 'A' } },
    layers: { name: 'Layers', role: 'colour', wants: { 'station/preset': 2, 'pick/input': 'A' } },
  },
});

/** Little, and no amp: the gate right behind the drive, an acoustic preamp as notch and room for the electric. */
export const smallAmpLess = makerOf({
  text: `guitar > 6 m > tuner > switcher = loop switcher, 4 loops
1: compressor; 2: drive; 3: gate
switcher > preamp = acoustic preamp > box = direct box
box > 10 m > desk`,
  controller: 'switcher',
  off: ['compressor', 'drive', 'gate'],
  sounds: {
    clean: { name: 'Clean', role: 'clean', pedals: { compressor: 'on' } },
    driven: { name: 'Driven', role: 'rhythm', pedals: { drive: 'on', gate: 'on' } },
  },
});

import { makerOf } from './topologies.ts';

/** A modeller whose amp and room are on. */
const modelled = { 'block-amp-model': 1, 'block-room': 1 };

/** Volume always in, echoes behind the switcher that are off by a preset with nothing wet in it. */
export const presetsForOff = makerOf({
  text: `guitar > 6 m > tuner > volume > switcher = loop switcher, 8 loops
1: compressor; 2: drive soft; 3: drive hard; 4: chorus
switcher > delay = delay midi > reverb = reverb midi > 6 m > amp = valve amp one > cabinet
midi: switcher > delay > reverb`,
  controller: 'switcher',
  off: ['compressor', 'drive-soft', 'drive-hard', 'chorus'],
  presets: { delay: { 0: { mix: 40 }, 9: { mix: 0 } } },
  sounds: {
    clean: {
      name: 'Clean',
      role: 'clean',
      pedals: { compressor: 'on', delay: 'on', reverb: 'on' },
      wants: { 'delay/preset': 9, 'reverb/preset': 0 },
    },
    rhythm: {
      name: 'Rhythm',
      role: 'rhythm',
      pedals: { 'drive-soft': 'on', delay: 'on', reverb: 'on' },
      wants: { 'delay/preset': 9, 'reverb/preset': 9 },
    },
    solo: {
      name: 'Solo',
      role: 'solo',
      pedals: { 'drive-hard': 'on', delay: 'on', reverb: 'on' },
      wants: { 'delay/preset': 0, 'reverb/preset': 0 },
    },
  },
});

/** A loop beside the line: the volume pedal in it doses the echo alone. */
export const dosedEcho = makerOf({
  text: `guitar > 6 m > tuner > switcher = loop switcher, 8 loops, one beside the line
1: compressor; 2: drive
send 5 > echo = delay midi > dose = volume pedal for the loop > return 5
switcher > 6 m > amp = valve amp one > cabinet
midi: switcher > echo`,
  controller: 'switcher',
  off: ['compressor', 'drive'],
  sounds: {
    plain: { name: 'Plain', role: 'clean', pedals: { compressor: 'on' }, wants: { 'switcher/loop-5': 0 } },
    dosed: {
      name: 'Echo by the foot',
      role: 'solo',
      pedals: { drive: 'on' },
      wants: { 'switcher/loop-5': 1, 'echo/on': 1, 'echo/preset': 0 },
    },
  },
});

/** The insert of the switcher wraps the amp’s preamp. */
export const insertAroundPreamp = makerOf({
  text: `amp = valve amp two
guitar > 6 m > tuner > switcher = loop switcher, 10 loops
1: compressor; 2: drive soft; 3: drive hard
insert send > 6 m > amp input; amp send > 6 m > insert return
7: chorus; 8: delay = delay midi; 9: reverb = reverb midi
switcher > 6 m > amp return; amp > cabinet
switcher contact 1 > amp
midi: switcher > delay > reverb`,
  controller: 'switcher',
  off: ['compressor', 'drive-soft', 'drive-hard', 'chorus', 'delay', 'reverb'],
  sounds: {
    clean: {
      name: 'Clean',
      role: 'clean',
      pedals: { compressor: 'on', chorus: 'on', reverb: 'on' },
      wants: { 'amp/channel': 'clean', 'reverb/preset': 0 },
    },
    solo: {
      name: 'Solo',
      role: 'solo',
      pedals: { 'drive-soft': 'on', delay: 'on' },
      wants: { 'amp/channel': 'lead', 'delay/preset': 0 },
    },
  },
});

/** Everything plugs into the edge of the board; the playback computer calls the presets. */
export const compactBoard = makerOf({
  text: `panel = edge panel
guitar > 6 m > panel instrument in
panel instrument out > compressor = other device, always on > simulator = amp simulator > panel output in
panel output out > desk 10 m
player = song player
midi: player > simulator`,
  controller: 'player',
  sounds: {
    verse: { name: 'Verse', role: 'clean', wants: { 'simulator/preset': 0 } },
    chorus: { name: 'Chorus', role: 'chorus', wants: { 'simulator/preset': 1 } },
  },
});

/** A switcher in the modeller’s loop, and the modeller in the switcher’s: one preset goes through, one around. */
export const loopInLoop = makerOf({
  text: `hub = modeller two loops
guitar > 6 m > tuner > switcher = loop switcher, 4 loops
2: drive; 3: boost
switcher send 1 > hub in; hub send 1 > switcher return 1
switcher out > hub return 1
hub out left => left amp = valve amp one + right amp = valve amp one
left amp > left cabinet = cabinet; right amp > right cabinet = cabinet
midi: switcher > hub`,
  controller: 'switcher',
  presets: { hub: { 0: { ...modelled, 'loop-1': 1, 'loop-2': 0 }, 1: { ...modelled, 'loop-1': 0, 'loop-2': 0 } } },
  sounds: {
    through: {
      name: 'Through the drive',
      role: 'rhythm',
      pedals: { drive: 'on', boost: 'off' },
      wants: { 'switcher/loop-1': 1, 'hub/preset': 0 },
    },
    around: { name: 'Around it', role: 'clean', wants: { 'switcher/loop-1': 1, 'hub/preset': 1 } },
  },
});

/** Gate, boost and distortion in a row; clean is the distortion off, the simulated cabinet never. */
export const highGainLine = makerOf({
  text: `guitar > 6 m > boost > distortion > gate > multi = multi-effect midi > loader = cabinet simulation midi
loader > desk 10 m
floor = midi foot controller
midi: floor > multi > loader`,
  controller: 'floor',
  byFoot: ['boost', 'distortion', 'gate'],
  sounds: {
    clean: {
      name: 'Clean',
      role: 'clean',
      pedals: { boost: 'off', distortion: 'off', gate: 'off', multi: 'on' },
      wants: { 'multi/preset': 0, 'loader/preset': 0 },
    },
    wall: {
      name: 'Wall',
      role: 'rhythm',
      pedals: { boost: 'on', distortion: 'on', gate: 'on', multi: 'on' },
      wants: { 'multi/preset': 1, 'loader/preset': 0 },
    },
  },
});

/** In and out by one box; a modeller with a group of pedals in one loop and the other left for trying things. */
export const hubWithGroup = makerOf({
  text: `box = entry box
guitar > 6 m > box instrument in; box tuner tap > tuner
box instrument out > hub = modeller two loops
hub send 1 > looper = looping pedal > octave = other device, always on > hub return 1
hub out left > echo = delay midi > room = reverb midi > box return in
box return out > 6 m > amp = valve amp one > cabinet
floor = midi foot controller
midi: floor > hub > echo > room`,
  controller: 'floor',
  presets: { hub: { 0: { ...modelled, 'loop-1': 0, 'loop-2': 0 }, 1: { ...modelled, 'loop-1': 1, 'loop-2': 0 } } },
  sounds: {
    plain: {
      name: 'Plain',
      role: 'clean',
      pedals: { echo: 'off', room: 'on' },
      wants: { 'hub/preset': 0, 'room/preset': 0 },
    },
    layers: {
      name: 'Layers',
      role: 'colour',
      pedals: { echo: 'on', room: 'on' },
      wants: { 'hub/preset': 1, 'echo/preset': 0, 'room/preset': 1 },
    },
  },
});

/** Front chain and loop chain on one board, to the amp and back through one multi-core. */
export const throughMultiCore = makerOf({
  text: `core = multi-core; amp = valve amp two
guitar > 6 m > wah > drive > chorus > tuner > core amp in in
core amp in out > amp input; amp send > core amp send in
core amp send out > delay = delay midi > reverb = reverb midi > core amp return in; core amp return out > amp return
amp > cabinet
floor = midi foot controller ten switches
floor contact 1 > amp
midi: floor > delay > reverb`,
  controller: 'floor',
  byFoot: ['wah', 'drive', 'chorus'],
  sounds: {
    clean: {
      name: 'Clean',
      role: 'clean',
      pedals: { wah: 'off', drive: 'off', chorus: 'on', delay: 'off', reverb: 'on' },
      wants: { 'amp/channel': 'clean', 'reverb/preset': 0 },
    },
    solo: {
      name: 'Solo',
      role: 'solo',
      pedals: { wah: 'off', drive: 'on', chorus: 'off', delay: 'on', reverb: 'off' },
      wants: { 'amp/channel': 'lead', 'delay/preset': 0 },
    },
  },
});

/** The switcher chooses the amp’s channel and presses a pedal’s second switch; the foot doses the echo in the loop. */
export const secondSwitch = makerOf({
  text: `amp = valve amp two
guitar > 6 m > tuner > switcher = loop switcher, 8 loops
1: compressor; 2: drive = drive two stages remote; 3: boost
switcher > 6 m > amp input; amp send > 6 m > echo = delay midi > 6 m > amp return; amp > cabinet
switcher contact 1 > drive; switcher contact 2 > amp
midi: switcher > echo
pedal = expression`,
  controller: 'switcher',
  params: { echo: { mixByPedal: true } },
  then: 'pedal > echo expression',
  off: ['compressor', 'drive', 'boost', 'echo'],
  presets: { echo: { 0: { mix: 50 } } },
  sounds: {
    clean: {
      name: 'Clean',
      role: 'clean',
      pedals: { compressor: 'on' },
      wants: { 'amp/channel': 'clean' },
    },
    crunch: {
      name: 'Crunch',
      role: 'rhythm',
      pedals: { drive: 'on' },
      wants: { 'drive/second': 'low', 'amp/channel': 'clean' },
    },
    solo: {
      name: 'Solo',
      role: 'solo',
      pedals: { drive: 'on', echo: 'on' },
      wants: { 'drive/second': 'high', 'amp/channel': 'lead', 'echo/preset': 0 },
    },
  },
});

/** Four-cable with two power amps: one preamp, and stereo behind it. */
export const stereoFourCable = makerOf({
  text: `left amp = valve amp two; right amp = valve amp one
guitar > 6 m > tuner > switcher = loop switcher, 8 loops, the last 3 stereo
1: compressor; 2: drive
switcher send 5 > 6 m > left amp input; left amp send > 6 m > switcher return 5
switcher send 6 > chorus = chorus stereo => switcher return 6; switcher send 7 => delay = delay midi stereo => switcher return 7
switcher out left > 6 m > left amp return; switcher out right > 6 m > right amp return
left amp > left cabinet = cabinet; right amp > right cabinet = cabinet
switcher contact 1 > left amp
midi: switcher > delay`,
  controller: 'switcher',
  alone: { 'right-amp': ['return'] },
  off: ['compressor', 'drive', 'chorus', 'delay'],
  sounds: {
    clean: {
      name: 'Clean, wide',
      role: 'clean',
      pedals: { compressor: 'on', chorus: 'on' },
      wants: { 'left-amp/channel': 'clean', 'switcher/loop-5': 1 },
    },
    solo: {
      name: 'Solo',
      role: 'solo',
      pedals: { delay: 'on' },
      wants: { 'left-amp/channel': 'lead', 'switcher/loop-5': 1, 'delay/preset': 0 },
    },
  },
});

/** The dry amp in the middle, echo and room on either side of it. */
export const wetDryWet = makerOf({
  text: `guitar > 6 m > tuner > drive = drive two stages remote > amp = valve amp two
amp loudspeaker > tap box = loudspeaker tap box; tap box loudspeaker through > dry cabinet = cabinet
tap box line out > delay = delay midi stereo => reverb = reverb midi stereo => power = power amp stereo
power => left cabinet = cabinet + right cabinet = cabinet
floor = midi foot controller ten switches
midi: floor > delay > reverb
floor contact 1 > drive; floor contact 2 > amp`,
  controller: 'floor',
  sounds: {
    clean: {
      name: 'Clean, wide',
      role: 'clean',
      pedals: { drive: 'on', delay: 'off', reverb: 'on' },
      wants: { 'drive/second': 'low', 'amp/channel': 'clean', 'reverb/preset': 0 },
    },
    lead: {
      name: 'Lead',
      role: 'solo',
      pedals: { drive: 'on', delay: 'on', reverb: 'on' },
      wants: { 'drive/second': 'high', 'amp/channel': 'lead', 'delay/preset': 0, 'reverb/preset': 1 },
    },
  },
});

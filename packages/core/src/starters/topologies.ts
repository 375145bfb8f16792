import { layOut, setConvention, setDevice, setParam, setPreset } from '../change/commands.ts';
import type { Show } from '../model/documents.ts';
import type { Sound, StoredPreset } from '../model/rig.ts';
import { emptyShow } from './empty.ts';
import { RigMaker } from './show-maker.ts';

/** A rig as people would type it, with its sounds, and what lays them out. */
interface Topology {
  readonly text: string;
  readonly controller: string;
  readonly sounds: Readonly<Record<string, Partial<Sound>>>;
  /** Sound by sound all of these are off, unless it says otherwise. */
  readonly off?: readonly string[];
  /** Settings of pieces that are not typical, by device; then what is plugged in because of them. */
  readonly params?: Readonly<Record<string, Readonly<Record<string, unknown>>>>;
  readonly then?: string;
  /** Sends and returns that are used alone on purpose, by device. */
  readonly alone?: Readonly<Record<string, readonly string[]>>;
  /** Pedals that the foot switches itself. */
  readonly byFoot?: readonly string[];
  /** What presets hold, by device and number as sent. */
  readonly presets?: Readonly<Record<string, Readonly<Record<number, StoredPreset['values']>>>>;
}

/** Makes a rig of a topology: by the same text and commands that people use. */
export const makerOf =
  ({ text, controller, sounds, off = [], params = {}, then, byFoot = [], alone = {}, presets = {} }: Topology) =>
  (id: string, name: string): Show => {
    const maker = new RigMaker(emptyShow(id, name)).text(text);
    for (const [device, settings] of Object.entries(params))
      for (const [param, value] of Object.entries(settings)) maker.do(setParam(maker.show, device, param, value));
    if (then !== undefined) maker.text(then);
    for (const [device, jacks] of Object.entries(alone)) maker.do(setDevice(maker.show, device, 'oneWay', jacks));
    for (const device of byFoot) {
      maker.do(setDevice(maker.show, device, 'owners', { on: 'foot' }));
      maker.do(setDevice(maker.show, device, 'plannedSwitches', ['switch']));
    }
    if (byFoot.length > 0) maker.do(setConvention(maker.show, 'foot', 'mixed'));
    const allOff = Object.fromEntries(off.map((device) => [device, 'off' as const]));
    for (const [device, stored] of Object.entries(presets))
      for (const [number, values] of Object.entries(stored))
        maker.do(setPreset(maker.show, device, Number(number), { values }));
    for (const [sound, { name: called = sound, ...filled }] of Object.entries(sounds))
      maker.sound(sound, called, { ...filled, pedals: { ...allOff, ...filled.pedals } });
    return maker.do(layOut(maker.show, controller)).show;
  };

/** Left and right from the chorus on, each to an amp of its own. */
export const stereoAmps = makerOf({
  text: `guitar > 6 m > tuner > switcher = loop switcher, 8 loops, the last 3 stereo
1: compressor; 2: drive
send 6 > chorus = chorus stereo => return 6; send 7 => delay = delay midi stereo => return 7
send 8 => reverb = reverb midi stereo => return 8
switcher => 6 m => amp left = valve amp one + amp right = valve amp one
amp left > cabinet left = cabinet; amp right > cabinet right = cabinet
midi: switcher > delay > reverb`,
  controller: 'switcher',
  off: ['compressor', 'drive', 'chorus', 'delay', 'reverb'],
  sounds: {
    clean: { name: 'Clean', role: 'clean', pedals: { compressor: 'on', chorus: 'on' } },
    rhythm: { name: 'Rhythm', role: 'rhythm', pedals: { drive: 'on' } },
    solo: {
      name: 'Solo',
      role: 'solo',
      pedals: { drive: 'on', delay: 'on', reverb: 'on' },
      wants: { 'delay/preset': 0, 'reverb/preset': 0 },
    },
  },
});

/** A tap in the loudspeaker line: the dry cabinet goes on, the wet side has its own amp and cabinet. */
export const wetDry = makerOf({
  text: `guitar > 6 m > tuner > drive = drive two stages remote > amp
amp loudspeaker > tap box = loudspeaker tap box; tap box loudspeaker through > dry cabinet = cabinet
tap box line out > wet level = volume pedal for the loop > reverb = reverb midi stereo
reverb => power amp = power amp stereo => wet cabinet = cabinet stereo
floor = midi foot controller ten switches
midi: floor > reverb
floor contact 1 > drive; floor contact 2 > amp`,
  controller: 'floor',
  sounds: {
    clean: {
      name: 'Clean, wide',
      role: 'clean',
      pedals: { drive: 'on', reverb: 'on' },
      wants: { 'drive/second': 'low', 'amp/channel': 'clean', 'reverb/preset': 0 },
    },
    lead: {
      name: 'Lead',
      role: 'solo',
      pedals: { drive: 'on', reverb: 'on' },
      wants: { 'drive/second': 'high', 'amp/channel': 'lead', 'reverb/preset': 1 },
    },
  },
});

/** One bass on two lines that are both always on: clean by a direct box, driven by a simulated cabinet. */
export const bassTwoLines = makerOf({
  text: `bass > 6 m > tuner; tuner > direct box + drive = drive two stages remote
direct box line out > clean line = line to the desk 10 m
drive > cabinet simulation > driven line = line to the desk 10 m
floor = footswitch two contacts
floor contact 1 > drive`,
  controller: 'floor',
  sounds: {
    round: { name: 'Round', role: 'rhythm', pedals: { drive: 'on' }, wants: { 'drive/second': 'low' } },
    growl: { name: 'Growl', role: 'chorus', pedals: { drive: 'on' }, wants: { 'drive/second': 'high' } },
  },
});

/** Low and high of a bass apart: the drive works on the high band only, the low stays whole. */
export const bandSplitBass = makerOf({
  text: `bass > 6 m > tuner > switcher = loop switcher, 4 loops
1: compressor; 2: octave
switcher > split = band split > cabinet simulation > desk 10 m
split high send > drive = drive two stages remote > split high return
switcher contact 1 > drive`,
  controller: 'switcher',
  off: ['compressor', 'octave'],
  sounds: {
    clean: {
      name: 'Fingers',
      role: 'rhythm',
      pedals: { compressor: 'on', drive: 'on' },
      wants: { 'drive/second': 'low' },
    },
    driven: { name: 'Driven', role: 'chorus', pedals: { drive: 'on' }, wants: { 'drive/second': 'high' } },
    deep: { name: 'Deep', role: 'colour', pedals: { octave: 'on', drive: 'on' }, wants: { 'drive/second': 'low' } },
  },
});

/** An electric and an acoustic by a selector; the acoustic has its own equaliser before it. */
export const twoGuitars = makerOf({
  text: `guitar > 6 m > selector a; acoustic = acoustic guitar > 6 m > acoustic preamp > selector b
selector > tuner > switcher = loop switcher, 6 loops
1: compressor; 2: drive; 3: delay = delay midi; 4: reverb = reverb midi
switcher > direct box > amp = valve amp one > cabinet
direct box line out > desk 10 m
midi: switcher > delay > reverb`,
  controller: 'switcher',
  off: ['compressor', 'drive', 'delay', 'reverb'],
  sounds: {
    strum: {
      name: 'Acoustic',
      role: 'clean',
      pedals: { compressor: 'on', reverb: 'on' },
      wants: { 'selector/input': 'B', 'reverb/preset': 0 },
    },
    rhythm: { name: 'Rhythm', role: 'rhythm', pedals: { drive: 'on' }, wants: { 'selector/input': 'A' } },
    solo: {
      name: 'Solo',
      role: 'solo',
      pedals: { drive: 'on', delay: 'on' },
      wants: { 'selector/input': 'A', 'delay/preset': 0 },
    },
  },
});

/** A normalled insert in mid-chain holds volume and boost: both act after the drives; pulled, it closes itself. */
export const insertAfterDrives = makerOf({
  text: `guitar > 6 m > tuner > switcher = loop switcher, 10 loops
1: compressor; 2: drive soft; 3: drive hard
insert send > volume > boost > insert return
6: chorus; 7: delay = delay midi
switcher > 6 m > amp = valve amp one > cabinet
midi: switcher > delay`,
  controller: 'switcher',
  off: ['compressor', 'drive-soft', 'drive-hard', 'chorus', 'delay'],
  sounds: {
    clean: { name: 'Clean', role: 'clean', pedals: { compressor: 'on', chorus: 'on' } },
    rhythm: { name: 'Rhythm', role: 'rhythm', pedals: { 'drive-soft': 'on' } },
    solo: { name: 'Solo', role: 'solo', pedals: { 'drive-hard': 'on', delay: 'on' }, wants: { 'delay/preset': 0 } },
  },
});

/** One multi-effect of two channels in two loops: before the drive in one sound, after it in another. */
export const effectTwice = makerOf({
  text: `guitar > 6 m > tuner > switcher = loop switcher, 8 loops
multi = multi-effect midi two channels
send 1 > multi in left; multi out left > return 1
2: drive soft; 3: drive hard
send 5 > multi in right; multi out right > return 5
switcher > 6 m > amp = valve amp one > cabinet
midi: switcher > multi`,
  controller: 'switcher',
  off: ['drive-soft', 'drive-hard'],
  presets: { multi: { 0: { mode: 'two channels' }, 1: { mode: 'two channels' } } },
  sounds: {
    early: {
      name: 'Swirl into the drive',
      role: 'rhythm',
      pedals: { 'drive-soft': 'on' },
      wants: {
        'switcher/loop-1': 1,
        'switcher/loop-5': 0,
        'multi/on': 1,
        'multi/preset': 0,
      },
    },
    late: {
      name: 'Drive into the echo',
      role: 'solo',
      pedals: { 'drive-hard': 'on' },
      wants: {
        'switcher/loop-1': 0,
        'switcher/loop-5': 1,
        'multi/on': 1,
        'multi/preset': 1,
      },
    },
    plain: { name: 'Plain', role: 'clean', wants: { 'switcher/loop-1': 0, 'switcher/loop-5': 0 } },
  },
});

/** Three amps, one a gain family, chosen by two contacts. */
export const threeAmps = makerOf({
  text: `guitar > 6 m > tuner > switcher = loop switcher, 6 loops
1: compressor; 2: boost; 3: delay = delay midi
switcher > router = router three by contacts
router out a > clean amp = valve amp one; router out b > crunch amp = valve amp one; router out c > lead amp = valve amp one
clean amp > clean cabinet = cabinet; crunch amp > crunch cabinet = cabinet; lead amp > lead cabinet = cabinet
switcher contact 1 > router remote 1; switcher contact 2 > router remote 2
midi: switcher > delay`,
  controller: 'switcher',
  off: ['compressor', 'boost', 'delay'],
  sounds: {
    clean: { name: 'Clean', role: 'clean', pedals: { compressor: 'on' }, wants: { 'router/output': 'A' } },
    crunch: { name: 'Crunch', role: 'rhythm', wants: { 'router/output': 'B' } },
    lead: { name: 'Lead', role: 'solo', pedals: { boost: 'on' }, wants: { 'router/output': 'C' } },
  },
});

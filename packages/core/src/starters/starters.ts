import {
  loopingHub,
  modellerAsHub,
  modellerInTheMiddle,
  oneMove,
  silentStage,
  smallAmpLess,
  storedOrder,
} from './storing-topologies.ts';
import { layOut } from '../change/commands.ts';
import type { Show } from '../model/documents.ts';
import {
  compactBoard,
  dosedEcho,
  highGainLine,
  hubWithGroup,
  insertAroundPreamp,
  loopInLoop,
  presetsForOff,
  secondSwitch,
  stereoFourCable,
  throughMultiCore,
  wetDryWet,
} from './more-topologies.ts';
import { emptyShow } from './empty.ts';
import { RigMaker } from './show-maker.ts';
import {
  bandSplitBass,
  bassTwoLines,
  effectTwice,
  insertAfterDrives,
  stereoAmps,
  threeAmps,
  twoGuitars,
  wetDry,
} from './topologies.ts';

/** A rig to begin with, by topology: wired, with two or three sounds that recall as they stand. */
export interface Starter {
  readonly id: StarterId;
  readonly name: string;
  /** What it is, in a sentence. */
  readonly says: string;
  readonly make: (id: string, name: string) => Show;
}

export const starterIds = [
  'pedals-into-amp',
  'switcher-in-front',
  'four-cable',
  'amp-less',
  'two-amps',
  'insert-after-drives',
  'two-guitars',
  'effect-twice',
  'stereo-amps',
  'three-amps',
  'wet-dry',
  'bass-two-lines',
  'band-split',
  'presets-for-off',
  'dosed-echo',
  'insert-around-preamp',
  'second-switch',
  'multi-core',
  'stereo-four-cable',
  'wet-dry-wet',
  'compact-board',
  'high-gain-line',
  'hub-with-group',
  'loop-in-loop',
  'stored-order',
  'modeller-in-the-middle',
  'silent-stage',
  'one-move',
  'modeller-as-hub',
  'looping-hub',
  'small-amp-less',
] as const;
export type StarterId = (typeof starterIds)[number];

const begin = (id: string, name: string): RigMaker => new RigMaker(emptyShow(id, name));
const finished = (maker: RigMaker, controller: string): Show => maker.do(layOut(maker.show, controller)).show;

/** Guitar and tuner into a switcher, a drive in its first loop: how three of them begin. */
const intoSwitcher = (maker: RigMaker, type: string, place = 'board'): RigMaker =>
  maker
    .device('guitar', 'guitar', 'Guitar')
    .device('tuner', 'tuner', 'Tuner')
    .device('switcher', type, 'Switcher', { place })
    .device('drive', 'drive', 'Drive')
    .cable('Guitar > Tuner', 6)
    .cable('Tuner > Switcher In', null)
    .cable('Switcher Send 1 > Drive', null)
    .cable('Drive > Switcher Return 1', null);

function pedalsIntoAmp(id: string, name: string): Show {
  const maker = begin(id, name)
    .device('guitar', 'guitar', 'Guitar')
    .device('tuner', 'tuner', 'Tuner')
    .device('drive', 'drive', 'Drive', { plannedSwitches: ['switch'], owners: { on: 'foot' } })
    .device('amp', 'valve-combo', 'Amp')
    .device('delay', 'midi-delay', 'Delay', { channel: 1 })
    .device('cabinet', 'cabinet', 'Cabinet')
    .device('floor', 'foot-controller', 'Foot controller', {}, { contacts: 1 })
    .cable('Guitar > Tuner', 6)
    .cable('Tuner > Drive', null)
    .cable('Drive > Amp Input', 6)
    .cable('Amp Send > Delay', 6)
    .cable('Delay Out > Amp Return', 6)
    .cable('Amp Loudspeaker > Cabinet', null)
    .cable('Foot controller MIDI out > Delay MIDI in', null)
    .cable('Foot controller Contact 1 > Amp Remote 1', 6)
    .sound('clean', 'Clean', {
      role: 'clean',
      pedals: { drive: 'off', delay: 'off' },
      wants: { 'amp/channel': 'clean' },
    })
    .sound('lead', 'Lead', {
      role: 'solo',
      pedals: { drive: 'off', delay: 'on' },
      wants: { 'amp/channel': 'lead', 'delay/preset': 0 },
    });
  return withSchool(finished(maker, 'floor'), 'mixed');
}

const withSchool = (show: Show, foot: 'mixed'): Show => ({
  ...show,
  rig: { ...show.rig, settings: { ...show.rig.settings, conventions: { foot } } },
});

function switcherInFront(id: string, name: string): Show {
  const maker = begin(id, name)
    .device('guitar', 'guitar', 'Guitar')
    .device('tuner', 'tuner', 'Tuner')
    .device('switcher', 'switcher-8', 'Switcher')
    .device('compressor', 'compressor', 'Compressor')
    .device('drive-1', 'drive', 'Drive 1')
    .device('drive-2', 'drive', 'Drive 2')
    .device('chorus', 'modulation', 'Chorus')
    .device('delay', 'midi-delay', 'Delay', { channel: 1 })
    .device('amp', 'valve-amp-1', 'Amp')
    .device('cabinet', 'cabinet', 'Cabinet')
    .cable('Guitar > Tuner', 6)
    .cable('Tuner > Switcher In', null);
  for (const [i, pedal] of ['Compressor', 'Drive 1', 'Drive 2', 'Chorus', 'Delay'].entries())
    maker.cable(`Switcher Send ${i + 1} > ${pedal} In`, null).cable(`${pedal} Out > Switcher Return ${i + 1}`, null);
  maker
    .cable('Switcher Out > Amp Input', 6)
    .cable('Amp Loudspeaker > Cabinet', null)
    .cable('Switcher MIDI out > Delay MIDI in', null);
  const off = { compressor: 'off', 'drive-1': 'off', 'drive-2': 'off', chorus: 'off', delay: 'off' } as const;
  maker
    .sound('clean', 'Clean', { role: 'clean', pedals: { ...off, compressor: 'on', chorus: 'on' } })
    .sound('rhythm', 'Rhythm', { role: 'rhythm', pedals: { ...off, 'drive-1': 'on' } })
    .sound('solo', 'Solo', {
      role: 'solo',
      pedals: { ...off, 'drive-1': 'on', 'drive-2': 'on', delay: 'on' },
      wants: { 'delay/preset': 0 },
    });
  return finished(maker, 'switcher');
}

function fourCable(id: string, name: string): Show {
  const maker = intoSwitcher(begin(id, name), 'switcher-4', 'switcher')
    .device('amp', 'valve-combo', 'Amp')
    .device('delay', 'midi-delay', 'Delay', { channel: 1 })
    .device('cabinet', 'cabinet', 'Cabinet')
    .cable('Switcher Send 2 > Amp Input', 6)
    .cable('Amp Send > Switcher Return 2', 6)
    .cable('Switcher Send 3 > Delay', null)
    .cable('Delay Out > Switcher Return 3', null)
    .cable('Switcher Out > Amp Return', 6)
    .cable('Amp Loudspeaker > Cabinet', null)
    .cable('Switcher MIDI out > Delay MIDI in', null)
    .cable('Switcher Contact 1 > Amp Remote 1', 6)
    .sound('clean', 'Clean', {
      role: 'clean',
      pedals: { drive: 'off', amp: 'on', delay: 'off' },
      wants: { 'amp/channel': 'clean' },
    })
    .sound('rhythm', 'Rhythm', {
      role: 'rhythm',
      pedals: { drive: 'on', amp: 'on', delay: 'off' },
      wants: { 'amp/channel': 'clean' },
    })
    .sound('solo', 'Solo', {
      role: 'solo',
      pedals: { drive: 'on', amp: 'on', delay: 'on' },
      wants: { 'amp/channel': 'lead', 'delay/preset': 0 },
    });
  return finished(maker, 'switcher');
}

function ampLess(id: string, name: string): Show {
  const maker = intoSwitcher(begin(id, name), 'switcher-4')
    .device('preamp', 'preamp', 'Preamp')
    .device('delay', 'midi-delay', 'Delay', { channel: 1 })
    .device('reverb', 'midi-reverb', 'Reverb', { channel: 2 })
    .device('cabinet-simulation', 'cabinet-simulation', 'Cabinet simulation')
    .device('desk', 'desk', 'Desk')
    .cable('Switcher Out > Preamp Input', null)
    .cable('Preamp Send > Delay', null)
    .cable('Delay Out > Reverb In', null)
    .cable('Reverb Out > Preamp Return', null)
    .cable('Preamp Line out > Cabinet simulation', null)
    .cable('Cabinet simulation > Desk', 10)
    .cable('Switcher MIDI out > Delay MIDI in', null)
    .cable('Delay MIDI through > Reverb MIDI in', null)
    .cable('Switcher Contact 1 > Preamp Remote 1', null)
    .sound('clean', 'Clean', {
      role: 'clean',
      pedals: { drive: 'off', delay: 'off', reverb: 'on' },
      wants: { 'preamp/channel': 'clean', 'reverb/preset': 0 },
    })
    .sound('rhythm', 'Rhythm', {
      role: 'rhythm',
      pedals: { drive: 'on', delay: 'off', reverb: 'off' },
      wants: { 'preamp/channel': 'clean' },
    })
    .sound('solo', 'Solo', {
      role: 'solo',
      pedals: { drive: 'on', delay: 'on', reverb: 'on' },
      wants: { 'preamp/channel': 'lead', 'delay/preset': 0, 'reverb/preset': 1 },
    });
  return finished(maker, 'switcher');
}

function twoAmps(id: string, name: string): Show {
  const maker = intoSwitcher(begin(id, name), 'switcher-8')
    .device('delay', 'midi-delay', 'Delay', { channel: 1 })
    .device('splitter', 'splitter', 'A/B/Y box')
    .device('amp-a', 'valve-amp-1', 'Amp A', {}, { channels: ['crunch'] })
    .device('cabinet-a', 'cabinet', 'Cabinet A')
    .device('amp-b', 'valve-amp-1', 'Amp B')
    .device('cabinet-b', 'cabinet', 'Cabinet B')
    .cable('Switcher Out > A/B/Y box In', null)
    .cable('A/B/Y box Out A > Amp A Input', 6)
    .cable('A/B/Y box Out B > Delay', null)
    .cable('Delay Out > Amp B Input', 6)
    .cable('Amp A Loudspeaker > Cabinet A', null)
    .cable('Amp B Loudspeaker > Cabinet B', null)
    .cable('Switcher MIDI out > Delay MIDI in', null)
    .cable('Switcher Contact 1 > A/B/Y box Remote 1', null)
    .cable('Switcher Contact 2 > A/B/Y box Remote 2', null)
    .sound('crunch', 'Crunch', {
      role: 'rhythm',
      pedals: { drive: 'off', delay: 'off' },
      wants: { 'splitter/way': 'A' },
    })
    .sound('clean', 'Clean with echo', {
      role: 'clean',
      pedals: { drive: 'off', delay: 'on' },
      wants: { 'splitter/way': 'B', 'delay/preset': 0 },
    })
    .sound('wide', 'Both, driven', {
      role: 'solo',
      pedals: { drive: 'on', delay: 'on' },
      wants: { 'splitter/way': 'both', 'delay/preset': 1 },
    });
  return finished(maker, 'switcher');
}

/** In the order in which they are offered: simplest first. */
export const starters: readonly Starter[] = [
  {
    id: 'pedals-into-amp',
    name: 'Pedals into an amp',
    says: 'A drive in front, a delay in the amp’s loop, a small foot controller for channel and presets.',
    make: pedalsIntoAmp,
  },
  {
    id: 'switcher-in-front',
    name: 'Switcher in front',
    says: 'Every pedal in a loop of its own, all of it before the amp.',
    make: switcherInFront,
  },
  {
    id: 'four-cable',
    name: 'Four-cable',
    says: 'The switcher wraps the amp’s preamp: drives before it, echoes after it.',
    make: fourCable,
  },
  {
    id: 'amp-less',
    name: 'Without an amp',
    says: 'A preamp with its own loop, cabinet simulation, and a line to the desk.',
    make: ampLess,
  },
  {
    id: 'two-amps',
    name: 'Two amps by A/B/Y',
    says: 'One or the other or both, chosen by the switcher’s contacts.',
    make: twoAmps,
  },
  {
    id: 'insert-after-drives',
    name: 'Volume and boost after the drives',
    says: 'They stand in a normalled insert of the switcher: pulled out, the line closes itself.',
    make: insertAfterDrives,
  },
  {
    id: 'two-guitars',
    name: 'Electric and acoustic',
    says: 'A selector before the board; amp and a direct line to the desk behind it.',
    make: twoGuitars,
  },
  {
    id: 'effect-twice',
    name: 'One effect in two places',
    says: 'Its two channels stand in two loops: before the drive in one sound, after it in another.',
    make: effectTwice,
  },
  {
    id: 'stereo-amps',
    name: 'Two amps in stereo',
    says: 'The last loops are stereo; left and right each have an amp.',
    make: stereoAmps,
  },
  {
    id: 'three-amps',
    name: 'Three amps',
    says: 'One a gain family, chosen by two contacts of the switcher.',
    make: threeAmps,
  },
  {
    id: 'wet-dry',
    name: 'Wet and dry',
    says: 'A tap in the loudspeaker line; reverb, power amp and cabinet of their own on the wet side.',
    make: wetDry,
  },
  {
    id: 'bass-two-lines',
    name: 'Bass on two lines',
    says: 'Clean by a direct box, driven by a simulated cabinet, both always on.',
    make: bassTwoLines,
  },
  {
    id: 'band-split',
    name: 'Bass in two bands',
    says: 'The drive works on the high band only.',
    make: bandSplitBass,
  },
  {
    id: 'presets-for-off',
    name: 'Echoes off by a preset',
    says: 'Volume always in; behind the switcher, echoes whose preset for off has nothing wet in it.',
    make: presetsForOff,
  },
  {
    id: 'dosed-echo',
    name: 'Echo by the foot',
    says: 'A loop beside the line: a volume pedal in it doses the echo alone.',
    make: dosedEcho,
  },
  {
    id: 'insert-around-preamp',
    name: 'Insert around the preamp',
    says: 'The switcher’s insert holds the amp’s preamp, so that the loops behind it come after its gain.',
    make: insertAroundPreamp,
  },
  {
    id: 'second-switch',
    name: 'Stages and channels by contact',
    says: 'The switcher presses a drive’s second switch and the amp’s; a foot doses the echo in its loop.',
    make: secondSwitch,
  },
  {
    id: 'multi-core',
    name: 'Through a multi-core',
    says: 'A front chain and a loop chain on one board, to the amp and back by one cable.',
    make: throughMultiCore,
  },
  {
    id: 'stereo-four-cable',
    name: 'Four-cable in stereo',
    says: 'One preamp, and stereo behind it into two power amps.',
    make: stereoFourCable,
  },
  {
    id: 'wet-dry-wet',
    name: 'Wet, dry, wet',
    says: 'The dry amp in the middle, echo and room on either side.',
    make: wetDryWet,
  },
  {
    id: 'compact-board',
    name: 'Compact board',
    says: 'Everything plugs into its edge; a song player calls the presets of an amp simulator.',
    make: compactBoard,
  },
  {
    id: 'high-gain-line',
    name: 'High gain to the desk',
    says: 'Boost, distortion and gate by foot; a multi-effect and a cabinet simulation by message.',
    make: highGainLine,
  },
  {
    id: 'hub-with-group',
    name: 'Modeller with a group in its loop',
    says: 'In and out by an entry box; one loop holds a group of pedals, the other is free for trying things.',
    make: hubWithGroup,
  },
  {
    id: 'loop-in-loop',
    name: 'A loop inside a loop',
    says: 'One preset sends the line through the switcher, another around it in stereo.',
    make: loopInLoop,
  },
  {
    id: 'stored-order',
    name: 'Order by slot',
    says: 'A switcher whose slots store the order of its loops: the echo behind the drive, or into it.',
    make: storedOrder,
  },
  {
    id: 'modeller-in-the-middle',
    name: 'Modeller in the middle',
    says: 'Pedals before it, a reverb behind it, a line to the desk; blocks and their order by preset.',
    make: modellerInTheMiddle,
  },
  {
    id: 'silent-stage',
    name: 'Silent stage',
    says: 'An amp simulator with a delay in its loop, which its own preset moves; a drive’s stage by contact.',
    make: silentStage,
  },
  {
    id: 'one-move',
    name: 'One press moves several',
    says: 'A multi-effect whose assignment moves gain and echo between two stored values.',
    make: oneMove,
  },
  {
    id: 'modeller-as-hub',
    name: 'Modeller as hub',
    says: 'Pedals before it and in one of its loops, stereo to the desk, in by the board’s edge.',
    make: modellerAsHub,
  },
  {
    id: 'looping-hub',
    name: 'Looping station in the loop',
    says: 'Two guitars by a selector, percussion beside them; a song player sends the memory.',
    make: loopingHub,
  },
  {
    id: 'small-amp-less',
    name: 'Small board without an amp',
    says: 'A drive with a gate right behind it, an acoustic preamp as notch and room, a line to the desk.',
    make: smallAmpLess,
  },
];

export const starterById = (id: StarterId): Starter => starters.find((starter) => starter.id === id)!;

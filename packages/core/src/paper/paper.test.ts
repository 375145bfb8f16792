import { expect, test } from '@jest/globals';
import type { Show } from '../model/documents.ts';
import { buildWiring } from '../model/wiring.ts';
import { clean, fourCable, lead, ShowBuilder } from '../testing/build-show.ts';
import { proverOf } from '../recall/prove/prover-of.ts';
import { hallwayRig } from '../demo/by-feet.ts';
import { footPlan, partPlans } from '../recall/replay/foot-plan.ts';
import { twoInstruments } from '../testing/instrument-rigs.ts';
import { cueSheet } from './cue-sheet.ts';
import { patchList } from './patch-list.ts';
import { saidBy, type Sheet } from './sheet.ts';
import { worksheet } from './worksheet.ts';

const made = (): Show =>
  fourCable()
    .sound('lead', { ...lead, wants: { ...lead.wants, 'guitar/selector': 'neck' } })
    .sound('clean', clean)
    .laid().show;
const group = (sheet: Sheet, heading: string) =>
  sheet.groups.find((group) => group.heading.startsWith(heading))!.lines.map((line) => line.cells);

test('the patch list has every cable once, by kind, with the loudspeaker caution', () => {
  const { rig } = made();
  const sheet = patchList(made(), buildWiring(rig));
  expect(sheet.groups.map((group) => [group.heading, group.lines.length])).toEqual([
    ['Signal', 8],
    ['Loudspeaker', 1],
    ['MIDI', 1],
    ['Contacts', 1],
  ]);
  expect(sheet.groups.flatMap((group) => group.lines)).toHaveLength(Object.keys(rig.cables).length);
  expect(group(sheet, 'MIDI')[0].slice(1, 3)).toEqual(['Switcher, MIDI out', 'Delay, MIDI in']);
  expect(sheet.notes.join()).toContain('rated load');
});

test('the programming sheet begins with each device’s settings, then presets, then slots with their bytes', () => {
  const show = made();
  const sheet = worksheet(show, buildWiring(show.rig));
  expect(sheet.groups.map((group) => group.heading)).toEqual([
    'Switcher',
    'Combo',
    'Delay',
    'Switcher, bank 1, switch 1: Lead',
    'Switcher, bank 1, switch 2: Clean',
  ]);
  expect(group(sheet, 'Delay').map((cells) => cells.slice(0, 2))).toEqual([
    ['Receive channel', '2'],
    ['MIDI through jack', 'not used'],
    ['Bank select', 'none'],
    ['Level switch', 'instrument'],
    ['Trails when bypassed', 'ring on'],
    ['Control change 102', 'On'],
    ['Control change 20', 'Mix'],
    ['Preset 6', 'content not entered'],
  ]);
  expect(
    group(sheet, 'Switcher, bank 1, switch 1')
      .map((cells) => cells[2])
      .filter(Boolean),
  ).toEqual(['C1 05', 'B1 66 7F']);
});

test('what the switcher does beside its slots is on the sheet: at power-up, at a momentary switch, when it is called', () => {
  const show = made();
  const [first, second] = Object.keys(show.rig.slots);
  const { switcher } = show.rig.devices;
  const told: Show['rig']['devices'][string] = {
    ...switcher,
    type: { ...switcher.type, params: { ...switcher.type.params, momentaries: 1 } },
    powerUpSlot: second,
    calls: { channel: 4, programs: { '9': first } },
    momentaries: {
      'momentary-1': {
        press: [
          { kind: 'save', control: 'loop-2' },
          { kind: 'control', channel: 2, cc: 102, value: 127 },
        ],
        release: [{ kind: 'restore', control: 'loop-2' }],
      },
    },
  };
  const rig = { ...show.rig, devices: { ...show.rig.devices, switcher: told } };
  const before = group(worksheet(show, buildWiring(show.rig)), 'Switcher').map((cells) => cells.join('|'));
  const lines = group(worksheet({ ...show, rig }, buildWiring(rig)), 'Switcher').map((cells) => cells.join('|'));
  expect(lines.filter((line) => !before.includes(line))).toEqual([
    'At power-up|fires bank 1, switch 2||',
    'Momentary 1, pressed|Remember Loop 2||',
    'Momentary 1, pressed|Control 102 = 127, channel 2: Delay|B1 66 7F|',
    'Momentary 1, released|Loop 2 as remembered||',
    'Program change 9, channel 4|presses bank 1, switch 1|C3 09|',
  ]);
});

test('a line says something else once what it stands for has changed, under the same id', () => {
  const show = made();
  const moved: Show = {
    ...show,
    rig: { ...show.rig, devices: { ...show.rig.devices, delay: { ...show.rig.devices.delay, channel: 7 } } },
  };
  const line = (of: Show) =>
    worksheet(of, buildWiring(of.rig))
      .groups.flatMap((group) => group.lines)
      .find((sheetLine) => sheetLine.id === 'device/delay/channel')!;
  expect(saidBy(line(show))).not.toBe(saidBy(line(moved)));
  const ids = worksheet(show, buildWiring(show.rig)).groups.flatMap((group) => group.lines.map((line) => line.id));
  expect(new Set(ids).size).toBe(ids.length);
  expect(ids.every((id) => id.length <= 200)).toBe(true);
});

test('the cue sheet says part by part what to press and what the hands do', () => {
  const show = made();
  const sheet = cueSheet(show, buildWiring(show.rig), partPlans(proverOf(show)));
  expect(sheet.groups[0].heading).toBe('1. Song · no tempo');
  expect(group(sheet, '1. Song')).toEqual([
    ['lead', '', '1·1', 'Lead', '', 'Guitar selector neck'],
    ['clean', '', '1·2', 'Clean', '', ''],
  ]);
});

test('the cue sheet of a rig by feet: what to press when, and how to be sure of a sound', () => {
  const show = hallwayRig();
  const prover = proverOf(show);
  const sheet = cueSheet(show, buildWiring(show.rig), partPlans(prover), footPlan(prover)!.resets);
  expect(sheet.groups[0].lines.map(({ cells }) => cells)).toEqual([
    ['intro', '4', 'by feet', 'Bright', 'before: Drive, Echo', 'before: Guitar volume 8'],
    ['verse', '16', 'by feet', 'Warm', 'on: Echo', 'on: Guitar selector neck'],
    ['end', '8', 'by feet', 'Loud', 'on: Drive, Preamp', 'on: Guitar selector bridge, Guitar volume 10'],
  ]);
  expect(sheet.notes).toEqual([
    'To be sure of Bright: look at Drive, Preamp, Echo: no press sets it.',
    'To be sure of Warm: look at Drive, Preamp, Echo: no press sets it.',
    'To be sure of Loud: look at Drive, Preamp, Echo: no press sets it.',
  ]);
});

test('the patch list says which poles a cord joins where it is not straight', () => {
  const { show } = new ShowBuilder()
    .text('guitar; reverb = reverb stereo')
    .device('chorus', 'chorus-stereo', 'Chorus', {}, { stereoJacks: 'one jack' })
    .text('guitar > chorus => reverb');
  expect(patchList(show, buildWiring(show.rig)).notes).toEqual([
    'C02 is wired: tip of Chorus, Out to tip of Reverb, In left; ring of Chorus, Out to tip of Reverb, In right.',
  ]);
});

test('a cue sheet tells which input an instrument is in, and asks nothing of one that waits', () => {
  const { rig, songbook } = twoInstruments(['Guitar', 'Acoustic'], { 'guitar/selector': 'neck' });
  const show = { rig, songbook };
  const { groups } = cueSheet(show, buildWiring(rig), []);
  expect(groups.map(({ heading }) => heading)).toEqual([
    '1. Song 1 · no tempo · Guitar (Selector In A)',
    '2. Song 2 · no tempo · Acoustic (Selector In B)',
  ]);
  expect(groups.map(({ lines }) => lines[0].cells.at(-1))).toEqual(['Guitar selector neck', '']);
});

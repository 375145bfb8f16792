import { addPart, addSetList, addSong, layOut, setPart, setSetList, setSong } from '../change/commands.ts';
import { setBoard, setReels } from '../change/build.ts';
import { setSpot } from '../build/arrangement.ts';
import type { PartRow } from '../model/pack.ts';
import { putInCase, setPacking } from '../pack/cases.ts';
import { neededParts, setShopping } from '../pack/parts.ts';
import { setPowerSettings } from '../change/power.ts';
import type { Show } from '../model/documents.ts';
import type { Action, Device } from '../model/rig.ts';
import { emptyShow } from '../starters/empty.ts';
import { RigMaker } from '../starters/show-maker.ts';
import { type DemoSound, demoSetLists, demoSongs, demoSounds, echoPresets } from './songs.ts';

const presets: Device['presets'] = Object.fromEntries(
  echoPresets.map(([number, name, mix, sync]) => [
    String(number),
    { name, values: { mix }, ...(sync === undefined ? {} : { sync }) },
  ]),
);
const pedals = ['comp', 'drive-1', 'drive-2', 'chorus', 'echo', 'hall'] as const;

/** What both rigs begin with: guitar, tuner, and the first three loops. */
const frontEnd = (maker: RigMaker, switcher: string): RigMaker =>
  maker
    .device('guitar', 'guitar', 'Guitar')
    .device('tuner', 'tuner', 'Tuner')
    .device('switcher', switcher, 'Switcher', { place: 'switcher' })
    .device('comp', 'compressor', 'Compressor')
    .device('drive-1', 'drive', 'Drive 1, soft')
    .device('drive-2', 'drive', 'Drive 2, hard')
    .cable('Guitar > Tuner', 6)
    .cable('Tuner > Switcher In', 0.4)
    .cable('Switcher Send 1 > Compressor', 0.3)
    .cable('Compressor > Switcher Return 1', 0.3)
    .cable('Switcher Send 2 > Drive 1, soft', 0.3)
    .cable('Drive 1, soft > Switcher Return 2', 0.3)
    .cable('Switcher Send 3 > Drive 2, hard', 0.3)
    .cable('Drive 2, hard > Switcher Return 3', 0.3);

/** The demo: the guitarist's four-cable rig on the river boat, with a few honest mistakes left in. */
export function demoShow(): Show {
  const maker = frontEnd(new RigMaker(emptyShow('river-boat', 'River-boat combo rig')), 'switcher-10');
  maker
    .device('combo', 'valve-combo', 'Combo')
    .device('chorus', 'modulation', 'Chorus')
    .device('echo', 'midi-delay', 'Echo', { channel: 2, presets })
    .device('hall', 'midi-reverb', 'Hall', { channel: 3 })
    .device('cab', 'cabinet', 'Cabinet');
  maker
    .cable('Switcher Send 4 > Combo Input', 5)
    .cable('Combo Send > Switcher Return 4', 5)
    .cable('Switcher Send 5 > Chorus', 0.4)
    .cable('Chorus > Switcher Return 5', 0.4)
    .cable('Switcher Send 6 > Echo', 0.4)
    .cable('Echo Out > Switcher Return 6', 0.4)
    .cable('Switcher Send 7 > Hall', 0.4)
    .cable('Hall Out > Switcher Return 7', 0.4)
    .cable('Switcher Out > Combo Return', 5)
    .cable('Combo Loudspeaker > Cabinet', 1)
    .cable('Switcher MIDI out > Echo MIDI in', 0.6)
    .cable('Echo MIDI through > Hall MIDI in', 0.3)
    .cable('Switcher Contact 1 > Combo Remote 1', 5);
  demoSounds.forEach((sound, i) =>
    maker.sound(`sound-${i + 1}`, sound.name, {
      role: sound.role,
      pedals: {
        combo: 'on',
        ...Object.fromEntries(pedals.map((pedal) => [pedal, sound.on.includes(pedal) ? 'on' : 'off'])),
      },
      wants: wantsOf(sound, { channel: 'combo/channel', echo: 'echo/preset', hall: 'hall/preset' }),
    }),
  );
  maker.do(layOut(maker.show, 'switcher'));
  songbook(maker);
  power(maker);
  board(maker);
  pack(maker, 'ground');
  mistakes(maker);
  return maker.show;
}

/** The same guitarist without an amp, for the leg that flies: fewer pieces, the same songs. */
export function flyShow(): Show {
  const maker = frontEnd(new RigMaker(emptyShow('fly', 'Fly rig, no amp')), 'switcher-8');
  maker
    .device('preamp', 'preamp', 'Preamp')
    .device('echo', 'midi-delay', 'Echo', { channel: 2, presets })
    .device('hall', 'midi-reverb', 'Hall', { channel: 3 })
    .device('cabsim', 'cabinet-simulation', 'Cabinet simulation')
    .device('desk', 'desk', 'Desk');
  maker
    .cable('Switcher Out > Preamp Input', 0.4)
    .cable('Preamp Send > Echo In', 0.4)
    .cable('Echo Out > Hall In', 0.3)
    .cable('Hall Out > Preamp Return', 0.4)
    .cable('Preamp Line out > Cabinet simulation', 0.3)
    .cable('Cabinet simulation > Desk', 10)
    .cable('Switcher MIDI out > Echo MIDI in', 0.6)
    .cable('Echo MIDI through > Hall MIDI in', 0.3)
    .cable('Switcher Contact 1 > Preamp Remote 1', 0.4);
  const flown = pedals.filter((pedal) => pedal !== 'chorus');
  demoSounds.forEach((sound, i) =>
    maker.sound(`sound-${i + 1}`, sound.name, {
      role: sound.role,
      pedals: Object.fromEntries(flown.map((pedal) => [pedal, sound.on.includes(pedal) ? 'on' : 'off'])),
      wants: wantsOf(sound, { channel: 'preamp/channel', echo: 'echo/preset', hall: 'hall/preset' }),
    }),
  );
  maker.do(layOut(maker.show, 'switcher'));
  songbook(maker);
  batteryPower(maker);
  pack(maker, 'hold');
  return maker.show;
}

function wantsOf(
  sound: DemoSound,
  refs: { readonly channel: string; readonly echo: string; readonly hall: string },
): Record<string, string | number> {
  return {
    [refs.channel]: sound.channel,
    ...(sound.echo === undefined ? {} : { [refs.echo]: sound.echo }),
    ...(sound.hall === undefined ? {} : { [refs.hall]: sound.hall }),
    ...(sound.hands === undefined ? {} : { 'guitar/selector': sound.hands }),
    ...(sound.volume === undefined ? {} : { 'guitar/volume': sound.volume }),
  };
}

/** Songs, parts and two set lists, each part cast with the sound of its name. */
function songbook(maker: RigMaker): void {
  for (const [i, song] of demoSongs.entries()) {
    const id = `song-${i + 1}`;
    maker.do(addSong(maker.show, id, song.name)).do(setSong(maker.show, id, 'tempo', song.tempo));
    if (song.meter) maker.do(setSong(maker.show, id, 'meter', song.meter));
    if (song.instrument) maker.do(setSong(maker.show, id, 'instrument', song.instrument));
    if (song.tuning) maker.do(setSong(maker.show, id, 'tuning', song.tuning));
    for (const [part, bars] of song.parts) {
      const n = demoSounds.findIndex((sound) => sound.name === `${song.name}, ${part}`) + 1;
      maker
        .do(addPart(maker.show, `part-${n}`, id, part, { slot: `slot-sound-${n}` }))
        .do(setPart(maker.show, `part-${n}`, 'bars', bars));
    }
  }
  const idOf = (name: string) => `song-${demoSongs.findIndex((song) => song.name === name) + 1}`;
  const [evening, short] = demoSetLists;
  maker
    .do(setSetList(maker.show, 'set', 'name', evening.name))
    .do(addSetList(maker.show, 'short', short.name, short.songs.map(idOf)));
}

/** A supply on the board, the mains of the river; the hall’s output gives no more than the hall draws. */
function power(maker: RigMaker): void {
  maker
    .device('supply', 'supply', 'Supply')
    .device('strip', 'outlet-strip', 'Outlet strip')
    .cable('Supply Out 1 > Tuner', 0.6)
    .cable('Supply Out 2 > Compressor', 0.8)
    .cable('Supply Out 3 > Drive 1, soft + Drive 2, hard', 0.8)
    .cable('Supply Out 4 > Chorus', 0.6)
    .cable('Supply Out 5 > Hall', 0.6)
    .cable('Supply Out 7 > Switcher', 0.6)
    .cable('Supply Out 8 > Echo', 0.6)
    .cable('Outlet strip Outlet 1 > Combo Mains', 2)
    .cable('Outlet strip Outlet 2 > Supply Mains', 5)
    .do(
      setPowerSettings(maker.show, {
        hours: 4,
        venues: [
          { id: 'boat', name: 'The boat', volts: 230, hertz: 60, amps: 10 },
          { id: 'landing-stages', name: 'Landing stages', volts: 230, hertz: 50, amps: 16 },
        ],
      }),
    );
}

/** The board under the pedals and the switcher, and a reel for what is not made yet. */
function board(maker: RigMaker): void {
  maker.do(setBoard(maker.show, 'board', { width: 820, depth: 400, grams: 3_200, also: ['switcher'] }));
  const spots: Readonly<Record<string, readonly [x: number, y: number]>> = {
    switcher: [145, 0],
    tuner: [650, 265],
    comp: [50, 40],
    'drive-1': [240, 150],
    'drive-2': [120, 175],
    chorus: [650, 0],
    echo: [480, 150],
    hall: [335, 150],
    supply: [625, 135],
  };
  for (const [id, [x, y]] of Object.entries(spots)) maker.do(setSpot(maker.show, id, { x, y }));
  maker.do(
    setReels(maker.show, [
      { id: 'reel', kind: 'Instrument cable', metres: 30 },
      { id: 'rest', kind: 'Instrument cable, what was left', metres: 4 },
    ]),
  );
}

/** What lies in the drawer, and what has to be ordered; of anything else there is none. */
const stock: Readonly<Record<string, Omit<PartRow, 'name'>>> = {
  '6.3 mm plug': { have: 30 },
  '6.3 mm plug, angled': { have: 10, low: 4, high: 6, days: 5 },
  '6.3 mm plug, three poles': { have: 2, low: 5, high: 7, days: 5 },
  '6.3 mm plug, loudspeaker': { have: 4 },
  'XLR, female': { have: 1, low: 6, high: 9, days: 5 },
  'XLR, male': { have: 4 },
  'Metre of instrument cable': { have: 34 },
  'Metre of loudspeaker cable': { have: 2 },
  'Metre of contact cable': { have: 6 },
  'Metre of power cable': { have: 10 },
  'MIDI cable': { have: 2, low: 9, high: 14, days: 7 },
  'barrel 2.1 mm': { have: 20 },
  'barrel 2.1 mm, angled': { have: 4, low: 2, high: 3, days: 9 },
  'Mains lead': { have: 2, low: 8, high: 10, days: 3 },
};

/**
 * Pedals and what feeds them in one case, the amp in another. On the leg that flies the board goes into the hold, its
 * battery with it: that is not allowed.
 */
function pack(maker: RigMaker, travels: 'ground' | 'hold'): void {
  const { devices } = maker.show.rig;
  const amp = Object.hasOwn(devices, 'combo') ? [{ id: 'amp', name: 'Amp case', grams: 4_200, tape: 'red' }] : [];
  maker.do(
    setPacking(maker.show, {
      cases: [{ id: 'board', name: 'Board case', grams: 4_500, tape: 'yellow', travels }, ...amp],
      items: [
        { id: 'strings', name: 'Strings, a set', count: 6, grams: 35, case: 'board' },
        { id: 'fuses', name: 'Fuses for the combo', count: 4, grams: 5 },
      ],
    }),
  );
  for (const device of Object.values(devices)) {
    const into = ['combo', 'cab'].includes(device.id) ? 'amp' : device.type.body ? 'board' : undefined;
    if (into === 'board' || (into && device.id === 'combo')) maker.do(putInCase(maker.show, device.id, into));
  }
  const rows = neededParts(maker.show.rig).map(({ name }) => ({ name, ...stock[name] }));
  maker.do(setShopping(maker.show, { firstShow: '2027-04-30', budget: 400, rows }));
}

/** For the leg that flies: no mains at all, and fewer outputs than pieces. */
function batteryPower(maker: RigMaker): void {
  maker
    .device('supply', 'battery-supply', 'Battery supply')
    .cable('Battery supply Out 1 > Switcher', 0.5)
    .cable('Battery supply Out 2 > Hall', 0.5)
    .cable('Battery supply Out 3 > Echo', 0.5)
    .cable('Battery supply Out 4 > Preamp', 0.5)
    .cable('Battery supply Out 5 > Tuner + Compressor + Drive 1, soft + Drive 2, hard + Cabinet simulation', 1.2);
}

/**
 * What a tired evening leaves behind: two slots entered by hand that forget something, and a preset that is not there.
 */
function mistakes(maker: RigMaker): void {
  const byHand = (id: string, actions: readonly Action[]) =>
    maker.do({
      command: { name: 'set-slot', facts: { slot: id } },
      steps: [
        { doc: 'rig', op: 'set', at: ['slots', id, 'actions'], value: actions, old: maker.show.rig.slots[id].actions },
      ],
    });
  const loops = (on: readonly number[]): Action[] =>
    Array.from({ length: 10 }, (_, i) => ({
      kind: 'set',
      control: `loop-${i + 1}`,
      value: on.includes(i + 1) ? 1 : 0,
    }));
  byHand('slot-sound-7', [
    ...loops([2, 4, 6, 7]),
    { kind: 'contact', contact: 'contact-1', to: 1 },
    { kind: 'control', channel: 2, cc: 102, value: 127 },
    { kind: 'program', channel: 3, program: 2 },
    { kind: 'wait', ms: 20 },
    { kind: 'control', channel: 3, cc: 102, value: 127 },
  ]);
  byHand('slot-sound-14', [...loops([2, 3, 4])]);
  maker.do({
    command: { name: 'want', facts: {} },
    steps: [{ doc: 'rig', op: 'set', at: ['sounds', 'sound-8', 'wants', 'hall/preset'], value: 128, old: 8 }],
  });
}

import { addPart, addSong, layOut } from '../change/commands.ts';
import type { Action, Device, Show } from '../model/documents.ts';
import { emptyShow } from '../starters/empty.ts';
import { RigMaker } from '../starters/show-maker.ts';

type Want = { readonly name: string; readonly role: string; readonly on: readonly string[]; readonly channel: 'clean' | 'lead'; readonly echo?: number; readonly hall?: number };

const sounds: readonly Want[] = [
  { name: 'Slow Lock, verse', role: 'clean', on: ['comp', 'hall'], channel: 'clean', hall: 2 },
  { name: 'Slow Lock, refrain', role: 'refrain', on: ['drive-1', 'echo', 'hall'], channel: 'lead', echo: 5, hall: 2 },
  { name: 'Slow Lock, bridge', role: 'colour', on: ['chorus', 'echo', 'hall'], channel: 'clean', echo: 13, hall: 7 },
  { name: 'Ferry Bell, verse', role: 'rhythm', on: ['drive-1'], channel: 'clean' },
  { name: 'Ferry Bell, solo', role: 'solo', on: ['drive-1', 'drive-2', 'echo'], channel: 'lead', echo: 6 },
  { name: 'Copper Evening, verse', role: 'clean', on: ['comp', 'echo', 'hall'], channel: 'clean', echo: 5, hall: 2 },
  { name: 'Copper Evening, refrain', role: 'refrain', on: ['drive-1', 'echo', 'hall'], channel: 'lead', echo: 5, hall: 2 },
  { name: 'Third Landing, intro', role: 'colour', on: ['chorus', 'hall'], channel: 'clean', hall: 8 },
  { name: 'Third Landing, refrain', role: 'refrain', on: ['drive-2', 'hall'], channel: 'lead', hall: 2 },
  { name: 'Paper Harbour, all', role: 'rhythm', on: ['comp', 'drive-1', 'hall'], channel: 'clean', hall: 3 },
  { name: 'Night Pilot, verse', role: 'clean', on: ['comp', 'chorus', 'hall'], channel: 'clean', hall: 3 },
  { name: 'Night Pilot, solo', role: 'solo', on: ['drive-2', 'echo', 'hall'], channel: 'lead', echo: 6, hall: 4 },
  { name: 'Low Water, verse', role: 'rhythm', on: ['drive-1', 'echo'], channel: 'clean', echo: 9 },
  { name: 'Low Water, refrain', role: 'refrain', on: ['drive-1', 'drive-2'], channel: 'lead' },
  { name: 'Salt Letters, verse', role: 'clean', on: ['echo', 'hall'], channel: 'clean', echo: 10, hall: 2 },
  { name: 'Salt Letters, solo', role: 'solo', on: ['drive-2', 'echo', 'hall'], channel: 'lead', echo: 5, hall: 4 },
];

/** The demo, first part: the guitarist's four-cable rig on the river boat, with a few honest mistakes left in. */
export function demoShow(): Show {
  const maker = new RigMaker(emptyShow('river-boat', 'River-boat combo rig'));
  maker
    .device('guitar', 'guitar', 'Guitar')
    .device('tuner', 'tuner', 'Tuner')
    .device('switcher', 'switcher-10', 'Switcher', { place: 'switcher' })
    .device('comp', 'compressor', 'Compressor')
    .device('drive-1', 'drive', 'Drive 1, soft')
    .device('drive-2', 'drive', 'Drive 2, hard')
    .device('combo', 'valve-combo', 'Combo')
    .device('chorus', 'modulation', 'Chorus')
    .device('echo', 'midi-delay', 'Echo', { channel: 2, presets: echoPresets })
    .device('hall', 'midi-reverb', 'Hall', { channel: 3 })
    .device('cab', 'cabinet', 'Cabinet');
  maker
    .cable('Guitar > Tuner', 6)
    .cable('Tuner > Switcher In', 0.4)
    .cable('Switcher Send 1 > Compressor', 0.3)
    .cable('Compressor > Switcher Return 1', 0.3)
    .cable('Switcher Send 2 > Drive 1, soft', 0.3)
    .cable('Drive 1, soft > Switcher Return 2', 0.3)
    .cable('Switcher Send 3 > Drive 2, hard', 0.3)
    .cable('Drive 2, hard > Switcher Return 3', 0.3)
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
  sounds.forEach((want, i) => sound(maker, want, i));
  maker.do(layOut(maker.show, 'switcher'));
  songs(maker);
  mistakes(maker);
  return maker.show;
}

const echoPresets: Device['presets'] = { '5': { name: 'Dotted, dark', values: { mix: 30 } }, '6': { name: 'Dotted, loud', values: { mix: 48 } }, '13': { name: 'Long, swelling', values: { mix: 70 } } };
const pedals = ['comp', 'drive-1', 'drive-2', 'chorus', 'echo', 'hall'] as const;

function sound(maker: RigMaker, want: Want, i: number): void {
  maker.sound(`sound-${i + 1}`, want.name, {
    role: want.role,
    pedals: { combo: 'on', ...Object.fromEntries(pedals.map((pedal) => [pedal, want.on.includes(pedal) ? 'on' : 'off'])) },
    wants: { 'combo/channel': want.channel, ...(want.echo === undefined ? {} : { 'echo/preset': want.echo }), ...(want.hall === undefined ? {} : { 'hall/preset': want.hall }) },
  });
}

function songs(maker: RigMaker): void {
  const names = [...new Set(sounds.map((want) => want.name.split(', ')[0]))];
  names.forEach((name, i) => {
    maker.do(addSong(maker.show, `song-${i + 1}`, name));
    const parts = sounds.flatMap((want, n) => (want.name.startsWith(`${name}, `) ? [{ name: want.name.split(', ')[1], slot: `slot-sound-${n + 1}`, n }] : []));
    for (const part of parts) maker.do(addPart(maker.show, `part-${part.n + 1}`, `song-${i + 1}`, part.name, part.slot));
  });
}

/** What a tired evening leaves behind: two slots keyed in by hand that forget something, and a preset that is not there. */
function mistakes(maker: RigMaker): void {
  const byHand = (id: string, actions: readonly Action[]) =>
    maker.do({ command: { name: 'set-slot', facts: { slot: id } }, steps: [{ doc: 'rig', op: 'set', at: ['slots', id, 'actions'], value: actions, old: maker.show.rig.slots[id].actions }] });
  const loops = (on: readonly number[]): Action[] => Array.from({ length: 10 }, (_, i) => ({ kind: 'loop', loop: `loop-${i + 1}`, to: on.includes(i + 1) ? 1 : 0 }));
  byHand('slot-sound-7', [...loops([2, 4, 6, 7]), { kind: 'contact', contact: 'contact-1', to: 1 }, { kind: 'control', channel: 2, cc: 102, value: 127 }, { kind: 'program', channel: 3, program: 2 }, { kind: 'wait', ms: 20 }, { kind: 'control', channel: 3, cc: 102, value: 127 }]);
  byHand('slot-sound-14', [...loops([2, 3, 4])]);
  maker.do({ command: { name: 'want', facts: {} }, steps: [{ doc: 'rig', op: 'set', at: ['sounds', 'sound-8', 'wants', 'hall/preset'], value: 128, old: 8 }] });
}

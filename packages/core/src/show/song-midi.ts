import { slotOfCast } from '../model/casting.ts';
import { castOf, inOrder, type Show } from '../model/documents.ts';
import { type Part, type Song } from '../model/songbook.ts';
import { chosenSetList, partsInSetOrder } from '../model/set-order.ts';
import type { Wiring } from '../model/wiring.ts';
import { byteLength, byteMicroseconds, type MidiMessage } from '../midi/message.ts';
import type { Smf, SmfEvent } from '../midi/smf.ts';
import { compiler, type SlotActions } from '../program/compile.ts';

/** What had to be assumed to place the changes: told with the file. */
export type Assumed =
  | { readonly what: 'tempo'; readonly song: string }
  | { readonly what: 'bars'; readonly song: string; readonly part: string }
  | { readonly what: 'by-foot'; readonly song: string; readonly part: string };

export interface SongFile {
  readonly smf: Smf;
  readonly assumed: readonly Assumed[];
}

const ppq = 480;
const assumedTempo = 120;
const assumedBars = 8;

/** One song: the full state of each part, sent ahead so that it is there on the bar line. */
export const songFile = (show: Show, wiring: Wiring, song: string): SongFile =>
  filed(show, wiring, [show.songbook.songs[song]], show.songbook.songs[song].name);

/** The set list in one file, song after song. */
export function setFile(show: Show, wiring: Wiring): SongFile {
  const songs = [...new Set(partsInSetOrder(show).map((part) => show.songbook.parts[part].song))].map(
    (id) => show.songbook.songs[id],
  );
  return filed(show, wiring, songs, chosenSetList(show)?.name ?? show.songbook.name);
}

function filed(show: Show, wiring: Wiring, songs: readonly Song[], name: string): SongFile {
  const compile = compiler(wiring);
  const assumed: Assumed[] = [];
  const conductor: SmfEvent[] = [{ tick: 0, kind: 'name', text: name }];
  const sent: {
    readonly tick: number;
    readonly message: Exclude<MidiMessage, { readonly kind: 'clock' | 'start' | 'stop' }>;
  }[] = [];
  let tick = 0;
  let before = 60_000_000 / assumedTempo;
  for (const song of songs) {
    if (song.tempo === null) assumed.push({ what: 'tempo', song: song.name });
    const microseconds = Math.round(60_000_000 / (song.tempo ?? assumedTempo));
    const meter = song.meter ?? { beats: 4, unit: 4 as const };
    conductor.push({ tick, kind: 'tempo', microseconds }, { tick, kind: 'meter', ...meter });
    for (const [i, part] of partsOf(show, song).entries()) {
      conductor.push({ tick, kind: 'marker', text: songs.length === 1 ? part.name : `${song.name}: ${part.name}` });
      const slot = slotOf(show, part);
      if (slot) {
        const { messages, byFoot } = stateOf(wiring, compile(slot), slot);
        if (byFoot) assumed.push({ what: 'by-foot', song: song.name, part: part.name });
        sent.push(...ahead(messages, tick, i === 0 ? before : microseconds));
      }
      if (part.bars === undefined) assumed.push({ what: 'bars', song: song.name, part: part.name });
      tick += Math.round(((part.bars ?? assumedBars) * meter.beats * ppq * 4) / meter.unit);
    }
    before = microseconds;
  }
  const messages: SmfEvent[] = [
    { tick: 0, kind: 'name', text: show.rig.name },
    ...sent
      .sort((a, b) => a.tick - b.tick)
      .map((item): SmfEvent => ({ tick: item.tick, kind: 'message', message: item.message })),
    { tick, kind: 'end' },
  ];
  return { smf: { format: 1, ppq, tracks: [[...conductor, { tick, kind: 'end' }], messages] }, assumed };
}

const partsOf = (show: Show, song: Song): readonly Part[] =>
  inOrder(show.songbook.parts).filter((part) => part.song === song.id);

function slotOf(show: Show, part: Part) {
  const cast = castOf(show.rig, part.id);
  return cast && !part.silent ? slotOfCast(show.rig, cast) : undefined;
}

interface Timed {
  readonly message: Extract<MidiMessage, { readonly kind: 'program' | 'control' }>;
  /** Microseconds after the first byte at which it may leave. */
  readonly at: number;
}

/**
 * What a computer must send for a slot: a program change where the switcher can be called by one (it does the rest),
 * else the slot's own messages with its waits. Loops and contacts then stay with the foot.
 */
function stateOf(
  wiring: Wiring,
  actions: SlotActions,
  slot: { readonly id: string; readonly controller: string },
): { readonly messages: { readonly list: readonly Timed[]; readonly settled: number }; readonly byFoot: boolean } {
  const calls = wiring.device.get(slot.controller)?.device.calls;
  const called = Object.entries(calls?.programs ?? {}).find(([, id]) => id === slot.id);
  const list: Timed[] = [];
  let now = 0;
  let settled = 0;
  if (calls && called) {
    list.push({ message: { kind: 'program', channel: calls.channel, program: Number(called[0]) }, at: 0 });
    now = 2 * byteMicroseconds;
  }
  for (const { action } of actions) {
    if (action.kind === 'wait') now += action.ms * 1000;
    if (action.kind !== 'program' && action.kind !== 'control') continue;
    if (!called) list.push({ message: action, at: now });
    now += byteLength(action) * byteMicroseconds;
    const loading =
      action.kind === 'program'
        ? wiring.devices.find((wired) => wired.device.channel === action.channel)?.anatomy.busy?.ms
        : undefined;
    settled = Math.max(settled, now + (loading ?? 0) * 1000);
  }
  return {
    messages: { list, settled: Math.max(settled, now) },
    byFoot: !called && actions.some(({ action }) => action.kind === 'set' || action.kind === 'contact'),
  };
}

/** Messages placed so that the last of them has settled at the bar line; never before the file begins. */
function ahead(
  { list, settled }: { readonly list: readonly Timed[]; readonly settled: number },
  bar: number,
  microsecondsPerQuarter: number,
) {
  const ticks = (microseconds: number): number => (microseconds * ppq) / microsecondsPerQuarter;
  const start = Math.max(0, bar - Math.ceil(ticks(settled)));
  return list.map(({ message, at }) => ({ tick: start + Math.ceil(ticks(at)), message }));
}

import { type NoteValue, noteValues, type Slot } from '../model/rig.ts';
import { byteMicroseconds } from '../midi/message.ts';
import type { ListedSlot } from '../program/listing.ts';
import type { Sent } from '../recall/deliver/simulated-rig.ts';
import { deviceName, noteWords } from '../model/labels.ts';
import type { Wiring } from '../model/wiring.ts';
import type { Inside } from '../trace/inside.ts';
import { delayMilliseconds } from '../show/delay-times.ts';
import type { footTravel } from '../show/floor.ts';
import { counted, type Evidence } from './evidence.ts';

const milliseconds = (microseconds: number): string => `${(microseconds / 1000).toFixed(2)} ms`;

export function delayTime(tempo: number, note: NoteValue): Evidence {
  const ms = delayMilliseconds(tempo, note);
  return {
    of: `Delay, ${noteWords[note]}`,
    value: `${ms < 1000 ? ms.toFixed(1) : Math.round(ms)} ms`,
    inputs: [
      ['tempo', `${tempo} quarter notes a minute`],
      ['part of a quarter', noteValues[note].toFixed(3)],
    ],
    formula: '60,000 / tempo × part of a quarter',
    source: 'definition of tempo; triplets are three in the time of two',
    rests: 'entered',
  };
}

export const bytesSent = ({ actions, bytes }: ListedSlot): Evidence => ({
  of: 'Bytes of the slot',
  value: counted(bytes, 'byte'),
  inputs: [
    ['program changes', String(actions.filter((action) => action.action.kind === 'program').length)],
    ['control changes', String(actions.filter((action) => action.action.kind === 'control').length)],
  ],
  formula: '2 × program changes + 3 × control changes',
  source: 'MIDI 1.0, channel voice messages, every status byte sent',
  rests: 'exact',
});

export const wireTime = ({ bytes, microseconds }: ListedSlot): Evidence => ({
  of: 'Time to send',
  value: milliseconds(microseconds),
  inputs: [
    ['bytes', String(bytes)],
    ['baud', '31,250'],
    ['bits a byte', '10'],
  ],
  formula: 'bytes × 10 / 31,250 s',
  source: 'MIDI 1.0 electrical specification',
  rests: 'exact',
});

/** When the last byte of the i-th message of an event is through. */
export function arrivedAfter(heard: readonly Sent[], i: number): Evidence {
  const { from, at } = heard[i];
  const bytes = heard
    .slice(0, i + 1)
    .reduce((sum, sent) => sum + (sent.from === from ? sent.bytes.split(' ').length : 0), 0);
  return {
    of: 'Last byte through',
    value: milliseconds(at),
    inputs: [
      ['bytes on this line so far', String(bytes)],
      ['a byte takes', `${byteMicroseconds} µs`],
      ['waited before', milliseconds(at - bytes * byteMicroseconds)],
    ],
    formula: 'bytes × 320 µs + what was waited',
    source: 'MIDI 1.0 electrical specification; waits as the slot says',
    rests: 'exact',
  };
}

export const footWay = (
  path: readonly Slot[],
  pitchMm: number,
  { mm, bankMoves }: ReturnType<typeof footTravel>,
): Evidence => ({
  of: 'Foot travel',
  value: `${mm} mm`,
  inputs: [
    ['slots pressed', String(path.length)],
    ['between switches', `${pitchMm} mm`],
    ['bank moves besides', String(bankMoves)],
  ],
  formula: 'sum of the straight ways from switch to switch',
  source: 'plane geometry',
  rests: 'typical',
});

/** What the units that a sound passes add, as far as it was entered; null where it was for none of them. */
export function latencyInside(wiring: Wiring, inside: readonly Inside[]): Evidence | null {
  const entered = inside.flatMap(({ device, latencyMs }) => (latencyMs === null ? [] : [{ device, latencyMs }]));
  if (entered.length === 0) return null;
  const total = entered.reduce((sum, { latencyMs }) => sum + latencyMs, 0);
  return {
    of: 'Latency of the units on the way',
    value: `${Math.round(total * 10) / 10} ms`,
    inputs: entered.map(({ device, latencyMs }) => [deviceName(wiring, device), `${latencyMs} ms`]),
    formula: 'the sum of what was entered for their presets, one after the other',
    source: 'as measured, or as the papers of each unit say; what stands side by side is not told apart',
    rests: 'entered',
  };
}

import type { Brand } from './brand.ts';

export type Milliseconds = Brand<number, 'ms'>;
/** Time on the wire is counted in whole microseconds: a MIDI byte lasts exactly 320 of them. */
export type Microseconds = Brand<number, 'us'>;
export type Metres = Brand<number, 'm'>;
/** Quarter notes a minute. */
export type Bpm = Brand<number, 'bpm'>;
/** 1–16, as people count; the shift to 0–15 happens in the wire encoder alone. */
export type MidiChannel = Brand<number, 'midi-channel'>;
/** 0–127. */
export type SevenBit = Brand<number, 'seven-bit'>;

export const microsecondsOf = (ms: Milliseconds): Microseconds => Math.round(ms * 1000);
export const millisecondsOf = (us: Microseconds): Milliseconds => us / 1000;

export const isMidiChannel = (value: unknown): value is MidiChannel =>
  Number.isInteger(value) && (value as number) >= 1 && (value as number) <= 16;

export const isSevenBit = (value: unknown): value is SevenBit =>
  Number.isInteger(value) && (value as number) >= 0 && (value as number) <= 127;

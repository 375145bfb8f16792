declare const unit: unique symbol;
/** A number that carries its unit in its type, so that milliseconds cannot be added to metres. */
export type Quantity<U extends string> = number & { readonly [unit]: U };

export type Milliseconds = Quantity<'ms'>;
/** Time on the wire is counted in whole microseconds: a MIDI byte lasts exactly 320 of them. */
export type Microseconds = Quantity<'us'>;
export type Metres = Quantity<'m'>;
export type Bpm = Quantity<'bpm'>;
/** 1–16, as people count; the shift to 0–15 happens in the wire encoder alone. */
export type MidiChannel = Quantity<'midi-channel'>;
/** 0–127. */
export type SevenBit = Quantity<'seven-bit'>;

export const milliseconds = (value: number): Milliseconds => value as Milliseconds;
export const microseconds = (value: number): Microseconds => value as Microseconds;
export const metres = (value: number): Metres => value as Metres;
export const bpm = (value: number): Bpm => value as Bpm;

export const microsecondsOf = (ms: Milliseconds): Microseconds => microseconds(Math.round(ms * 1000));

export function isMidiChannel(value: unknown): value is MidiChannel {
  return Number.isInteger(value) && (value as number) >= 1 && (value as number) <= 16;
}

export function isSevenBit(value: unknown): value is SevenBit {
  return Number.isInteger(value) && (value as number) >= 0 && (value as number) <= 127;
}

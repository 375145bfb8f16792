import { type NoteValue, noteValues } from '../model/rig.ts';

/**
 * Milliseconds of a note value at a tempo in quarter notes a minute: 60,000 / tempo × its part of a quarter; triplets
 * are three in the time of two.
 */
export const delayMilliseconds = (tempo: number, note: NoteValue): number => (60_000 / tempo) * noteValues[note];

/** Every note value at a tempo, longest first. */
export const delayTimes = (tempo: number): readonly { readonly note: NoteValue; readonly ms: number }[] =>
  (Object.keys(noteValues) as NoteValue[]).map((note) => ({ note, ms: delayMilliseconds(tempo, note) }));

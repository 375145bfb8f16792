import { byteMicroseconds } from './message.ts';

/** MIDI clock: 24 a quarter note (MIDI 1.0). */
export const clocksPerQuarter = 24;

/** Milliseconds between clocks at a tempo in quarter notes a minute. */
export const clockMilliseconds = (tempo: number): number => 60_000 / (clocksPerQuarter * tempo);

/** Part of the wire's time that clock alone takes, 0..1. */
export const clockShare = (tempo: number): number => byteMicroseconds / 1000 / clockMilliseconds(tempo);

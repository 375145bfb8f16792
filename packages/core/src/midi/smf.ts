import type { MidiMessage } from './message.ts';

/** A standard MIDI file as data: tracks of events at absolute ticks. */
export interface Smf {
  readonly format: 0 | 1;
  /** Ticks a quarter note. */
  readonly ppq: number;
  readonly tracks: readonly (readonly SmfEvent[])[];
}

export type SmfEvent = { readonly tick: number } & SmfContent;
export type SmfContent =
  | { readonly kind: 'name' | 'marker' | 'text'; readonly text: string }
  /** Microseconds a quarter note. */
  | { readonly kind: 'tempo'; readonly microseconds: number }
  | { readonly kind: 'meter'; readonly beats: number; readonly unit: number }
  | { readonly kind: 'message'; readonly message: Exclude<MidiMessage, { readonly kind: 'clock' | 'start' | 'stop' }> }
  /** Events of other kinds, kept by their bytes' length only. */
  | { readonly kind: 'other'; readonly status: number }
  | { readonly kind: 'end' };

/** Where an event falls: bars and beats from 1, a beat is one note of the meter's unit. */
export interface SmfPlace {
  readonly bar: number;
  readonly beat: number;
  readonly tickInBeat: number;
  readonly seconds: number;
}

const defaultMicroseconds = 500_000;

/** Places events by the meters and tempi of all tracks; 4/4 at 120 until told otherwise (standard MIDI files 1.0). */
export function placer(smf: Smf): (tick: number) => SmfPlace {
  const all = smf.tracks.flat();
  const changes = <K extends 'meter' | 'tempo'>(kind: K) =>
    all.filter((event): event is SmfEvent & { kind: K } => event.kind === kind).sort((a, b) => a.tick - b.tick);
  const meters = changes('meter');
  const tempi = changes('tempo');
  return (tick) => ({ ...barAt(smf.ppq, meters, tick), seconds: secondsAt(smf.ppq, tempi, tick) });
}

function barAt(
  ppq: number,
  meters: readonly { readonly tick: number; readonly beats: number; readonly unit: number }[],
  tick: number,
): Omit<SmfPlace, 'seconds'> {
  let bar = 1;
  let from = 0;
  let beats = 4;
  let perBeat = ppq;
  for (const meter of meters) {
    if (meter.tick > tick) break;
    bar += Math.ceil((meter.tick - from) / (beats * perBeat));
    from = meter.tick;
    beats = meter.beats;
    perBeat = (ppq * 4) / meter.unit;
  }
  const passed = tick - from;
  const inBar = passed % (beats * perBeat);
  return {
    bar: bar + Math.floor(passed / (beats * perBeat)),
    beat: 1 + Math.floor(inBar / perBeat),
    tickInBeat: inBar % perBeat,
  };
}

function secondsAt(
  ppq: number,
  tempi: readonly { readonly tick: number; readonly microseconds: number }[],
  tick: number,
): number {
  let from = 0;
  let microseconds = defaultMicroseconds;
  let total = 0;
  for (const tempo of tempi) {
    if (tempo.tick >= tick) break;
    total += (tempo.tick - from) * microseconds;
    from = tempo.tick;
    microseconds = tempo.microseconds;
  }
  return (total + (tick - from) * microseconds) / (ppq * 1e6);
}

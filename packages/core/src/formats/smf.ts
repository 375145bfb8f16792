import { encode } from '../midi/message.ts';
import type { Smf, SmfContent, SmfEvent } from '../midi/smf.ts';
import { accept, problem, refuse, type Result, assertNever } from '../units/problem.ts';

/**
 * Standard MIDI files 1.0, formats 0 and 1, ticks a quarter note. What is read is checked byte by byte; what is written
 * any reader takes.
 */
export const smfLimits = { bytes: 4_000_000, tracks: 256, events: 400_000 } as const;

export function writeSmf(smf: Smf, options: { readonly runningStatus?: boolean } = {}): Uint8Array<ArrayBuffer> {
  const bytes = [
    ...ascii('MThd'),
    ...big(6, 4),
    ...big(smf.format, 2),
    ...big(smf.tracks.length, 2),
    ...big(smf.ppq, 2),
  ];
  for (const track of smf.tracks) {
    const body = trackBytes(track, options.runningStatus ?? false);
    bytes.push(...ascii('MTrk'), ...big(body.length, 4));
    for (const byte of body) bytes.push(byte);
  }
  return Uint8Array.from(bytes);
}

function trackBytes(track: readonly SmfEvent[], runningStatus: boolean): number[] {
  const ended =
    track.at(-1)?.kind === 'end' ? track : [...track, { tick: track.at(-1)?.tick ?? 0, kind: 'end' as const }];
  const bytes: number[] = [];
  let now = 0;
  let running = -1;
  for (const event of ended) {
    if (event.tick < now) throw new Error('events of a track must be in the order of time');
    bytes.push(...variable(event.tick - now));
    now = event.tick;
    const own = eventBytes(event);
    const isChannel = own[0] >= 0x80 && own[0] < 0xf0;
    if (runningStatus && isChannel && own[0] === running) bytes.push(...own.slice(1));
    else bytes.push(...own);
    running = isChannel ? own[0] : -1;
  }
  return bytes;
}

const metaOf = { text: 0x01, name: 0x03, marker: 0x06 } as const;

function eventBytes(event: SmfContent): number[] {
  switch (event.kind) {
    case 'name':
    case 'marker':
    case 'text': {
      const text = utf8(event.text);
      return [0xff, metaOf[event.kind], ...variable(text.length), ...text];
    }
    case 'tempo':
      return [0xff, 0x51, 3, ...big(event.microseconds, 3)];
    case 'meter':
      return [0xff, 0x58, 4, event.beats, Math.round(Math.log2(event.unit)), 24, 8];
    case 'end':
      return [0xff, 0x2f, 0];
    case 'message': {
      const [status, ...data] = encode(event.message);
      return status === 0xf0 ? [0xf0, ...variable(data.length), ...data] : [status, ...data];
    }
    case 'other':
      throw new Error('events of unknown kind cannot be written');
    default:
      return assertNever(event, 'event');
  }
}

/** Reads a file of unknown origin; refuses it whole at the first byte that cannot be, with its place. */
export function readSmf(bytes: Uint8Array): Result<Smf> {
  if (bytes.length > smfLimits.bytes)
    return refuse(problem('', 'too-large', { count: bytes.length, limit: smfLimits.bytes }));
  try {
    return accept(new SmfReader(bytes).file());
  } catch (reason) {
    if (!(reason instanceof Bad)) throw reason;
    return refuse(problem(`/byte/${reason.at}`, reason.code, reason.facts));
  }
}

class Bad extends Error {
  constructor(
    readonly at: number,
    readonly facts: Readonly<Record<string, string | number>>,
    readonly code: 'wrong-type' | 'too-large' | 'not-this-format' = 'wrong-type',
  ) {
    super('bad file');
  }
}

class SmfReader {
  private at = 0;
  private count = 0;

  constructor(private readonly bytes: Uint8Array) {}

  file(): Smf {
    if (this.word(4) !== 'MThd') throw new Bad(0, { expected: 'standard MIDI file' }, 'not-this-format');
    const headerEnd = this.number(4) + this.at;
    const format = this.number(2);
    const tracks = this.number(2);
    const ppq = this.number(2);
    if (format !== 0 && format !== 1) throw new Bad(8, { expected: 'format 0 or 1' });
    if ((format === 0 && tracks !== 1) || tracks > smfLimits.tracks)
      throw new Bad(10, { expected: format === 0 ? 'one track' : `at most ${smfLimits.tracks} tracks` });
    if (ppq === 0 || ppq >= 0x8000) throw new Bad(12, { expected: 'ticks a quarter note (time code is not read)' });
    this.skipTo(headerEnd);
    return { format, ppq, tracks: Array.from({ length: tracks }, () => this.track()) };
  }

  private track(): SmfEvent[] {
    for (;;) {
      const here = this.at;
      const word = this.word(4);
      const end = this.number(4) + this.at;
      if (end > this.bytes.length)
        throw new Bad(here + 4, {
          expected: `${end - this.at} bytes of track; the file ends after ${this.bytes.length - this.at}`,
        });
      if (word === 'MTrk') return this.events(end);
      this.skipTo(end);
    }
  }

  private events(end: number): SmfEvent[] {
    const events: SmfEvent[] = [];
    let tick = 0;
    let running = -1;
    while (this.at < end) {
      tick += this.variable();
      if (tick > 0x0fffffff) throw new Bad(this.at, { expected: 'a time that a file can hold' });
      let status = this.byte();
      if (status < 0x80) {
        if (running < 0) throw new Bad(this.at - 1, { expected: 'a status byte' });
        status = running;
        this.at -= 1;
      }
      if ((this.count += 1) > smfLimits.events)
        throw new Bad(this.at, { count: this.count, limit: smfLimits.events }, 'too-large');
      running = status < 0xf0 ? status : -1;
      const event: SmfEvent = { tick, ...this.content(status) };
      events.push(event);
      if (this.at > end) throw new Bad(this.at, { expected: 'an event that ends inside its track' });
      if (event.kind === 'end') {
        this.skipTo(end);
        return events;
      }
    }
    throw new Bad(this.at, { expected: 'an end of track' });
  }

  private content(status: number): SmfContent {
    if (status === 0xff) return this.meta();
    if (status === 0xf0 || status === 0xf7) {
      const data = this.take(this.variable());
      return status === 0xf0
        ? { kind: 'message', message: { kind: 'sysex', data: [...(data.at(-1) === 0xf7 ? data.slice(0, -1) : data)] } }
        : { kind: 'other', status };
    }
    if (status > 0xf0) throw new Bad(this.at - 1, { expected: 'an event that a file may hold' });
    const channel = (status & 0x0f) + 1;
    switch (status >> 4) {
      case 0x8:
      case 0x9:
        return {
          kind: 'message',
          message: {
            kind: status >> 4 === 0x9 ? 'note-on' : 'note-off',
            channel,
            note: this.data(),
            velocity: this.data(),
          },
        };
      case 0xb:
        return { kind: 'message', message: { kind: 'control', channel, cc: this.data(), value: this.data() } };
      case 0xc:
        return { kind: 'message', message: { kind: 'program', channel, program: this.data() } };
      case 0xd:
        this.data();
        return { kind: 'other', status };
      default:
        this.data();
        this.data();
        return { kind: 'other', status };
    }
  }

  private meta(): SmfContent {
    const type = this.byte();
    const data = this.take(this.variable());
    const need = (length: number): void => {
      if (data.length !== length) throw new Bad(this.at - data.length, { expected: `${length} bytes` });
    };
    switch (type) {
      case 0x01:
      case 0x03:
      case 0x06:
        return { kind: type === 0x01 ? 'text' : type === 0x03 ? 'name' : 'marker', text: fromUtf8(data) };
      case 0x2f:
        return { kind: 'end' };
      case 0x51: {
        need(3);
        const microseconds = data.reduce((sum, byte) => sum * 256 + byte, 0);
        if (microseconds === 0) throw new Bad(this.at - 3, { expected: 'a tempo' });
        return { kind: 'tempo', microseconds };
      }
      case 0x58: {
        need(4);
        if (data[0] === 0 || data[1] > 8) throw new Bad(this.at - 4, { expected: 'a time signature' });
        return { kind: 'meter', beats: data[0], unit: 2 ** data[1] };
      }
      default:
        return { kind: 'other', status: 0xff };
    }
  }

  private byte(): number {
    if (this.at >= this.bytes.length) throw new Bad(this.at, { expected: 'more: the file ends here' });
    return this.bytes[this.at++];
  }

  private data(): number {
    const byte = this.byte();
    if (byte > 127) throw new Bad(this.at - 1, { expected: 'a data byte, 0 to 127' });
    return byte;
  }

  private take(length: number): readonly number[] {
    if (this.at + length > this.bytes.length)
      throw new Bad(this.at, { expected: `${length} bytes; the file ends after ${this.bytes.length - this.at}` });
    const data = [...this.bytes.subarray(this.at, this.at + length)];
    this.at += length;
    return data;
  }

  private skipTo(end: number): void {
    if (end > this.bytes.length || end < this.at)
      throw new Bad(this.at, { expected: 'a chunk that ends inside the file' });
    this.at = end;
  }

  private number(length: number): number {
    return this.take(length).reduce((sum, byte) => sum * 256 + byte, 0);
  }

  private word(length: number): string {
    return String.fromCharCode(...this.take(length));
  }

  private variable(): number {
    let value = 0;
    for (let i = 0; i < 4; i += 1) {
      const byte = this.byte();
      value = value * 128 + (byte & 0x7f);
      if (byte < 0x80) return value;
    }
    throw new Bad(this.at, { expected: 'a length of at most four bytes' });
  }
}

const ascii = (word: string): number[] => [...word].map((letter) => letter.charCodeAt(0));
const big = (value: number, length: number): number[] =>
  Array.from({ length }, (_, i) => Math.floor(value / 256 ** (length - 1 - i)) % 256);

function variable(value: number): number[] {
  const bytes = [value & 0x7f];
  for (let rest = Math.floor(value / 128); rest > 0; rest = Math.floor(rest / 128)) bytes.unshift((rest & 0x7f) | 0x80);
  return bytes;
}

const utf8 = (text: string): number[] => ascii(unescape(encodeURIComponent(text)));

/** Texts in files are of any encoding: read as UTF-8 where they are, byte by byte otherwise. */
function fromUtf8(data: readonly number[]): string {
  const raw = data.map((byte) => String.fromCharCode(byte)).join('');
  try {
    return decodeURIComponent(escape(raw));
  } catch {
    return raw;
  }
}

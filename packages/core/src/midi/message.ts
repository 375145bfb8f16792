import { assertNever } from '../units/problem.ts';

/** A MIDI 1.0 message as people write it: channels 1–16, data 0–127 as sent. */
export type MidiMessage =
  | { readonly kind: 'program'; readonly channel: number; readonly program: number }
  | { readonly kind: 'control'; readonly channel: number; readonly cc: number; readonly value: number }
  | {
      readonly kind: 'note-on' | 'note-off';
      readonly channel: number;
      readonly note: number;
      readonly velocity: number;
    }
  | { readonly kind: 'clock' }
  | { readonly kind: 'start' }
  | { readonly kind: 'stop' }
  /** Data without F0 and F7. */
  | { readonly kind: 'sysex'; readonly data: readonly number[] };

/** One byte on the wire: 10 bits (8N1) at 31,250 baud = 320 µs (MIDI 1.0 electrical specification). */
export const byteMicroseconds = 320;

export const bankSelectMsb = 0;
export const bankSelectLsb = 32;

/** Full bytes of one message. The shift of channels from 1–16 to 0–15 happens here and nowhere else. */
export function encode(message: MidiMessage): number[] {
  switch (message.kind) {
    case 'program':
      return [0xc0 | (message.channel - 1), message.program];
    case 'control':
      return [0xb0 | (message.channel - 1), message.cc, message.value];
    case 'note-on':
      return [0x90 | (message.channel - 1), message.note, message.velocity];
    case 'note-off':
      return [0x80 | (message.channel - 1), message.note, message.velocity];
    case 'clock':
      return [0xf8];
    case 'start':
      return [0xfa];
    case 'stop':
      return [0xfc];
    case 'sysex':
      return [0xf0, ...message.data, 0xf7];
    default:
      return assertNever(message, 'message');
  }
}

/**
 * Bytes of a stream. With running status a repeated channel status byte is left out; system real-time
 * bytes (F8 and above) leave it as it was, system common and exclusive cancel it (MIDI 1.0).
 */
export function encodeStream(
  messages: readonly MidiMessage[],
  options: { readonly runningStatus?: boolean } = {},
): number[] {
  const bytes: number[] = [];
  let running = -1;
  for (const message of messages) {
    const [status, ...data] = encode(message);
    if (status >= 0xf8) bytes.push(status);
    else {
      if (!(options.runningStatus && status === running)) bytes.push(status);
      bytes.push(...data);
      running = status < 0xf0 ? status : -1;
    }
  }
  return bytes;
}

/** Microseconds that bytes sent back to back take. */
export const wireMicroseconds = (byteCount: number): number => byteCount * byteMicroseconds;

/** Bytes of one message, its status byte among them. */
export const byteLength = (message: MidiMessage): number =>
  message.kind === 'control' ? 3 : message.kind === 'program' ? 2 : encode(message).length;

export const hex = (bytes: readonly number[]): string =>
  bytes.map((byte) => byte.toString(16).toUpperCase().padStart(2, '0')).join(' ');

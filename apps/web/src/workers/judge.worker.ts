import { readSmf, type Result, songsFromMidi, type SongsFromMidi } from '@yunta/core';
import { expose } from 'comlink';
import { Judging } from './judging.ts';

/** Lets whatever has come in meanwhile be taken first: a message to itself goes behind those that wait. */
const turn = (): Promise<void> =>
  new Promise((resolve) => {
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => {
      port1.close();
      resolve();
    };
    port2.postMessage(null);
  });

class JudgeWorker extends Judging {
  /** Songs of a MIDI file: read here, since a long one takes a while. */
  songsOf(bytes: Uint8Array, name: string): Result<SongsFromMidi> {
    const smf = readSmf(bytes);
    return smf.ok ? { ok: true, value: songsFromMidi(smf.value, name) } : smf;
  }
}

export type JudgeApi = JudgeWorker;
expose(new JudgeWorker(turn));

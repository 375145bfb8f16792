import { readSmf, type Result, songsFromMidi, type SongsFromMidi } from '@yunta/core';
import { expose } from 'comlink';
import { Judging } from './judging.ts';
import { turn } from './turn.ts';

class JudgeWorker extends Judging {
  /** Songs of a MIDI file: read here, since a long one takes a while. */
  songsOf(bytes: Uint8Array, name: string): Result<SongsFromMidi> {
    const smf = readSmf(bytes);
    return smf.ok ? { ok: true, value: songsFromMidi(smf.value, name) } : smf;
  }
}

export type JudgeApi = JudgeWorker;
expose(new JudgeWorker(turn));

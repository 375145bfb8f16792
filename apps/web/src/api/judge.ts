import { type Remote, wrap } from 'comlink';
import type { JudgeApi } from '../workers/judge.worker.ts';

let remote: Remote<JudgeApi> | null = null;

/** The one worker that judges. */
export function judge(): Remote<JudgeApi> {
  remote ??= wrap<JudgeApi>(new Worker(new URL('../workers/judge.worker.ts', import.meta.url), { type: 'module' }));
  return remote;
}

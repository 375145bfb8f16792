import type { Batch } from '../change/steps.ts';
import { anything, constant, id, list, object, oneOf, record, text, either, decimal, tagged } from '../model/shape.ts';
import { accept, type Problem, type Result } from '../units/problem.ts';
import { stepOfToday } from './version-1.ts';
import { normalised } from './json.ts';

/** Past these a batch is refused before it is read. `bytes` of JSON, `entries` and `depth` as in `jsonSize`. */
export const batchLimits = { bytes: 2_000_000, entries: 200_000, depth: 24, steps: 4_000 } as const;

const at = list(text(140, 1), 8, 1);
const doc = oneOf('rig', 'songbook');

export const batchShape = object({
  id,
  command: object({ name: text(60, 1), facts: record(either(text(300), decimal(-1e9, 1e9)), 20) }),
  steps: list(
    tagged('op', {
      insert: object({ doc, op: constant('insert'), at, value: anything }),
      remove: object({ doc, op: constant('remove'), at, old: anything }),
      set: object({ doc, op: constant('set'), at }, { value: anything, old: anything }),
    }),
    batchLimits.steps,
  ),
});

/** Reads a batch of steps of unknown origin. */
export function readBatch(data: unknown): Result<Batch> {
  const problems: Problem[] = [];
  const clean = normalised(data);
  batchShape.check(clean, '', problems);
  if (problems.length > 0) return { ok: false, problems: problems.slice(0, 50) };
  const batch = clean as Batch;
  return accept({ ...batch, steps: batch.steps.map(stepOfToday) });
}

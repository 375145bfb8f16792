import type { Show } from '../model/documents.ts';
import { sameData } from '../units/same-data.ts';
import type { Step } from './steps.ts';

/** No batch has more steps than this; past it, steps change larger pieces. */
const most = 4_000;

/**
 * The steps that turn one show into another: as fine as fields of entries, so that edits beside them still fit, or
 * coarser where that would be too many steps; `finest`: so many keys deep at most. Empty where the shows hold the same
 * data.
 */
export function stepsBetween(from: Show, to: Show, finest = 3): readonly Step[] {
  for (const depth of [...new Set([finest, 3, 2, 1])]) {
    const steps = [
      ...differences('rig', from.rig, to.rig, depth),
      ...differences('songbook', from.songbook, to.songbook, depth),
    ];
    if (steps.length <= most || depth === 1) return steps;
  }
  return [];
}

function differences(doc: Step['doc'], from: unknown, to: unknown, depth: number, at: readonly string[] = []): Step[] {
  if (from === to || sameData(from, to)) return [];
  if (at.length >= depth || !isPlain(from) || !isPlain(to)) return [{ doc, op: 'set', at, old: from, value: to }];
  const keys = [...new Set([...Object.keys(from), ...Object.keys(to)])];
  return keys.flatMap((key): Step[] => {
    const here = [...at, key];
    if (!Object.hasOwn(from, key)) return [{ doc, op: 'insert', at: here, value: to[key] }];
    if (!Object.hasOwn(to, key)) return [{ doc, op: 'remove', at: here, old: from[key] }];
    return differences(doc, from[key], to[key], depth, here);
  });
}

const isPlain = (value: unknown): value is Record<string, unknown> =>
  value !== null && typeof value === 'object' && !Array.isArray(value);

import { assertNever } from '../units/problem.ts';
import type { Show } from '../model/documents.ts';
import { applyStep, type Step } from './steps.ts';

/**
 * The steps as they would be made on another show, where values are what they are there: what they set is set, whatever
 * it was; what they took out goes, if it is there. Null where what they change is not there any more.
 */
export function rebaseSteps(show: Show, steps: readonly Step[]): readonly Step[] | null {
  const rebased: Step[] = [];
  let now = show;
  for (const step of steps) {
    const next = rebaseStep(now, step);
    if (next === 'done already') continue;
    const applied = next && applyStep(now, next, rebased.length);
    if (!next || !applied?.ok) return null;
    rebased.push(next);
    now = applied.value;
  }
  return rebased;
}

function rebaseStep(show: Show, step: Step): Step | 'done already' | null {
  const { doc, at } = step;
  const holder = at
    .slice(0, -1)
    .reduce<unknown>((node, key) => (isHolder(node) && Object.hasOwn(node, key) ? node[key] : undefined), show[doc]);
  if (!isHolder(holder)) return step.op === 'remove' ? 'done already' : null;
  const key = at.at(-1)!;
  const isThere = Object.hasOwn(holder, key);
  if (Array.isArray(holder)) return step;
  const old = isThere ? { old: holder[key] } : {};
  switch (step.op) {
    case 'insert':
      return isThere ? { doc, op: 'set', at, value: step.value, ...old } : step;
    case 'remove':
      return isThere ? { doc, op: 'remove', at, old: holder[key] } : 'done already';
    case 'set':
      if (!('value' in step) && !isThere) return 'done already';
      return { doc, op: 'set', at, ...('value' in step ? { value: step.value } : {}), ...old };
    default:
      return assertNever(step, 'step');
  }
}

const isHolder = (node: unknown): node is Record<string, unknown> => node !== null && typeof node === 'object';

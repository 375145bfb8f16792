import { isForbiddenKey } from '../model/shape.ts';
import type { Show } from '../model/documents.ts';
import { showProblems, validateRig, validateSongbook } from '../model/validate.ts';
import { accept, problem, pointer, refuse, type Result } from '../units/problem.ts';

/**
 * The three primitives that every edit is made of. A `set` names the old value; an absent value (no `value`, no
 * `old`) means that the key is not there.
 */
export type Step =
  | { readonly doc: 'rig' | 'songbook'; readonly op: 'insert'; readonly at: readonly string[]; readonly value: unknown }
  | { readonly doc: 'rig' | 'songbook'; readonly op: 'remove'; readonly at: readonly string[]; readonly old: unknown }
  | { readonly doc: 'rig' | 'songbook'; readonly op: 'set'; readonly at: readonly string[]; readonly value?: unknown; readonly old?: unknown };

/** A batch as sent: named, made once by the client, applied at most once. */
export interface Batch {
  readonly id: string;
  /** What the user did, for undo and history: a code with facts. */
  readonly command: { readonly name: string; readonly facts: Readonly<Record<string, string | number>> };
  readonly steps: readonly Step[];
}

/** Applies steps in order and checks the documents after the last; refuses all where one is refused. */
export function applySteps(show: Show, steps: readonly Step[]): Result<Show> {
  let next: Show = show;
  for (const [i, step] of steps.entries()) {
    const result = applyStep(next, step, i);
    if (!result.ok) return result;
    next = result.value;
  }
  return checkShow(next);
}

export function checkShow(show: Show): Result<Show> {
  const rig = validateRig(show.rig, '/rig');
  if (!rig.ok) return rig;
  const songbook = validateSongbook(show.songbook, '/songbook');
  if (!songbook.ok) return songbook;
  const problems = showProblems(show);
  return problems.length > 0 ? refuse(...problems) : accept(show);
}

/** The batch that takes this one back: the steps inverted, last first. */
export const invertSteps = (steps: readonly Step[]): Step[] => steps.map(invertStep).reverse();

function invertStep(step: Step): Step {
  const { doc, at } = step;
  switch (step.op) {
    case 'insert':
      return { doc, op: 'remove', at, old: step.value };
    case 'remove':
      return { doc, op: 'insert', at, value: step.old };
    case 'set':
      return { doc, op: 'set', at, ...('old' in step ? { value: step.old } : {}), ...('value' in step ? { old: step.value } : {}) };
  }
}

function applyStep(show: Show, step: Step, index: number): Result<Show> {
  const here = pointer('steps', index);
  if (step.at.length === 0 || step.at.some(isForbiddenKey)) return refuse(problem(`${here}/at`, 'forbidden-key', { key: step.at.join('/') }));
  const replaced = replaceAt(show[step.doc], step.at, (there, exists) => edited(step, there, exists, here));
  return replaced.ok ? accept({ ...show, [step.doc]: replaced.value }) : replaced;
}

const gone = Symbol('gone');

function edited(step: Step, there: unknown, exists: boolean, here: string): Result<unknown> {
  const told = pointer(step.doc, ...step.at);
  if (step.op === 'insert') return exists ? refuse(problem(told, 'already-there', { what: 'entry', id: step.at.at(-1)! })) : accept(step.value);
  const old = step.old;
  const matches = 'old' in step && old !== undefined ? exists && sameData(there, old) : !exists;
  if (!matches) return refuse(problem(told, 'old-value-differs', { now: exists ? JSON.stringify(there).slice(0, 200) : 'absent', step: here }));
  if (step.op === 'remove') return accept(gone);
  return accept('value' in step && step.value !== undefined ? step.value : gone);
}

/** Copies along the path only; what is beside it stays the same object. */
function replaceAt(node: unknown, at: readonly string[], edit: (there: unknown, exists: boolean) => Result<unknown>): Result<unknown> {
  const [key, ...rest] = at;
  if (node === null || typeof node !== 'object') return refuse(problem(pointer(...at), 'not-found', { what: 'field', id: key }));
  const exists = Object.hasOwn(node, key);
  const there = exists ? (node as Record<string, unknown>)[key] : undefined;
  if (rest.length > 0 && !exists) return refuse(problem(pointer(...at), 'not-found', { what: 'entry', id: key }));
  const result = rest.length > 0 ? replaceAt(there, rest, edit) : edit(there, exists);
  if (!result.ok) return result;
  if (Array.isArray(node)) {
    const copy = [...(node as unknown[])];
    if (result.value === gone) copy.splice(Number(key), 1);
    else copy[Number(key)] = result.value;
    return accept(copy);
  }
  if (result.value !== gone) return accept({ ...node, [key]: result.value });
  const { [key]: _, ...others } = node as Record<string, unknown>;
  return accept(others);
}

/** Equality of JSON data, key order aside. */
export function sameData(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (a === null || b === null || typeof a !== 'object' || typeof b !== 'object' || Array.isArray(a) !== Array.isArray(b)) return false;
  const left = Object.keys(a);
  const right = Object.keys(b);
  return left.length === right.length && left.every((key) => Object.hasOwn(b, key) && sameData((a as Record<string, unknown>)[key], (b as Record<string, unknown>)[key]));
}


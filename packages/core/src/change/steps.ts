import { sameData } from '../units/same-data.ts';
import { isForbiddenKey } from '../model/shape.ts';
import type { Show } from '../model/documents.ts';
import { showProblems, validateRig, validateSongbook } from '../model/validate.ts';
import { accept, problem, pointer, refuse, type Result, assertNever } from '../units/problem.ts';

/**
 * The three primitives that every edit is made of. A `set` names the old value; an absent value (no `value`, no
 * `old`) means that the key is not there.
 */
export type Step =
  | { readonly doc: 'rig' | 'songbook'; readonly op: 'insert'; readonly at: readonly string[]; readonly value: unknown }
  | { readonly doc: 'rig' | 'songbook'; readonly op: 'remove'; readonly at: readonly string[]; readonly old: unknown }
  | {
      readonly doc: 'rig' | 'songbook';
      readonly op: 'set';
      readonly at: readonly string[];
      readonly value?: unknown;
      readonly old?: unknown;
    };

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
  const own: Own = new Set();
  for (const [i, step] of steps.entries()) {
    const result = applyStep(next, step, i, own);
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
      return {
        doc,
        op: 'set',
        at,
        ...('old' in step ? { value: step.old } : {}),
        ...('value' in step ? { old: step.value } : {}),
      };
    default:
      return assertNever(step, 'step');
  }
}

/** One step, without a look at what it leaves: the documents are checked after the last. */
export function applyStep(show: Show, step: Step, index: number, own: Own = new Set()): Result<Show> {
  const here = pointer('steps', index);
  if (step.at.length === 0 || step.at.some(isForbiddenKey))
    return refuse(problem(`${here}/at`, 'forbidden-key', { key: step.at.join('/') }));
  const document = show[step.doc];
  const replaced = replaceAt(document, step.at, step, pointer(step.doc), here, own);
  if (!replaced.ok) return replaced;
  return accept(replaced.value === document ? show : { ...show, [step.doc]: replaced.value });
}

/**
 * Copies that this batch has made and nobody else has seen: later steps write into them. Without it each of n steps
 * would copy all that the others put there.
 */
type Own = Set<object>;

/** What stands at a step's place afterwards; `gone` where nothing does. */
const gone = Symbol('gone');

/** The step at its own place. `exists` is false where the place is free; a list's place past its end is free. */
function edited(step: Step, there: unknown, exists: boolean, at: string, here: string): Result<unknown> {
  if (step.op === 'insert')
    return exists ? refuse(problem(at, 'already-there', { what: 'entry', id: step.at.at(-1)! })) : accept(step.value);
  const old = step.old;
  const matches = 'old' in step && old !== undefined ? exists && sameData(there, old) : !exists;
  if (!matches)
    return refuse(
      problem(at, 'old-value-differs', { now: exists ? JSON.stringify(there).slice(0, 200) : 'absent', step: here }),
    );
  if (step.op === 'remove') return accept(gone);
  if (!('value' in step) || step.value === undefined) return accept(gone);
  return accept(exists && sameData(there, step.value) ? there : step.value);
}

/** Copies along the path only; what is beside it stays the same object, and so does all where nothing changes. */
function replaceAt(
  node: unknown,
  path: readonly string[],
  step: Step,
  above: string,
  here: string,
  own: Own,
): Result<unknown> {
  const [key, ...rest] = path;
  const at = `${above}${pointer(key)}`;
  if (node === null || typeof node !== 'object') return refuse(problem(at, 'not-found', { what: 'field', id: key }));
  if (Array.isArray(node)) return replaceInList(node as readonly unknown[], key, rest, step, at, here, own);
  const exists = Object.hasOwn(node, key);
  if (rest.length > 0 && !exists) return refuse(problem(at, 'not-found', { what: 'entry', id: key }));
  const there = exists ? (node as Record<string, unknown>)[key] : undefined;
  const result = rest.length > 0 ? replaceAt(there, rest, step, at, here, own) : edited(step, there, exists, at, here);
  if (!result.ok) return result;
  if (exists ? result.value === there : result.value === gone) return accept(node);
  const copy = own.has(node) ? (node as Record<string, unknown>) : { ...node };
  own.add(copy);
  if (result.value === gone) delete (copy as Record<string, unknown>)[key];
  else (copy as Record<string, unknown>)[key] = result.value;
  return accept(copy);
}

/** In a list, an insert moves what stands at its place and after it one on, and a remove moves it back. */
function replaceInList(
  list: readonly unknown[],
  key: string,
  rest: readonly string[],
  step: Step,
  at: string,
  here: string,
  own: Own,
): Result<unknown> {
  const inserts = rest.length === 0 && step.op === 'insert';
  const last = inserts ? list.length : list.length - 1;
  const index = /^(0|[1-9][0-9]{0,6})$/.test(key) ? Number(key) : Number.NaN;
  if (!(index <= last))
    return refuse(
      problem(at, 'out-of-domain', {
        value: key.slice(0, 80),
        expected: last < 0 ? 'nothing: the list is empty' : `a place from 0 to ${last}`,
      }),
    );
  if (inserts) return accept([...list.slice(0, index), step.value, ...list.slice(index)]);
  const result =
    rest.length > 0 ? replaceAt(list[index], rest, step, at, here, own) : edited(step, list[index], true, at, here);
  if (!result.ok) return result;
  if (result.value === list[index]) return accept(list);
  return accept(
    result.value === gone
      ? list.filter((_, i) => i !== index)
      : list.map((item, i) => (i === index ? result.value : item)),
  );
}

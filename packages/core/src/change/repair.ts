import { checkShow } from './steps.ts';
import type { Show } from '../model/documents.ts';
import { controlCharacters, cutText, loneSurrogates } from '../model/shape.ts';
import type { Problem } from '../units/problem.ts';

/** Each round mends what can be seen; what lay behind it shows in the next. */
const rounds = 40;
/** Entries of these may be taken out whole: nothing else refers to them. */
const mayGo: ReadonlySet<string> = new Set(['casting', 'waivers', 'outside', 'cables']);

export interface Repaired {
  readonly show: Show;
  /** Where something was mended: JSON pointers, each once. */
  readonly places: readonly string[];
}

/**
 * Mends a stored show that no longer passes the checks, by what loses least: texts lose their control characters and
 * halves of characters, and what is too long for its place; empty places of lists are closed; unknown fields go;
 * cables, casts and the like that refer to what is not there go. Null where that does not help: then nothing is
 * changed. A show that passes comes back as it is, with no places.
 */
export function repairShow(stored: Show): Repaired | null {
  const places = new Set<string>();
  let show = stored;
  for (let round = 0; round < rounds; round += 1) {
    const checked = checkShow(show);
    if (checked.ok) return { show, places: [...places] };
    const mended = JSON.parse(JSON.stringify(show)) as Show;
    const done = [...checked.problems].reverse().filter((problem) => mend(mended, problem));
    if (done.length === 0) return null;
    for (const { pointer } of done) places.add(pointer);
    show = mended;
  }
  return null;
}

type Node = Record<string, unknown> | unknown[];

/** Mends one place of a copy; false where there is no way. Problems come last first, so that list places still hold. */
function mend(show: Show, { pointer, code, facts }: Problem): boolean {
  const keys = pointer
    .split('/')
    .slice(1)
    .map((token) => token.replaceAll('~1', '/').replaceAll('~0', '~'));
  const holder = holderOf(show, keys);
  const key = keys.at(-1);
  if (!holder || key === undefined) return false;
  const value = (holder as Record<string, unknown>)[key];
  if (code === 'unknown-field' || code === 'forbidden-key') return drop(holder, key);
  if (typeof value === 'string')
    return mendText(holder, key, value, code === 'too-large' ? Number(facts.limit) : Infinity) || dropEntry(show, keys);
  if (Array.isArray(holder) && value === null) return drop(holder, key);
  if (Array.isArray(holder) && code === 'not-found') return drop(holder, key);
  return dropEntry(show, keys);
}

function holderOf(show: Show, keys: readonly string[]): Node | null {
  let node: unknown = show;
  for (const key of keys.slice(0, -1)) {
    if (node === null || typeof node !== 'object' || !Object.hasOwn(node, key)) return null;
    node = (node as Record<string, unknown>)[key];
  }
  return node !== null && typeof node === 'object' ? (node as Node) : null;
}

const everyControl = new RegExp(controlCharacters, 'g');
const everySurrogate = new RegExp(loneSurrogates, 'gu');

/** A text without what no text may hold; false where that is not what is wrong with it. */
function mendText(holder: Node, key: string, value: string, most: number): boolean {
  const clean = cutText(value.replace(everyControl, '').replace(everySurrogate, '\uFFFD').normalize('NFC'), most);
  if (clean === value) return false;
  (holder as Record<string, unknown>)[key] = clean === '' ? '?' : clean;
  return true;
}

function drop(holder: Node, key: string): boolean {
  if (Array.isArray(holder)) {
    const at = Number(key);
    if (!(at < holder.length)) return false;
    holder.splice(at, 1);
    return true;
  }
  return Object.hasOwn(holder, key) && delete holder[key];
}

/** Takes out the whole cable, cast or the like that a problem lies in. */
function dropEntry(show: Show, [doc, collection, id]: readonly string[]): boolean {
  if (doc !== 'rig' || !mayGo.has(collection) || id === undefined) return false;
  const entries = (show.rig as unknown as Record<string, Node | undefined>)[collection];
  return entries !== undefined && Object.hasOwn(entries, id) && drop(entries, id);
}

import { pointerToken, type Problem, problem, toldValue } from '../units/problem.ts';

/**
 * The shape of unknown data: one description that checks a value, is published as JSON Schema, and is the type of what
 * passes (`DataOf`), so that the three cannot drift apart.
 */
export interface Shape<T = unknown> {
  /** Never there: it carries the type. */
  readonly data?: T;
  readonly check: (value: unknown, at: string, into: Problem[]) => void;
  /** Whether this very object has passed before. */
  readonly hasPassed?: (value: unknown) => boolean;
  readonly schema: Readonly<Record<string, unknown>>;
}

/** The type of what passes a shape. */
export type DataOf<S> = S extends Shape<infer T> ? T : never;

/** The same shape, of branded data: ids of one kind, a number in a unit. */
export const branded = <T extends string | number>(shape: Shape<string> | Shape<number>): Shape<T> =>
  shape as Shape<unknown> as Shape<T>;

const wrong = (into: Problem[], at: string, expected: string): void =>
  void into.push(problem(at, 'wrong-type', { expected }));

/** Past so many problems nobody looks on: a text of a megabyte can hold a hundred thousand. */
export const enoughProblems = 50;

// eslint-disable-next-line no-control-regex -- refusing control characters is the point
export const controlCharacters = /[\u0000-\u0008\u000b-\u001f\u007f]/;
/** Half of a character that takes two code units: no encoding can carry it. */
export const loneSurrogates = /\p{Surrogate}/u;

/**
 * Texts are kept in Unicode's composed form (NFC), so that the same word is the same text. Control characters other
 * than tab and newline have no place in a name. Lengths are UTF-16 code units.
 */
export const text = (max: number, min = 0): Shape<string> => ({
  check: (value, at, into) => {
    if (typeof value !== 'string') wrong(into, at, 'text');
    else if (value.length > max) into.push(problem(at, 'too-large', { count: value.length, limit: max }));
    else if (value.length < min) wrong(into, at, `text of at least ${min} characters`);
    else if (controlCharacters.test(value)) wrong(into, at, 'text without control characters');
    else if (loneSurrogates.test(value)) wrong(into, at, 'text without halves of characters');
    else if (value !== value.normalize('NFC')) wrong(into, at, 'text in composed form (NFC)');
  },
  schema: { type: 'string', maxLength: max, ...(min > 0 ? { minLength: min } : {}) },
});

/** The beginning of a text, at most `max` code units, with no character cut in two. */
export const cutText = (value: string, max: number): string => value.slice(0, max).replace(/[\uD800-\uDBFF]$/, '');

const idPattern = /^[A-Za-z0-9][A-Za-z0-9._-]{0,63}$/;
export const isId = (value: unknown): value is string =>
  typeof value === 'string' && idPattern.test(value) && !forbidden.has(value);
const forbidden: ReadonlySet<string> = new Set(['__proto__', 'constructor', 'prototype']);
export const isForbiddenKey = (key: string): boolean => forbidden.has(key);

export const id: Shape<string> = {
  check: (value, at, into) => {
    if (!isId(value)) wrong(into, at, 'an id: 1 to 64 letters, digits, dots, dashes or underscores');
  },
  schema: { type: 'string', pattern: idPattern.source },
};

export const integer = (min: number, max: number): Shape<number> => ({
  check: (value, at, into) => {
    if (!Number.isInteger(value)) wrong(into, at, 'a whole number');
    else if ((value as number) < min || (value as number) > max)
      into.push(problem(at, 'out-of-domain', { value: value as number, expected: `${min} to ${max}` }));
  },
  schema: { type: 'integer', minimum: min, maximum: max },
});

export const decimal = (min: number, max: number): Shape<number> => ({
  check: (value, at, into) => {
    if (typeof value !== 'number' || !Number.isFinite(value)) wrong(into, at, 'a number');
    else if (value < min || value > max)
      into.push(problem(at, 'out-of-domain', { value, expected: `${min} to ${max}` }));
  },
  schema: { type: 'number', minimum: min, maximum: max },
});

export const yesNo: Shape<boolean> = {
  check: (value, at, into) => {
    if (typeof value !== 'boolean') wrong(into, at, 'true or false');
  },
  schema: { type: 'boolean' },
};

export const oneOf = <const V extends readonly (string | number | null)[]>(...values: V): Shape<V[number]> => ({
  check: (value, at, into) => {
    if (!values.includes(value as string))
      into.push(problem(at, 'out-of-domain', { value: toldValue(value), expected: values.join(', ') }));
  },
  schema: { enum: values },
});

/** Any data of modest size: checked by who reads it. */
export const anything: Shape = { check: () => undefined, schema: {} };

export const nullable = <T>(shape: Shape<T>): Shape<T | null> => ({
  check: (value, at, into) => {
    if (value !== null) shape.check(value, at, into);
  },
  schema: { anyOf: [{ type: 'null' }, shape.schema] },
});

export const list = <T>(of: Shape<T>, max: number, min = 0): Shape<readonly T[]> => ({
  check: (value, at, into) => {
    if (!Array.isArray(value)) wrong(into, at, 'a list');
    else if (value.length > max) into.push(problem(at, 'too-large', { count: value.length, limit: max }));
    else if (value.length < min) wrong(into, at, `a list of at least ${min}`);
    else
      for (let i = 0; i < value.length && into.length < enoughProblems; i += 1) of.check(value[i], `${at}/${i}`, into);
  },
  schema: { type: 'array', items: of.schema, maxItems: max, ...(min > 0 ? { minItems: min } : {}) },
});

/** A key is told up to so many characters. */
const longestToken = 200;

const isPlain = (value: unknown): value is Record<string, unknown> =>
  value !== null && typeof value === 'object' && !Array.isArray(value);

/**
 * Documents are never changed in place, so an object that has passed a shape passes it again: after an edit only what
 * is new is looked at.
 */
function remembering(check: Shape['check']): Required<Pick<Shape, 'check' | 'hasPassed'>> {
  const passed = new WeakSet<object>();
  const hasPassed = (value: unknown): boolean => isPlain(value) && passed.has(value);
  return {
    hasPassed,
    check: (value, at, into) => {
      if (hasPassed(value) || into.length >= enoughProblems) return;
      const before = into.length;
      check(value, at, into);
      if (isPlain(value) && into.length === before) passed.add(value);
    },
  };
}

/** Entries by key; `key` checks each key, ids unless said otherwise. */
export const record = <T, K extends string = string>(
  of: Shape<T>,
  max: number,
  key: (key: string) => boolean = isId,
): Shape<Readonly<Record<K, T>>> => ({
  ...remembering((value, at, into) => {
    if (!isPlain(value)) return wrong(into, at, 'an object');
    const entries = Object.entries(value);
    if (entries.length > max) return void into.push(problem(at, 'too-large', { count: entries.length, limit: max }));
    const here = (name: string): string => `${at}/${pointerToken(name.slice(0, longestToken))}`;
    for (const [name, entry] of entries) {
      if (into.length >= enoughProblems) return;
      if (isForbiddenKey(name)) into.push(problem(here(name), 'forbidden-key', { key: name }));
      else if (!key(name)) into.push(problem(here(name), 'wrong-type', { expected: 'a well-formed key' }));
      else if (!of.hasPassed?.(entry)) of.check(entry, here(name), into);
    }
  }),
  schema: { type: 'object', additionalProperties: of.schema, maxProperties: max },
});

type Fields = Readonly<Record<string, Shape>>;
type ObjectOf<R, O> = { readonly [K in keyof R]: DataOf<R[K]> } & { readonly [K in keyof O]?: DataOf<O[K]> };
/** The same type as a single object. */
type Merged<T> = { readonly [K in keyof T]: T[K] };

export const object = <R extends Fields, O extends Fields = Record<never, Shape>>(
  required: R,
  optional: O = {} as O,
): Shape<Merged<ObjectOf<R, O>>> => ({
  ...remembering((value, at, into) => {
    if (!isPlain(value)) return wrong(into, at, 'an object');
    for (const name of Object.keys(required))
      if (!Object.hasOwn(value, name)) into.push(problem(at, 'missing-field', { field: name }));
    for (const [name, field] of Object.entries(value)) {
      if (into.length >= enoughProblems) return;
      const shape = Object.hasOwn(required, name)
        ? required[name]
        : Object.hasOwn(optional, name)
          ? optional[name]
          : undefined;
      if (shape?.hasPassed?.(field)) continue;
      const here = `${at}/${pointerToken(name.slice(0, longestToken))}`;
      if (isForbiddenKey(name)) into.push(problem(here, 'forbidden-key', { key: name }));
      else if (!shape) into.push(problem(here, 'unknown-field', { field: name.slice(0, 80) }));
      else shape.check(field, here, into);
    }
  }),
  schema: {
    type: 'object',
    properties: { ...schemas(required), ...schemas(optional) },
    required: Object.keys(required),
    additionalProperties: false,
  },
});

const schemas = (shapes: Readonly<Record<string, Shape>>): Record<string, unknown> =>
  Object.fromEntries(Object.entries(shapes).map(([name, shape]) => [name, shape.schema]));

/** One of several object shapes, told apart by the value of one field. */
export const tagged = <V extends Fields>(tag: string, variants: V): Shape<DataOf<V[keyof V]>> => ({
  check: (value, at, into) => {
    if (!isPlain(value)) return wrong(into, at, 'an object');
    const name = value[tag];
    const shape = typeof name === 'string' && Object.hasOwn(variants, name) ? variants[name] : undefined;
    if (shape) shape.check(value, at, into);
    else
      into.push(
        problem(`${at}/${tag}`, 'out-of-domain', {
          value: toldValue(name),
          expected: Object.keys(variants).join(', '),
        }),
      );
  },
  schema: { oneOf: Object.values(variants).map((shape) => shape.schema) },
});

/** The first shape that accepts; where none does, the problems of the last are told. */
export const either = <S extends readonly Shape[]>(...shapes: S): Shape<DataOf<S[number]>> => ({
  check: (value, at, into) => {
    let last: Problem[] = [];
    for (const shape of shapes) {
      last = [];
      shape.check(value, at, last);
      if (last.length === 0) return;
    }
    into.push(...last);
  },
  schema: { anyOf: shapes.map((shape) => shape.schema) },
});

export const controlValue: Shape<string | number> = either(text(120), decimal(-1e9, 1e9));
export const constant = <const V extends string | number>(value: V): Shape<V> => ({
  ...oneOf(value),
  schema: { const: value },
});

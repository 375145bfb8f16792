/** Every reason for which the core refuses something: a closed list, so that wording can be kept at the edge. */
export const problemCodes = [
  'not-json',
  'not-this-format',
  'newer-version',
  'too-large',
  'too-deep',
  'forbidden-key',
  'unknown-field',
  'missing-field',
  'wrong-type',
  'out-of-domain',
  'not-found',
  'duplicate',
  'jack-missing',
  'jack-taken',
  'jack-kind',
  'in-use',
  'old-value-differs',
  'already-there',
  'nothing-changes',
  'bad-backup',
  'unknown-command',
] as const;
export type ProblemCode = (typeof problemCodes)[number];

/** Where (a JSON pointer), what (a code) and the facts from which a sentence is made. */
export interface Problem {
  readonly pointer: string;
  readonly code: ProblemCode;
  readonly facts: Readonly<Record<string, string | number | boolean | null>>;
}

export type Result<T> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly problems: readonly Problem[] };

export const accept = <T>(value: T): Result<T> => ({ ok: true, value });
export const refuse = (...problems: Problem[]): Result<never> => ({ ok: false, problems });

export const problem = (pointer: string, code: ProblemCode, facts: Problem['facts'] = {}): Problem => ({
  pointer,
  code,
  facts,
});

/** A value of any kind, as a problem's facts tell it. */
export function toldValue(value: unknown): string {
  if (value === undefined) return 'nothing';
  if (value !== null && typeof value === 'object') return Array.isArray(value) ? 'a list' : 'an object';
  return String(value).slice(0, 80);
}

/** RFC 6901 escaping of one reference token. */
export const pointerToken = (token: string | number): string =>
  String(token).replaceAll('~', '~0').replaceAll('/', '~1');
export const pointer = (...tokens: (string | number)[]): string =>
  tokens.map((token) => `/${pointerToken(token)}`).join('');

const sentences: Record<ProblemCode, (facts: Problem['facts']) => string> = {
  'not-json': () => 'This is not JSON. Export the rig again, or open another file.',
  'not-this-format': (f) => `This is not a Yunta file (expected "${f.expected}"). Open a file that Yunta exported.`,
  'newer-version': (f) =>
    `Written by a newer Yunta (version ${f.version}; this one reads up to ${f.supported}). Update Yunta to open it.`,
  'too-large': (f) => `Too large: ${f.count} where ${f.limit} is the limit. Split it up.`,
  'too-deep': (f) => `Nested deeper than ${f.limit} levels. No rig needs that; check the file.`,
  'forbidden-key': (f) => `The key "${f.key}" is not allowed. Remove it.`,
  'unknown-field': (f) => `Unknown field "${f.field}". Remove it, or check its spelling.`,
  'missing-field': (f) => `The field "${f.field}" is missing. Add it.`,
  'wrong-type': (f) => `Expected ${f.expected}. Correct the value.`,
  'out-of-domain': (f) => `${f.value} is not allowed here (${f.expected}). Choose a value inside.`,
  'not-found': (f) => `There is no ${f.what} "${f.id}". Choose one that exists.`,
  duplicate: (f) => `${f.what} "${f.id}" is there twice. Keep one.`,
  'jack-missing': (f) => `${f.device} has no jack "${f.jack}". Choose one of its jacks.`,
  'jack-taken': (f) => `The jack "${f.jack}" of ${f.device} already holds a plug. Unplug that cable first.`,
  'jack-kind': (f) =>
    `A ${f.cable} cable does not go into the jack "${f.jack}" of ${f.device} (${f.kind}). Choose another jack.`,
  'in-use': (f) => `${f.what} "${f.id}" is still used by ${f.by}. Remove that first.`,
  'old-value-differs': (f) => `This changed in the meantime: it is now ${f.now}. Look at it and edit again.`,
  'already-there': (f) => `${f.what} "${f.id}" is already there. Use another id.`,
  'nothing-changes': () => 'This edit leaves all as it is. There is nothing to save.',
  'bad-backup': (f) => `This file cannot be restored. ${f.why} Choose another backup.`,
  'unknown-command': (f) => `Unknown command "${f.command}".`,
};

export const describeProblem = (p: Problem): string => sentences[p.code](p.facts);

/** For bugs only: an expected refusal is a value. */
export function assertNever(value: never, what = 'case'): never {
  throw new Error(`unhandled ${what}: ${JSON.stringify(value)}`);
}

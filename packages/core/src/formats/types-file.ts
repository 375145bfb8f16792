import { checkType } from '../model/check-type.ts';
import { type DeviceType, typeShape } from '../model/rig.ts';
import { constant, list, object } from '../model/shape.ts';
import { sameData } from '../units/same-data.ts';
import { accept, type Problem, problem, refuse, type Result } from '../units/problem.ts';
import { normalised, readJson, sorted } from './json.ts';

/** A file of device types, to give to somebody or to keep. */
export const typesFormat = 'yunta-types';
export const typesVersion = 1;
/** So many types a file or a library may hold. */
export const typesLimit = 2_000;

const fileShape = object({
  format: constant(typesFormat),
  version: constant(typesVersion),
  types: list(typeShape, typesLimit),
});

export const writeTypes = (types: readonly DeviceType[]): string =>
  `${JSON.stringify(sorted({ format: typesFormat, version: typesVersion, types }), null, 1)}\n`;

/** Reads such a file; refuses it whole with the place and the reason. */
export function readTypes(textOfFile: string): Result<readonly DeviceType[]> {
  const read = readJson(textOfFile);
  if (!read.ok) return read;
  const data = normalised(read.value);
  const { format, version } = (data ?? {}) as Readonly<Record<string, unknown>>;
  if (format !== typesFormat) return refuse(problem('/format', 'not-this-format', { expected: typesFormat }));
  if (typeof version === 'number' && version > typesVersion)
    return refuse(problem('/version', 'newer-version', { version, supported: typesVersion }));
  const problems: Problem[] = [];
  fileShape.check(data, '', problems);
  if (problems.length > 0) return { ok: false, problems };
  const { types } = data as { readonly types: readonly DeviceType[] };
  const ids = new Set<string>();
  for (const [i, type] of types.entries()) {
    problems.push(...checkType(type, `/types/${i}`));
    if (ids.has(type.id)) problems.push(problem(`/types/${i}/id`, 'duplicate', { what: 'Type', id: type.id }));
    ids.add(type.id);
  }
  return problems.length > 0 ? { ok: false, problems } : accept(types);
}

/** The published schema of such a file (JSON Schema 2020-12). */
export const typesSchema = {
  $schema: 'https://json-schema.org/draft/2020-12/schema',
  $id: 'urn:yunta:types:1',
  title: 'Yunta device types',
  ...fileShape.schema,
} as const;

/** What a library makes of a type that comes in. */
export type Arrival = 'added' | 'newer' | 'same' | 'another';

/**
 * A type that is not there is added; one of a later revision takes its place; the same is left. One that differs
 * though it is no later comes in beside it, as another: both may be in use.
 */
export function arrivalOf(type: DeviceType, there: DeviceType | undefined): Arrival {
  if (!there) return 'added';
  if (sameData(type, there)) return 'same';
  return type.revision > there.revision ? 'newer' : 'another';
}

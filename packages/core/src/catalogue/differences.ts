import { archetypeOf } from '../model/archetypes/registry.ts';
import type { DeviceType } from '../model/rig.ts';
import { sameData } from '../units/same-data.ts';
import type { CatalogueEntry } from './entry.ts';
import { typeOfToday } from './library.ts';
import { catalogue } from './types.ts';

/** One setting of a piece that is not what its generic type has. */
export interface TypeDifference {
  readonly param: string;
  readonly label: string;
  readonly typical: unknown;
  readonly is: unknown;
}

/**
 * How a piece differs from the type that it was entered as, in the order of its settings; undefined where the library
 * has no such type.
 */
export function typeDifferences(
  type: DeviceType,
  library: readonly CatalogueEntry[] = catalogue,
): readonly TypeDifference[] | undefined {
  const base = typeOfToday(type, library);
  return base?.archetype === type.archetype ? differencesBetween(type, base) : undefined;
}

/** How the settings of one type differ from those of another of its archetype, `typical`. */
export function differencesBetween(type: DeviceType, typical: DeviceType): readonly TypeDifference[] {
  return Object.entries(archetypeOf(type.archetype)?.params ?? {}).flatMap(([param, spec]) => {
    const [was, is] = [typical.params[param] ?? spec.default, type.params[param] ?? spec.default];
    return sameData(was, is) ? [] : [{ param, label: spec.label, typical: was, is }];
  });
}

/** A setting's value as one reads it. */
export function settingWords(value: unknown): string {
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (Array.isArray(value)) return value.length === 0 ? 'none' : value.join(', ');
  return value !== null && typeof value === 'object' ? 'entered' : String(value ?? 'none');
}

import type { Random } from './random.ts';

/** Data as it is read from JSON. */
export type Json = null | boolean | number | string | Json[] | { [key: string]: Json };
interface Spot {
  readonly parent: Json[] | { [key: string]: Json };
  readonly key: string;
}

function spotsOf(data: Json, into: Spot[] = []): Spot[] {
  if (data === null || typeof data !== 'object') return into;
  for (const key of Object.keys(data)) {
    into.push({ parent: data, key });
    spotsOf((data as { [key: string]: Json })[key], into);
  }
  return into;
}

const at = ({ parent, key }: Spot): Json => (parent as { [key: string]: Json })[key];
const put = ({ parent, key }: Spot, value: Json): void => void ((parent as { [key: string]: Json })[key] = value);
export const copied = (data: Json): Json => JSON.parse(JSON.stringify(data)) as Json;
const odd: readonly Json[] = [
  null,
  true,
  false,
  0,
  1,
  -1,
  0.5,
  1e9,
  128,
  17,
  '',
  'x',
  '-1',
  'preset',
  'a'.repeat(5_000),
  [],
  {},
  [[]],
  { id: 'x' },
  '../..',
  '‮',
  'toString',
  'valueOf',
];

/**
 * One change: an odd value, a value of another place of the same name, a field or an entry less, more, or under another
 * name.
 */
export function mutate(data: Json, r: Random): void {
  const spots = spotsOf(data);
  const spot = r.pick(spots);
  const { parent, key } = spot;
  switch (r.below(6)) {
    case 0:
      return put(spot, copied(r.pick(odd)));
    case 1:
    case 2: {
      const namesakes = spots.filter(
        (other) => other.key === key && other.parent !== parent && typeof at(other) === typeof at(spot),
      );
      return put(spot, namesakes.length === 0 ? 1 : copied(at(r.pick(namesakes))));
    }
    case 3:
      if (Array.isArray(parent)) parent.splice(Number(key), 1);
      else delete parent[key];
      return;
    case 4:
      if (Array.isArray(parent)) parent.push(copied(at(spot)));
      else parent[r.pick([`${key}-2`, 'toString', 'hasOwnProperty'])] = copied(at(spot));
      return;
    default: {
      const value = at(spot);
      if (typeof value === 'number') return put(spot, value + r.pick([-1, 1, 100]));
      if (typeof value === 'boolean') return put(spot, !value);
      return put(
        spot,
        typeof value === 'string' ? `${value}${r.pick(['', ' ', '2', '/preset', '.tip'])}` : copied(r.pick(odd)),
      );
    }
  }
}

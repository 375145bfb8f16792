import { type Anatomy, type ControlValue, lineSides, type StoredOrder } from './anatomy.ts';
import { controlRef } from './documents.ts';
import type { ControlRef } from './rig.ts';

/** Orders that are stored: in words, as they are typed, and whether each place is one thing's. */

/** The places of an order's things, in the order in which it lists them. */
export type Places = readonly number[];

/** The order that a control is a place in. */
export const orderOf = ({ orders }: Anatomy, control: string): StoredOrder | undefined =>
  orders?.find((order) => orderControls(order).includes(control));

/** Whether each place is one thing's: a permutation. */
export const isOrder = (places: Places): boolean =>
  new Set(places).size === places.length && places.every((place) => place >= 1 && place <= places.length);

/** The controls that an order is kept in: places, and where its line parts. */
export const orderControls = ({ of, branch }: StoredOrder): readonly string[] => [
  ...of.map(({ control }) => control),
  ...(branch ? [...branch.sides, branch.leaves, branch.joins] : []),
];

/** The refs of an order’s controls on a device. */
export const orderRefs = (device: string, order: StoredOrder): readonly ControlRef[] =>
  orderControls(order).map((control) => controlRef(device, control));

/** What a state says of a control: nothing where it does not. */
export type ValueOf = (control: string) => ControlValue | null | undefined;

/** The places that values give; where one says nothing the thing stands where the list has it. Undefined: none does. */
export function placesIn({ of }: StoredOrder, valueOf: ValueOf): Places | undefined {
  const places = of.map(({ control }) => valueOf(control));
  return places.every((place) => typeof place !== 'number')
    ? undefined
    : places.map((place, i) => (typeof place === 'number' ? place : i + 1));
}

const isNumbered = (of: StoredOrder['of']): boolean => of.every(({ name }) => /^\d+$/.test(name));
const [ahead, beside] = lineSides;

/**
 * The names in the order of their places: *1 3 2*, *Wah > Drive > [Amp | Second amp] > Delay* where the line parts. Two
 * at one place are told with a plus, names that follow as listed with dots. Undefined where no place is told. `only`:
 * of these names alone.
 */
export function orderWords(order: StoredOrder, valueOf: ValueOf, only?: ReadonlySet<string>): string | undefined {
  const places = placesIn(order, valueOf);
  if (!places) return undefined;
  const { of, branch } = order;
  const between = isNumbered(of) ? ' ' : ' > ';
  const here = (from: number, to: number, side?: string): string => {
    const names: string[] = [];
    for (let place = from; place <= to; place += 1) {
      const there = of.filter(
        ({ name }, i) =>
          places[i] === place &&
          (only?.has(name) ?? true) &&
          (side === undefined || (valueOf(branch!.sides[i]) ?? ahead) === side),
      );
      if (there.length > 0) names.push(there.map(({ name }) => name).join('+'));
    }
    return names.join(between);
  };
  const leaves = branch ? Number(valueOf(branch.leaves) ?? 0) : 0;
  const told = only || isNumbered(of) || !isOrder(places) ? of.length : lastTold(places);
  const rest = told < of.length - 1 ? dots : '';
  const upTo = rest === '' ? of.length : told;
  const join = (...parts: readonly string[]): string => [...parts, rest].filter((part) => part !== '').join(between);
  if (!branch || leaves === 0) return join(here(1, upTo));
  const joins = Number(valueOf(branch.joins) ?? of.length);
  const parted = `[${here(leaves, joins, ahead)} | ${here(leaves, joins, beside)}]`;
  return joins >= of.length
    ? [here(1, leaves - 1), parted].filter((part) => part !== '').join(between)
    : join(here(1, leaves - 1), parted, here(joins + 1, Math.max(joins, upTo)));
}

const dots = '…';

/** The last place that must be told: what stands after it follows as listed. */
function lastTold(places: Places): number {
  const at = places.map((_, i) => places.indexOf(i + 1));
  let told = at.length;
  // After it the places count up by the list, without those that were named before.
  while (told > 1 && at.slice(told - 1).every((i, k, tail) => k === 0 || i > tail[k - 1])) told -= 1;
  const tail = at.slice(told);
  const named = at.slice(0, told);
  const listed = places.map((_, i) => i).filter((i) => !named.includes(i));
  return tail.every((i, k) => i === listed[k]) ? told : at.length;
}

/**
 * An order as it is typed: the names one after the other, numbers up to nine also without anything between them; what
 * is not named follows as listed. `[Amp | Second amp > Cabinet]` parts the line. A text where it is refused: why.
 */
export function orderTyped(order: StoredOrder, typed: string): ReadonlyMap<string, ControlValue> | string {
  const { of, branch } = order;
  const parted = /^([^[\]|]*)\[([^[\]|]*)\|([^[\]|]*)\]([^[\]|]*)$/.exec(typed);
  if (!parted && /[[\]|]/.test(typed)) return 'Write one branch as [ahead | beside].';
  if (parted && !branch) return 'Here the line does not part.';
  const stretches = parted ? parted.slice(1) : [typed];
  const places = new Array<number>(of.length).fill(0);
  const sides = new Array<string>(of.length).fill(ahead);
  let count = 0;
  const ends: number[] = [];
  for (const [s, stretch] of stretches.entries()) {
    for (const part of partsOf(order, stretch)) {
      const i = of.findIndex(({ name }) => name.toLowerCase() === part.toLowerCase());
      if (i < 0) return `“${part}” is none of ${of.map(({ name }) => name).join(', ')}.`;
      if (places[i] !== 0) return `${of[i].name} stands twice: each has one place.`;
      places[i] = count += 1;
      if (parted && s === 2) sides[i] = beside;
    }
    ends.push(count);
  }
  if (parted && ends[0] === ends[2]) return 'A branch needs something in it.';
  of.forEach((_, i) => (places[i] ||= count += 1));
  const values = new Map<string, ControlValue>(of.map(({ control }, i) => [control, places[i]]));
  if (branch) {
    branch.sides.forEach((control, i) => values.set(control, sides[i]));
    values.set(branch.leaves, parted ? ends[0] + 1 : 0);
    values.set(branch.joins, parted ? ends[2] : of.length);
  }
  return values;
}

function partsOf({ of }: StoredOrder, stretch: string): readonly string[] {
  const numbered = isNumbered(of);
  if (numbered && of.length < 10 && /^\d+$/.test(stretch.trim())) return [...stretch.trim()];
  return stretch
    .split(numbered ? /[^0-9]+/ : /[>,;]+/)
    .map((part) => part.trim())
    .filter((part) => part !== '' && part !== dots && part !== '...');
}

/** The order as a device has it that nobody has told anything: as listed, in one line. */
export const listedOrder = (order: StoredOrder): ReadonlyMap<string, ControlValue> =>
  orderTyped(order, '') as ReadonlyMap<string, ControlValue>;

import type { CaseRig } from '../recall-adapter.ts';
import type { Moment } from './hearing.ts';
import type { PlainEvent } from './plain-rig.ts';
import type { Value } from './values.ts';

/** A press or a hand move that a player can make. */
export interface PlainMove {
  readonly event: PlainEvent;
  /** A control that a hand sets only where nobody knows how it stands. */
  readonly onlyIfOpen: string | null;
  /** What it may move. */
  readonly moves: readonly string[];
  /** What decides whether some of it happens. */
  readonly turnsOn: readonly string[];
}

/** Every press and hand move of a rig, in document order: feet first, then hands. */
export function movesOf({ devices = {} }: CaseRig, wanted: ReadonlyMap<string, Value>): readonly PlainMove[] {
  const list = Object.entries(devices);
  const movedBy = (device: string, action: Readonly<Record<string, unknown>>): readonly string[] => {
    const controls = Object.entries(devices[device].controls ?? {});
    const target = action.toggle ?? action.next ?? action.put ?? action.turn;
    if (target === 'preset')
      return [
        `${device}.preset`,
        ...controls.flatMap(([id, { scope }]) => (scope === 'preset' ? [`${device}.${id}`] : [])),
      ];
    if (target !== undefined) return [`${device}.${String(target)}`];
    return controls.flatMap(([id, { bits }]) => (bits?.includes(String(action.flip_bit)) ? [`${device}.${id}`] : []));
  };
  const armedBy = (device: string, { armed }: Readonly<Record<string, unknown>>): readonly string[] =>
    armed === undefined ? [] : [`${device}.${(armed as { readonly control: string }).control}`];
  const feet = list.flatMap(([device, { foot }]) =>
    Object.entries(foot ?? {}).map(([name, { does }]): PlainMove => ({
      event: { kind: 'foot', device, switch: name, stray: false },
      onlyIfOpen: null,
      moves: does.flatMap((action) => movedBy(device, action)),
      turnsOn: does.flatMap((action) => armedBy(device, action)),
    })),
  );
  const footed = new Set(feet.flatMap(({ moves }) => moves));
  const hands = list.flatMap(([device, { controls }]) =>
    Object.entries(controls ?? {}).flatMap(([control, { domain, owner }]): readonly PlainMove[] => {
      const name = `${device}.${control}`;
      const isFree = owner === 'hand' || owner === 'live' || (owner === 'foot' && !footed.has(name));
      if (!isFree && !footed.has(name)) return [];
      const values = domain.length <= 12 ? domain : wanted.has(name) ? [wanted.get(name)!] : [];
      return values.map((value) => ({
        event: { kind: 'cue', control: name, value },
        onlyIfOpen: isFree ? null : name,
        moves: [name],
        turnsOn: [],
      }));
    }),
  );
  return [...feet, ...hands];
}

export type Exhausted =
  | { readonly is: 'found'; readonly moves: readonly PlainEvent[]; readonly ends: readonly Moment[] }
  | { readonly is: 'none' }
  | { readonly is: 'lost' };

/**
 * The first shortest sequence that is right from all of some moments, by trying every sequence: whole sets of moments,
 * breadth first.
 */
export function exhaust(
  starts: readonly Moment[],
  moves: readonly PlainMove[],
  step: (moment: Moment, event: PlainEvent) => Moment | null,
  isRight: (moments: readonly Moment[]) => boolean,
  budget: () => void,
): Exhausted {
  const keyOf = (moment: Moment): string => JSON.stringify(moment.map((state) => [...state.values()]));
  const unique = (moments: readonly Moment[]): ReadonlyMap<string, Moment> =>
    new Map(moments.map((moment): [string, Moment] => [keyOf(moment), moment]).sort(([a], [b]) => (a < b ? -1 : 1)));
  const first = unique(starts);
  const seen = new Set([[...first.keys()].join()]);
  const queue: { readonly moments: readonly Moment[]; readonly path: readonly PlainEvent[] }[] = [
    { moments: [...first.values()], path: [] },
  ];
  for (const { moments, path } of queue) {
    if (isRight(moments)) return { is: 'found', moves: path, ends: moments };
    for (const { event, onlyIfOpen } of moves) {
      if (onlyIfOpen !== null && !isOpen(moments, onlyIfOpen)) continue;
      budget();
      const after = moments.map((moment) => step(moment, event));
      if (after.some((moment) => moment === null)) return { is: 'lost' };
      const next = unique(after as Moment[]);
      const key = [...next.keys()].join();
      if (seen.has(key)) continue;
      seen.add(key);
      queue.push({ moments: [...next.values()], path: [...path, event] });
    }
  }
  return { is: 'none' };
}

/** Whether a control may stand in several ways, whatever the contents are. */
const isOpen = (moments: readonly Moment[], name: string): boolean =>
  moments[0].some((_, content) => new Set(moments.map((moment) => moment[content].get(name))).size > 1);

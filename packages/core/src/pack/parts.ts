import { cableRuns } from '../build/runs.ts';
import type { Command } from '../change/command.ts';
import { changeSettings } from '../change/settings.ts';
import type { Show } from '../model/documents.ts';
import { isDate, type PartRow, type Shopping } from '../model/pack.ts';
import { inOrder } from '../model/documents.ts';
import type { BuyFacts } from '../model/body.ts';
import { anatomyOf } from '../model/archetypes/registry.ts';
import { said } from '../units/said.ts';
import { plugFits } from '../model/connectors.ts';
import type { Device, Rig } from '../model/rig.ts';

/** Spares of each part, where nobody has said: two of every connector, one of what is whole (common practice). */
export const usualSpares = { connector: 2, whole: 1, metre: 0, piece: 0 } as const;

/** A part that the rig asks for. */
export interface NeededPart {
  readonly name: string;
  readonly kind: keyof typeof usualSpares;
  readonly needed: number;
  /** The pieces or cables that ask for it. */
  readonly by: readonly string[];
  /** Where it is a piece of the rig that is not there yet. */
  readonly device?: Device;
}

export interface PartToBuy extends NeededPart {
  readonly row: PartRow | undefined;
  readonly spares: number;
  readonly have: number;
  readonly buy: number;
  /** Low and high for what is to be bought; null where no price is known. */
  readonly price: readonly [low: number, high: number] | null;
  /** What one costs, low and high; null where nobody has said. */
  readonly each: readonly [low: number, high: number] | null;
  /** Days that it takes to come; undefined where nobody has said. */
  readonly days: number | undefined;
  /** The last day to order it so that it is there for the first show; null where that cannot be said. */
  readonly orderBy: string | null;
}

/** Connectors by kind and angle, whole leads, metres of cable: counted from the patch. */
export function neededParts(rig: Rig): readonly NeededPart[] {
  const parts = new Map<string, { kind: NeededPart['kind']; needed: number; by: Set<string> }>();
  const add = (name: string, kind: NeededPart['kind'], count: number, by: string): void => {
    const part = parts.get(name) ?? { kind, needed: 0, by: new Set() };
    part.needed += count;
    part.by.add(by);
    parts.set(name, part);
  };
  for (const { cable, ends, metres } of cableRuns(rig)) {
    const name = {
      signal: 'instrument',
      speaker: 'loudspeaker',
      midi: 'MIDI',
      contact: 'contact',
      expression: 'expression',
      power: 'power',
      mains: 'mains',
    }[cable.kind];
    if (cable.kind === 'mains') add('Mains lead', 'whole', 1, cable.tag);
    else if (cable.kind === 'midi') add('MIDI cable', 'whole', 1, cable.tag);
    else
      for (const { connector, bent } of ends) add(`${connector}${bent ? ', angled' : ''}`, 'connector', 1, cable.tag);
    if (metres !== null && cable.kind !== 'mains' && cable.kind !== 'midi')
      add(`Metre of ${name} cable`, 'metre', metres, cable.tag);
    for (const id of cable.lead?.reverses ?? []) add('Reversing power lead', 'whole', 1, rig.devices[id]?.name ?? id);
  }
  for (const { name, type, power } of inOrder(rig.devices))
    if (power?.onBattery === true && type.power?.needs?.battery) add('Block battery, 9 V', 'whole', 1, name);
  const wanted = inOrder(rig.devices).filter(({ type }) => type.buy?.isWanted === true);
  return [
    ...wanted.map((device): NeededPart => ({
      name: device.name,
      kind: 'piece',
      needed: 1,
      by: [device.name],
      device,
    })),
    ...[...parts].map(([name, { kind, needed, by }]) => ({
      name,
      kind,
      needed: Math.ceil(Math.round(needed * 1000) / 1000),
      by: [...by],
    })),
  ];
}

/** Spares of each part of a kind, as the rig says, else as is usual. */
export const sparesOf = (rig: Rig, kind: NeededPart['kind']): number =>
  (kind === 'piece' ? undefined : shoppingOf(rig).spares?.[kind]) ?? usualSpares[kind];

export const shoppingOf = ({ settings }: Rig): Shopping => settings.shop ?? {};

/** What is to be bought: what the rig asks for and its spares, less what there is; and what is wanted besides. */
export function partsToBuy(rig: Rig): readonly PartToBuy[] {
  const { rows = [], firstShow } = shoppingOf(rig);
  const needed = neededParts(rig);
  const extra = rows
    .filter(({ name }) => !needed.some((part) => part.name === name))
    .map(({ name, wanted = 0 }): NeededPart => ({ name, kind: 'whole', needed: wanted, by: [] }));
  return [...needed, ...extra].map((part) => {
    const row = rows.find(({ name }) => name === part.name);
    const spares = row?.spares ?? (part.by.length > 0 ? sparesOf(rig, part.kind) : 0);
    const have = row?.have ?? 0;
    const buy = Math.max(0, part.needed + spares - have);
    // What a piece costs and how long it takes is said of the piece itself.
    const facts = part.device ? part.device.type.buy : row;
    const each = bandOf(facts);
    return {
      ...part,
      row,
      spares,
      have,
      buy,
      each,
      price: each && [each[0] * buy, each[1] * buy],
      days: facts?.days,
      orderBy:
        buy > 0 && facts?.days !== undefined && firstShow !== undefined ? dayBefore(firstShow, facts.days) : null,
    };
  });
}

/** The lowest and the highest price, where one of them is known. */
export function bandOf(facts: BuyFacts | undefined): readonly [low: number, high: number] | null {
  const [low, high] = [facts?.low ?? facts?.high, facts?.high ?? facts?.low];
  return low === undefined || high === undefined ? null : [low, high];
}

/** `6.3 mm plug, angled`: the connector and how it is bent. */
const bendOf = (name: string): { readonly plug: string; readonly isBent: boolean } => {
  const plug = name.replace(/, angled$/, '');
  return { plug, isBent: plug !== name };
};

/**
 * What there is that would do until a part comes: another connector that goes into the same jack with as little room,
 * or another piece that does the same to the sound.
 */
export function substitutesFor(rig: Rig, part: PartToBuy, parts: readonly PartToBuy[]): readonly string[] {
  // An amplifier's own gain is in use as it is.
  if (part.device) {
    const does = effectsOf(part.device);
    return does.size === 0
      ? []
      : inOrder(rig.devices)
          .filter(({ type }) => type.buy?.isWanted !== true && type.archetype !== 'amp')
          .filter((other) => [...does].every((effect) => effectsOf(other).has(effect)))
          .map(({ name }) => name);
  }
  if (part.kind !== 'connector') return [];
  const wanted = bendOf(part.name);
  return parts
    .filter(({ name, have }) => {
      const other = bendOf(name);
      return (
        name !== part.name &&
        have > 0 &&
        (other.isBent || !wanted.isBent) &&
        plugFits(wanted.plug, other.plug) === 'yes'
      );
    })
    .map(({ name }) => name);
}

/** What a piece does to the sound. */
const effectsOf = ({ type }: Device): ReadonlySet<string> =>
  new Set(anatomyOf(type).sections.flatMap(({ active, effect }) => (active && effect ? [effect] : [])));

/** So many days before a date, as a date; null where it is none. */
export function dayBefore(iso: string, days: number): string | null {
  if (!isDate(iso)) return null;
  const [year, month, day] = iso.split('-').map(Number);
  const at = Date.UTC(year, month - 1, day);
  // The thirtieth of February is none.
  if (new Date(at).getUTCDate() !== day) return null;
  return new Date(at - days * 86_400_000).toISOString().slice(0, 10);
}

export interface Bill {
  readonly low: number;
  readonly high: number;
  /** Things to buy of which no price is known. */
  readonly unpriced: number;
  readonly overBudget: boolean;
}

export function billOf(rig: Rig): Bill {
  const parts = partsToBuy(rig).filter(({ buy }) => buy > 0);
  const low = parts.reduce((sum, { price }) => sum + (price?.[0] ?? 0), 0);
  const { budget } = shoppingOf(rig);
  return {
    low,
    high: parts.reduce((sum, { price }) => sum + (price?.[1] ?? 0), 0),
    unpriced: parts.filter(({ price }) => price === null).length,
    overBudget: budget !== undefined && low > budget,
  };
}

export const setShopping = (show: Show, change: Partial<Shopping>): Command => changeSettings(show, 'shop', change);

/** What is known of one part; what is not said any more goes. */
export function setPart(show: Show, name: string, change: Partial<PartRow>): Command {
  const rows = shoppingOf(show.rig).rows ?? [];
  const old = rows.find((row) => row.name === name);
  const next = said<PartRow>({ ...old, ...change, name });
  const isEmpty = Object.keys(next).length === 1;
  const left = old
    ? rows.flatMap((row) => (row !== old ? [row] : isEmpty ? [] : [next]))
    : isEmpty
      ? rows
      : [...rows, next];
  return setShopping(show, { rows: left.length > 0 ? left : undefined });
}

import { inOrder, type Show } from '../model/documents.ts';
import type { PackCase, Packing } from '../model/pack.ts';
import type { Device, Rig } from '../model/rig.ts';
import { kilograms } from '../units/shown.ts';
import { type Command, command, set } from '../change/command.ts';
import { changeSettings } from '../change/settings.ts';

/**
 * The load constant of the revised NIOSH lifting equation (Waters et al. 1993): 23 kg for two hands at best; less with
 * reach, height and twist. One hand: half of it (common practice).
 */
export const nioshLoad = 23;
export const usualLimits = { oneHand: 11.5, twoHands: nioshLoad, twoPeople: 2 * nioshLoad } as const;

/** Something in a case, or in none yet. */
export interface Packed {
  readonly id: string;
  readonly name: string;
  readonly count: number;
  /** All of it; null where nobody has said. */
  readonly grams: number | null;
  readonly case: string | undefined;
  readonly packer: string | undefined;
  /** What each of its batteries holds, in Wh; none where it has none. */
  readonly batteries: readonly number[];
  readonly isSpare: boolean;
  readonly device: Device | undefined;
}

export interface FilledCase {
  readonly case: PackCase;
  readonly contents: readonly Packed[];
  readonly grams: number;
  /** Things whose weight nobody has said. */
  readonly unweighed: number;
  readonly lift: 'one hand' | 'two hands' | 'two people' | 'more than two people';
}

export const packingOf = ({ settings }: Rig): Packing => settings.pack ?? {};

/** Everything that is packed: each device, and what is listed besides. */
export function packed(rig: Rig): readonly Packed[] {
  const { items = [], cases = [] } = packingOf(rig);
  const isCase = (id: string | undefined): string | undefined =>
    cases.some((each) => each.id === id) ? id : undefined;
  return [
    ...inOrder(rig.devices).map((device): Packed => {
      const wh = device.type.power?.supply?.battery?.wh;
      return {
        id: `device/${device.id}`,
        name: device.name,
        count: 1,
        grams: device.type.body?.grams ?? null,
        case: isCase(device.case),
        packer: undefined,
        batteries: wh === undefined ? [] : [wh],
        isSpare: false,
        device,
      };
    }),
    ...items.map((item): Packed => ({
      id: `item/${item.id}`,
      name: item.name,
      count: item.count,
      grams: item.grams === undefined ? null : item.grams * item.count,
      case: isCase(item.case),
      packer: item.packer,
      batteries: item.wh === undefined ? [] : Array.from({ length: Math.min(item.count, 50) }, () => item.wh!),
      isSpare: item.wh !== undefined,
      device: undefined,
    })),
  ];
}

/** The cases with what is in them, what they weigh, and how many hands that takes. */
export function filledCases(rig: Rig): readonly FilledCase[] {
  const all = packed(rig);
  const { cases = [], oneHand, twoHands, twoPeople } = packingOf(rig);
  return cases.map((each) => {
    const contents = all.filter((one) => one.case === each.id);
    const grams = contents.reduce((sum, one) => sum + (one.grams ?? 0), each.grams ?? 0);
    const kg = grams / 1000;
    return {
      case: each,
      contents,
      grams,
      unweighed: contents.filter((one) => one.grams === null).length,
      lift:
        kg <= (oneHand ?? usualLimits.oneHand)
          ? 'one hand'
          : kg <= (twoHands ?? usualLimits.twoHands)
            ? 'two hands'
            : kg <= (twoPeople ?? usualLimits.twoPeople)
              ? 'two people'
              : 'more than two people',
    };
  });
}

/** Pieces in a case that are larger than it is outside, whichever way they are turned. */
export function doesNotGoIn({ case: { size }, contents }: FilledCase): readonly Device[] {
  if (!size) return [];
  const outer = [...size].sort((a, b) => a - b);
  return contents.flatMap(({ device }) => {
    const body = device?.type.body;
    if (!body) return [];
    const edges = [body.width, body.depth, body.height].sort((a, b) => a - b);
    return edges.some((mm, i) => mm > outer[i]) ? [device] : [];
  });
}

/** What is in no case yet. */
export const unpacked = (rig: Rig): readonly Packed[] => packed(rig).filter((one) => one.case === undefined);

/** The three lines of a tag: whose and what, where it goes, what it weighs and how it is lifted. */
export function tagLines(rig: Rig, { case: each, grams, lift }: FilledCase): readonly [string, string, string] {
  const how = { ground: 'on the ground', hold: 'in the hold', cabin: 'in the cabin' }[each.travels ?? 'ground'];
  return [
    `${rig.name}: ${each.name}`,
    [each.tape === undefined ? undefined : `${each.tape} tape`, how, each.packer && `packed by ${each.packer}`]
      .filter(Boolean)
      .join(', '),
    `${kilograms(grams)}, ${lift}`,
  ];
}

export const setPacking = (show: Show, change: Partial<Packing>): Command => changeSettings(show, 'pack', change);

export function putInCase(show: Show, id: string, into: string | undefined): Command {
  const device = show.rig.devices[id];
  return command('put-in-case', { device: device.name }, [set(['devices', id, 'case'], into, device.case)]);
}

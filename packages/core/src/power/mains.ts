import { inOrder } from '../model/documents.ts';
import { mainsInlet, type MainsVenue } from '../model/power.ts';
import type { Device, Rig } from '../model/rig.ts';

/** A device with a mains lead, and where that is plugged in. */
export interface MainsNode {
  readonly device: Device;
  /** 0: into the wall; 1: into an outlet of what is; … */
  readonly depth: number;
  /** What its mains lead is plugged into; undefined: the wall. */
  readonly into: Device | undefined;
  readonly ownVa: number;
  /** With all that hangs on its outlets. */
  readonly va: number;
  /** What its outlets may pass on, and do. */
  readonly outlets: { readonly most: number; readonly taken: number } | undefined;
  /** No protective earth comes to it. */
  readonly isUnearthed: boolean;
}

/** The mains from the wall to the last inlet: each device before what hangs on it. A circle of leads hangs nowhere. */
export function mainsChain(rig: Rig): readonly MainsNode[] {
  const devices = inOrder(rig.devices).filter(({ type }) => type.power?.mains !== undefined);
  const parents = new Map<string, string>();
  for (const { kind, plugs } of inOrder(rig.cables)) {
    if (kind !== 'mains') continue;
    const from = plugs.find(({ jack }) => jack !== mainsInlet);
    if (from) for (const { device, jack } of plugs) if (jack === mainsInlet) parents.set(device, from.device);
  }
  const visit = (
    device: Device,
    depth: number,
    isUnearthed: boolean,
    seen: readonly string[],
  ): readonly MainsNode[] => {
    const power = device.type.power!;
    const children = devices.filter(({ id }) => parents.get(id) === device.id && !seen.includes(id));
    const behind = children.flatMap((child) =>
      visit(child, depth + 1, isUnearthed || power.outlets?.unearthed === true, [...seen, child.id]),
    );
    const taken = behind.filter((node) => node.depth === depth + 1).reduce((sum, { va }) => sum + va, 0);
    const ownVa = power.mains!.va;
    const parent = parents.get(device.id);
    return [
      {
        device,
        depth,
        into: parent === undefined ? undefined : rig.devices[parent],
        ownVa,
        va: ownVa + taken,
        outlets: power.outlets && { most: power.outlets.va, taken },
        isUnearthed,
      },
      ...behind,
    ];
  };
  return devices.filter(({ id }) => !parents.has(id)).flatMap((device) => visit(device, 0, false, [device.id]));
}

/** What all of it takes from the wall at once, in VA: the ratings added up, so never less than what flows. */
export const wallVa = (chain: readonly MainsNode[]): number =>
  chain.filter(({ depth }) => depth === 0).reduce((sum, { va }) => sum + va, 0);

/** Amperes at a venue. */
export const wallAmps = (chain: readonly MainsNode[], { volts }: Pick<MainsVenue, 'volts'>): number =>
  wallVa(chain) / volts;

/** Whether a device may be plugged in at a venue. */
export function standsMains({ type }: Device, { volts, hertz }: MainsVenue): 'yes' | 'volts' | 'hertz' {
  const mains = type.power?.mains;
  if (!mains) return 'yes';
  // Outlets are named by a round voltage; the grid keeps within some ten per cent of it (EN 50160, from memory), for
  // which mains ranges are meant.
  if (volts < mains.volts[0] * 0.95 || volts > mains.volts[1] * 1.05) return 'volts';
  return hertz < mains.hertz[0] || hertz > mains.hertz[1] ? 'hertz' : 'yes';
}

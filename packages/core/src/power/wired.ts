import { loopOhms, voltsLost } from '../units/wire.ts';
import { inOrder } from '../model/documents.ts';
import { jackOf } from '../model/jacks.ts';
import { lineIn, lineOut, type PowerNeeds, type PowerOutput, powerInlet, type PowerSource } from '../model/power.ts';
import type { Cable, Device, Plug, Rig } from '../model/rig.ts';
import { lacksHeadroom } from '../supply/judge.ts';
import { usualHeadroom } from '../supply/problem.ts';

/** An output of a supply of the rig, set to one of its voltages. */
export interface OutputInUse {
  readonly supply: Device;
  readonly output: PowerOutput;
  readonly volts: number;
  readonly ma: number;
}

/** What is plugged into an output, or into outputs that a lead joins. */
export interface FeedInUse {
  readonly outputs: readonly OutputInUse[];
  readonly how: 'alone' | 'series' | 'parallel';
  readonly volts: number;
  readonly ma: number;
  readonly loads: readonly WiredLoad[];
  /** mA that its loads draw. */
  readonly drawn: number;
  /** Feeds whose negatives are joined have the same rail. */
  readonly rail: string;
  readonly lacksHeadroom: boolean;
  /** The cable at its outputs; undefined where nothing is plugged in. */
  readonly cable: Cable | undefined;
}

/** A device that needs power, as it stands. */
export interface WiredLoad {
  readonly device: Device;
  readonly needs: PowerNeeds;
  /** Where its power is from: an output, its battery, a cable that leads to no output, or nowhere. */
  readonly by: 'output' | 'battery' | 'loose' | 'nothing';
  readonly cable: Cable | undefined;
  readonly isReversed: boolean;
  readonly isAdapted: boolean;
  /** Volts that are lost on the way, where wires are known. */
  readonly lost: number;
}

/** A limit of a supply, and what is taken of it. */
export interface LimitInUse {
  readonly supply: Device;
  readonly outputs: readonly string[];
  readonly unit: 'mA' | 'VA';
  readonly most: number;
  readonly taken: number;
}

export interface PowerInUse {
  readonly feeds: readonly FeedInUse[];
  readonly limits: readonly LimitInUse[];
  readonly loads: readonly WiredLoad[];
  /** Whether a supply, or a cable of power, has been entered: else nothing is judged. */
  readonly isPlanned: boolean;
}

/** Whether what is judged rests on values that nobody has looked up. */
export const isTypical = (...sources: readonly (PowerSource | undefined)[]): boolean => sources.includes('typical');

export const headroomOf = (rig: Rig): number => rig.settings.power?.headroom ?? usualHeadroom;

/** The voltage that an output is set to, and what it gives there: its first, unless this unit is set otherwise. */
export function settingOf(supply: Device, output: PowerOutput): { readonly volts: number; readonly ma: number } {
  const set = supply.power?.volts?.[output.id];
  return output.choices.find(({ volts }) => volts === set) ?? output.choices[0];
}

export const suppliesOf = (rig: Rig): readonly Device[] =>
  inOrder(rig.devices).filter(({ type }) => type.power?.supply !== undefined);

interface Source {
  readonly supply: Device;
  readonly output: PowerOutput;
  readonly lost: number;
}

const judged = new WeakMap<Rig['devices'], WeakMap<Rig['cables'], PowerInUse>>();

/** What every output bears, as the rig is wired. */
export function powerInUse(rig: Rig): PowerInUse {
  const known = judged.get(rig.devices)?.get(rig.cables);
  // The share that may be used is the one setting that it turns on.
  if (known && headrooms.get(known) === headroomOf(rig)) return known;
  const found = new Reader(rig).read();
  headrooms.set(found, headroomOf(rig));
  const byCables = judged.get(rig.devices) ?? new WeakMap<Rig['cables'], PowerInUse>();
  byCables.set(rig.cables, found);
  judged.set(rig.devices, byCables);
  return found;
}
const headrooms = new WeakMap<PowerInUse, number>();

class Reader {
  private readonly cableAt = new Map<string, Cable>();

  constructor(private readonly rig: Rig) {
    for (const cable of inOrder(rig.cables))
      if (cable.kind === 'power')
        for (const { device, jack } of cable.plugs) this.cableAt.set(`${device}/${jack}`, cable);
  }

  read(): PowerInUse {
    const { rig } = this;
    const devices = inOrder(rig.devices);
    const loads = devices.flatMap((device) => {
      const needs = device.type.power?.needs;
      return needs ? [this.load(device, needs)] : [];
    });
    const feeds = this.feeds(loads);
    const limits = suppliesOf(rig).flatMap((supply) => limitsOf(supply, feeds));
    return {
      loads,
      limits,
      isPlanned: suppliesOf(rig).length > 0 || this.cableAt.size > 0,
      feeds: feeds.map((feed) => ({ ...feed, lacksHeadroom: this.lacks(feed, limits) })),
    };
  }

  private load(device: Device, needs: PowerNeeds): WiredLoad {
    const cable = this.cableAt.get(`${device.id}/${powerInlet}`);
    const sources = cable ? this.sourcesOf(cable) : [];
    const isOnBattery = device.power?.onBattery === true && needs.battery !== undefined;
    return {
      device,
      needs,
      by: sources.length > 0 ? 'output' : isOnBattery ? 'battery' : cable ? 'loose' : 'nothing',
      cable,
      isReversed: cable?.lead?.reverses?.includes(device.id) ?? false,
      isAdapted: cable?.lead?.adapts?.includes(device.id) ?? false,
      lost: sources.length === 0 ? 0 : Math.max(...sources.map(({ lost }) => lost)),
    };
  }

  /** The outputs that a cable comes from, through lines of multi-cores, with what is lost up to its far end. */
  private sourcesOf(cable: Cable, seen: readonly Cable[] = []): readonly Source[] {
    if (seen.includes(cable)) return [];
    const lost = voltsLost(ohmsOf(cable.lead?.gauge, cable.length), this.drawnThrough(cable));
    return cable.plugs.flatMap(({ device: id, jack }): Source[] => {
      const device = this.rig.devices[id];
      if (jackOf(device, jack)?.kind !== 'power-out') return [];
      const output = device.type.power?.supply?.outputs.find((each) => each.id === jack);
      if (output) return [{ supply: device, output, lost }];
      const line = device.type.power?.lines?.find((each) => lineOut(each.id) === jack);
      const before = line && this.cableAt.get(`${id}/${lineIn(line.id)}`);
      if (!before) return [];
      const through = voltsLost(ohmsOf(line.gauge, line.metres), this.drawnThrough(cable));
      return this.sourcesOf(before, [...seen, cable]).map((source) => ({
        ...source,
        lost: source.lost + lost + through,
      }));
    });
  }

  /** mA of all loads behind a cable, through lines of multi-cores too. */
  private drawnThrough(cable: Cable, seen: readonly Cable[] = []): number {
    if (seen.includes(cable)) return 0;
    return cable.plugs.reduce((sum, { device: id, jack }) => {
      const { power } = this.rig.devices[id].type;
      if (jack === powerInlet && power?.needs) return sum + power.needs.ma;
      const line = power?.lines?.find((each) => lineIn(each.id) === jack);
      const next = line && this.cableAt.get(`${id}/${lineOut(line.id)}`);
      return next ? sum + this.drawnThrough(next, [...seen, cable]) : sum;
    }, 0);
  }

  /** What each output bears; those that one lead joins are one feed. */
  private feeds(loads: readonly WiredLoad[]): readonly Omit<FeedInUse, 'lacksHeadroom'>[] {
    const keyOf = ({ supply, output }: Pick<Source, 'supply' | 'output'>): string => `${supply.id}/${output.id}`;
    const fedBy = new Map<WiredLoad, readonly Source[]>(
      loads.flatMap((load) => (load.by === 'output' ? [[load, this.sourcesOf(load.cable!)] as const] : [])),
    );
    const all = suppliesOf(this.rig).flatMap((supply) =>
      supply.type.power!.supply!.outputs.map((output) => ({ supply, output })),
    );
    // Outputs that feed the same load are joined.
    const groupOf = new Map(all.map((source) => [keyOf(source), keyOf(source)]));
    const join = (group: Map<string, string>, names: readonly string[]): void => {
      const kept = group.get(names[0])!;
      for (const name of names.slice(1)) {
        const gone = group.get(name)!;
        for (const [key, value] of group) if (value === gone) group.set(key, kept);
      }
    };
    for (const cable of new Set(this.cableAt.values())) {
      const keys = this.sourcesOf(cable).map(keyOf);
      if (keys.length > 1) join(groupOf, keys);
    }
    for (const sources of fedBy.values()) join(groupOf, sources.map(keyOf));
    const railOf = new Map(
      all.map((source) => {
        const { rail } = source.output;
        return [keyOf(source), rail === undefined ? keyOf(source) : `${source.supply.id}: ${rail}`];
      }),
    );
    for (const group of new Set(groupOf.values())) {
      const keys = all.map(keyOf).filter((key) => groupOf.get(key) === group);
      const rails = keys.map((key) => railOf.get(key)!);
      for (const [key, rail] of railOf) if (rails.includes(rail)) railOf.set(key, rails[0]);
    }
    return [...new Set(groupOf.values())].map((group) => {
      const sources = all.filter((source) => groupOf.get(keyOf(source)) === group);
      const here = loads.filter((load) => fedBy.get(load)?.some((source) => groupOf.get(keyOf(source)) === group));
      const outputs = sources.map(({ supply, output }) => ({ supply, output, ...settingOf(supply, output) }));
      const cable = this.cableAt.get(keyOf(sources[0]));
      return {
        outputs,
        ...joinedFigures(outputs, this.joinOf(sources)),
        loads: here,
        drawn: here.reduce((sum, { needs }) => sum + needs.ma, 0),
        rail: railOf.get(group)!,
        cable,
      };
    });
  }

  /** How outputs are joined: as the lead says, else as the supply's papers allow. */
  private joinOf(sources: readonly Pick<Source, 'supply' | 'output'>[]): FeedInUse['how'] {
    if (sources.length === 1) return 'alone';
    const [{ supply, output }] = sources;
    const said = this.cableAt.get(`${supply.id}/${output.id}`)?.lead?.join;
    return said ?? joinAllowed(sources) ?? 'parallel';
  }

  private lacks(feed: Omit<FeedInUse, 'lacksHeadroom'>, limits: readonly LimitInUse[]): boolean {
    const percent = headroomOf(this.rig);
    if (feed.loads.length === 0) return false;
    return (
      lacksHeadroom(feed.drawn, feed.ma, percent) ||
      limits.some(
        ({ supply, outputs, taken, most }) =>
          feed.outputs.some((each) => each.supply.id === supply.id && outputs.includes(each.output.id)) &&
          lacksHeadroom(taken, most, percent),
      )
    );
  }
}

/** How a supply's own papers allow these outputs to be joined; undefined: not at all. */
export function joinAllowed(
  sources: readonly { readonly supply: Device; readonly output: PowerOutput }[],
): 'series' | 'parallel' | undefined {
  const [first] = sources;
  if (sources.length !== 2 || sources.some(({ supply }) => supply.id !== first.supply.id)) return undefined;
  return first.supply.type.power?.supply?.joins?.find(({ outputs }) =>
    sources.every(({ output }) => outputs.includes(output.id)),
  )?.how;
}

function joinedFigures(
  outputs: readonly OutputInUse[],
  how: FeedInUse['how'],
): Pick<FeedInUse, 'how' | 'volts' | 'ma'> {
  if (how === 'series')
    return {
      how,
      volts: outputs.reduce((sum, { volts }) => sum + volts, 0),
      ma: Math.min(...outputs.map(({ ma }) => ma)),
    };
  return { how, volts: outputs[0].volts, ma: outputs.reduce((sum, { ma }) => sum + ma, 0) };
}

/** What is taken of each limit of a supply: as `takenOf` in the solver counts it. */
function limitsOf(supply: Device, feeds: readonly Omit<FeedInUse, 'lacksHeadroom'>[]): LimitInUse[] {
  return (supply.type.power?.supply?.limits ?? []).map(({ outputs, ma, va }) => {
    const isPower = va !== undefined;
    const taken = feeds.reduce((sum, feed) => {
      const inside = feed.outputs.filter((each) => each.supply.id === supply.id && outputs.includes(each.output.id));
      if (inside.length === 0) return sum;
      const factor = (volts: number): number => (isPower ? volts / 1000 : 1);
      if (feed.how === 'parallel')
        return (
          sum +
          Math.min(
            feed.drawn,
            inside.reduce((most, each) => most + each.ma, 0),
          ) *
            factor(inside[0].volts)
        );
      return sum + inside.reduce((part, each) => part + feed.drawn * factor(each.volts), 0);
    }, 0);
    return { supply, outputs, unit: isPower ? 'VA' : 'mA', most: va ?? ma ?? 0, taken };
  });
}

const ohmsOf = (gauge: number | undefined, metres: number | null): number =>
  gauge === undefined || metres === null ? 0 : loopOhms(gauge, metres);

export const outputLabel = ({ supply, output }: { readonly supply: Device; readonly output: PowerOutput }): string =>
  `${supply.name} ${output.label.toLowerCase()}`;
export const feedLabel = (feed: Pick<FeedInUse, 'outputs'>): string => feed.outputs.map(outputLabel).join(' + ');

/** The plugs of a cable that give, and those that take. */
export const givesPower = (rig: Rig, { device, jack }: Plug): boolean =>
  jackOf(rig.devices[device], jack)?.kind === 'power-out';

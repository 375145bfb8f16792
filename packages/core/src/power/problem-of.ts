import { inOrder } from '../model/documents.ts';
import { lineIn, lineOut, powerInlet } from '../model/power.ts';
import type { Device, Plug, Rig } from '../model/rig.ts';
import type { Seat } from '../supply/judge.ts';
import type { CompiledSupply, SpecialLeads, SupplyPin, SupplyProblem } from '../supply/problem.ts';
import { givesPower, headroomOf, powerInUse, suppliesOf, type WiredLoad } from './wired.ts';

/** `supply/dc-1` */
export const outputName = (supply: string, output: string): string => `${supply}/${output}`;

/** The outputs and loads of a rig as a problem; loads are named by their device, outputs by `outputName`. */
export function supplyProblemOf(rig: Rig): SupplyProblem {
  const supplies = suppliesOf(rig);
  const { loads } = powerInUse(rig);
  const pins: Record<string, SupplyPin> = {};
  for (const load of loads) {
    const pin = load.device.power?.held === true ? pinOf(rig, load) : undefined;
    if (pin !== undefined) pins[load.device.id] = pin;
  }
  return {
    outputs: supplies.flatMap(({ id, type }) =>
      type.power!.supply!.outputs.map((output) => ({
        name: outputName(id, output.id),
        choices: output.choices,
        kind: output.kind,
        centre: output.centre,
        plug: output.plug,
        rail: output.rail === undefined ? null : `${id}: ${output.rail}`,
      })),
    ),
    limits: supplies.flatMap(({ id, type }) =>
      (type.power!.supply!.limits ?? []).map(({ outputs, ma, va }) => ({
        outputs: outputs.map((output) => outputName(id, output)),
        most: va === undefined ? { ma: ma ?? 0 } : { va },
      })),
    ),
    joins: supplies.flatMap(({ id, type }) =>
      (type.power!.supply!.joins ?? []).map(({ outputs: [a, b], how }) => ({
        outputs: [outputName(id, a), outputName(id, b)] as const,
        how,
      })),
    ),
    loads: loads.map(({ device, needs }) => ({
      name: device.id,
      volts: [needs.volts[0], needs.volts[1]] as const,
      ma: needs.ma,
      kind: needs.kind,
      centre: needs.centre,
      plug: needs.plug,
      isDigital: needs.digital ?? false,
      earth: needs.earth ?? '-',
      mayUseBattery: needs.battery !== undefined,
    })),
    leads: leadsOf(rig),
    pins,
    headroom: headroomOf(rig),
  };
}

/** Where a load is held: as it is. What leads to no output is not held. */
function pinOf(rig: Rig, load: WiredLoad): SupplyPin | undefined {
  if (load.by === 'battery') return 'battery';
  if (load.by === 'nothing') return 'unpowered';
  const feed = powerInUse(rig).feeds.find(({ loads }) => loads.some(({ device }) => device.id === load.device.id));
  return feed?.outputs.map(({ supply, output }) => outputName(supply.id, output.id));
}

/** The special leads that there are; where nobody said, those that the patch has. */
export function leadsOf(rig: Rig): SpecialLeads {
  const said = rig.settings.power?.leads;
  if (said) return said;
  const cables = inOrder(rig.cables).filter(({ kind }) => kind === 'power');
  const count = (lists: readonly (readonly string[] | undefined)[]): number =>
    lists.reduce((sum, list) => sum + (list?.length ?? 0), 0);
  return {
    reversing: count(cables.map(({ lead }) => lead?.reverses)),
    adapter: count(cables.map(({ lead }) => lead?.adapts)),
    chains: cables
      .map(({ plugs }) => plugs.filter(({ jack }) => jack === powerInlet).length)
      .filter((plugs) => plugs > 1),
  };
}

/** Where a load is plugged in for an output: there, or at the far end of a line that carries it alone. */
export function tailOf(rig: Rig, supply: Device, output: string): Plug {
  let at = { device: supply.id, jack: output } as Plug;
  for (let hops = 0; hops < 20; hops += 1) {
    const cable = Object.values(rig.cables).find(
      ({ kind, plugs }) => kind === 'power' && plugs.some((plug) => plug.device === at.device && plug.jack === at.jack),
    );
    const takes = cable?.plugs.filter((plug) => !givesPower(rig, plug)) ?? [];
    if (takes.length !== 1 || cable!.plugs.length !== 2) return at;
    const [{ device, jack }] = takes;
    const line = rig.devices[device].type.power?.lines?.find(({ id }) => lineIn(id) === jack);
    if (!line) return at;
    at = { device, jack: lineOut(line.id) } as Plug;
  }
  return at;
}

/** Where each load of a problem is today, as one of its seats; undefined where it is nowhere, or on no feed of it. */
export function seatsOfToday(rig: Rig, { loads, feeds, source }: CompiledSupply): readonly (Seat | undefined)[] {
  const power = powerInUse(rig);
  return loads.map(({ name }) => {
    const load = power.loads.find(({ device }) => device.id === name);
    if (load?.by === 'battery') return 'battery';
    const feed = power.feeds.find((each) => each.loads.some(({ device }) => device.id === name));
    const names = feed?.outputs.map(({ supply, output }) => outputName(supply.id, output.id)) ?? [];
    const at = feeds.findIndex(
      ({ outputs }) =>
        outputs.length === names.length && outputs.every((output) => names.includes(source.outputs[output].name)),
    );
    return at < 0 ? undefined : at;
  });
}

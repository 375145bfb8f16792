import type { Show } from '../model/documents.ts';
import { jackOf } from '../model/jacks.ts';
import { freshCableId } from '../model/names.ts';
import {
  type PowerLead,
  powerInlet,
  powerJacksOf,
  type PowerSettings,
  type TypePower,
  type UnitPower,
} from '../model/power.ts';
import type { Cable, Plug, Rig } from '../model/rig.ts';
import { sameData } from '../units/same-data.ts';
import { changeSettings } from './settings.ts';
import { type Command, command, remove, set } from './command.ts';
import { connect } from './commands.ts';
import type { Step } from './steps.ts';

/** What a device's type says of power; undefined: nothing. Cables at jacks that go are unplugged. */
export function setTypePower(show: Show, id: string, power: TypePower | undefined): Command {
  const device = show.rig.devices[id];
  const left = new Set(powerJacksOf(power).map((jack) => jack.id));
  const gone = powerJacksOf(device.type.power).filter((jack) => !left.has(jack.id));
  return command('set-power', { device: device.name }, [
    ...gone.flatMap((jack) => unplugSteps(show.rig, { device: device.id, jack: jack.id })),
    set(['devices', id, 'type', 'power'], power, device.type.power),
  ]);
}

/** How one unit is powered: battery, voltages, held. */
export function setUnitPower(show: Show, id: string, change: Partial<UnitPower>): Command {
  const device = show.rig.devices[id];
  const all = Object.entries({ ...device.power, ...change }).filter(
    ([, value]) => value !== undefined && value !== false,
  );
  const next = all.length > 0 ? Object.fromEntries(all) : undefined;
  return command('set-power', { device: device.name }, [set(['devices', id, 'power'], next, device.power)]);
}

export const setPowerSettings = (show: Show, change: Partial<PowerSettings>): Command =>
  changeSettings(show, 'power', change);

export const setLead = (show: Show, id: string, lead: PowerLead | undefined): Command => {
  const cable = show.rig.cables[id];
  return command('set-cable', { cable: cable.tag, field: 'lead' }, [set(['cables', id, 'lead'], lead, cable.lead)]);
};

/**
 * Feeds a load from an output, from its battery, or from nothing. At an output that feeds something already it hangs on
 * the same lead. `needs`: what the lead has to do there.
 */
export function feedLoad(
  show: Show,
  id: string,
  from: Plug | 'battery' | 'nothing',
  needs: { readonly reverses: boolean; readonly adapts: boolean } = { reverses: false, adapts: false },
): Command {
  const { rig } = show;
  const device = rig.devices[id];
  const inlet: Plug = { device: device.id, jack: powerInlet };
  const steps: Step[] = [];
  const there = typeof from === 'string' ? undefined : cableAt(rig, from);
  const before = cableAt(rig, inlet);
  if (before && before !== there) steps.push(...unplugSteps(rig, inlet));
  const { onBattery: _, ...rest } = device.power ?? {};
  const power = from === 'battery' ? { ...rest, onBattery: true } : rest;
  const next = Object.keys(power).length > 0 ? power : undefined;
  if (!sameData(next, device.power)) steps.push(set(['devices', id, 'power'], next, device.power));
  if (typeof from !== 'string') {
    const lead = leadWith(there?.lead, id, needs);
    if (there) {
      if (there !== before) steps.push(set(['cables', there.id, 'plugs'], [...there.plugs, inlet], there.plugs));
      if (!sameData(lead, there.lead)) steps.push(set(['cables', there.id, 'lead'], lead, there.lead));
    } else {
      const cable = freshCableId(rig);
      steps.push(...connect(show, cable, [from, inlet]).steps);
      if (lead) steps.push(set(['cables', cable, 'lead'], lead, undefined));
    }
  }
  return command('feed-load', { device: device.name }, steps);
}

function leadWith(
  lead: PowerLead | undefined,
  id: string,
  { reverses, adapts }: { readonly reverses: boolean; readonly adapts: boolean },
): PowerLead | undefined {
  const listed = (list: readonly string[] | undefined, isIn: boolean): readonly string[] => [
    ...(list ?? []).filter((each) => each !== id),
    ...(isIn ? [id] : []),
  ];
  const next = { ...lead, reverses: listed(lead?.reverses, reverses), adapts: listed(lead?.adapts, adapts) };
  const kept = Object.entries(next).filter(([, value]) => !Array.isArray(value) || value.length > 0);
  return kept.length > 0 ? Object.fromEntries(kept) : undefined;
}

/** The cable that is in a jack. */
export const cableAt = ({ cables }: Pick<Rig, 'cables'>, plug: Plug): Cable | undefined =>
  Object.values(cables).find(({ plugs }) =>
    plugs.some(({ device, jack }) => device === plug.device && jack === plug.jack),
  );

/** Pulls one plug; a cable that then leads nowhere goes. */
function unplugSteps(rig: Rig, plug: Plug): Step[] {
  const cable = cableAt(rig, plug);
  if (!cable) return [];
  const plugs = cable.plugs.filter(({ device, jack }) => device !== plug.device || jack !== plug.jack);
  const takes = plugs.filter((each) => jackOf(rig.devices[each.device], each.jack)?.kind.endsWith('-in'));
  if (plugs.length < 2 || takes.length === 0 || takes.length === plugs.length)
    return [remove(['cables', cable.id], cable)];
  const lead = leadWith(cable.lead, plug.device, { reverses: false, adapts: false });
  return [
    set(['cables', cable.id, 'plugs'], plugs, cable.plugs),
    ...(sameData(lead, cable.lead) ? [] : [set(['cables', cable.id, 'lead'], lead, cable.lead)]),
  ];
}

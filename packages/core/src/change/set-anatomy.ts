import { factsOf, openedType } from '../design/opened-type.ts';
import type { Anatomy } from '../model/anatomy.ts';
import { anatomyOf } from '../model/archetypes/registry.ts';
import { type Show, splitRef } from '../model/documents.ts';
import type { Device, DeviceType } from '../model/rig.ts';
import { problem, type Problem } from '../units/problem.ts';
import { type Command, command, set } from './command.ts';
import { sameData } from '../units/same-data.ts';
import type { Step } from './steps.ts';

/** Puts another type in the place of a device's; facts of this unit about what the new one has not go with it. */
export function takeType(show: Show, id: string, type: DeviceType): Command {
  const device = show.rig.devices[id];
  return command('take-type', { device: device.name, type: type.name, revision: type.revision }, [
    ...prunings(device, anatomyOf(type)),
    set(['devices', id, 'type'], { ...type, ...keptFacts(device.type, type) }, device.type),
  ]);
}

/**
 * Power, outline and price where another type comes in: what somebody looked up or measured of the device stays, and
 * so does what the new type says nothing of.
 */
function keptFacts(was: DeviceType, next: DeviceType): Pick<DeviceType, 'power' | 'body' | 'buy'> {
  const known = <F extends { readonly from: string }>(old: F | undefined, other: F | undefined): F | undefined =>
    old && (old.from !== 'typical' || !other) ? old : other;
  return factsOf({
    ...was,
    power: known(was.power, next.power),
    body: known(was.body, next.body),
    buy: was.buy ?? next.buy,
  });
}

/** Writes out all that is inside a device, so that each thing of it can be changed; it behaves as before. */
export function openDevice(show: Show, id: string, typeId: string): Command {
  const device = show.rig.devices[id];
  return command('open-device', { device: device.name }, [
    set(['devices', id, 'type'], openedType(device.type, typeId), device.type),
  ]);
}

/** Changes what is inside a device that is written out; `what`: the list that is changed, for the history. */
export function setAnatomy(show: Show, id: string, anatomy: Anatomy, what: string): Command {
  const device = show.rig.devices[id];
  const before = (device.type.params.anatomy ?? {}) as Readonly<Record<string, unknown>>;
  const after = anatomy as unknown as Readonly<Record<string, unknown>>;
  const changed = [...new Set([...Object.keys(before), ...Object.keys(after)])].filter(
    (list) => !sameData(before[list], after[list]),
  );
  return command('set-anatomy', { device: device.name, what: what.toLowerCase() }, [
    ...prunings(device, anatomy),
    ...changed.map((list) => set(['devices', id, 'type', 'params', 'anatomy', list], after[list], before[list])),
  ]);
}

/** What the type itself is called. */
export function nameType(show: Show, id: string, name: string): Command {
  const device = show.rig.devices[id];
  return command('set-device', { device: device.name, field: 'type' }, [
    set(['devices', id, 'type', 'name'], name, device.type.name),
  ]);
}

/** Owners, power-ups, planned switches and preset contents of what an anatomy no longer has. */
function prunings(device: Device, next: Anatomy): readonly Step[] {
  const controls = new Set(next.controls.map(({ id }) => id));
  const isThere = (control: string): boolean =>
    controls.has(control) || (control === 'preset' && next.presets !== undefined);
  const kept = <T>(entries: Readonly<Record<string, T>>): Readonly<Record<string, T>> =>
    Object.fromEntries(Object.entries(entries).filter(([control]) => isThere(control)));
  const presets = next.presets
    ? Object.fromEntries(
        Object.entries(device.presets).map(([number, preset]) => [number, { ...preset, values: kept(preset.values) }]),
      )
    : {};
  const switches = new Set(next.switches.map((footSwitch) => footSwitch.id));
  const facts = {
    owners: kept(device.owners),
    powerUps: kept(device.powerUps),
    plannedSwitches: device.plannedSwitches.filter((footSwitch) => switches.has(footSwitch)),
    presets,
  };
  return (Object.keys(facts) as (keyof typeof facts)[]).flatMap((field) =>
    sameData(facts[field], device[field]) ? [] : [set(['devices', device.id, field], facts[field], device[field])],
  );
}

/**
 * What still needs something that an anatomy would no longer have: a cable its jack, a sound or a slot its control, a
 * part its switch. Undefined where nothing does.
 */
export function stillNeeded(show: Show, id: string, next: Anatomy): Problem | undefined {
  const { rig } = show;
  const before = anatomyOf(rig.devices[id].type);
  const gone = <T extends { readonly id: string; readonly label: string }>(was: readonly T[], is: readonly T[]) =>
    new Map(was.filter((each) => !is.some((other) => other.id === each.id)).map((each) => [each.id, each.label]));
  const jacks = gone(before.jacks, next.jacks);
  const controls = gone(before.controls, next.controls);
  if (before.presets && !next.presets) controls.set('preset', 'Preset');
  const switches = gone(before.switches, next.switches);
  const inUse = (what: string, label: string, by: string): Problem => problem('', 'in-use', { what, id: label, by });
  for (const cable of Object.values(rig.cables))
    for (const plug of cable.plugs)
      if (plug.device === id && jacks.has(plug.jack))
        return inUse('Jack', jacks.get(plug.jack)!, `cable ${cable.tag ?? cable.id}`);
  const controlOf = (ref: string): string | undefined => {
    const { device, control } = splitRef(ref);
    return device === id ? controls.get(control) : undefined;
  };
  for (const sound of Object.values(rig.sounds))
    for (const ref of Object.keys(sound.wants)) {
      const label = controlOf(ref);
      if (label !== undefined) return inUse('Control', label, `the sound ${sound.name}`);
    }
  for (const slot of Object.values(rig.slots))
    for (const action of slot.controller === id ? (slot.actions ?? []) : [])
      if ('control' in action && controls.has(action.control))
        return inUse('Control', controls.get(action.control)!, 'a slot written by hand');
  for (const cast of Object.values(rig.casting))
    for (const action of [...cast.before, ...cast.after]) {
      const part = show.songbook.parts[cast.part]?.name ?? cast.part;
      if (action.kind === 'foot' && action.device === id && switches.has(action.switch))
        return inUse('Foot switch', switches.get(action.switch)!, `the part ${part}`);
      const label = action.kind === 'cue' ? controlOf(action.control) : undefined;
      if (label !== undefined) return inUse('Control', label, `the part ${part}`);
    }
  return undefined;
}

import type { Show } from '../model/documents.ts';
import type { PowerNeeds, PowerSettings, PowerSupplyFacts, TypePower, UnitPower } from '../model/power.ts';
import type { Cable } from '../model/rig.ts';
import { ordinary, withDevice } from './rule-rigs.ts';

/** The ordinary rig with a supply: every piece on an isolated output of its own, with headroom, one output free. */
export const poweredBuilder = () =>
  ordinary()
    .device('supply', 'supply', 'Supply')
    .cables('Supply Out 1 > Drive', 'Supply Out 6 > Switcher', 'Supply Out 7 > Delay');
export const powered = (): Show => poweredBuilder().show;

/** With other power facts of one device’s type. */
export function withTypePower(show: Show, id: string, change: (power: TypePower) => TypePower): Show {
  const { type } = show.rig.devices[id];
  return withDevice(show, id, { type: { ...type, power: change(type.power ?? { from: 'typical' }) } });
}
export const withNeeds = (show: Show, id: string, change: Partial<PowerNeeds>): Show =>
  withTypePower(show, id, (power) => ({ ...power, needs: { ...power.needs!, ...change } }));
export const withSupply = (show: Show, id: string, change: Partial<PowerSupplyFacts>): Show =>
  withTypePower(show, id, (power) => ({ ...power, supply: { ...power.supply!, ...change } }));

export const withUnitPower = (show: Show, id: string, power: UnitPower): Show => withDevice(show, id, { power });

export const withPowerSettings = (show: Show, power: PowerSettings): Show => ({
  ...show,
  rig: { ...show.rig, settings: { ...show.rig.settings, power } },
});

/** With the power cable of a device as given; null: pulled. */
export function withPowerCable(show: Show, device: string, change: Partial<Cable> | null): Show {
  const cables = Object.entries(show.rig.cables).flatMap(([id, cable]): [string, Cable][] => {
    if (cable.kind !== 'power' || !cable.plugs.some((plug) => plug.device === device)) return [[id, cable]];
    return change === null ? [] : [[id, { ...cable, ...change }]];
  });
  return { ...show, rig: { ...show.rig, cables: Object.fromEntries(cables) } };
}

/** All facts taken from papers. */
export const lookedUp = (show: Show): Show =>
  Object.keys(show.rig.devices).reduce(
    (now, id) =>
      now.rig.devices[id].type.power ? withTypePower(now, id, (power) => ({ ...power, from: 'papers' })) : now,
    show,
  );
export const plugs = (...ends: readonly string[]): Cable['plugs'] =>
  ends.map((end) => {
    const [device, jack] = end.split('/');
    return { device, jack } as Cable['plugs'][number];
  });

/** Every rule of power is quiet on these: a rig whose power nobody has planned, and one that is planned well. */
export const quiet = { 'no supply yet': ordinary().show, 'a supply, each piece on its own output': powered() };

export const europe = { id: 'v', name: 'The quay', volts: 230, hertz: 50 };
export const shared = (): Show =>
  withPowerCable(withPowerCable(powered(), 'drive', null), 'switcher', {
    plugs: plugs('supply/dc-6', 'switcher/power-in', 'drive/power-in'),
  });
export const joined = (join: 'series' | 'parallel', outputs: readonly string[] = ['dc-1', 'dc-2']): Show =>
  withNeeds(
    withPowerCable(powered(), 'drive', {
      plugs: plugs(...outputs.map((output) => `supply/${output}`), 'drive/power-in'),
      lead: { join },
    }),
    'drive',
    { volts: [9, 18] },
  );
export const onStrip = (): Show =>
  poweredBuilder().device('strip', 'outlet-strip', 'Strip').cables('Strip Outlet 1 > Combo Mains').show;
export const onLine = (gauge: number): Show =>
  withTypePower(poweredBuilder().device('snake', 'multi-core-power', 'Multi-core').show, 'snake', (power) => ({
    ...power,
    lines: power.lines!.map((line) => ({ ...line, gauge })),
  }));
export const throughLine = (gauge: number): Show => {
  const show = withPowerCable(onLine(gauge), 'delay', { plugs: plugs('supply/dc-7', 'snake/power-1-in') });
  const [id, like] = Object.entries(show.rig.cables).find(([, { kind }]) => kind === 'power')!;
  const cable = { ...like, id: `${id}-b`, tag: 'P99', plugs: plugs('snake/power-1-out', 'delay/power-in') };
  return { ...show, rig: { ...show.rig, cables: { ...show.rig.cables, [`${id}-b`]: cable as never } } };
};

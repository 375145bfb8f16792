import type { Device, Rig } from '../model/rig.ts';
import { type PowerInUse, suppliesOf } from './wired.ts';

/** Sound check, waiting and the show, where a rig does not say how long (common practice). */
export const usualHours = 4;
export const hoursNeeded = ({ settings }: Rig): number => settings.power?.hours ?? usualHours;

/** Something that runs on what it holds, and for how long. */
export interface BatteryLife {
  readonly device: Device;
  /** Watts for a supply, mA for a device on its own battery. */
  readonly drawn: number;
  readonly unit: 'W' | 'mA';
  /** Null while nothing draws from it. */
  readonly hours: number | null;
}

/** Wh × efficiency / W for supplies, mAh / mA for devices: at the rated drain and a full charge, so at best. */
export function batteryLives(rig: Rig, { feeds, loads }: PowerInUse): readonly BatteryLife[] {
  const supplies = suppliesOf(rig).flatMap((device): BatteryLife[] => {
    const battery = device.type.power?.supply?.battery;
    if (!battery) return [];
    const milliwatts = feeds.reduce(
      (sum, feed) =>
        sum +
        feed.outputs
          .filter(({ supply }) => supply.id === device.id)
          .reduce(
            (part, each) => part + (feed.drawn * each.volts) / (feed.how === 'parallel' ? feed.outputs.length : 1),
            0,
          ),
      0,
    );
    const watts = milliwatts / 1000;
    const held = (battery.wh * (battery.efficiency ?? 100)) / 100;
    return [{ device, drawn: watts, unit: 'W', hours: watts === 0 ? null : held / watts }];
  });
  const own = loads
    .filter(({ by }) => by === 'battery')
    .map(({ device, needs }): BatteryLife => ({
      device,
      drawn: needs.ma,
      unit: 'mA',
      hours: needs.ma === 0 ? null : needs.battery!.mah / needs.ma,
    }));
  return [...supplies, ...own];
}

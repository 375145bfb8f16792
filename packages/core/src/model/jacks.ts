import type { Jack } from './anatomy.ts';
import { anatomyOf } from './archetypes/registry.ts';
import { powerJacksOf } from './power.ts';
import type { Device, DeviceType } from './rig.ts';

const known = new WeakMap<DeviceType, readonly Jack[]>();

/** All jacks of a type: those of its anatomy, and those by which it takes and gives power. */
export function jacksOf(type: DeviceType): readonly Jack[] {
  let jacks = known.get(type);
  if (!jacks) {
    const own = anatomyOf(type).jacks;
    const power = powerJacksOf(type.power).filter(({ id }) => !own.some((jack) => jack.id === id));
    known.set(type, (jacks = power.length === 0 ? own : [...own, ...power]));
  }
  return jacks;
}

export const jackOf = (device: Pick<Device, 'type'> | undefined, id: string): Jack | undefined =>
  device && jacksOf(device.type).find((jack) => jack.id === id);

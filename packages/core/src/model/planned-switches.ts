import type { Device, Rig } from './rig.ts';

const name = (device: string, footSwitch: string): string => JSON.stringify([device, footSwitch]);

/** The switches that a rig plans a foot for: by the device itself, or before or after some part. */
export class PlannedSwitches {
  private readonly cast: ReadonlySet<string>;

  constructor({ casting }: Rig) {
    this.cast = new Set(
      Object.values(casting)
        .flatMap((cast) => [...cast.before, ...cast.after])
        .flatMap((action) => (action.kind === 'foot' ? [name(action.device, action.switch)] : [])),
    );
  }

  has({ id, plannedSwitches }: Device, footSwitch: string): boolean {
    return plannedSwitches.includes(footSwitch) || (this.cast.size > 0 && this.cast.has(name(id, footSwitch)));
  }
}

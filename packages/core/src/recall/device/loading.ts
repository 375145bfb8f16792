import type { ModelDevice } from '../state/state-model.ts';
import type { Running } from './update.ts';

/** When a message takes effect at a device that may be loading: its own time, later (queued), or never (dropped). */
export function admission(device: ModelDevice, time: number, running: Running): number | undefined {
  const until = running.busyUntil.get(device.index) ?? 0;
  if (time >= until) return time;
  return device.wired.anatomy.busy?.policy === 'queue' ? until : undefined;
}

export const blockedBy = (device: ModelDevice): readonly number[] | undefined =>
  device.wired.anatomy.busy ? device.variables : undefined;

/** When a device is ready again that begins to load now. */
export const loadedBy = ({ wired }: ModelDevice, time: number): number => time + (wired.anatomy.busy?.ms ?? 0) * 1000;

export function beginLoading(device: ModelDevice, time: number, running: Running): void {
  if (device.wired.anatomy.busy) running.busyUntil.set(device.index, loadedBy(device, time));
}

import type { Show } from '../model/documents.ts';
import type { DeviceIntent } from '../model/rig.ts';
import { type Command, command, set } from './command.ts';

/** Where a piece is wanted; undefined: wherever it is best. */
export const wantPlace = (show: Show, device: string, place: DeviceIntent['place']): Command =>
  intend(show, device, 'place', place, 'want-place', {
    place:
      place === undefined ? 'wherever it is best' : typeof place === 'number' ? `in loop ${place}` : placeWords[place],
  });

/** What may switch a piece; undefined: what its type allows; none: it is never off. */
export const wantSwitchedBy = (show: Show, device: string, means: DeviceIntent['means']): Command =>
  intend(show, device, 'means', means, 'want-switched', {
    means: means === undefined ? 'what its type allows' : means.length === 0 ? 'nothing' : means.join(', '),
  });

const placeWords = {
  front: 'in front',
  loop: 'in a loop',
  insert: 'in the insert',
  after: 'after the loops',
  wet: 'on the wet side',
  'left out': 'left at home',
  kept: 'as it is wired',
} as const;

function intend<K extends keyof DeviceIntent>(
  show: Show,
  id: string,
  field: K,
  value: DeviceIntent[K],
  name: string,
  facts: Command['command']['facts'],
): Command {
  const { name: device, intent } = show.rig.devices[id];
  const { [field]: _, ...rest } = intent ?? {};
  const next = { ...rest, ...(value === undefined ? {} : { [field]: value }) };
  return command(name, { device, ...facts }, [
    set(['devices', id, 'intent'], Object.keys(next).length > 0 ? next : undefined, intent),
  ]);
}

/** A piece before another in the wanted order, or last; `order`: the pieces as they stand in it now. */
export function wantBefore(show: Show, order: readonly string[], device: string, next: string | null): Command {
  const left = order.filter((id) => id !== device);
  const at = next === null ? left.length : Math.max(0, left.indexOf(next));
  const wanted = [...left.slice(0, at), device, ...left.slice(at)];
  return command('want-order', { device: show.rig.devices[device].name }, [
    set(['settings', 'wantedOrder'], wanted, show.rig.settings.wantedOrder),
  ]);
}

/** Whether a piece that a sound wants off may be heard in it all the same. */
export function tolerate(show: Show, sound: string, device: string, may: boolean): Command {
  const { name, tolerates } = show.rig.sounds[sound];
  const others = (tolerates ?? []).filter((id) => id !== device);
  const next = may ? [...others, device] : others;
  return command('tolerate', { device: show.rig.devices[device].name, sound: name, may: may ? 'yes' : 'no' }, [
    set(['sounds', sound, 'tolerates'], next.length > 0 ? next : undefined, tolerates),
  ]);
}

import type { Show } from '../model/documents.ts';
import type { RigSettings } from '../model/rig.ts';
import { anySaid } from '../units/said.ts';
import { type Command, command, set } from './command.ts';

/** Changes some of what a rig says of its power, its packing or its shopping; what is undefined is said no more. */
export function changeSettings<K extends 'power' | 'pack' | 'shop'>(
  show: Show,
  field: K,
  change: Partial<NonNullable<RigSettings[K]>>,
): Command {
  const old = show.rig.settings[field];
  return command('set-setting', { field }, [set(['settings', field], anySaid({ ...old, ...change }), old)]);
}

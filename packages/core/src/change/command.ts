import type { Batch, Step } from './steps.ts';

/** Named commands: each makes the steps of one edit from the show as it is. Ids come from the caller. */
export type Command = Omit<Batch, 'id'>;

export const set = (at: readonly string[], value: unknown, old: unknown, doc: Step['doc'] = 'rig'): Step => ({
  doc,
  op: 'set',
  at,
  ...(value === undefined ? {} : { value }),
  ...(old === undefined ? {} : { old }),
});
export const insert = (at: readonly string[], value: unknown, doc: Step['doc'] = 'rig'): Step => ({
  doc,
  op: 'insert',
  at,
  value,
});
export const remove = (at: readonly string[], old: unknown, doc: Step['doc'] = 'rig'): Step => ({
  doc,
  op: 'remove',
  at,
  old,
});
export const command = (name: string, facts: Command['command']['facts'], steps: readonly Step[]): Command => ({
  command: { name, facts },
  steps,
});

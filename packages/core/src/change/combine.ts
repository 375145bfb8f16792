import type { Show } from '../model/documents.ts';
import type { Command } from './commands.ts';
import { applySteps, type Step } from './steps.ts';

/**
 * Several commands as one edit, each made on what the one before it leaves. Null where none of them changes anything.
 * One that cannot be applied ends it: the steps up to and with it are what is refused when the edit is made.
 */
export function combine(
  show: Show,
  { name, facts }: Command['command'],
  makes: readonly ((show: Show) => Command | null)[],
): Command | null {
  const steps: Step[] = [];
  let now = show;
  for (const make of makes) {
    const command = make(now);
    if (!command) continue;
    steps.push(...command.steps);
    const result = applySteps(now, command.steps);
    if (!result.ok) break;
    now = result.value;
  }
  return steps.length === 0 ? null : { command: { name, facts }, steps };
}

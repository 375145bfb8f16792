import { applySteps, type Plan, type PlannedLine, type Show, writePatch } from '@yunta/core';

/** The rig as it would be with a plan of its line wired; null where that cannot be. */
export function wiredSo({ show, line, compiled }: PlannedLine, { plan }: { readonly plan: Plan }): Show | null {
  const command = writePatch(show, line, compiled, plan);
  if (!command) return show;
  const after = applySteps(show, command.steps);
  return after.ok ? after.value : null;
}

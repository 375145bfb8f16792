import { type Problem, problem } from '../units/problem.ts';
import { checkParams } from './archetypes/archetype.ts';
import { archetypeIds, archetypeOf } from './archetypes/registry.ts';
import { powerProblems } from './power.ts';
import { type DeviceType, typeShape } from './rig.ts';

/** What is wrong with a type whose shape is right: its archetype, and what that makes of the parameters. */
export function typeProblems(type: DeviceType, at: string): Problem[] {
  const archetype = archetypeOf(type.archetype);
  if (!archetype)
    return [problem(`${at}/archetype`, 'out-of-domain', { value: type.archetype, expected: archetypeIds.join(', ') })];
  return [
    ...checkParams(archetype, type.params, `${at}/params`),
    ...(type.power ? powerProblems(type.power, `${at}/power`) : []),
  ];
}

/** The same of unknown data. */
export function checkType(value: unknown, at: string): readonly Problem[] {
  const problems: Problem[] = [];
  typeShape.check(value, at, problems);
  return problems.length > 0 ? problems : typeProblems(value as DeviceType, at);
}

import { type Problem, problem } from '../../units/problem.ts';
import { type Anatomy, emptyAnatomy } from '../anatomy.ts';
import type { Archetype } from './archetype.ts';
import { checkAnatomy } from './check-anatomy.ts';

/** A device whose whole anatomy is written out: for what no other archetype covers. */
export const declared: Archetype = {
  id: 'declared',
  params: { anatomy: { kind: 'data', default: emptyAnatomy, label: 'Anatomy', check: checkDeclared } },
  expand: (p) => ({ ...emptyAnatomy, ...p.data<Partial<Anatomy>>('anatomy') }),
};

function checkDeclared(value: unknown, at: string): readonly Problem[] {
  return value !== null && typeof value === 'object' && !Array.isArray(value)
    ? checkAnatomy(value as Record<string, unknown>, at)
    : [problem(at, 'wrong-type', { expected: 'an anatomy' })];
}

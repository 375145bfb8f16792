import { type Problem, nameShape } from '@yunta/core';
import { ProblemException } from '../platform/problem.ts';

/** A name as it is stored: in composed form; refused where no text may be so. */
export function storableName(name: string): string {
  const composed = name.normalize('NFC');
  const problems: Problem[] = [];
  nameShape.check(composed, '/name', problems);
  if (problems.length > 0) throw new ProblemException(problems);
  return composed;
}

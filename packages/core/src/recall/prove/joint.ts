import type { Heard } from '../audible/sound-comparison.ts';
import { type Row, TooManyStates } from '../explore/row.ts';
import type { StateSpace } from '../explore/state-space.ts';
import type { VariableId } from '../state/ids.ts';
import { NeedVariable } from '../state/store.ts';
import type { ContentSymbol } from '../state/values.ts';
import { answerAt, banksAround, type Case, statusOf, surelySoundsWith } from './case.ts';
import { type Answer, recallsAnswer } from './verdict.ts';

/** Explores the given variables together, with whatever the comparison turns out to read. */
export function jointly(item: Case, variables: readonly VariableId[]): Answer {
  const { exploration, press } = item;
  if (variables.length > 1) exploration.noteJoint(variables);
  const symbols: ContentSymbol[] = [];
  let isUndecided = false;
  let isPlayed = false;
  const isWrong = exploration.search(variables, (space, from) => {
    if (from === space.reached[0]) {
      isUndecided = false;
      symbols.length = 0;
    }
    for (const row of exploration.postRows(space, press, from)) {
      isPlayed = true;
      const heard = heardAt(item, space, row);
      if (heard.is === 'wrong') return true;
      if (heard.is === 'right') continue;
      isUndecided = true;
      symbols.push(...heard.symbols);
    }
    return undefined;
  });
  if (!isPlayed) return { verdict: 'not-played', length: null, sequence: null, symbols: [] };
  if (!isWrong && !isUndecided) return recallsAnswer;
  const verdict = isWrong ? 'does-not' : 'cannot-be-known';
  const answer: Answer = { verdict, length: null, sequence: null, symbols };
  try {
    return jointSequence(item, variables, answer) ?? answer;
  } catch (reason) {
    if (!(reason instanceof TooManyStates)) throw reason;
    return { ...answer, gaveUp: 'the sequence could not be followed' };
  }
}

/**
 * The same variables with the banks of the controllers concerned: the first row, breadth first, from which the press
 * goes wrong.
 */
export function jointSequence(
  item: Case,
  variables: readonly VariableId[],
  otherwise: Answer | null = null,
): Answer | null {
  const { exploration, press } = item;
  let undecided: Answer | null = null;
  const sooner: ContentSymbol[] = [];
  const found = exploration.search([...variables, ...banksAround(item, variables)], (space, from) => {
    if (from === space.reached[0]) {
      undecided = null;
      sooner.length = 0;
    }
    for (const row of exploration.postRows(space, press, from)) {
      const heard = heardAt(item, space, row);
      if (heard.is === 'wrong') return { ...answerAt(item, { space, from }, 'does-not'), sooner };
      if (heard.is !== 'unknown') continue;
      undecided ??= answerAt(item, { space, from }, 'cannot-be-known');
      sooner.push(...heard.symbols);
    }
    return undefined;
  });
  return found ?? (undecided && otherwise ? { ...(undecided as Answer), symbols: otherwise.symbols } : otherwise);
}

/**
 * A combination that is certain from these variables alone (they hold all that may differ and be heard), else the whole
 * comparison.
 */
function heardAt(item: Case, space: StateSpace, row: Row): Heard {
  const { base, target, after, exploration } = item;
  const { place } = space.stepper;
  const at = new Map(space.variables.map((variable) => [variable, row[place[variable]]]));
  const status = statusOf(item, at, 'known');
  if (status === 'wrong') return { is: 'wrong', silent: false };
  if (status === 'inaudible' && (target.sound.silence || surelySoundsWith(item, at))) return { is: 'right' };
  const read = (variable: VariableId): number => {
    if (place[variable] >= 0) return row[place[variable]];
    const values = after.all(variable);
    if (values.length === 1) return values[0];
    throw new NeedVariable(variable);
  };
  return base.comparison.judge(read, target, { obey: true, pins: exploration.question.pins });
}

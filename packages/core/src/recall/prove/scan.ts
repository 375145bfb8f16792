import type { Status } from '../audible/three-valued-judge.ts';
import type { Row } from '../explore/row.ts';
import type { StateSpace } from '../explore/state-space.ts';
import type { VariableId } from '../state/ids.ts';
import { type Case, statusOf, surelySoundsWith, type WrongAt } from './case.ts';

/** What a group of variables comes to after the press. */
export interface Scan {
  /** The nearest combination from which it is certainly wrong. */
  readonly wrong: WrongAt | null;
  /** Length of the first sequence that is not certainly inaudible though not certainly wrong. */
  readonly open: number | null;
}

/** Follows a group of variables, with banks where their moves count, until it is wrong, or `before` is reached. */
export function scan(
  item: Case,
  group: readonly VariableId[],
  banks: readonly VariableId[] = [],
  before = Infinity,
): Scan {
  const { exploration, press } = item;
  if (group.length > 1) exploration.noteJoint([...group, ...banks]);
  const statusAt = statusesOf(item, group);
  let open: number | null = null;
  const wrong = exploration.search([...group, ...banks], (space, from): WrongAt | 'stop' | undefined => {
    if (from.depth + 1 >= before) return 'stop';
    if (from === space.reached[0]) open = null;
    for (const row of exploration.postRows(space, press, from)) {
      const status = statusAt(space, row);
      if (status === 'wrong') return { space, from };
      if (status === 'open') open ??= from.depth + 1;
    }
    return undefined;
  });
  return { wrong: wrong === 'stop' || wrong === undefined ? null : wrong, open };
}

/** Of a row the status of a group, worked out once for each combination. */
function statusesOf(item: Case, group: readonly VariableId[]): (space: StateSpace, row: Row) => Status {
  const isSilence = group.every((variable) => !item.target.has(variable));
  const known = new Map<string | number, Status>();
  return ({ stepper: { place } }, row) => {
    const key = group.length === 1 ? row[place[group[0]]] : group.map((variable) => row[place[variable]]).join(',');
    let status = known.get(key);
    if (status) return status;
    const at = new Map(group.map((variable) => [variable, row[place[variable]]]));
    status = statusOf(item, at, 'all');
    if (status === 'inaudible' && isSilence && !surelySoundsWith(item, at)) status = 'open';
    known.set(key, status);
    return status;
  };
}

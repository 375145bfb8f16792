import { bankDistance } from '../../model/slots.ts';
import type { SequenceStep } from '../deliver/sequence.ts';
import { TooManyStates } from '../explore/row.ts';
import { cheapestRoute } from './bank-route.ts';
import { answerAt, banksAround, type Case, type WrongAt } from './case.ts';
import { pathTo } from './counterexample.ts';
import { jointSequence } from './joint.ts';
import { scan, type Scan } from './scan.ts';
import { type Answer } from './verdict.ts';

/** Of groups some of which certainly go wrong: the shortest sequence, bank moves counted. */
export function shortest(item: Case, groups: readonly (readonly number[])[], scans: readonly Scan[]): Answer {
  const { movesOnlyBanks } = item.base;
  const least = leastLengths(item, scans);
  const order = groups.map((_, i) => i).sort((a, b) => least[a] - least[b] || a - b);
  let best: Answer = { verdict: 'does-not', length: null, sequence: null, symbols: [] };
  const bound = () => best.length ?? Infinity;
  if (movesOnlyBanks)
    for (const i of order) {
      const { wrong } = scans[i];
      if (wrong && least[i] < bound()) best = shorter(best, routed(item, wrong));
    }
  let open = Infinity;
  for (const i of order) {
    if (least[i] >= bound()) break;
    const again = scan(item, groups[i], banksAround(item, groups[i]), bound());
    open = Math.min(open, again.open ?? Infinity);
    if (again.wrong) best = shorter(best, answerAt(item, again.wrong, 'does-not'));
  }
  if (open >= bound()) return best;
  try {
    const joint = jointSequence(item, [...new Set(groups.flat())]);
    return joint && joint.verdict === 'does-not' ? joint : best;
  } catch (reason) {
    if (!(reason instanceof TooManyStates)) throw reason;
    return { ...best, gaveUp: 'a shorter sequence could not be ruled out' };
  }
}

/** Of each group the length below which no sequence goes wrong by it. */
function leastLengths({ base, slot: { slot } }: Case, scans: readonly Scan[]): readonly number[] {
  const { banks } = base.model.device.get(slot.controller)!.controller!.facts;
  const moves = base.movesOnlyBanks ? bankDistance(banks, 0, slot.bank) : 0;
  return scans.map(({ open, wrong }) => moves + Math.min(open ?? Infinity, wrong ? wrong.from.depth + 1 : Infinity));
}

const shorter = (best: Answer, other: Answer): Answer =>
  (other.length ?? Infinity) < (best.length ?? Infinity) ? other : best;

/** A path found without banks, with the bank moves that it takes. */
export function routed({ base, slot }: Case, { space, from }: WrongAt): Answer {
  const route = cheapestRoute(base.model, from, slot, (compiled) => space.equivalents(compiled));
  const path = pathTo(base.model, space.stepper, from);
  const steps = path.steps.flatMap((step, i): SequenceStep[] => {
    const { moves, slot: pressed } = route.legs[i];
    return [...moves, step.kind === 'press' && pressed ? { ...step, slot: pressed.slot.id } : step];
  });
  const last: SequenceStep = { kind: 'press', slot: slot.slot.id };
  return {
    verdict: 'does-not',
    length: route.length,
    sequence: { ...path, steps: [...steps, ...route.last, last] },
    symbols: [],
  };
}

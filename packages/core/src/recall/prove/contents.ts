import { type ContentSymbol, NeedPin, type Pins } from '../state/values.ts';
import { type Answer, combine, isMixed } from './verdict.ts';

/**
 * Splits an undecided answer over the contents that it turns on; what fails for each of them does not recall, after the
 * longest of the shortest sequences: so a failure under some of the contents is split on where others of them decide
 * whether there is a shorter one. `budget`: ways to assume contents past which the answer stays as it is.
 */
export function overContents(budget: number, ask: (pins: Pins) => Answer): Answer {
  let left = budget;
  const split = (pins: Pins): Answer => {
    const answer = withContents(pins, ask);
    left -= costOf(answer);
    const symbol = decisive(answer, pins);
    if (!symbol || left < symbol.options.length) return answer;
    const answers: Answer[] = [];
    for (const [i] of symbol.options.entries()) {
      answers.push(split(new Map([...pins, [symbol.id, i]])));
      if (answer.length !== null && isMixed(answers)) return answer;
    }
    return combine(answers, answer);
  };
  return split(new Map());
}

/** So many open contents can be split over; with more of them each try takes longer and decides less. */
const few = 9;

/** What a try counts for: one, and one more for each open content past a few. */
const costOf = ({ symbols, sooner }: Answer): number =>
  Math.max(1, Math.max(symbols.length, sooner?.length ?? 0) - few + 1);

/** The next content to assume, if any decides more. */
function decisive({ verdict, symbols, sooner }: Answer, pins: Pins): ContentSymbol | undefined {
  const open = verdict === 'cannot-be-known' ? symbols : verdict === 'does-not' && pins.size > 0 ? (sooner ?? []) : [];
  return open.find((symbol) => !pins.has(symbol.id));
}

function withContents(pins: Pins, ask: (pins: Pins) => Answer): Answer {
  try {
    return ask(pins);
  } catch (reason) {
    if (!(reason instanceof NeedPin)) throw reason;
    return { verdict: 'cannot-be-known', length: null, sequence: null, symbols: [reason.symbol] };
  }
}

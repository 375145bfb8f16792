import { expect, test } from '@jest/globals';
import { ChoiceSequence } from './choice-sequence.ts';

const all = (run: (choices: ChoiceSequence) => string): string[] => {
  const choices = new ChoiceSequence();
  const runs: string[] = [];
  do {
    choices.begin();
    runs.push(run(choices));
  } while (choices.next());
  return runs;
};

test('every combination comes up once, the last choice changing soonest', () => {
  expect(all((choices) => `${choices.of(2)}${choices.of(3)}`)).toEqual(['00', '01', '02', '10', '11', '12']);
});
test('how much there is to choose may turn on what was chosen before', () => {
  expect(all((choices) => (choices.of(2) === 0 ? 'a' : `b${choices.of(2)}`))).toEqual(['a', 'b0', 'b1']);
  expect(all((choices) => (choices.of(2) === 0 ? `a${choices.of(2)}` : 'b'))).toEqual(['a0', 'a1', 'b']);
});
test('with nothing to choose there is one run', () => {
  expect(all(() => 'x')).toEqual(['x']);
  expect(all((choices) => String(choices.of(1)))).toEqual(['0']);
});

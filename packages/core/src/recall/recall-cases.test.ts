import { readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import { answerRecallCase } from '../testing/recall-cases.ts';

// Source: 38 small rigs with verdicts and lengths from a brute-force enumeration written from the definitions alone.
const file = new URL('../../fixtures/recall-cases.json', import.meta.url);
const { cases } = JSON.parse(readFileSync(file, 'utf8')).topics['13_recall'];

describe('recall reference rigs', () => {
  test.each(cases.map((one: { name: string }) => [one.name, one]))('%s', (_, one) => {
    const { inputs, expected } = one as { inputs: { rig: never }; expected: object };
    expect(answerRecallCase(inputs.rig)).toEqual(expected);
  });
});

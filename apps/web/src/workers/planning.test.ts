import { describe, expect, test } from '@jest/globals';
import { type AllocationProblem, judgeArrangement } from '@yunta/core';
import { boardArrangement, powered, Random, randomAllocation } from '@yunta/core/testing';
import { Planning } from './planning.ts';

const turn = () => new Promise<void>((resolve) => setImmediate(resolve));
const small = randomAllocation(new Random(1), 6, 3, 5);
const large = randomAllocation(new Random(2), 24, 12, 60);

describe('a plan', () => {
  test('is the best one, and says so', async () => {
    const planned = await new Planning(turn).plan('a', small);
    expect(planned).toMatchObject({ is: 'planned', allocation: { isOptimal: true } });
  });
  test('is stopped with the best so far, by a newer question of its name or by hand', async () => {
    const planning = new Planning(turn);
    const first = planning.plan('a', large);
    await turn();
    const second = planning.plan('a', small);
    expect(await second).toMatchObject({ is: 'planned' });
    expect(await first).toMatchObject({ is: 'stopped', best: { lostAtLeast: expect.any(Number) as unknown } });
    const third = planning.plan('a', large);
    setTimeout(() => {
      planning.stop('a');
    }, 100);
    expect(await third).toMatchObject({ is: 'stopped' });
  });
  test('of another name goes on beside it', async () => {
    const planning = new Planning(turn);
    const [a, b] = await Promise.all([planning.plan('a', small), planning.plan('b', small)]);
    expect(a).toEqual(b);
  });
  test('tells how far it has come', async () => {
    const planning = new Planning(turn);
    const heard: number[] = [];
    const asked = planning.plan('a', large, ({ lostAtLeast }) => {
      heard.push(lostAtLeast);
      if (heard.length === 4) planning.stop('a');
    });
    await asked;
    expect(heard.length).toBeGreaterThanOrEqual(4);
    expect([...heard].sort((x, y) => x - y)).toEqual(heard);
  });
  test('of what makes no sense is refused', async () => {
    const wrong: AllocationProblem = { ...small, insertAfter: 9 };
    expect(await new Planning(turn).plan('a', wrong)).toMatchObject({
      is: 'refused',
      problems: [{ pointer: '/insertAfter' }],
    });
  });
  test('the fewest loops that are enough for everything', async () => {
    const alone = (name: string) => ({ name, means: ['loop' as const], isOnAtPowerUp: false });
    const sound = (name: string, ...on: readonly string[]) => ({ name, on, any: [], tolerates: [] });
    const problem: AllocationProblem = {
      pieces: ['a', 'b', 'c'].map(alone),
      loops: 1,
      insertAfter: null,
      sounds: [sound('x', 'a', 'b'), sound('y', 'c')],
      set: [],
      isFrozen: false,
    };
    expect(await new Planning(turn).fewestLoops('f', problem)).toBe(2);
  });
});

describe('positions on a board', () => {
  test('are the best that were met in the time, and stopped before with the best so far', async () => {
    const problem = boardArrangement(new Random(1), 8);
    const told = await new Planning(turn).arrange('a', problem, 1, 200);
    expect('refused' in told ? null : judgeArrangement(problem, told.best!)).toEqual('cost' in told && told.cost);
    const planning = new Planning(turn);
    const began = performance.now();
    const stopped = planning.arrange('a', problem, 1, 60_000);
    setTimeout(() => {
      planning.stop('a');
    }, 150);
    expect(await stopped).toMatchObject({ isProved: false });
    expect(performance.now() - began).toBeLessThan(30_000);
  });
  test('of a board that cannot be are refused', async () => {
    const problem = boardArrangement(new Random(1), 2);
    const told = await new Planning(turn).arrange('a', { ...problem, board: { ...problem.board, width: 1e9 } }, 1, 50);
    expect('refused' in told && told.refused[0].pointer).toBe('/board/width');
  });
});

test('power is planned, and all numbers of the plan are proved', async () => {
  const { rig } = powered();
  expect(await new Planning(turn).power('p', rig)).toMatchObject({ is: 'planned', plan: { found: { proved: 7 } } });
});

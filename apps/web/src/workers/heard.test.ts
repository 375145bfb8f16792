import { expect, test } from '@jest/globals';
import { heard } from './heard.ts';

test('progress is heard until the answer is there, and not after it', async () => {
  const told: string[] = [];
  let late: (progress: string) => void = () => undefined;
  const answer = await heard(
    async (hear: (progress: string) => void) => {
      hear('half');
      late = hear;
      return 'whole';
    },
    (progress) => told.push(progress),
  );
  late('nearly');
  expect([answer, told]).toEqual(['whole', ['half']]);
});

test('nor after a failure', async () => {
  const told: string[] = [];
  let late: (progress: string) => void = () => undefined;
  const asked = heard(
    (hear: (progress: string) => void) => {
      late = hear;
      return Promise.reject(new Error('gone'));
    },
    (progress) => told.push(progress),
  );
  await expect(asked).rejects.toThrow('gone');
  late('nearly');
  expect(told).toEqual([]);
});

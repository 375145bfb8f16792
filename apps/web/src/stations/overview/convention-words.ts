import type { Conventions } from '@yunta/core';

/** What each disputed question is about. */
export const conventionWords: Record<keyof Conventions, string> = {
  foot: 'Foot style',
  tempo: 'Tempo',
  time: 'Delay and reverb',
  gate: 'Noise gate',
  gain: 'Drives',
  order: 'Order that counts for loops',
};

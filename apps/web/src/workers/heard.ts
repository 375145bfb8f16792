import { proxy } from 'comlink';

/**
 * Asks a worker and hears how far it has come until its answer is there. What it tells on the way comes by a line of
 * its own, so that it may come after the answer: then it is news of the past, and passed over.
 */
export async function heard<P, A>(
  ask: (hear: (progress: P) => void) => A,
  onProgress: (progress: P) => void,
): Promise<Awaited<A>> {
  let isAnswered = false;
  try {
    return await ask(
      proxy((progress: P) => {
        if (!isAnswered) onProgress(progress);
      }),
    );
  } finally {
    isAnswered = true;
  }
}

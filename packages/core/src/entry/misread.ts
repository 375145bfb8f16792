import type { Misreading } from './rig-text.ts';

class Misread extends Error {
  constructor(readonly misreading: Misreading) {
    super(misreading.code);
  }
}

/** Ends the reading of a statement, with why. */
export const misread = (misreading: Misreading): never => {
  throw new Misread(misreading);
};

/** Why some reading was ended; undefined where it was not. */
export function misreadingOf(read: () => void): Misreading | undefined {
  try {
    read();
    return undefined;
  } catch (reason) {
    if (reason instanceof Misread) return reason.misreading;
    throw reason;
  }
}

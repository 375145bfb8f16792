// Keeps a process of ours up: starts it again when it ends by itself, or when it no longer answers.
import { say } from './lib.mjs';

const pause = (ms) => new Promise((resolve) => setTimeout(resolve, ms));
/** So many ends within so long, and it is given up: something is wrong that another start does not cure. */
const tries = { most: 5, within: 120_000 };

/**
 * `start` gives a process: `ended` (a promise), `kill`, `stop`, and `isWell` (asked every `every` ms; three noes in a
 * row and
 * it is killed and started again). Returns the process of now and the way to stop it; `onGivenUp` is told the reason.
 */
export async function keepUp({ name, start, isWell, every = 2000, onGivenUp }) {
  let stopping = false;
  let now = await start();
  let restarting = null;
  const ends = [];

  const watch = async (process) => {
    let noes = 0;
    while (!stopping && now === process) {
      await pause(every);
      if (stopping || now !== process) return;
      noes = (await isWell(process).catch(() => false)) ? 0 : noes + 1;
      if (noes >= 3 && !stopping && now === process) {
        say(`The ${name} no longer answers: ending it`);
        process.kill();
        return;
      }
    }
  };
  const follow = async (process) => {
    const code = await process.ended;
    if (stopping) return;
    ends.push(Date.now());
    if (ends.filter((at) => at > Date.now() - tries.within).length > tries.most)
      return onGivenUp(`The ${name} ends again and again (last with ${code}).`);
    say(`The ${name} ended: starting it again`);
    try {
      restarting = start(process);
      now = await restarting;
    } catch (reason) {
      return stopping ? undefined : onGivenUp(reason.message);
    }
    if (stopping) return;
    say(`The ${name} is back.`);
    begin(now);
  };
  const begin = (process) => {
    void follow(process);
    if (isWell) void watch(process);
  };
  begin(now);
  return {
    current: () => now,
    stop: async () => {
      stopping = true;
      await restarting?.catch(() => undefined);
      await now.stop();
    },
  };
}

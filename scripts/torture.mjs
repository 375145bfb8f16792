// npm run torture [-- --kills N --restores N --requests N --seed N] [--json]: kills server, database and both under
// editing clients,
// kills restores half way, sends bad requests; prints what was lost, doubled, corrupt, torn, the faults, the longest
// freeze.
import { readdirSync } from 'node:fs';
import path from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { databaseNeeds } from './database.mjs';
import { ensureBuilt, ensureNpm, ensurePrograms, say } from './lib.mjs';

/** A freeze by a body of at most 2 MB may last so long, ms. */
const mostFreeze = 1000;

/** Runs all of it over processes of its own on loopback; `tell` hears how far it is. */
async function torture({ kills = 150, restores = 20, requests = 20_000, seed = 1, tell = () => undefined } = {}) {
  const [{ Victims }, editors, { rowsOf, verdictOf }, { sendBadRequests }, { Random }] = await Promise.all([
    import('./torture/victims.mjs'),
    import('./torture/editors.mjs'),
    import('./torture/verdict.mjs'),
    import('./torture/bad-requests.mjs'),
    import('@yunta/core/testing'),
  ]);
  const random = new Random(seed);
  const victims = await new Victims().start();
  const { url } = victims;
  try {
    const counts = { taken: 0, conflicts: 0, repeated: 0, away: 0, faults: [] };
    const demo = (await editors.askOn(url, 'GET', '/api/shows', undefined, counts)).json.map(({ id }) => id);
    const own = (await editors.askOn(url, 'POST', '/api/shows', { kind: 'demo' }, counts)).json.id;
    const rigs = [...demo, own];
    const before = await rowsOf(url);

    let isOver = false;
    const songs = Object.keys(JSON.parse(before.songbooks[0].document).songs);
    // Four editors: two over one rig and its songbook, one over the other rig of that songbook, one over a rig alone.
    const editing = [demo[0], demo[0], demo[1], own].map((rig, i) =>
      editors.edit({ url, rig, song: songs[i], random: new Random(seed * 100 + i), counts, isOver: () => isOver }),
    );
    const done = { server: 0, database: 0, both: 0 };
    for (let n = 1; n <= kills; n += 1) {
      await pause(30 + random.below(700));
      const what = random.pick(['server', 'server', 'database', 'both']);
      done[what] += 1;
      if (random.chance(0.1)) void editors.ask(url, 'POST', '/api/backups', {});
      await victims.kill({ server: what !== 'database', database: what !== 'server' });
      if (n % 10 === 0) tell(`${n} of ${kills} kills, ${counts.taken} edits acknowledged`);
    }
    await pause(300);
    isOver = true;
    const taken = (await Promise.all(editing)).flat();
    const verdict = verdictOf({ before, after: await rowsOf(url), taken });

    const restored = await killRestores({ victims, editors, rowsOf, random, restores, counts });
    tell(`${restores} restores cut off`);
    const bad = await sendBadRequests({ url, rigs, random, count: requests });
    const last = verdictOf({ before: { ...before, shows: [] }, after: await rowsOf(url), taken: [] });
    const backups = readdirSync(path.join(victims.home, 'backups')).filter((name) => name.endsWith('.part')).length;
    return {
      kills: done,
      acknowledged: counts.taken,
      repeated: counts.repeated,
      conflicts: counts.conflicts,
      away: counts.away,
      requests: bad.sent,
      lost: verdict.lost,
      doubled: verdict.doubled,
      corrupt: verdict.corrupt + last.corrupt,
      torn: verdict.torn + restored.torn,
      halfRestored: restored.torn,
      restoresDone: restored.done,
      halfBackups: backups > 1 ? backups : 0,
      faults: [...counts.faults, ...bad.faults],
      longestFreeze: Math.round(bad.longest),
    };
  } finally {
    await victims.stop();
  }
}

/** A restore that is cut off leaves all as it was, or has done all. */
async function killRestores({ victims, editors, rowsOf, random, restores, counts }) {
  const { url } = victims;
  const picture = async () => JSON.stringify(await rowsOf(url));
  let torn = 0;
  let done = 0;
  for (let n = 0; n < restores; n += 1) {
    const { name } = (await editors.askOn(url, 'POST', '/api/backups', {}, counts)).json;
    const then = await picture();
    await editors.askOn(url, 'POST', '/api/shows', { kind: 'empty', name: `Restore ${n}` }, counts);
    const now = await picture();
    const restoring = editors.ask(url, 'POST', `/api/backups/${name}/restore`, {});
    await pause(random.below(700));
    await victims.kill({ server: random.chance(0.6), database: random.chance(0.6) });
    await restoring;
    // The server may still be at it where the database alone was killed, and not know yet that it came to nothing.
    await pause(100);
    await editors.askOn(url, 'GET', '/api/shows', undefined, counts);
    const after = await picture();
    if (after === then) done += 1;
    else if (after !== now) torn += 1;
  }
  return { torn, done };
}

const zeros = ['lost', 'doubled', 'corrupt', 'torn'];
const isGood = (result) =>
  zeros.every((name) => result[name] === 0) && result.faults.length === 0 && result.longestFreeze <= mostFreeze;

async function main() {
  const option = (name, otherwise) =>
    process.argv.includes(`--${name}`) ? Number(process.argv[process.argv.indexOf(`--${name}`) + 1]) : otherwise;
  await ensurePrograms(databaseNeeds);
  await ensureNpm();
  await ensureBuilt({ web: false });
  const result = await torture({
    kills: option('kills', 150),
    restores: option('restores', 20),
    requests: option('requests', 20_000),
    seed: option('seed', 1),
    tell: process.argv.includes('--json') ? undefined : say,
  });
  if (process.argv.includes('--json')) {
    say(JSON.stringify(result));
    process.exit(isGood(result) ? 0 : 1);
  }
  for (const [name, value] of Object.entries(result))
    say(
      `${name}: ${typeof value === 'object' && !Array.isArray(value) ? JSON.stringify(value) : Array.isArray(value) ? value.length : value}${name === 'longestFreeze' ? ' ms' : ''}`,
    );
  for (const fault of result.faults.slice(0, 20)) say(`  ${fault}`);
  process.exit(isGood(result) ? 0 : 1);
}

await main();

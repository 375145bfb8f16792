// npm start: installs what is missing, builds, starts the database and the server, prints the address. Ctrl-C stops all
// of it.
import { rmSync } from 'node:fs';
import path from 'node:path';
import { ensureBuilt, ensureFolder, ensureNpm, ensurePrograms, freePort, home, say } from './lib.mjs';
import { readIfThere, takeLock, writeWhole } from './lock.mjs';
import { startServer } from './server.mjs';

const addressFile = path.join(home, 'address');
const pause = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

/** What is being started just now: stopping waits for it, so that nothing goes on behind our back. */
let starting = null;
let database = null;
let server = null;
let stopping = false;

async function stop(code) {
  if (stopping) return;
  stopping = true;
  const patience = setInterval(() => say('  … a step of the database is brought to its end'), 5000);
  await starting?.catch(() => undefined);
  await server?.stop();
  await database?.stop();
  clearInterval(patience);
  rmSync(addressFile, { force: true });
  say('Stopped.');
  process.exit(code);
}

/** Waits for `work`, which stopping waits for too. */
function step(work) {
  starting = work;
  return work;
}

async function main() {
  ensureFolder(home);
  if (!takeLock(path.join(home, 'lock'))) return otherStart();
  rmSync(addressFile, { force: true });
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void stop(0));
  const [{ answers, databaseNeeds, startDatabase }, { keepUp }] = await Promise.all([
    import('./database.mjs'),
    import('./keep-up.mjs'),
  ]);
  await ensurePrograms(databaseNeeds);
  await ensureNpm();
  await ensureBuilt();
  if (stopping) return;
  const giveUp = (reason) => {
    say(reason);
    void stop(1);
  };
  database = await step(
    keepUp({
      name: 'database',
      start: (before) => startDatabase(path.join(home, 'database'), { port: before?.port }),
      isWell: ({ url }) => answers(url, 3000),
      onGivenUp: giveUp,
    }),
  );
  if (stopping) return;
  const wanted = Number(process.env.YUNTA_PORT ?? 4477);
  server = await step(keepUp({ name: 'server', start: (before) => serve(before?.port ?? wanted), onGivenUp: giveUp }));
  if (stopping) return;
  const { url, port } = server.current();
  writeWhole(addressFile, `${url}\n`);
  if (wanted !== 0 && port !== wanted)
    say(
      `Port ${wanted} is taken by another program: Yunta listens on ${port} instead, this time. Bookmarks of ${wanted} do not lead here.`,
    );
  say(`Yunta is ready: ${url}\nCtrl-C stops it.`);
}

async function serve(wanted) {
  const served = await startServer(database.current().url, {
    port: await freePort(wanted),
    data: home,
    isStopping: () => stopping,
    tell: (text) => process.stdout.write(text),
  });
  if (served.url === null && !stopping)
    throw new Error(`The server could not start: ${served.said() || `it ended with ${await served.ended}`}`);
  // Started again while another program had taken its port: whoever looks for it must find it.
  if (server && served.url !== null && served.url !== server.current().url) {
    writeWhole(addressFile, `${served.url}\n`);
    say(`The port is taken by another program meanwhile: Yunta listens at ${served.url} now. Open that address.`);
  }
  return served;
}

/** Another start holds this data directory: says where it listens, once it does. */
async function otherStart() {
  let said = false;
  for (let i = 0; i < 1200; i += 1) {
    const address = readIfThere(addressFile);
    if (address !== null) return say(`Yunta already runs: ${address.trim()}`);
    if (!said) say('Another start of Yunta is under way: waiting for it …');
    said = true;
    await pause(100);
    const lock = takeLock(path.join(home, 'lock'));
    if (lock) {
      lock.release();
      throw new Error('The other start ended before it was ready. Try again.');
    }
  }
  say('The other start is still under way. Its own window says how far it is.');
}

main().catch(async (reason) => {
  if (!stopping) say(`Yunta could not start. ${reason.message}`);
  await stop(1);
});

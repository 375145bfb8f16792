import path from 'node:path';
import { prepareDatabase, startServer, type ServerSettings } from './app.ts';
import { StoppedBetween, NewerDatabase } from './persistence/migrate.ts';

// Started by scripts/start.mjs, which brings the database up first.
const data = process.env.YUNTA_DATA;
const settings: ServerSettings = {
  database: process.env.YUNTA_DATABASE ?? '',
  port: Number(process.env.YUNTA_PORT ?? 4477),
  web: path.resolve(import.meta.dirname, '../../web/dist'),
  demoWhenNew: process.env.YUNTA_DEMO !== 'no',
  ...(data === undefined ? {} : { backups: path.join(data, 'backups'), log: path.join(data, 'logs', 'yunta.log') }),
};

let isStopping = false;
const stopSoon = () => void (isStopping = true);
process.on('SIGTERM', stopSoon);
process.on('SIGINT', stopSoon);
const isTied = process.env.YUNTA_TIED === 'yes';
if (isTied) process.stdin.resume().once('close', stopSoon);
try {
  const steps = await prepareDatabase(settings, () => isStopping);
  if (steps.length > 0)
    process.stdout.write(`Brought the database up to date: ${steps.length} ${steps.length === 1 ? 'step' : 'steps'}\n`);
} catch (reason) {
  if (reason instanceof StoppedBetween) process.exit(0);
  process.stderr.write(
    `${reason instanceof NewerDatabase ? reason.message : `The database could not be brought up to date: ${reason instanceof Error ? reason.stack : String(reason)}`}\n`,
  );
  process.exit(1);
}
if (isStopping) process.exit(0);
process.off('SIGTERM', stopSoon);
process.off('SIGINT', stopSoon);
const { app, url } = await startServer(settings);
process.stdout.write(`ready ${url}\n`);
if (isTied && process.stdin.destroyed) await app.close().then(() => process.exit(0));
else if (isTied) process.stdin.once('close', () => void app.close().then(() => process.exit(0)));

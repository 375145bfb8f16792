// npm run bench [-- --json] [-- --only core|page]: how fast the core is, and the page in Debian's Chromium over a
// server of its own.
/* global addEventListener, document, MutationObserver, PerformanceObserver -- what runs in the page */
import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { databaseNeeds, startDatabase } from './database.mjs';
import { ensureBuilt, ensureNpm, ensurePrograms, root, run } from './lib.mjs';

const json = process.argv.includes('--json');
const only = process.argv.includes('--only') ? process.argv[process.argv.indexOf('--only') + 1] : null;
const results = [];
const report = (name, value, unit = 'ms') => {
  results.push({ name, value: Math.round(value * 100) / 100, unit });
  if (!json) process.stdout.write(`${name}: ${value.toFixed(2)} ${unit}\n`);
};

/** Building says what it does; with --json that goes to stderr. */
async function aside(work) {
  const write = process.stdout.write;
  if (json) process.stdout.write = process.stderr.write.bind(process.stderr);
  try {
    return await work();
  } finally {
    process.stdout.write = write;
  }
}

await aside(async () => {
  await ensureNpm();
  if (only === 'core')
    await run(process.execPath, [path.join(root, 'node_modules/typescript/bin/tsc'), '-b', 'packages/core']);
  else {
    await ensurePrograms([...databaseNeeds, { program: 'chromium', packages: ['chromium'] }]);
    await ensureBuilt();
  }
});
if (only !== 'page') {
  const { coreFigures } = await import(path.join(root, 'packages/core/tools/figures.mjs'));
  coreFigures(report);
}
if (only !== 'core') await withServer(pageFigures);
if (json) process.stdout.write(`${JSON.stringify(results)}\n`);

async function withServer(act) {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'yunta-bench-'));
  const database = await startDatabase(path.join(folder, 'database'), { port: 0, quiet: true });
  const server = spawn(process.execPath, [path.join(root, 'apps/server/dist/main.js')], {
    env: { ...process.env, YUNTA_DATABASE: database.url, YUNTA_PORT: '0' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  try {
    const url = await new Promise((resolve, reject) => {
      server.stdout.on('data', (data) => {
        const ready = /ready (http:\S+)/.exec(String(data));
        if (ready) resolve(ready[1]);
      });
      server.once('exit', (code) => reject(new Error(`the server ended with ${code}`)));
    });
    await act(url);
  } finally {
    server.removeAllListeners('exit');
    const gone = new Promise((resolve) => server.once('exit', resolve));
    server.kill('SIGTERM');
    await gone;
    await database.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}

async function pageFigures(url) {
  const { default: puppeteer } = await import('puppeteer-core');
  const { exportShow } = await import(path.join(root, 'packages/core/dist/index.js'));
  const { retraceRig } = await import(path.join(root, 'packages/core/dist/testing/index.js'));
  const args = [
    '--headless=new',
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    '--disable-dev-shm-usage',
  ];
  const launch = () =>
    puppeteer.launch({ executablePath: '/usr/bin/chromium', defaultViewport: { width: 1280, height: 800 }, args });
  const paints = [];
  for (let i = 0; i < 7; i += 1) {
    const browser = await launch();
    const page = await browser.newPage();
    await page.goto(url);
    await page.waitForSelector('h1');
    paints.push(await page.evaluate(() => performance.getEntriesByName('first-contentful-paint')[0].startTime));
    await browser.close();
  }
  report('first-paint-cold', paints.sort((a, b) => a - b)[3]);

  const made = await fetch(`${url}/api/shows`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ kind: 'file', text: exportShow(retraceRig().show) }),
  });
  const { id } = await made.json();
  const browser = await launch();
  try {
    const page = await browser.newPage();
    page.setDefaultTimeout(20_000);
    await page.goto(`${url}/rig/${id}/sounds`);
    await (await page.waitForSelector('header button.counts')).click();
    await (await page.waitForSelector('button[aria-label="Pin the findings beside the station"]')).click();
    await page.waitForSelector('section[aria-label="Findings"] ul.findings');
    await page.waitForSelector('[data-cell^="0."]');
    const column = await page.$$eval('[data-cell^="0."]', (cells) =>
      cells.findIndex((cell) => cell.getAttribute('aria-label').includes('effect-1 PC')),
    );
    await page.focus(`[data-cell="0.${column}"]`);
    await page.evaluate(() => {
      globalThis.long = [];
      new PerformanceObserver((list) =>
        globalThis.long.push(...list.getEntries().map((entry) => entry.duration)),
      ).observe({ type: 'longtask' });
    });
    const times = [];
    // A preset that the device does not have is found at once; the next edit takes it away again. Enter is the key that
    // makes the edit.
    for (let i = 0; i < 66; i += 1) {
      await page.keyboard.type(i % 2 === 0 ? '999' : '21');
      await page.evaluate(
        (present) => {
          const isFound = () =>
            document
              .querySelectorAll('ul.findings > li:not(.gone) > .title')
              .values()
              .some((title) => title.textContent.startsWith('A preset that the device does not have'));
          globalThis.found = new Promise((resolve, reject) => {
            setTimeout(() => reject(new Error('no finding came within 10 s')), 10_000);
            let pressed = 0;
            addEventListener('keydown', () => (pressed = performance.now()), { capture: true, once: true });
            const look = () => {
              if (isFound() !== present) return;
              observer.disconnect();
              resolve(performance.now() - pressed);
            };
            const observer = new MutationObserver(look);
            const drawer = document.querySelector('section[aria-label="Findings"]');
            observer.observe(drawer, { childList: true, subtree: true, characterData: true });
          });
        },
        i % 2 === 0,
      );
      await page.keyboard.press('Enter');
      const time = await page.evaluate(() => globalThis.found);
      if (i >= 6) times.push(time);
      await page.waitForFunction(() => document.activeElement?.matches('[data-cell]'));
    }
    report('ui-edit-to-finding-p95', times.sort((a, b) => a - b)[Math.floor(times.length * 0.95)]);
    report('ui-longest-task', Math.max(0, ...(await page.evaluate(() => globalThis.long))));
  } finally {
    await browser.close();
  }
}

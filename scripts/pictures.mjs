// node scripts/pictures.mjs [URL] [-- NAME ...]: takes the pictures of docs/screenshots, all or those named, from a
// Yunta that runs with nothing in it but the demo. It makes rigs there and deletes them again.
import path from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import puppeteer from 'puppeteer-core';
import { root, say } from './lib.mjs';

const [url = 'http://127.0.0.1:4810', ...named] = process.argv.slice(2).filter((word) => word !== '--');
const { exportShow } = await import(path.join(root, 'packages/core/dist/index.js'));
const { cellarBarRig } = await import(path.join(root, 'packages/core/dist/demo/by-feet.js'));

const browser = await puppeteer.launch({
  executablePath: '/usr/bin/chromium',
  defaultViewport: { width: 1280, height: 800 },
  args: ['--headless=new', '--no-sandbox', '--disable-gpu', '--disable-dev-shm-usage'],
});
const page = await browser.newPage();
const ask = async (method, where, body) => {
  const answer = await fetch(`${url}${where}`, {
    method,
    headers: { 'content-type': 'application/json' },
    ...(body ? { body: JSON.stringify(body) } : {}),
  });
  if (!answer.ok) throw new Error(`${method} ${where}: ${answer.status} ${await answer.text()}`);
  return answer.status === 204 ? null : answer.json();
};
const made = [];
const make = async (body) => {
  const { id } = await ask('POST', '/api/shows', body);
  made.push(id);
  return id;
};

const called = (name, role) => page.waitForSelector(`::-p-aria([name="${name}"]${role ? `[role="${role}"]` : ''})`);
const press = async (name, role = 'button') => (await called(name, role)).evaluate((node) => node.click());
const type = async (name, text, ...keys) => {
  await (await called(name)).focus();
  await page.keyboard.sendCharacter(text);
  for (const key of keys) await page.keyboard.press(key);
};
/** Into a cell of a table, which becomes a field with the first letter. */
const write = async (cell, text) => {
  await (await called(cell)).focus();
  await page.keyboard.type(text);
  await page.keyboard.press('Enter');
};
const pick = async (label, option) => {
  await (await called(label, 'combobox')).focus();
  await page.keyboard.press('Enter');
  await called(`Find: ${label}`);
  await page.keyboard.type(option);
  await page.keyboard.press('Enter');
};
/** Opens a station and lets everything that is computed there come in. */
const open = async (rig, where) => {
  await page.goto(`${url}/rig/${rig}/${where}`);
  await page.waitForSelector('main h1');
  await settled();
};
const settled = async () => {
  await page.waitForNetworkIdle({ idleTime: 400 });
  await pause(2_500);
};

const shows = await ask('GET', '/api/shows');
const demo = (start) => shows.find(({ name }) => name.startsWith(start)).id;
const [river, fly] = [demo('River-boat'), demo('Fly rig')];
const station =
  (where, then = async () => undefined) =>
  async () => {
    await open(river, where);
    await then();
  };

/** Each picture by its name: how one comes to what it shows. */
const pictures = {
  home: async () => {
    await page.goto(url);
    await settled();
  },
  overview: station('overview'),
  gear: station('gear'),
  routing: station('routing'),
  power: station('power', async () => {
    await page.waitForSelector('[data-solve]');
    await page.click('[data-solve]');
    await pause(1_500);
  }),
  build: station('build'),
  sounds: station('sounds'),
  program: station('program'),
  set: station('set'),
  proof: station('proof'),
  loops: station('routing?view=loops', async () => {
    await press('Where else for Chorus');
    await pause(6_000);
  }),
  compare: station('routing', async () => {
    await pick('Compare with', 'Slow Lock, chorus');
    await settled();
  }),
  entry: async () => {
    await open(await make({ kind: 'empty', name: 'Harbour rig' }), 'gear');
    await type(
      'Add a device',
      [
        'guitar > 6 m > tuner > volume > switcher',
        '1: comp; 2: drive soft; 3: drive hard; 4: amp',
        'send 5 > grey machine > return 5',
        'out > delay > amp > cabinet',
        'midi: switcher > delay',
      ].join('\n'),
    );
    await settled();
  },
  stereo: async () => {
    await open(await make({ kind: 'starter', starter: 'stereo-amps', name: 'Two amps in stereo' }), 'routing');
    await pick('Selected sound', 'Solo');
    await settled();
  },
  presets: async () => {
    await open(await make({ kind: 'empty', name: 'Hall line' }), 'gear');
    await type(
      'Add a device',
      'guitar > hub = modeller > desk\nfloor = midi foot controller\nmidi: floor > hub',
      'Enter',
    );
    await press('Inspect Hub');
    await press('Edit presets as a table');
    await type('Add presets', '1–3', 'Enter');
    for (const [i, name] of ['Verse', 'Chorus', 'Solo'].entries())
      await write(`Name of preset ${i + 1}: unknown`, name);
    await settled();
  },
  'by-feet': async () => {
    await open(await make({ kind: 'file', text: exportShow(cellarBarRig()), name: 'Cellar bar rig' }), 'proof');
  },
  inside: async () => {
    await open(await make({ kind: 'demo' }), 'gear');
    await press('Inspect Combo');
    await press('Edit what is inside');
    await settled();
  },
  findings: async () => {
    await open(fly, 'program');
    await page.click('::-p-xpath(//header//button[starts-with(normalize-space(.), "Findings")])');
    await settled();
  },
  variants: async () => {
    const rig = await make({ kind: 'demo' });
    await open(rig, 'overview?view=variants');
    await type('Name of a new variant', 'Tonight without the echo', 'Enter');
    await called('Variant in use', 'combobox');
    await open(rig, 'gear');
    await press('Inspect Echo');
    await press('Remove Echo');
    await settled();
    await open(rig, 'overview?view=variants');
  },
};

try {
  for (const [name, come] of Object.entries(pictures)) {
    if (named.length > 0 && !named.includes(name)) continue;
    await come();
    await page.screenshot({ path: path.join(root, 'docs/screenshots', `${name}.png`) });
    say(name);
  }
} finally {
  await browser.close();
  for (const id of made) await ask('DELETE', `/api/shows/${id}`);
}

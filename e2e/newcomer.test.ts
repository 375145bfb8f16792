import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import { Browsing, find, go, saved, waitForText, waitForVerdict } from './browsing.ts';
import { Running } from './running.ts';

jest.setTimeout(180_000);
const running = new Running();
const browsing = new Browsing();
let page: Page;
beforeAll(async () => {
  await running.start();
  page = await browsing.open();
});
afterAll(async () => {
  await browsing.close();
  await running.stop();
});

const devices = [
  'guitar',
  'wah',
  'tuner',
  'loop switcher 8',
  'compressor',
  'fuzz',
  'drive',
  'boost',
  'valve amp two',
  'chorus',
  'delay midi',
  'reverb midi',
  'cabinet',
];
const cables = [
  'guitar > wah',
  'wah > tuner',
  'tuner > loop switcher',
  'loop switcher send 1 > compressor',
  'compressor > fuzz',
  'fuzz > loop switcher return 1',
  'loop switcher send 2 > drive',
  'drive > boost',
  'boost > loop switcher return 2',
  'loop switcher send 3 > valve amp input',
  'valve amp send > loop switcher return 3',
  'loop switcher send 4 > chorus',
  'chorus > loop switcher return 4',
  'loop switcher send 5 > delay',
  'delay out > loop switcher return 5',
  'loop switcher send 6 > reverb',
  'reverb out > loop switcher return 6',
  'loop switcher out > valve amp return',
  'valve amp loudspeaker > cabinet',
  'loop switcher midi out > delay midi in',
  'delay midi through > reverb midi in',
  'loop switcher contact 1 > valve amp remote 1',
];
const songs: Readonly<Record<string, readonly [tempo: string, parts: readonly string[]]>> = {
  Ebb: ['96', ['verse', 'chorus', 'solo']],
  Flood: ['120', ['verse', 'chorus']],
  Pier: ['88', ['verse', 'chorus']],
  Lantern: ['72', ['intro', 'chorus']],
  Ballast: ['132', ['verse', 'chorus', 'solo']],
  Mooring: ['104', ['all', 'outro']],
};
const sounds = Object.entries(songs).flatMap(([song, [, parts]]) => parts.map((part) => `${song}, ${part}`));

/** A rig as a newcomer enters it; an action is a click, a text typed with its Enter, or a key. */
test('thirteen pieces, 22 cables, six songs, 14 sounds and their paper in at most 220 actions', async () => {
  let actions = 0;
  const press = async (name: string, role = 'button') => {
    actions += 1;
    await (await find(page, role, name)).click();
  };
  const typed = async (text: string) => {
    actions += 1;
    await page.keyboard.sendCharacter(text);
    await page.keyboard.press('Enter');
  };
  const to = async (station: string) => {
    actions += 1;
    await go(page, station);
  };
  /** Presses a cell: a piece turns, a value is selected. */
  const cell = async (sound: string, column: string, clicks = 1) => {
    actions += 1;
    const found = (await page.waitForSelector(`[role="gridcell"][aria-label^="${sound}, ${column}: "]`))!;
    await found.click({ count: clicks });
  };

  await page.goto(running.url);
  await press('Name', 'textbox');
  await typed('Newcomer');
  await find(page, 'heading', 'Gear');
  for (const device of devices) await typed(device);
  await waitForText(page, 'main', '13 pieces');
  await to('Routing');
  for (const cable of cables) await typed(cable);
  await waitForText(page, 'main', '22 cables');

  await to('Sounds');
  for (const sound of sounds) await typed(sound);
  // All off in all of them at once, then what each has on.
  await press(`Mark ${sounds[0]}`, 'checkbox');
  await press('Mark all');
  // One piece of each loop: what is behind it in the loop goes with it.
  const pedals = ['Compressor', 'Drive', 'Valve amp', 'Chorus', 'Delay', 'Reverb'];
  const columns = await page.$$eval(
    '[role="gridcell"][aria-label]',
    (nodes, name) =>
      nodes
        .map((node) => node.getAttribute('aria-label')!)
        .filter((label) => label.startsWith(`${name}, `))
        .map((label) => label.slice(name.length + 2).split(': ')[0]),
    sounds[0],
  );
  const columnOf = (name: string): string => columns.find((column) => column.startsWith(`${name} L`)) ?? '';
  const switched = [...new Set(pedals.map(columnOf).filter((column) => column !== ''))];
  for (const column of switched) {
    await cell(sounds[0], column);
    if (!column.startsWith('Valve amp')) await cell(sounds[0], column);
  }
  await press('Clear marks');
  const channel = columns.find((column) => column.endsWith('channel'))!;
  for (const sound of sounds) {
    const isLoud = /chorus|solo|outro/.test(sound);
    await cell(sound, columnOf(isLoud ? 'Drive' : 'Compressor'));
    if (isLoud) await cell(sound, columnOf('Delay'));
    // Once is clean, twice is lead.
    await cell(sound, channel, 2);
    if (isLoud) await cell(sound, channel, 2);
    if (!isLoud) continue;
    await cell(sound, 'Delay PC');
    await typed(sound.endsWith('solo') ? '4' : '3');
  }
  await saved(page);

  await to('Program');
  await press('Layouts');
  await press('By role', 'radio');
  await press('Lay out by role');
  await find(page, 'gridcell', '1·1: Ebb, verse');

  await to('Set');
  await press('Add a song', 'textbox');
  for (const song of Object.keys(songs)) await typed(song);
  for (const [song, [tempo, parts]] of Object.entries(songs)) {
    await press(`Tempo of ${song}`, 'textbox');
    await typed(tempo);
    await press(`0 parts of ${song}`);
    await press(`Add a part to ${song}`, 'textbox');
    for (const part of parts) await typed(part);
  }
  await to('Proof');
  await waitForVerdict(page, 'In set order', '14 of 14 recall');
  await waitForVerdict(page, 'From anywhere', '14 of 14 recall');
  await press('Print');
  await press('Make the PDF');
  const pdf = (await browsing.downloaded('newcomer.pdf')).toString('latin1');
  const pages = pdf.match(/\/Type \/Page\b/g)?.length ?? 0;
  expect(pages).toBeGreaterThan(4);
  expect(pages).toBeLessThan(9);
  expect(browsing.errors).toEqual([]);
  process.stdout.write(`A newcomer's rig takes ${actions} actions.\n`);
  expect(actions).toBeLessThanOrEqual(220);
});

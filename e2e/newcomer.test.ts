import { expect, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import { find, go, saved, seen, waitForText, waitForVerdict } from './browsing.ts';
import { opened } from './opened.ts';

let page: Page;
const { running, browsing } = opened((now) => (page = now), 180);

/** Thirteen pieces and 22 cables, as one types them. */
const rig = [
  'guitar > wah > tuner > switcher',
  '1: compressor > fuzz; 2: drive > boost; 3: amp; 4: chorus; 5: delay; 6: reverb',
  'out > amp > cabinet',
  'midi: switcher > delay > reverb',
  'contact 1 > amp',
];
/** Words and signs of a text: each counts as an action, however long it is. */
const wordsIn = (text: string): number => text.match(/[\p{L}\p{N}]+|[^\s\p{L}\p{N}]/gu)?.length ?? 0;
const patched = [
  'Guitar Out > Wah In',
  'Wah Out > Tuner In',
  'Tuner Out > Switcher In',
  'Switcher Send 1 > Compressor In',
  'Compressor Out > Fuzz In',
  'Fuzz Out > Switcher Return 1',
  'Switcher Send 2 > Drive In',
  'Drive Out > Boost In',
  'Boost Out > Switcher Return 2',
  'Switcher Send 3 > Amp Input',
  'Amp Send > Switcher Return 3',
  'Switcher Send 4 > Chorus In',
  'Chorus Out > Switcher Return 4',
  'Switcher Send 5 > Delay In',
  'Delay Out > Switcher Return 5',
  'Switcher Send 6 > Reverb In',
  'Reverb Out > Switcher Return 6',
  'Switcher Out > Amp Return',
  'Amp Loudspeaker > Cabinet In',
  'Switcher MIDI out > Delay MIDI in',
  'Delay MIDI through > Reverb MIDI in',
  'Switcher Contact 1 > Amp Remote 1',
];
/** What the patch says of each cable. */
const patch = (): Promise<readonly string[]> =>
  page.$$eval('[role="combobox"][aria-label^="From of "]', (nodes) =>
    nodes.map((node) => {
      const to = document.querySelector(`[aria-label="${node.getAttribute('aria-label')!.replace('From', 'To')}"]`);
      return `${node.textContent} > ${to?.textContent}`;
    }),
  );
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
test('thirteen pieces, 22 cables, six songs, 14 sounds and their paper in at most 190 actions', async () => {
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
    const found = await seen(page, `[role="gridcell"][aria-label^="${sound}, ${column}: "]`);
    await found.click({ count: clicks });
  };

  await page.goto(running.url);
  await press('Name', 'textbox');
  await typed('Newcomer');
  await find(page, 'heading', 'Gear');
  const keys = rig.reduce((sum, line) => sum + wordsIn(line) + 1, 0);
  await page.keyboard.sendCharacter(rig.join('\n'));
  await find(page, 'button', 'Add 13 devices and 22 cables');
  await page.keyboard.press('Enter');
  actions += rig.length;
  await waitForText(page, 'main', '13 pieces');
  await to('Routing');
  await waitForText(page, 'main', '22 cables');
  process.stdout.write(`Its gear and cables take ${keys} words, signs and keys.\n`);
  expect(keys).toBeLessThanOrEqual(60);
  expect(await patch()).toEqual(patched);

  await to('Sounds');
  for (const sound of sounds) await typed(sound);
  // All off in all of them at once, then what each has on.
  await press(`Mark ${sounds[0]}`, 'checkbox');
  await press('Mark all');
  // One piece of each loop: what is behind it in the loop goes with it.
  const pedals = ['Compressor', 'Drive', 'Amp', 'Chorus', 'Delay', 'Reverb'];
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
    if (!column.startsWith('Amp')) await cell(sounds[0], column);
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
  expect(actions).toBeLessThanOrEqual(190);
});

import { expect, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import { axeFaults, choose, click, find, go, saved, textOf, waitForSaid, waitForText } from './browsing.ts';
import { opened } from './opened.ts';

let page: Page;
const { running } = opened((now) => (page = now));

const field = async (name: string) => (await page.waitForSelector(`::-p-aria([name="${name}"])`))!;
const answer = '.buildanswer';
/** Puts something else into a field, by keys. */
async function retype(name: string, text: string): Promise<void> {
  await (await find(page, 'textbox', name)).focus();
  await page.keyboard.down('Control');
  await page.keyboard.press('a');
  await page.keyboard.up('Control');
  await page.keyboard.type(text);
  await page.keyboard.press('Enter');
}
const valueOf = async (name: string): Promise<string> =>
  (await field(name)).evaluate((node) => (node as HTMLInputElement).value);

test('a board: moved by keys, held, arranged, refused sizes, proved too small; cables cut from reels', async () => {
  await page.goto(running.url);
  await click(page, 'link', 'River-boat combo rig');
  await go(page, 'Build');
  await waitForText(page, 'main', '9 of 9 pieces stand on it');
  expect(await axeFaults(page)).toEqual([]);

  // A piece in hand: a millimetre a key, ten with Shift, turned and held.
  const chorus = await page.waitForSelector('g[role="button"][aria-label^="Chorus"]');
  await chorus!.evaluate((node) => (node as SVGGElement).focus());
  await page.keyboard.press('ArrowUp');
  await page.waitForSelector('g[aria-label^="Chorus, 650 mm from the left, 1 mm from the front"]');
  await page.keyboard.down('Shift');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.up('Shift');
  await page.waitForSelector('g[aria-label^="Chorus, 660 mm from the left, 1 mm from the front"]');
  await page.keyboard.press('h');
  await page.waitForSelector('g[aria-label*=", held"]');

  // On another: told at once, as a finding too.
  await retype('Hall, mm from the left', '500');
  await waitForText(page, 'main', 'not as they can');
  await retype('Hall, mm from the left', 'far');
  await waitForSaid(page, 'alert', 'is no position');
  await click(page, 'button', 'Give up');

  // Arranged around what is held, as one edit.
  await (await find(page, 'button', 'Arrange')).focus();
  await page.keyboard.press('Enter');
  await waitForText(page, answer, 'Every piece finds its place.');
  expect(await axeFaults(page)).toEqual([]);
  await (await find(page, 'button', 'Put it so')).focus();
  await page.keyboard.press('Enter');
  await waitForText(page, answer, 'It stands so.');
  expect(await valueOf('Chorus, mm from the left')).toBe('660');
  expect(await textOf(page, 'main')).not.toContain('not as they can');
  await retype('Seed of the search', '7');
  await click(page, 'button', 'Arrange');
  await waitForText(page, answer, 'Every piece finds its place.');
  expect(await valueOf('Chorus, mm from the left')).toBe('660');

  // A size that cannot be is refused; one that is too small is proved so.
  await click(page, 'button', 'The board: 820 by 400 mm');
  await retype('Width of the board', '1e9');
  await waitForSaid(page, 'alert', 'write 50 to 5000 mm');
  await retype('Width of the board', '400');
  await waitForText(page, 'main', 'The board: 400 by 400 mm');
  await click(page, 'button', 'Arrange');
  await waitForText(page, answer, 'It cannot fit.');
  expect(await textOf(page, answer)).toContain('Switcher with its plugs is wider than the board');
  await retype('Width of the board', '820');

  // A reel shorter than a cable names the cable.
  await waitForText(page, '[aria-label="Cut list"]', 'no way begins less');
  await retype('Length of Instrument cable', '5');
  await waitForText(page, '[aria-label="Cut list"]', 'longer than every reel');
  await choose(page, 'What is cut from Instrument cable', 'MIDI cables');
  await waitForText(page, '[aria-label="Cut list"]', 'M19');
  await saved(page);
}, 240_000);

test('buy, pack and leave at home: dates, weights, ticks, a variant', async () => {
  await page.goto(running.url);
  await click(page, 'link', 'River-boat combo rig');
  await find(page, 'heading', 'Overview');
  const rig = page.url().replace(/\/[a-z]+$/, '');
  await page.goto(`${rig}/build?view=buy`);
  await waitForText(page, 'main', 'without a price');
  expect(await axeFaults(page)).toEqual([]);
  await retype('Price of MIDI cable', '10-12');
  await retype('Days until MIDI cable comes', '14');
  await waitForText(page, 'main', '2027-04-16');
  await retype('Price of MIDI cable', 'dear');
  await waitForSaid(page, 'alert', 'is no price');
  await click(page, 'button', 'Give up');

  await page.goto(`${rig}/build?view=pack`);
  await waitForText(page, 'main', 'Board case');
  expect(await axeFaults(page)).toEqual([]);
  await retype('Empty weight of Amp case', '8000');
  await waitForText(page, 'main', 'two people');
  await click(page, 'checkbox', 'Echo is packed');
  await page.waitForFunction(
    () => document.querySelector<HTMLInputElement>('[aria-label="Echo is packed"]')?.checked === true,
  );
  await choose(page, 'How Board case travels', 'in the hold');
  await saved(page);

  await page.goto(`${rig}/build?view=home`);
  await waitForText(page, 'main', 'What can stay at home');
  expect(await axeFaults(page)).toEqual([]);
  await click(page, 'button', 'What is lost with 1 at home');
  await waitForText(page, 'main', 'No song is lost.');
  await click(page, 'button', 'Make it a variant');
  await waitForText(page, 'header', 'Without Tuner');
  await saved(page);
}, 240_000);

import { expect, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import {
  axeFaults,
  choose,
  chosen,
  click,
  find,
  go,
  named,
  retype,
  saved,
  seen,
  textOf,
  waitForFinding,
  waitForSaid,
  waitForText,
} from './browsing.ts';
import { opened } from './opened.ts';

let page: Page;
const { running } = opened((now) => (page = now));

const field = (name: string) => named(page, name);
const answer = '.buildanswer';
const valueOf = async (name: string): Promise<string> =>
  (await field(name)).evaluate((node) => (node as HTMLInputElement).value);

test('a board: moved by keys, held, arranged, refused sizes, proved too small; cables cut from reels', async () => {
  await page.goto(running.url);
  await click(page, 'link', 'River-boat combo rig');
  await go(page, 'Build');
  await waitForText(page, 'main', '9 of 9 pieces stand on it');
  expect(await axeFaults(page)).toEqual([]);

  // A piece in hand: a millimetre a key, ten with Shift, turned and held.
  const chorus = await seen(page, 'g[role="button"][aria-label^="Chorus"]');
  await chorus!.evaluate((node) => (node as SVGGElement).focus());
  await page.keyboard.press('ArrowUp');
  await seen(page, 'g[aria-label^="Chorus, 650 mm from the left, 1 mm from the front"]');
  await page.keyboard.down('Shift');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.up('Shift');
  await seen(page, 'g[aria-label^="Chorus, 660 mm from the left, 1 mm from the front"]');
  await page.keyboard.press('h');
  await seen(page, 'g[aria-label*=", held"]');

  // On another: told at once, as a finding too.
  await retype(page, 'Hall, mm from the left', '500');
  await waitForText(page, 'main', 'not as they can');
  await retype(page, 'Hall, mm from the left', 'far');
  await waitForSaid(page, 'alert', 'is no position');
  await click(page, 'button', 'Give up');

  // Arranged around what is held, as one edit.
  await (await find(page, 'button', 'Arrange')).focus();
  await page.keyboard.press('Enter');
  await waitForText(page, answer, 'Every piece finds its place');
  expect(await axeFaults(page)).toEqual([]);
  await (await find(page, 'button', 'Put it so')).focus();
  await page.keyboard.press('Enter');
  await waitForText(page, answer, 'It stands so.');
  expect(await valueOf('Chorus, mm from the left')).toBe('660');
  expect(await textOf(page, 'main')).not.toContain('not as they can');
  await retype(page, 'Seed of the search', '7');
  await click(page, 'button', 'Arrange');
  await waitForText(page, answer, 'Every piece finds its place');
  expect(await valueOf('Chorus, mm from the left')).toBe('660');

  // A size that cannot be is refused; one that is too small is proved so.
  await click(page, 'button', 'The board: 820 by 400 mm');
  await retype(page, 'Width of the board', '1e9');
  await waitForSaid(page, 'alert', 'write 50 to 5000 mm');
  await retype(page, 'Width of the board', '400');
  await waitForText(page, 'main', 'The board: 400 by 400 mm');
  await click(page, 'button', 'Arrange');
  await waitForText(page, answer, 'It cannot fit.');
  expect(await textOf(page, answer)).toContain('Switcher with its plugs is wider than the board');
  await retype(page, 'Width of the board', '820');

  // A reel shorter than a cable names the cable.
  await waitForText(page, '[aria-label="Cut list"]', 'no way begins less');
  await retype(page, 'Length of Instrument cable', '5');
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
  await waitForText(page, 'main', 'in all');
  expect(await axeFaults(page)).toEqual([]);
  // Two spares of every connector, unless the rig says otherwise.
  await retype(page, 'Spares of all connectors', '4');
  await page.waitForFunction(
    () => document.querySelector<HTMLInputElement>('[aria-label="Spares of 6.3 mm plug"]')?.value === '4',
  );
  await retype(page, 'Spares of all connectors', 'many');
  await waitForSaid(page, 'alert', 'write 0 to 1000');
  await click(page, 'button', 'Give up');
  await retype(page, 'Price of MIDI cable', '10-12');
  await retype(page, 'Days until MIDI cable comes', '14');
  await waitForText(page, 'main', '2027-04-16');
  await retype(page, 'Price of MIDI cable', 'dear');
  await waitForSaid(page, 'alert', 'is no price');
  await click(page, 'button', 'Give up');

  await page.goto(`${rig}/build?view=pack`);
  await waitForText(page, 'main', 'Board case');
  expect(await axeFaults(page)).toEqual([]);
  await retype(page, 'Empty weight of Amp case', '8000');
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

test('ends of cables, a panel in the edge, lines that are led through, a piece still to be bought', async () => {
  await page.goto(running.url);
  await click(page, 'button', 'Open a fresh demo');
  await find(page, 'heading', 'Gear');
  await (await field('Add a device')).focus();
  await page.keyboard.sendCharacter('edge panel');
  await page.keyboard.press('Enter');
  await waitForText(page, 'main', 'Edge panel');
  await go(page, 'Build');

  // The wrong end is told beside it and as a finding that stops the show; the finding mends it.
  const compressorEnd = 'End of C03 at Compressor in';
  await choose(page, compressorEnd, 'XLR, male');
  await waitForText(page, 'main', 'takes 6.3 mm plug');
  await waitForFinding(page, 'C03 ends in “XLR, male” at In of Compressor');
  await click(page, 'button', 'Take a cable that ends in “6.3 mm plug”');
  await page.waitForFunction(() => !document.querySelector('main')!.textContent!.includes('takes 6.3 mm plug'));
  expect(await chosen(page, compressorEnd)).toContain('6.3 mm plug');

  // Let into the edge it moves along it alone, and what goes past it is told.
  await click(page, 'button', 'Put on Edge panel');
  await choose(page, 'What Edge panel is let into', 'back edge');
  const panel = await seen(page, 'g[role="button"][aria-label^="Edge panel"][aria-label*="back edge"]');
  const before = await valueOf('Edge panel, mm from the left');
  await panel!.evaluate((node) => (node as SVGGElement).focus());
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowUp');
  await seen(page, `g[aria-label^="Edge panel, ${Number(before) + 1} mm from the left, 355 mm"]`);
  await waitForFinding(page, 'past the edge panel of Board');
  await click(page, 'button', 'Lines of panels and multi-cores');
  await waitForText(page, '[aria-label="Lines of Edge panel"]', 'spare');
  expect(await axeFaults(page)).toEqual([]);

  // A run can be asked why.
  await seen(page, 'button[aria-label^="C03 runs:"]');
  await page.$eval('button[aria-label^="C03 runs:"]', (node) => (node as HTMLElement).click());
  await waitForText(page, '.evidence', 'from jack to jack');
  await page.keyboard.press('Escape');

  // Said in the inspector, it stands on the list with its own price and days.
  await click(page, 'button', 'Inspect Chorus');
  await (await find(page, 'checkbox', 'Still to be bought')).focus();
  await page.keyboard.press('Space');
  await waitForFinding(page, 'Chorus is still to be bought');
  await retype(page, 'Days to come', 'soon');
  await waitForSaid(page, 'alert', 'write 0 to 1000 days');
  await click(page, 'button', 'Give up');
  await saved(page);
  expect(await axeFaults(page)).toEqual([]);
  const rig = page.url().replace(/\/[a-z]+(\?.*)?$/, '');
  await page.goto(`${rig}/build?view=buy`);
  await retype(page, 'Price of Chorus', '80–95');
  await retype(page, 'Days until Chorus comes', '10');
  await waitForText(page, 'main', '2027-04-20');
  await click(page, 'button', 'Chorus is there');
  await page.waitForFunction(() => !document.querySelector('main')!.textContent!.includes('Chorus'));

  await page.goto(`${rig}/build?view=pack`);
  await retype(page, 'Outer size of Board case', 'large');
  await waitForSaid(page, 'alert', 'is no size');
  await click(page, 'button', 'Give up');
  await retype(page, 'Outer size of Board case', '400 x 300 x 200');
  await waitForFinding(page, 'does not go into Board case');
  await saved(page);
}, 240_000);

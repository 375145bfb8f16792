import { expect, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import {
  axeFaults,
  choose,
  click,
  find,
  go,
  named,
  retype,
  saved,
  textOf,
  waitForSaid,
  waitForText,
} from './browsing.ts';
import { opened } from './opened.ts';

let page: Page;
const { running } = opened((now) => (page = now));

const field = (name: string) => named(page, name);
const found = '[aria-label="What Solve found"]';
const press = async (name: string) => {
  await (await field(name)).focus();
  await page.keyboard.press('Enter');
};
test('what draws too much: refused input, the smallest conflict, cures that were tried', async () => {
  await page.goto(running.url);
  await click(page, 'link', 'River-boat combo rig');
  await go(page, 'Power');
  await waitForText(page, 'main', 'all 8 pieces have power');
  await waitForText(page, 'main', 'no headroom');
  expect(await axeFaults(page)).toEqual([]);
  await press('Inspect Hall');
  await retype(page, 'Current it draws', '1e9');
  await waitForSaid(page, 'alert', 'write 0 to 20000 mA');
  await retype(page, 'Current it draws', '900');
  await waitForText(page, 'main', '300');
  await waitForText(page, 'main', 'too much');
  await press('Solve');
  await waitForText(page, found, '1 of 8 pieces stays without power.');
  await waitForText(page, found, 'Hall alone finds no output that it could run on');
  await waitForText(page, found, 'One isolated output more: 9 V 1500 mA: then everything has power.');
  expect(await textOf(page, found)).toContain('Leave Hall at home');
  expect(await axeFaults(page)).toEqual([]);
  await retype(page, 'Current it draws', '300');
  await press('Solve');
  await waitForText(page, found, 'All 8 pieces can have power.');
  expect(await textOf(page, found)).toContain('Hall: ');

  // Held, it stays where it is; by hand it goes where one says.
  await (await find(page, 'checkbox', 'Hall is held')).focus();
  await page.keyboard.press('Space');
  await press('Solve');
  await waitForText(page, found, '1 without headroom');
  await click(page, 'checkbox', 'Hall is held');
  await choose(page, 'What feeds Hall', 'Supply out 6, 9 V, free, 300 mA');
  await waitForText(page, '[aria-label="Pieces that need power"]', 'Supply out 6');

  // On paper.
  await click(page, 'button', 'Print');
  await find(page, 'button', 'Power plan as CSV');
  await page.keyboard.press('Escape');
}, 240_000);

test('the demo’s power by keys: from nothing to solved in one edit, undone, done again, kept', async () => {
  await page.goto(running.url);
  await click(page, 'link', 'River-boat combo rig');
  await go(page, 'Power');

  // From nothing: no supply, and nothing is judged.
  await press('Inspect Supply');
  await press('Remove Supply');
  await waitForText(page, 'main', 'No supply yet');
  await (await field('Add a supply')).focus();
  await page.keyboard.type('power supply');
  await find(page, 'button', 'Add 1 device');
  await page.keyboard.press('Enter');
  await waitForText(page, 'main', '8 of 8 pieces without power');
  await press('Solve');
  await waitForText(page, found, 'All 8 pieces can have power.');
  expect(await textOf(page, found)).toContain('No plan is better.');
  expect(await axeFaults(page)).toEqual([]);
  await press('Wire it so');
  await waitForText(page, 'main', 'all 8 pieces have power');
  expect(await textOf(page, 'main')).not.toContain('no headroom');
  // One edit: undone at once, and done again.
  await page.evaluate(() => (document.activeElement as HTMLElement).blur());
  await page.keyboard.down('Control');
  await page.keyboard.press('z');
  await page.keyboard.up('Control');
  await waitForText(page, 'main', '8 of 8 pieces without power');
  await page.keyboard.down('Control');
  await page.keyboard.press('y');
  await page.keyboard.up('Control');
  await waitForText(page, 'main', 'all 8 pieces have power');
  await saved(page);
  await page.reload();
  await waitForText(page, 'main', 'all 8 pieces have power');
}, 240_000);

import { expect, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import { axeFaults, choose, find, go, saved, seen, type, waitForText } from './browsing.ts';
import { opened } from './opened.ts';

let page: Page;
const { running, browsing } = opened((now) => (page = now));

const typed = async (text: string) => {
  await page.keyboard.sendCharacter(text);
  await page.keyboard.press('Enter');
};
/** What Overview answers, once it holds some words. */
const answered = async (words: RegExp) => {
  await go(page, 'Overview');
  await page.waitForFunction(
    (source) => new RegExp(source).test(document.querySelector('.verdictline')?.textContent ?? ''),
    {},
    words.source,
  );
  return page.$eval('.verdictline', (node) => node.textContent ?? '');
};
/** Presses a cell of the matrix: a piece turns at each press, a value from the second on. */
const cell = async (sound: string, column: string, clicks: number) => {
  const found = await seen(page, `[role="gridcell"][aria-label^="${sound}, ${column}: "]`);
  await found.click({ count: clicks });
};

test('a rig by feet, from nothing to a foot plan; it never says yes before all of it is judged', async () => {
  await page.goto(running.url);
  await type(page, 'Name', 'Corner stage');
  await find(page, 'heading', 'Gear');
  for (const device of ['guitar', 'tuner', 'drive', 'boost', 'Valve amp = valve amp two', 'cabinet'])
    await typed(device);
  await waitForText(page, 'main', '6 pieces');
  expect(await answered(/Nothing to judge yet/)).not.toMatch(/Yes/);

  await go(page, 'Routing');
  const cables = ['guitar > tuner', 'tuner > drive', 'drive > boost', 'boost > valve amp input'];
  for (const cable of [...cables, 'valve amp loudspeaker > cabinet']) await typed(cable);
  await waitForText(page, 'main', '5 cables');

  await go(page, 'Sounds');
  for (const sound of ['Clean', 'Loud']) await typed(sound);
  for (const sound of ['Clean', 'Loud']) {
    await cell(sound, 'Drive own', sound === 'Loud' ? 1 : 2);
    await cell(sound, 'Boost own', 2);
    await cell(sound, 'Valve amp channel', 2);
  }
  await saved(page);
  // No song, no slot: nothing is known of these sounds yet, and that is said.
  expect(await answered(/Clean lies on no switch and no part plays it/)).not.toMatch(/^\s*Yes/);

  await go(page, 'Set');
  await type(page, 'Add a song', 'Quayside');
  expect(await answered(/not all is judged|Not yet|Not tonight/)).not.toMatch(/^\s*Yes/);
  await go(page, 'Set');
  await (await find(page, 'button', '0 parts of Quayside')).click();
  for (const part of ['verse', 'chorus', 'last verse']) await type(page, 'Add a part to Quayside', part);
  await choose(page, 'Sound for verse', 'Clean, by feet');
  await choose(page, 'Sound for chorus', 'Loud, by feet');
  await choose(page, 'Sound for last verse', 'Clean, by feet');
  await saved(page);
  // The pedals come up on: both go off before the song, the drive comes and goes on the bar line.
  const rows = () =>
    page.$$eval('.parts tbody tr', (nodes) =>
      nodes.slice(0, 3).map((node) => (node.querySelector('.feet')?.textContent ?? '').replace('+ foot', '').trim()),
    );
  await page.waitForFunction(() => document.querySelectorAll('.parts .doing').length === 4);
  expect(await rows()).toEqual(['beforeDriveBoost', 'on the bar lineDrive', 'on the bar lineDrive']);
  expect(await axeFaults(page)).toEqual([]);

  await go(page, 'Proof');
  await waitForText(page, 'main', '3 of 3 parts by feet');
  await waitForText(page, 'main', 'to the end of the set: nothing sets it right');
  await waitForText(page, 'main', 'look at Drive, Boost, Valve amp: no press sets it');
  expect(await axeFaults(page)).toEqual([]);
  expect(await answered(/Yes\. Nothing found stands in the way/)).toBeTruthy();

  // A step written by hand stays, and the rest is found around it.
  await go(page, 'Set');
  await (await find(page, 'button', '3 parts of Quayside')).click();
  await choose(page, 'Plan a foot for chorus', 'before: Boost, own switch');
  await page.waitForFunction(() => document.querySelectorAll('.parts .doing').length === 6);
  expect((await rows())[1]).toBe('beforeBoost ×on the bar lineDriveBoost');
  await (await find(page, 'button', 'Take Boost before chorus away')).click();
  await page.waitForFunction(() => document.querySelectorAll('.parts .doing').length === 4);

  expect(browsing.errors).toEqual([]);
});

import { expect, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import {
  axeFaults,
  choose,
  click,
  find,
  go,
  named,
  saved,
  seen,
  textOf,
  type,
  waitForFinding,
  waitForText,
} from './browsing.ts';
import { opened } from './opened.ts';

let page: Page;
const { running, browsing } = opened((now) => (page = now));

const field = (name: string) => named(page, name);
const valueOf = async (name: string) => (await field(name)).evaluate((node) => (node as HTMLTextAreaElement).value);

async function newRig(name: string): Promise<void> {
  await page.goto(running.url);
  await type(page, 'Name', name);
  await find(page, 'heading', 'Gear');
  await (await field('Add a device')).click();
}

test('two guitars and a stereo pair to two amps, typed, drawn as left and right, and told mono tonight', async () => {
  await newRig('Wide rig');
  await page.keyboard.sendCharacter(
    [
      'guitar > 6 m > selector a; acoustic = acoustic guitar > selector b',
      'selector > drive > delay = delay stereo => reverb = reverb stereo',
      'reverb => amp left = valve amp one + amp right = valve amp one',
      'amp left > cabinet left = cabinet; amp right > cabinet right = cabinet',
    ].join('\n'),
  );
  await find(page, 'button', 'Add 10 devices and 10 cables');
  expect(await axeFaults(page)).toEqual([]);
  await page.keyboard.press('Enter');
  await waitForText(page, 'main', '10 pieces');
  await go(page, 'Routing');
  await waitForText(page, 'main', '10 cables');
  await waitForText(page, 'main', 'double line: stereo');
  expect(await page.$$eval('.weave .run.double', (lines) => lines.length)).toBeGreaterThan(0);
  expect(await page.$$eval('.weave g[aria-hidden] text', (texts) => texts.map((text) => text.textContent))).toEqual(
    expect.arrayContaining(['L', 'R']),
  );
  // A mono pedal behind the stereo ones makes one of two.
  await (await field('Add a cable')).click();
  await click(page, 'button', 'Unplug C07');
  await click(page, 'button', 'Unplug C08');
  await (await field('Add a cable')).click();
  await page.keyboard.sendCharacter(
    'mixer = mixer two inputs; reverb out left > mixer in 1; reverb out right > mixer in 2; mixer > amp left',
  );
  await page.keyboard.press('Enter');
  await go(page, 'Sounds');
  await (await field('Add a sound')).type('Wide');
  await page.keyboard.press('Enter');
  await waitForFinding(page, 'makes one signal of left and right');
  await click(page, 'button', 'Close the findings');
  await go(page, 'Overview');
  await waitForText(page, 'main', 'Stereo ends before the listener');
  await choose(page, 'Tonight is', 'mono');
  await page.waitForFunction(
    () => !document.querySelector('main')!.textContent!.includes('Stereo ends before the listener'),
  );
  await saved(page);
});

test('what is not understood stays with why; what was assumed is changed in its row; Tab completes', async () => {
  await newRig('Typed rig');
  await page.keyboard.sendCharacter('guitar > selector\nzzz > selector b\ndrive > selector');
  await waitForText(page, 'main', 'No device is called “zzz”, and no type has these words.');
  await choose(page, 'Jack of Selector, assumed', 'In B');
  await find(page, 'button', 'Add 3 devices and 2 cables');
  await (await field('Add a device')).press('Enter');
  await waitForText(page, 'main', '3 pieces');
  expect(await valueOf('Add a device')).toBe('zzz > selector b');
  await go(page, 'Routing');
  expect(await textOf(page, 'main')).toContain('Selector In B');
  const cable = await field('Add a cable');
  await cable.click();
  await page.keyboard.type('selector out > am');
  await find(page, 'option', 'Valve amp, two channels new');
  await page.keyboard.press('Tab');
  expect(await valueOf('Add a cable')).toMatch(/^selector out > .*amp/i);
  await page.keyboard.press('Enter');
  await waitForText(page, 'main', '3 cables');
  await saved(page);
});

test('a piece is copied with all that was entered of it, and tells how it differs from its type', async () => {
  await newRig('Copied rig');
  await page.keyboard.type('volume > drive');
  await page.keyboard.press('Enter');
  await click(page, 'button', 'Inspect Volume');
  const inspector = '[aria-label="Inspector: Volume"]';
  await waitForText(page, inspector, 'it does nothing');
  await page.$eval(`${inspector} input[type="checkbox"]`, (box) => (box as HTMLInputElement).click());
  await waitForText(page, inspector, 'Tuner output: no, typically yes');
  await click(page, 'button', 'Copy Volume');
  await waitForText(page, '[aria-label="Inspector: Volume 2"]', 'Tuner output: no, typically yes');
  await click(page, 'button', 'Tuner output as typical');
  await page.waitForFunction(() => document.querySelector('[aria-label="Differs from its type"]') === null);
  await saved(page);
  expect(browsing.errors).toEqual([]);
});

test('a song on an instrument that does not come through is told, and mended by one press; the input stands beside it', async () => {
  await newRig('Two inputs');
  await page.keyboard.sendCharacter(
    'guitar > selector a; acoustic = acoustic guitar > selector b\nselector > drive > amp > cabinet',
  );
  await page.keyboard.press('Enter');
  await saved(page);
  await go(page, 'Sounds');
  await (await field('Add a sound')).type('Plain');
  await page.keyboard.press('Enter');
  await go(page, 'Set');
  await (await field('Add a song')).type('Harbour Light');
  await page.keyboard.press('Enter');
  await type(page, 'Instrument of Harbour Light', 'Acoustic');
  await click(page, 'button', '0 parts of Harbour Light');
  await type(page, 'Add a part to Harbour Light', 'Plain');
  await waitForText(page, '.parts', '(Selector In B)');
  await waitForFinding(page, 'is played on Acoustic (in Selector In B), which is not heard in Plain');
  await click(page, 'button', 'Plan it: Selector input B');
  await waitForText(page, '.parts', 'Selector input B');
  await waitForText(page, 'li.gone', 'is not heard in Plain');
  await type(page, 'Instrument of part Plain', 'Mandolin');
  await waitForFinding(page, 'is played on “Mandolin”, and the rig has no instrument called so');
});

test('two sounds are compared, an edit before and after, and what does nothing is folded', async () => {
  await page.goto(running.url);
  await click(page, 'button', 'Open a fresh demo');
  await find(page, 'heading', 'Gear');
  await go(page, 'Routing');
  await choose(page, 'Compare with', 'Slow Lock, chorus');
  await waitForText(page, '[aria-label="What differs"]', 'Only in Slow Lock, chorus: Drive 1, soft, Echo.');
  await waitForText(
    page,
    '[aria-label="What differs"]',
    'Combo: Preamp, clean; Power amp here, Preamp, lead; Power amp there.',
  );
  await waitForText(page, '[aria-label="What differs"]', 'Guitar selector: neck here, bridge there.');
  expect(await page.$$eval('.weave .wedge', (wedges) => wedges.length)).toBeGreaterThan(4);
  expect(await axeFaults(page)).toEqual([]);
  await click(page, 'button', 'Unplug C03');
  await choose(page, 'Compare with', 'before: Unplug C03');
  await seen(page, 'section[aria-label="Compared with: Before: Unplug C03"]');
  await waitForText(page, '[aria-label="What differs"]', 'Only in Before: Unplug C03');
  await click(page, 'button', 'Undo: Unplug C03');
  await page.waitForSelector('[aria-label="What differs"]', { hidden: true });

  await newRig('Long line');
  await page.keyboard.sendCharacter('guitar > one = tuner > two = tuner > three = tuner > amp > cabinet');
  await page.keyboard.press('Enter');
  await saved(page);
  await go(page, 'Routing');
  await find(page, 'button', '3. Two');
  await click(page, 'checkbox', 'Fold what does nothing');
  await click(page, 'button', '2. 3 that do nothing here: One, Two, Three');
  await find(page, 'button', '3. Two');
});

import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterAll, expect, test } from '@jest/globals';
import type { ElementHandle, HTTPRequest, Page } from 'puppeteer-core';
import {
  axeFaults,
  choose,
  click,
  find,
  go,
  gone,
  named,
  retype,
  saved,
  seen,
  textOf,
  waitForSaid,
  waitForText,
} from './browsing.ts';
import { opened } from './opened.ts';

let page: Page;
const { running, browsing } = opened((now) => (page = now));
const folder = mkdtempSync(path.join(os.tmpdir(), 'yunta-types-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const field = (name: string) => named(page, name);

async function newRig(name: string, text: string): Promise<string> {
  await page.goto(running.url);
  await (await find(page, 'textbox', 'Name')).type(name);
  await page.keyboard.press('Enter');
  await find(page, 'heading', 'Gear');
  await (await field('Add a device')).click();
  await page.keyboard.sendCharacter(text);
  await page.keyboard.press('Enter');
  await saved(page);
  return page.url();
}

async function bring(name: string, content: string): Promise<void> {
  const file = path.join(folder, name);
  writeFileSync(file, content);
  const input = (await seen(page, 'input[type="file"]')) as unknown as ElementHandle & {
    uploadFile(file: string): Promise<void>;
  };
  await input.uploadFile(file);
}

const ownTypes = () => seen(page, '::-p-xpath(//button[starts-with(., "Types of your own")])');

test('a device made in the editor: drawn, traced, kept, taken elsewhere, and taken again in a later revision', async () => {
  await newRig('Workshop', 'guitar > Odd box = custom > amp > cabinet');
  await click(page, 'button', 'Inspect Odd box');
  await click(page, 'button', 'Edit what is inside');
  await find(page, 'heading', 'Inside Odd box');

  // By keyboard: the focus stands where a new jack is named.
  await page.waitForFunction(() => document.activeElement?.getAttribute('aria-label') === 'Name of a new jack');
  await page.keyboard.type('Dry out');
  await choose(page, 'Kind of the new jack', 'signal out');
  await (await find(page, 'textbox', 'Name of a new jack')).focus();
  await page.keyboard.press('Enter');
  await find(page, 'textbox', 'Name of the jack Dry out');
  await click(page, 'button', 'Add path');
  await choose(page, 'Where Path ends', 'Dry out');
  await retype(page, 'Name of the path Path', 'Direct');
  await waitForText(page, 'svg[role="img"]', 'Direct');

  // What is typed wrong, or still needed, stays as it was and says why.
  await retype(page, 'What On may be', 'on, on');
  await waitForText(page, '[role="alert"]', 'Values with commas between them');
  await page.keyboard.press('Escape');
  await click(page, 'button', 'Remove the jack In');
  await waitForSaid(page, 'alert', 'still used by cable');
  await click(page, 'button', 'Dismiss');

  await (await find(page, 'textbox', 'Name of a new control')).type('Mode');
  await retype(page, 'Values of the new control', 'dark, bright');
  await find(page, 'textbox', 'Name of the control Mode');
  await choose(page, 'Controls heard in Effect', 'Mode');
  await choose(page, 'What Effect does', 'drive');
  await click(page, 'button', 'Add message');
  await choose(page, 'What CC 0 moves', 'Mode');
  await find(page, 'textbox', 'Name of the jack MIDI in');
  expect(await axeFaults(page)).toEqual([]);

  // The trace follows: the drive is on the line, the direct way ends at nothing.
  await go(page, 'Sounds');
  await (await field('Add a sound')).type('Gritty');
  await page.keyboard.press('Enter');
  await saved(page);
  await go(page, 'Routing');
  await waitForText(page, 'main', 'Odd box');
  await go(page, 'Gear');
  await waitForText(page, 'table.gear', 'drive');

  await click(page, 'button', 'Inspect Odd box');
  await click(page, 'button', 'Edit what is inside');
  await click(page, 'button', 'Keep as a type of your own');
  await waitForSaid(page, 'status', 'Odd box is kept among your own types, as revision 1.');
  const workshop = page.url();

  await newRig('Other rig', 'guitar > odd box > amp > cabinet');
  await waitForText(page, 'main', '4 pieces');
  await click(page, 'button', 'Inspect Odd box');
  await waitForText(page, '[aria-label="Inspector: Odd box"]', 'your own type, revision 1');
  const other = page.url();

  await page.goto(workshop);
  await retype(page, 'Name of the path Direct', 'Straight through');
  await click(page, 'button', 'Keep as revision 2 of Odd box');
  await waitForSaid(page, 'status', 'as revision 2.');

  await page.goto(other);
  await click(page, 'button', 'Inspect Odd box');
  await waitForText(page, '[aria-label="A later revision of its type"]', 'with Straight through: In to Dry out');
  await click(page, 'button', 'Take revision 2');
  await waitForText(page, '[aria-label="Inspector: Odd box"]', 'your own type, revision 2');
  await saved(page);
  await click(page, 'button', 'Undo: Take revision 2 of Odd box for Odd box');
  await waitForText(page, '[aria-label="Inspector: Odd box"]', 'Revision 2 is there');
  // Made from the first revision, it does not overwrite what the second changed.
  await click(page, 'button', 'Edit what is inside');
  await click(page, 'button', 'Keep as revision 2 of Odd box');
  await waitForSaid(page, 'alert', 'The type was not kept. This changed in the meantime');
  await click(page, 'button', 'Dismiss');
  await click(page, 'button', 'Back to the gear');
});

test('a line entered while the own types are on their way waits for them', async () => {
  const held: HTTPRequest[] = [];
  const hold = (request: HTTPRequest) => {
    if (new URL(request.url()).pathname === '/api/types') held.push(request);
    else void request.continue();
  };
  await page.setRequestInterception(true);
  page.on('request', hold);
  await newRig('Early rig', 'guitar > odd box > amp');
  expect(held).not.toEqual([]);
  await waitForText(page, 'main', '0 pieces');
  // What is typed meanwhile comes after it, and is added too.
  await page.keyboard.type('tuner');
  await page.keyboard.press('Enter');
  await page.keyboard.type('cab');
  await Promise.all(held.map((request) => request.continue()));
  await waitForText(page, 'main', '4 pieces');
  expect(await (await field('Add a device')).evaluate((node) => (node as HTMLTextAreaElement).value)).toBe('cab');
  page.off('request', hold);
  await page.setRequestInterception(false);
});

test('types go out as a file and come in from one; a bad one is refused whole', async () => {
  await (await ownTypes())!.click();
  await click(page, 'button', 'Export Odd box');
  const text = (await browsing.downloaded('odd-box-types.json')).toString();
  await click(page, 'button', 'Remove Odd box from your own types');
  await click(page, 'button', 'Remove the type');
  await gone(page, '', 'Export Odd box');
  await bring('broken.json', text.replace('"Straight through"', '7'));
  await waitForSaid(page, 'alert', 'The file was refused whole; nothing was changed.');
  await bring('types.json', text);
  await waitForSaid(page, 'status', 'types.json: 1 new');
  await find(page, 'button', 'Export Odd box');
  await bring('types.json', text);
  await waitForSaid(page, 'status', 'types.json: 1 there already');
  expect(await axeFaults(page)).toEqual([]);
});

test('a generic device is opened up, behaves as before, and is closed again by one undo', async () => {
  await page.goto(running.url);
  await click(page, 'button', 'Open a fresh demo');
  await find(page, 'heading', 'Gear');
  await waitForText(page, 'header', 'to fix');
  const counts = await textOf(page, 'header');
  await click(page, 'button', 'Inspect Combo');
  await click(page, 'button', 'Edit what is inside');
  await find(page, 'heading', 'Inside Combo');
  await waitForText(page, 'svg[role="img"]', 'nothing is in Return');
  await saved(page);
  await waitForText(page, 'header', 'to fix');
  expect((await textOf(page, 'header')).replace(/revision \d+/, '')).toBe(counts.replace(/revision \d+/, ''));
  await click(page, 'button', 'Undo: Write out what is inside Combo');
  await find(page, 'heading', 'Gear');
});

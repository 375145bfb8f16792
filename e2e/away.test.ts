import { expect, test } from '@jest/globals';
import type { HTTPRequest, Page } from 'puppeteer-core';
import { click, find, go, saved, seen, textOf, type, waitForSaid } from './browsing.ts';
import { opened } from './opened.ts';

let page: Page;
const { running, browsing } = opened((now) => (page = now));

const openPatch = async (): Promise<string> => {
  await page.goto(running.url);
  await click(page, 'button', 'Open a fresh demo');
  await find(page, 'heading', 'Gear');
  await go(page, 'Routing');
  await find(page, 'textbox', 'Loom of C01');
  await saved(page);
  return page.url();
};
const waitForValue = (on: Page, field: string, value: string) =>
  on.waitForFunction(
    (name, text) => document.querySelector<HTMLInputElement>(`[aria-label="${name}"]`)?.value === text,
    {},
    field,
    value,
  );

test('edits while the server is away are kept, said to be kept, survive a closed tab and are sent when it is back', async () => {
  const address = await openPatch();
  await running.killServer();
  await type(page, 'Loom of C01', 'loom A');
  await seen(page, '[data-saving="waiting"]');
  expect(await textOf(page, '[data-saving]')).toContain('not saved yet');
  await waitForSaid(page, 'status', 'The server does not answer. Edits are kept in this browser');
  await page.close();
  await running.startServer();
  page = await browsing.newPage();
  await page.goto(address);
  await saved(page);
  await waitForValue(page, 'Loom of C01', 'loom A');
  await page.reload();
  await waitForValue(page, 'Loom of C01', 'loom A');
});

test('the server killed and started again under an open page: what is edited meanwhile is sent by itself', async () => {
  await openPatch();
  await running.killServer();
  await type(page, 'Loom of C02', 'loom B');
  await seen(page, '[data-saving="waiting"]');
  await running.startServer();
  await saved(page);
  await page.reload();
  await waitForValue(page, 'Loom of C02', 'loom B');
});

test('two windows on one field: the second is told what won, and has it', async () => {
  const address = await openPatch();
  const other = await browsing.newPage();
  await other.goto(address);
  await find(other, 'textbox', 'Length of C01');
  // The other window's edit is under way when the first one's is saved.
  const held = new Promise<HTTPRequest>((resolve) =>
    other.on('request', (request) => (request.method() === 'POST' ? resolve(request) : void request.continue())),
  );
  await other.setRequestInterception(true);
  const set = async (on: Page, length: string) => {
    await on.bringToFront();
    await on.click('[aria-label="Length of C01"]', { count: 3 });
    await on.keyboard.type(length);
    await on.keyboard.press('Enter');
  };
  await set(other, '9');
  const under = await held;
  await set(page, '7');
  await saved(page);
  other.removeAllListeners('request');
  await under.continue();
  await other.setRequestInterception(false);
  await other.bringToFront();
  await waitForSaid(other, 'alert', 'An edit was not saved');
  const said = await other.$$eval('[role="alert"]', (nodes) => nodes.map((node) => node.textContent).join());
  expect(said).toMatch(/Change cable C01 \(9\).*it is now 7/);
  await waitForValue(other, 'Length of C01', '7');
  await other.close();
  expect(browsing.errors).toEqual([]);
});

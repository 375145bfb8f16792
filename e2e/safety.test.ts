import { randomUUID } from 'node:crypto';
import { afterEach, describe, expect, test } from '@jest/globals';
import { commands, importShow, type Show } from '@yunta/core';
import type { Page } from 'puppeteer-core';
import { axeFaults, click, find, saved, seen, textOf, type, waitForSaid, waitForText } from './browsing.ts';
import { opened } from './opened.ts';

let page: Page;
const { running, browsing } = opened((now) => (page = now));
afterEach(() => expect(browsing.errors).toEqual([]));

const make = async (name: string): Promise<string> =>
  ((await running.ask('POST', '/api/shows', { kind: 'starter', starter: 'four-cable', name })).json as { id: string })
    .id;
const read = async (id: string): Promise<Show & { revision: number }> =>
  (await running.ask('GET', `/api/shows/${id}`)).json;
const rename = async (id: string, name: string): Promise<void> => {
  const show = await read(id);
  expect(
    (
      await running.ask('POST', `/api/shows/${id}/batches`, {
        id: randomUUID(),
        base: show.revision,
        ...commands.renameRig(show, name),
      })
    ).status,
  ).toBe(200);
};
const open = async (on: Page, id: string, station = 'gear'): Promise<void> => {
  await on.goto(`${running.url}/rig/${id}/${station}`);
  await seen(on, '[data-saving]');
};
/** Renames a device in the table of gear. */
const renameDevice = async (on: Page, from: string, to: string): Promise<void> => {
  const field = await find(on, 'textbox', `Name of ${from}`);
  await field!.click({ clickCount: 3 });
  await on.keyboard.type(to);
  await on.keyboard.press('Enter');
};
const deviceNames = async (id: string): Promise<readonly string[]> =>
  Object.values((await read(id)).rig.devices).map(({ name }) => name);

describe('Home', () => {
  test('exports a rig, and saves no file where the server refuses', async () => {
    const id = await make('Paper boat');
    await page.goto(running.url);
    await click(page, 'button', 'Export Paper boat');
    expect((await browsing.downloaded('paper-boat.yunta.json')).toString()).toBe(
      (await running.ask('GET', `/api/shows/${id}/file`)).text,
    );
    await running.ask('DELETE', `/api/shows/${id}`);
    await click(page, 'button', 'Export Paper boat');
    await waitForSaid(page, 'alert', '“Paper boat” was not exported.');
  });

  test('deletes a rig, and says so where the server refuses', async () => {
    const id = await make('Farewell');
    await page.goto(running.url);
    await click(page, 'button', 'Delete Farewell');
    await click(page, 'button', 'Delete the rig');
    await page.waitForFunction(() => !document.querySelector('table.rigs')?.textContent?.includes('Farewell'));
    expect((await running.ask('GET', `/api/shows/${id}`)).status).toBe(404);
    // Taken back at once, and later from the list of what was deleted.
    await click(page, 'button', 'Undo: Delete Farewell');
    await find(page, 'button', 'Delete Farewell');
    expect((await running.ask('GET', `/api/shows/${id}`)).status).toBe(200);
    await click(page, 'button', 'Delete Farewell');
    await click(page, 'button', 'Delete the rig');
    await page.waitForFunction(() => !document.querySelector('table.rigs')?.textContent?.includes('Farewell'));
    await page.reload();
    await (await seen(page, '::-p-xpath(//button[starts-with(., "Deleted lately")])'))!.click();
    await click(page, 'button', 'Bring back Farewell');
    await find(page, 'button', 'Delete Farewell');
    const other = await make('Twice');
    await page.reload();
    await find(page, 'button', 'Delete Twice');
    await running.ask('DELETE', `/api/shows/${other}`);
    await click(page, 'button', 'Delete Twice');
    await click(page, 'button', 'Delete the rig');
    await waitForSaid(page, 'alert', '“Twice” was not deleted.');
    await page.waitForFunction(() => !document.querySelector('table')?.textContent?.includes('Twice'));
  });

  test('backs everything up, and restores it; a window that has a rig open follows', async () => {
    const id = await make('Treasure');
    const other = await browsing.newPage();
    await open(other, id);
    await page.bringToFront();
    await page.goto(running.url);
    const before = (await running.ask('GET', '/api/backups')).json as object[];
    await click(page, 'button', 'Back up now');
    await page.waitForFunction(
      (count) => document.querySelectorAll('[aria-label^="Restore the backup"]').length > count,
      {},
      Math.min(before.length, 4),
    );
    await rename(id, 'Spoilt');
    await page.reload();
    await waitForText(page, 'table', 'Spoilt');
    expect(await axeFaults(page)).toEqual([]);
    await (await seen(page, '[aria-label^="Restore the backup"]')).click();
    await click(page, 'button', 'Bring everything back');
    await waitForSaid(page, 'status', 'Restored');
    await waitForText(page, 'table', 'Treasure');
    expect((await read(id)).rig.name).toBe('Treasure');
    await waitForText(other, 'header', 'Treasure');
    expect(((await running.ask('GET', '/api/backups')).json as { kind: string }[])[0].kind).toBe('before-restore');
    await other.close();
  });
});

describe('a rig in two windows', () => {
  test('what one changes the other shows at once', async () => {
    const id = await make('Two views');
    const other = await browsing.newPage();
    await open(other, id);
    await page.bringToFront();
    await open(page, id);
    await type(page, 'Add a device', 'tuner');
    await saved(page);
    await other.waitForFunction(
      () =>
        document.querySelector('main')?.textContent?.includes('11 devices') ||
        document.querySelectorAll('[aria-label^="Name of"]').length > 0,
    );
    const count = Object.keys((await read(id)).rig.devices).length;
    await other.waitForFunction((n) => document.querySelectorAll('[aria-label^="Name of "]').length === n, {}, count);
    await other.close();
  });
});

describe('while the server is away', () => {
  test('the page reloads, shows the rig as last seen, takes edits, and sends them when it is back', async () => {
    const id = await make('Island');
    await open(page, id);
    await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
    await new Promise((resolve) => setTimeout(resolve, 1500));
    await running.stopServer();
    await page.reload();
    await waitForText(page, 'main', 'as this browser last saw it');
    await seen(page, '[data-saving="waiting"]');
    await type(page, 'Add a device', 'tuner');
    await waitForText(page, 'main', 'Tuner');
    expect(await axeFaults(page)).toEqual([]);
    await click(page, 'button', 'Export');
    const exported = importShow((await browsing.downloaded('island.yunta.json')).toString());
    expect(exported.ok && Object.values(exported.value.rig.devices).some(({ name }) => name.startsWith('Tuner'))).toBe(
      true,
    );
    await page.reload();
    await waitForText(page, 'main', 'Tuner');
    await running.startServer();
    await saved(page);
    expect((await deviceNames(id)).some((name) => name.startsWith('Tuner'))).toBe(true);
    await page.goto(running.url);
    await find(page, 'link', 'Island');
  });

  test('an unsent edit whose field was changed meanwhile waits as a conflict until one decides, over reloads', async () => {
    const id = await make('Quarrel');
    await open(page, id);
    const name = (await deviceNames(id))[0];
    await running.stopServer();
    await renameDevice(page, name, 'Mine');
    await seen(page, '[data-saving="waiting"]');
    await page.goto('about:blank');
    await running.startServer();
    const show = await read(id);
    const device = Object.values(show.rig.devices).find((device) => device.name === name)!;
    await running.ask('POST', `/api/shows/${id}/batches`, {
      id: randomUUID(),
      base: show.revision,
      ...commands.setDevice(show, device.id, 'name', 'Theirs'),
    });
    await open(page, id);
    await waitForSaid(page, 'alert', 'An edit was not saved');
    expect(await textOf(page, '[aria-label="Edits that were not saved"]')).toMatch(/\("Mine"\).*it is now "Theirs"/);
    expect(await axeFaults(page)).toEqual([]);
    await page.reload();
    await waitForSaid(page, 'alert', 'An edit was not saved');
    await (await seen(page, '[aria-label^="Apply anyway"]')).focus();
    await page.keyboard.press('Enter');
    await page.waitForSelector('[aria-label="Edits that were not saved"]', { hidden: true });
    await saved(page);
    expect(await deviceNames(id)).toContain('Mine');
    await page.reload();
    await seen(page, '[data-saving="saved"]');
    expect(await page.$('[aria-label="Edits that were not saved"]')).toBeNull();
  });
});

describe('a browser that keeps nothing', () => {
  test('opens the rig all the same, says so, and saves', async () => {
    const id = await make('Bare');
    const bare = await browsing.newPage();
    await bare.evaluateOnNewDocument(() => {
      Object.defineProperty(window, 'indexedDB', {
        get: () => {
          throw new DOMException('denied', 'SecurityError');
        },
      });
      Object.defineProperty(window, 'localStorage', {
        get: () => {
          throw new DOMException('denied', 'SecurityError');
        },
      });
    });
    await open(bare, id);
    await waitForText(bare, 'main', 'This browser keeps nothing');
    await type(bare, 'Add a device', 'tuner');
    await saved(bare);
    expect((await deviceNames(id)).some((name) => name.startsWith('Tuner'))).toBe(true);
    await bare.close();
  });
});

describe('a named revision', () => {
  test('is kept, restored as one step, and undone', async () => {
    const id = await make('Milestones');
    await open(page, id);
    const was = await read(id);
    await click(page, 'button', 'History');
    await type(page, 'Name the rig as it is now', 'As rehearsed');
    await find(page, 'button', 'Restore As rehearsed');
    await page.keyboard.press('Escape');
    await type(page, 'Add a device', 'tuner');
    await saved(page);
    await click(page, 'button', 'History');
    await find(page, 'button', 'Restore As rehearsed');
    expect(await axeFaults(page)).toEqual([]);
    await click(page, 'button', 'Restore As rehearsed');
    await waitForText(page, 'main', 'Restored “As rehearsed”');
    await saved(page);
    expect((await read(id)).rig).toEqual(was.rig);
    await click(page, 'button', 'Undo: Restore revision As rehearsed');
    await saved(page);
    await page.waitForFunction(() => document.querySelector('main')?.textContent?.includes('Tuner'));
    expect((await deviceNames(id)).length).toBe(Object.keys(was.rig.devices).length + 1);
  });
});

import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import type { HTTPRequest, Page } from 'puppeteer-core';
import { axeFaults, Browsing, click, find, saved, textOf, type, waitForText } from './browsing.ts';
import { Running } from './running.ts';

jest.setTimeout(120_000);
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

const devices = ['guitar', 'loop switcher 4', 'drive', 'valve amp two', 'delay midi', 'cabinet'];
const cables = [
  'guitar > loop switcher',
  'loop switcher send 1 > drive',
  'drive > loop switcher return 1',
  'loop switcher send 2 > valve amp input',
  'valve amp send > loop switcher return 2',
  'loop switcher send 3 > delay',
  'delay out > loop switcher return 3',
  'loop switcher out > valve amp return',
  'valve amp loudspeaker > cabinet',
  'loop switcher midi out > delay midi in',
  'loop switcher contact 1 > valve amp remote 1',
];
const stations = ['Overview', 'Gear', 'Routing', 'Sounds', 'Program', 'Set', 'Proof'];
const go = async (station: string): Promise<void> =>
  (await page.waitForSelector(`.rail a[href$="/${station}"]`))!.click();
const level = (n: number) => `[data-level="${n}"]`;

/** The two sounds by keyboard in the matrix: columns drive, amp, delay, channel, preset. */
async function fillMatrix(): Promise<void> {
  const key = (...keys: readonly string[]) =>
    keys.reduce((before, key) => before.then(() => page.keyboard.press(key as 'Enter')), Promise.resolve());
  await (await page.waitForSelector('[data-cell="0.0"]'))!.focus();
  await key(
    'Space',
    'ArrowRight',
    'Space',
    'ArrowRight',
    'Space',
    'ArrowRight',
    'Space',
    'Space',
    'ArrowRight',
    '6',
    'Enter',
  );
  await page.waitForFunction(() => document.activeElement?.getAttribute('data-cell') === '0.4');
  await key(
    'ArrowDown',
    'ArrowLeft',
    'Space',
    'ArrowLeft',
    'Space',
    'Space',
    'ArrowLeft',
    'Space',
    'ArrowLeft',
    'Space',
    'Space',
  );
}
const cell = (row: number, column: number) =>
  page.$eval(`[data-cell="${row}.${column}"]`, (node) => node.getAttribute('aria-label')!.split(': ')[1]);
const matrix = async () => [
  await Promise.all([0, 1, 2, 3, 4].map((column) => cell(0, column))),
  await Promise.all([0, 1, 2, 3, 4].map((column) => cell(1, column))),
];
const wanted = [
  ['on', 'on', 'on', 'lead', '6'],
  ['off', 'on', 'off', 'clean', '–'],
];

describe('a new rig from nothing', () => {
  test('is entered by typing, and reads as ten passes', async () => {
    await page.goto(running.url);
    await type(page, 'Name', 'Harbour rig');
    await find(page, 'heading', 'Gear');
    for (const device of devices) await type(page, 'Add a device', device);
    await go('routing');
    for (const cable of cables) await type(page, 'Add a cable', cable);
    await waitForText(page, '.main', '11 cables');
    await go('sounds');
    await type(page, 'Add a sound', 'Lead');
    await type(page, 'Add a sound', 'Clean');
    await fillMatrix();
    expect(await matrix()).toEqual(wanted);
    await go('program');
    await click(page, 'button', 'Lay out by role');
    await page.select('#selected-sound', 'lead');
    await go('routing');
    await waitForText(page, '.legend', '10 passes');
    expect(await page.$$eval('.weave .pass', (nodes) => nodes.map((node) => node.getAttribute('aria-label')))).toEqual(
      [
        'Guitar',
        'Loop switcher',
        'Drive',
        'Loop switcher',
        'Valve amp, Preamp, lead',
        'Loop switcher',
        'Delay',
        'Loop switcher',
        'Valve amp, Power amp',
        'Cabinet',
      ].map((name, i) => `${i + 1}. ${name}`),
    );
  });

  test('recalls as generated', async () => {
    await go('proof');
    await waitForText(page, level(2), '2 of 2 recall');
    await waitForText(page, level(1), '0 of 0 recall, 2 not played');
    await waitForText(page, level(4), '2 of 2 recall');
  });

  test('written by hand, it leaves something over: the proof finds it, plays it, and the fix turns the verdict', async () => {
    await go('program');
    await click(page, 'button', 'Write by hand');
    await click(page, 'button', 'Remove: Contact 1 closed');
    await go('proof');
    await waitForText(page, level(2), '1 of 2 recall');
    await waitForText(page, '.steps', 'Valve amp channel clean, wanted lead');
    await click(page, 'button', 'Play it');
    await click(page, 'button', 'Next step');
    await waitForText(page, '.case', 'C0 05');
    await waitForText(page, '.wrongrow', 'Valve amp channel');
    await (await page.$('.case header button.mantine-Button-root'))!.click();
    await waitForText(page, level(2), '2 of 2 recall');
    await waitForText(page, '.findings', 'Wrong sound after an earlier press');
    expect(await page.$$eval('.findings .gone .title', (nodes) => nodes[0].textContent)).toBe(
      'Wrong sound after an earlier press',
    );
  });

  test('undo brings the fault back, redo takes it away again, each by name', async () => {
    await click(page, 'button', 'Undo: Generate this slot from its sound');
    await waitForText(page, level(2), '1 of 2 recall');
    await click(page, 'button', 'Redo: Generate this slot from its sound');
    await waitForText(page, level(2), '2 of 2 recall');
  });

  test('after a reload everything is there', async () => {
    await saved(page);
    await page.reload();
    await waitForText(page, level(2), '2 of 2 recall');
    await go('sounds');
    await page.waitForSelector('[data-cell="1.4"]');
    expect(await matrix()).toEqual(wanted);
    await go('routing');
    await waitForText(page, '.legend', '10 passes');
    await waitForText(page, '.main', '11 cables');
  });

  test('a cable that cannot be is refused where it was typed, and nothing is lost', async () => {
    await type(page, 'Add a cable', 'guitar > moon');
    await waitForText(page, '.main', 'No device is called “moon”');
    await waitForText(page, '.main', '11 cables');
  });
});

describe('by keyboard alone', () => {
  const tabTo = async (name: string) => {
    for (let i = 0; i < 150; i += 1) {
      await page.keyboard.press('Tab');
      const here = await page.evaluate(() => {
        const node = document.activeElement as HTMLElement | null;
        return (
          node?.getAttribute('aria-label') ??
          (node instanceof HTMLInputElement && node.labels?.[0]
            ? node.labels[0].textContent
            : node?.textContent
          )?.trim() ??
          ''
        );
      });
      if (here.startsWith(name)) return;
    }
    throw new Error(`"${name}" cannot be reached by Tab`);
  };
  const say = async (field: string, lines: readonly string[]) => {
    await tabTo(field);
    for (const text of lines) {
      await page.keyboard.type(text);
      await page.keyboard.press('Enter');
    }
  };

  test('the whole job: rig, sounds, layout, fault, fix', async () => {
    await page.goto(running.url);
    await page.waitForSelector('h1');
    await tabTo('Name');
    await page.keyboard.type('Keyboard rig');
    await page.keyboard.press('Enter');
    await find(page, 'heading', 'Gear');
    await say('Add a device', devices);
    await waitForText(page, '.main', '6 pieces');
    await page.keyboard.down('Alt');
    await page.keyboard.press('3');
    await page.keyboard.up('Alt');
    await find(page, 'heading', 'Routing');
    await say('Add a cable', cables);
    await waitForText(page, '.main', '11 cables');
    await page.evaluate(() => (document.activeElement as HTMLElement).blur());
    await tabTo('Sounds');
    await page.keyboard.press('Enter');
    await say('Add a sound', ['Lead', 'Clean']);
    await fillMatrix();
    expect(await matrix()).toEqual(wanted);
    await page.evaluate(() => (document.activeElement as HTMLElement).blur());
    await tabTo('Program');
    await page.keyboard.press('Enter');
    await tabTo('Lay out by role');
    await page.keyboard.press('Enter');
    await page.keyboard.press('[');
    await waitForText(page, '.hand', 'bank 1, switch 1');
    await tabTo('Write by hand');
    await page.keyboard.press('Enter');
    await tabTo('Remove: Contact 1 closed');
    await page.keyboard.press('Enter');
    await waitForText(page, '.findings', 'Valve amp channel is clean, wanted lead');
    await tabTo('Generate this slot from its sound');
    await page.keyboard.press('Enter');
    await waitForText(page, '.findings', 'Wrong sound after an earlier press');
    await page.waitForSelector('.findings .gone');
    await saved(page);
  });

  test('arrows walk the run and take the selected device', async () => {
    await page.evaluate(() => (document.activeElement as HTMLElement).blur());
    await tabTo('Routing');
    await page.keyboard.press('Enter');
    await tabTo('1. Guitar');
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press('ArrowRight');
    await find(page, 'heading', 'Drive');
  });

  test('the list of keys opens under ? and closes', async () => {
    await page.keyboard.press('?');
    await find(page, 'heading', 'Shortcuts');
    await page.keyboard.press('Escape');
  });
});

describe('the demo', () => {
  test('has a few honest mistakes that the proof finds', async () => {
    await page.goto(running.url);
    await click(page, 'link', 'River-boat combo rig');
    await go('proof');
    await waitForText(page, level(2), '34 of 37 recall');
    await waitForText(page, level(1), '35 of 37 recall');
    await waitForText(page, level(3), '0 of 37 recall');
    await waitForText(page, '.top', '2 stop the show');
  });

  test.each(['light', 'dark'] as const)('every station is clean for axe, %s', async (scheme) => {
    const now = await page.$eval(':root', (root) => root.getAttribute('data-mantine-color-scheme'));
    if (now !== scheme) await click(page, 'button', scheme === 'dark' ? 'Dark' : 'Light');
    const faults: Record<string, readonly string[]> = {};
    for (const name of stations) {
      await go(name.toLowerCase());
      await find(page, 'heading', name);
      if (name === 'Gear') await click(page, 'button', 'Inspect Guitar');
      if (name === 'Routing') await click(page, 'button', 'Combo');
      if (name === 'Set') await click(page, 'button', '2 parts of Third Landing');
      if (name === 'Proof') await click(page, 'button', 'Play it');
      faults[name] = await axeFaults(page);
    }
    await page.keyboard.press('?');
    await find(page, 'heading', 'Shortcuts');
    faults.keys = await axeFaults(page);
    await page.keyboard.press('Escape');
    await click(page, 'button', 'Commands');
    await page.waitForSelector('.palette input');
    faults.palette = await axeFaults(page);
    await page.keyboard.press('Escape');
    await page.goto(running.url);
    await find(page, 'heading', 'Rigs');
    faults.home = await axeFaults(page);
    await click(page, 'link', 'River-boat combo rig');
    await find(page, 'heading', 'Overview');
    expect(faults).toEqual(Object.fromEntries([...stations, 'keys', 'palette', 'home'].map((name) => [name, []])));
  });
});

describe('the server goes away in mid-edit', () => {
  test('edits are kept, said to be kept, survive a closed tab and are sent when it is back', async () => {
    await go('routing');
    await saved(page);
    const address = page.url();
    await running.killServer();
    await click(page, 'button', 'Echo');
    await type(page, 'Loom of C01', 'loom A');
    await page.waitForSelector('[data-saving="waiting"]');
    expect(await textOf(page, '[data-saving]')).toContain('not saved yet');
    await waitForText(page, '.notice', 'The server does not answer. Edits are kept in this browser');
    await page.close();
    await running.startServer();
    page = await browsing.newPage();
    await page.goto(address);
    await saved(page);
    await page.waitForFunction(
      () => (document.querySelector('[aria-label="Loom of C01"]') as HTMLInputElement | null)?.value === 'loom A',
    );
    await page.reload();
    await page.waitForFunction(
      () => (document.querySelector('[aria-label="Loom of C01"]') as HTMLInputElement | null)?.value === 'loom A',
    );
  });
});

describe('the server is killed and started again under an open page', () => {
  test('what is edited meanwhile is sent by itself when it is back', async () => {
    await running.killServer();
    await type(page, 'Loom of C02', 'loom B');
    await page.waitForSelector('[data-saving="waiting"]');
    await running.startServer();
    await saved(page);
    await page.reload();
    await page.waitForFunction(
      () => (document.querySelector('[aria-label="Loom of C02"]') as HTMLInputElement | null)?.value === 'loom B',
    );
  });
});

describe('two windows on one field', () => {
  test('the second is told what won, and has it', async () => {
    const other = await browsing.newPage();
    await other.goto(page.url());
    await page.waitForSelector('[aria-label="Length of C01"]');
    await other.waitForSelector('[aria-label="Length of C01"]');
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
    await other.waitForSelector('.refusal');
    expect(await textOf(other, '.refusal')).toMatch(/An edit was not saved.*Change cable C01 \(9\).*it is now 7/);
    await other.waitForFunction(
      () => (document.querySelector('[aria-label="Length of C01"]') as HTMLInputElement).value === '7',
    );
    await other.close();
  });
});

test('nothing but this machine was asked for anything, and nothing went wrong in the page', () => {
  expect(
    browsing.asked.filter(
      (address) => !address.startsWith(running.url) && !address.startsWith('data:') && !address.startsWith('blob:'),
    ),
  ).toEqual([]);
  expect(browsing.asked.length).toBeGreaterThan(20);
  expect(browsing.errors).toEqual([]);
});

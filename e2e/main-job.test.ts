import { describe, expect, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import {
  axeFaults,
  choose,
  click,
  find,
  go,
  saved,
  seen,
  type,
  waitForCount,
  waitForFinding,
  waitForSaid,
  waitForText,
  waitForVerdict,
} from './browsing.ts';
import { opened } from './opened.ts';

let page: Page;
const { running, browsing } = opened((now) => (page = now));

const devices = [
  'guitar',
  'Loop switcher = loop switcher 4',
  'drive',
  'Valve amp = valve amp two',
  'delay = delay midi',
  'cabinet',
];
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
const stations = ['Overview', 'Gear', 'Routing', 'Power', 'Build', 'Sounds', 'Program', 'Set', 'Proof'];
const press = async (...keys: readonly string[]): Promise<void> => {
  for (const key of keys) await page.keyboard.press(key as 'Enter');
};
/** Each cell of a sound: its column, and what stands in it. */
const cells = (sound: string): Promise<readonly string[]> =>
  page.$$eval(
    '[role="gridcell"][aria-label]',
    (nodes, name) =>
      nodes
        .map((node) => node.getAttribute('aria-label')!)
        .filter((label) => label.startsWith(`${name}, `))
        .map((label) => label.split(': ')[1])
        .slice(0, 5),
    sound,
  );
const matrix = async () => [await cells('Lead'), await cells('Clean')];
const wanted = [
  ['on', 'on', 'on', 'lead', '6'],
  ['off', 'on', 'off', 'clean', '–'],
];

/** The two sounds by keyboard in the matrix, from its first cell: columns drive, amp, delay, channel, preset. */
async function fillMatrix(): Promise<void> {
  const right = 'ArrowRight';
  await press('Space', right, 'Space', right, 'Space', right, 'Space', 'Space', right, '6', 'Enter');
  const left = 'ArrowLeft';
  await press('ArrowDown', left, 'Space', left, 'Space', 'Space', left, 'Space', left, 'Space', 'Space');
}

async function tabTo(name: string): Promise<void> {
  for (let i = 0; i < 200; i += 1) {
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
}
const typeLines = async (lines: readonly string[]): Promise<void> => {
  for (const text of lines) {
    await page.keyboard.type(text);
    await page.keyboard.press('Enter');
  }
};
const altTo = async (number: string, station: string): Promise<void> => {
  await page.keyboard.down('Alt');
  await page.keyboard.press(number as '1');
  await page.keyboard.up('Alt');
  await find(page, 'heading', station);
};

test('a rig from nothing: entered, proved, a fault found, played and mended, undone, reloaded', async () => {
  await page.goto(running.url);
  await type(page, 'Name', 'Harbour rig');
  await find(page, 'heading', 'Gear');
  for (const device of devices) await type(page, 'Add a device', device);
  await go(page, 'Routing');
  for (const cable of cables) await type(page, 'Add a cable', cable);
  await waitForText(page, 'main', '11 cables');
  await go(page, 'Sounds');
  await type(page, 'Add a sound', 'Lead');
  await type(page, 'Add a sound', 'Clean');
  await (await seen(page, '[role="gridcell"][aria-label^="Lead, Drive"]')).focus();
  await fillMatrix();
  expect(await matrix()).toEqual(wanted);
  await go(page, 'Program');
  await click(page, 'button', 'Layouts');
  await click(page, 'radio', 'By role');
  await click(page, 'button', 'Lay out by role');
  await choose(page, 'Selected sound', 'Lead');
  await go(page, 'Routing');
  await waitForText(page, 'main', '10 passes');
  expect(await page.$$eval('[aria-label^="1. "] ~ [aria-label], [aria-label^="1. "]', (nodes) => nodes.length)).toBe(
    10,
  );
  await find(page, 'button', '5. Valve amp, Preamp, lead');

  await go(page, 'Proof');
  await waitForVerdict(page, 'From anywhere', '2 of 2 recall');
  await waitForVerdict(page, 'In set order', '0 of 0 recall, 2 not played');
  await waitForVerdict(page, 'After a fault', '2 of 2 recall');

  await go(page, 'Program');
  await click(page, 'button', 'Write by hand');
  await click(page, 'button', 'Remove: Contact 1 closed');
  await go(page, 'Proof');
  await waitForVerdict(page, 'From anywhere', '1 of 2 recall');
  await waitForText(page, 'main', 'Valve amp channel clean, wanted lead');
  await click(page, 'button', 'Play it');
  await click(page, 'button', 'Next step');
  await waitForText(page, 'main', 'C0 05');
  await waitForFinding(page, 'Wrong sound after an earlier press');
  await click(page, 'button', 'Close the findings');
  await click(page, 'button', 'Generate this slot from its sound');
  await waitForVerdict(page, 'From anywhere', '2 of 2 recall');
  await waitForFinding(page, 'Solved. It said: Lead');

  await click(page, 'button', 'Undo: Generate this slot from its sound');
  await waitForVerdict(page, 'From anywhere', '1 of 2 recall');
  await click(page, 'button', 'Redo: Generate this slot from its sound');
  await waitForVerdict(page, 'From anywhere', '2 of 2 recall');

  await saved(page);
  await page.reload();
  await waitForVerdict(page, 'From anywhere', '2 of 2 recall');
  await go(page, 'Sounds');
  await find(page, 'gridcell', 'Clean, Delay PC: –');
  expect(await matrix()).toEqual(wanted);
  await go(page, 'Routing');
  await waitForText(page, 'main', '10 passes');
  await type(page, 'Add a cable', 'guitar > moon');
  await waitForText(page, 'main', 'No device is called “moon”');
  await waitForText(page, 'main', '11 cables');
});

test('the whole job by keyboard alone: rig, sounds, slots, fault, fix', async () => {
  await page.goto(running.url);
  await seen(page, 'h1');
  await tabTo('Name');
  await typeLines(['Keyboard rig']);
  await find(page, 'heading', 'Gear');
  await page.waitForFunction(() => document.activeElement?.getAttribute('aria-label') === 'Add a device');
  await typeLines(devices);
  await waitForText(page, 'main', '6 pieces');
  await altTo('3', 'Routing');
  await page.waitForFunction(() => document.activeElement?.getAttribute('aria-label') === 'Add a cable');
  await typeLines(cables);
  await waitForText(page, 'main', '11 cables');
  await altTo('6', 'Sounds');
  await page.waitForFunction(() => document.activeElement?.getAttribute('aria-label') === 'Add a sound');
  await typeLines(['Lead', 'Clean']);
  await altTo('3', 'Routing');
  await altTo('6', 'Sounds');
  await page.waitForFunction(() => document.activeElement?.getAttribute('role') === 'gridcell');
  await fillMatrix();
  expect(await matrix()).toEqual(wanted);

  await altTo('7', 'Program');
  await tabTo('Put Lead on a switch');
  await press('Space', 'ArrowRight', 'Space');
  await waitForSaid(page, 'status', 'put on 1·2');
  await find(page, 'gridcell', '1·2: Lead');
  await tabTo('Put Clean on a switch');
  await press('Space', 'Home', 'Space');
  await find(page, 'gridcell', '1·1: Clean');
  await press('Space', 'ArrowRight', 'Space');
  await find(page, 'gridcell', '1·1: Lead');
  await find(page, 'gridcell', '1·2: Clean');
  await press('l', 'Enter');
  await tabTo('Write by hand');
  await press('Enter');
  await tabTo('Remove: Contact 1 closed');
  await press('Enter');
  await page.keyboard.down('Alt');
  await press('0');
  await page.keyboard.up('Alt');
  await waitForFinding(page, 'Valve amp channel is clean, wanted lead');
  await tabTo('Generate this slot from its sound');
  await press('Enter');
  await waitForFinding(page, 'Solved. It said: Lead');
  await press('Escape');
  await saved(page);

  await altTo('3', 'Routing');
  await page.evaluate(() => (document.activeElement as HTMLElement).blur());
  await tabTo('1. Guitar');
  await press('ArrowRight', 'ArrowRight');
  await find(page, 'heading', 'Drive');
  await page.evaluate(() => (document.activeElement as HTMLElement).blur());
  await press('?');
  await find(page, 'heading', 'On Routing');
  await press('Escape');
});

test('from a new sound to its proof in under 40 keys', async () => {
  await page.goto(running.url);
  await click(page, 'button', 'Open a fresh demo');
  await find(page, 'heading', 'Gear');
  let keys = 0;
  const count = async (...pressed: readonly string[]) => {
    keys += pressed.length;
    await press(...pressed);
  };
  const alt = async (digit: string, station: string) => {
    keys += 1;
    await altTo(digit, station);
  };
  await alt('9', 'Proof');
  await waitForVerdict(page, 'From anywhere', '34 of 37 recall');
  await alt('6', 'Sounds');
  await page.waitForFunction(() => document.activeElement?.getAttribute('role') === 'gridcell');
  // Back from the cells to the field above them.
  keys += 1;
  await (await find(page, 'textbox', 'Add a sound')).focus();
  for (const letter of 'Ebb') await count(letter);
  await count('Enter');
  await find(page, 'button', 'Rename Ebb');
  keys += 1;
  await (await seen(page, '[role="gridcell"][aria-label^="Ebb, Compressor"]')).focus();
  await count('Space', 'ArrowRight', 'Space', 'ArrowRight', 'ArrowRight', 'Space');
  await alt('7', 'Program');
  await tabTo('Put Ebb on a switch');
  keys += 1;
  await count('Space', 'Space');
  await waitForSaid(page, 'status', 'put on');
  await alt('9', 'Proof');
  await waitForVerdict(page, 'From anywhere', '35 of 38 recall');
  expect(keys).toBeLessThan(40);
});

describe('the demo', () => {
  test('has a few honest mistakes that the proof finds', async () => {
    await page.goto(running.url);
    await click(page, 'button', 'Open a fresh demo');
    await go(page, 'Proof');
    await waitForVerdict(page, 'From anywhere', '34 of 37 recall');
    await waitForVerdict(page, 'In set order', '35 of 37 recall');
    await waitForVerdict(page, 'After an accidental press', '1 switch silences the rig');
    await waitForCount(page, '2 stop the show');
  });

  test.each(['light', 'dark'] as const)('every station is clean for axe, %s', async (scheme) => {
    await page.goto(running.url);
    await click(page, 'button', 'Open a fresh demo');
    await find(page, 'heading', 'Gear');
    const now = await page.$eval(':root', (root) => root.getAttribute('data-mantine-color-scheme'));
    if (now !== scheme) await click(page, 'button', scheme === 'dark' ? 'Dark' : 'Light');
    const faults: Record<string, readonly string[]> = {};
    for (const name of stations) {
      await go(page, name);
      if (name === 'Gear') await click(page, 'button', 'Inspect Guitar');
      if (name === 'Program') await click(page, 'button', 'Layouts');
      if (name === 'Set') await click(page, 'button', '2 parts of Third Landing');
      if (name === 'Proof') await click(page, 'button', 'Play it');
      faults[name] = await axeFaults(page);
    }
    await go(page, 'Program');
    for (const tab of ['Power-up, momentary switches, calls', 'Worksheet']) {
      await click(page, 'tab', tab);
      faults[tab] = await axeFaults(page);
    }
    await waitForFinding(page, 'Wrong sound after an earlier press');
    faults.findings = await axeFaults(page);
    await press('Escape', '?');
    await find(page, 'heading', 'Everywhere');
    faults.keys = await axeFaults(page);
    await press('Escape');
    await click(page, 'button', 'Commands');
    await find(page, 'combobox', 'Command, station, sound, device or field');
    faults.palette = await axeFaults(page);
    await press('Escape');
    await page.goto(running.url);
    await find(page, 'heading', 'Rigs');
    faults.home = await axeFaults(page);
    expect(Object.entries(faults).filter(([, found]) => found.length > 0)).toEqual([]);
    expect(Object.keys(faults)).toHaveLength(stations.length + 6);
  });
});

test('nothing but this machine was asked for anything, and nothing went wrong in the page', async () => {
  await page.goto(running.url);
  await find(page, 'heading', 'Yunta');
  expect(
    browsing.asked.filter(
      (address) => !address.startsWith(running.url) && !address.startsWith('data:') && !address.startsWith('blob:'),
    ),
  ).toEqual([]);
  expect(browsing.asked.length).toBeGreaterThan(5);
  expect(browsing.errors).toEqual([]);
});

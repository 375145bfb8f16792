import { expect, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import { axeFaults, choose, click, find, go, named, saved, textOf, waitForText, waitForVerdict } from './browsing.ts';
import { opened } from './opened.ts';

let page: Page;
const { running, browsing } = opened((now) => (page = now));

const field = (name: string) => named(page, name);
const plan = '[aria-label="The plan"]';

/** Pieces by a pasted list, a line a piece; no cable. */
async function listed(name: string, pieces: readonly string[]): Promise<void> {
  await page.goto(running.url);
  await (await find(page, 'textbox', 'Name')).type(name);
  await page.keyboard.press('Enter');
  await find(page, 'heading', 'Gear');
  await (await field('Add a device')).focus();
  await page.keyboard.sendCharacter(pieces.join('\n'));
  await find(page, 'button', `Add ${pieces.length} devices`);
  await page.keyboard.press('Enter');
  await waitForText(page, 'main', `${pieces.length} pieces`);
}

/** Sounds with what is on in each; all else is off. */
async function matrix(columns: readonly string[], sounds: Readonly<Record<string, readonly string[]>>): Promise<void> {
  await go(page, 'Sounds');
  for (const [name, on] of Object.entries(sounds)) {
    await (await field('Add a sound')).focus();
    await page.keyboard.type(name);
    await page.keyboard.press('Enter');
    for (const column of columns) {
      await (await field(`${name}, ${column} own: don’t care`)).focus();
      await page.keyboard.press('Space');
      await field(`${name}, ${column} own: on`);
      if (on.includes(column)) continue;
      await page.keyboard.press('Space');
      await field(`${name}, ${column} own: off`);
    }
  }
  await saved(page);
}

test('from a pasted list and a matrix to a proved four-cable rig: no cable typed', async () => {
  await listed('Cellar', [
    'guitar',
    'tuner',
    'compressor',
    'drive',
    'boost',
    'chorus',
    'delay = delay midi',
    'amp = valve combo',
    'cabinet',
    'switcher = loop switcher, 4 loops',
  ]);
  await matrix(['Compressor', 'Drive', 'Boost', 'Chorus', 'Delay'], {
    Clean: ['Compressor', 'Chorus'],
    Rhythm: ['Drive'],
    Solo: ['Drive', 'Boost', 'Delay'],
  });
  await go(page, 'Routing');
  await click(page, 'button', 'Loops');
  await find(page, 'heading', 'Loops');
  await waitForText(page, plan, 'All 3 sounds play.');
  await waitForText(page, plan, 'No plan is better.');
  expect(await textOf(page, plan)).toContain('1 by foot');
  expect(await axeFaults(page)).toEqual([]);

  // One loop more would spare the foot.
  await waitForText(page, '[aria-label="What anything else would cost"]', 'fewer by foot');
  // What another place for a piece would cost, and holding it there.
  await click(page, 'button', 'Where else for Boost');
  await waitForText(page, '[aria-label="Where else Boost could go"]', 'left at home');
  await waitForText(page, '[aria-label="Where else Boost could go"]', '3 of 3');
  await waitForText(page, '[aria-label="Where else Boost could go"]', 'the same');
  expect(await axeFaults(page)).toEqual([]);
  await click(page, 'button', 'Hold it there: Boost, left at home');
  await waitForText(page, plan, '2 of 3 sounds play.');
  await waitForText(page, plan, 'Solo is lost: Boost is left at home.');
  await choose(page, 'Wanted place of Boost', 'wherever it is best');
  await waitForText(page, plan, 'All 3 sounds play.');

  // By keyboard: what a foot switches may be left to loops and messages alone.
  await (await field('Compressor may be switched by foot')).focus();
  await page.keyboard.press('Space');
  await waitForText(page, plan, 'No plan is better.');
  await page.waitForFunction(() =>
    [...document.querySelectorAll('table.loops tr')].some(
      (row) => row.textContent!.startsWith('Compressor') && row.textContent!.includes('by the loop'),
    ),
  );
  await (await field('Compressor may be switched by foot')).focus();
  await page.keyboard.press('Space');
  await waitForText(page, plan, 'All 3 sounds play.');

  // Earlier in the line by keys, and back by undo.
  const order = () =>
    page.$$eval('table.loops tbody tr td:nth-child(2)', (cells) => cells.map((cell) => cell.textContent).join());
  const before = await order();
  await (await find(page, 'button', 'Move Boost')).focus();
  await page.keyboard.down('Alt');
  await page.keyboard.press('ArrowUp');
  await page.keyboard.up('Alt');
  await page.waitForFunction(() =>
    /Boost,Drive/.test([...document.querySelectorAll('table.loops td:nth-child(2)')].map((c) => c.textContent).join()),
  );
  await page.keyboard.down('Control');
  await page.keyboard.press('z');
  await page.keyboard.up('Control');
  await page.waitForFunction(() =>
    /Drive,Boost/.test([...document.querySelectorAll('table.loops td:nth-child(2)')].map((c) => c.textContent).join()),
  );
  expect(await order()).toBe(before);
  await waitForText(page, plan, 'All 3 sounds play.');

  await click(page, 'button', 'Wire it so');
  await waitForText(page, plan, 'It is wired so.');
  await saved(page);
  await go(page, 'Proof');
  await waitForVerdict(page, 'From anywhere', '3 of 3 recall');
  await go(page, 'Routing');
  await waitForText(page, 'main', 'Switcher');
  const cables = await textOf(page, 'main');
  for (const cable of ['Switcher Send 4Amp Input', 'Amp SendSwitcher Return 4', 'Delay OutAmp Return'])
    expect(cables).toContain(cable);
}, 240_000);

test('over a rig that is wired: what today costs, one piece held elsewhere, the moves, and undo', async () => {
  await page.goto(running.url);
  await click(page, 'link', 'River-boat combo rig');
  await find(page, 'heading', 'Overview');
  const overview = page.url();
  await page.goto(overview.replace('overview', 'routing?view=loops'));
  await waitForText(page, plan, 'It is wired so.');
  await choose(page, 'Wanted place of Chorus', 'in loop 8');
  await waitForText(page, plan, 'plugs by hand');
  expect(await textOf(page, plan)).toMatch(/move at one end/);
  await click(page, 'button', 'Wire it so');
  await waitForText(page, plan, 'It is wired so.');
  await page.keyboard.down('Control');
  await page.keyboard.press('z');
  await page.keyboard.up('Control');
  await waitForText(page, plan, 'plugs by hand');
  await go(page, 'Gear');
  await field('Wanted place of Chorus');
  await saved(page);
  await page.goto(overview.replace('overview', 'overview?view=variants'));
  await waitForText(page, '[aria-label="Side by side"]', 'Sounds that recall from anywhere');
  await choose(page, 'The other side', 'another rig: Fly rig, no amp');
  await waitForText(page, '[aria-label="Side by side"]', 'Fly rig, no amp');
  await page.waitForFunction(
    () => !/undefined|NaN/.test(document.querySelector('[aria-label="Side by side"]')!.textContent!),
  );
  expect(await axeFaults(page)).toEqual([]);
}, 240_000);

test('nothing to give out, or nowhere for the line to end: said', async () => {
  await listed('Alone', ['guitar', 'drive']);
  await page.goto(page.url().replace('gear', 'routing?view=loops'));
  await waitForText(page, 'main', 'There is no switcher with loops in this rig.');
  expect(browsing.errors).toEqual([]);
}, 120_000);

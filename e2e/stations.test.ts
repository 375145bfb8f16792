import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { parseMidi } from 'midi-file';
import type { Page } from 'puppeteer-core';
import { Browsing, click, find, saved, textOf, type, waitForText } from './browsing.ts';
import { Running } from './running.ts';

jest.setTimeout(120_000);
const running = new Running();
const browsing = new Browsing();
const folder = mkdtempSync(path.join(os.tmpdir(), 'yunta-files-'));
let page: Page;
beforeAll(async () => {
  await running.start();
  page = await browsing.open();
  const session = await page.createCDPSession();
  await session.send('Browser.setDownloadBehavior', { behavior: 'allow', downloadPath: folder });
});
afterAll(async () => {
  await browsing.close();
  await running.stop();
  rmSync(folder, { recursive: true, force: true });
});

const go = async (station: string): Promise<void> => (await page.waitForSelector(`.rail a[href$="/${station}"]`))!.click();
const level = (n: number) => `[data-level="${n}"]`;
const openDemo = async (): Promise<void> => {
  await page.goto(running.url);
  await click(page, 'button', 'Open a fresh demo');
  await find(page, 'heading', 'Gear');
};
/** The file of this name once it is whole. */
async function downloaded(name: string): Promise<Buffer> {
  for (let i = 0; i < 200; i += 1) {
    if (readdirSync(folder).includes(name)) return readFileSync(path.join(folder, name));
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error(`${name} did not come; there are ${readdirSync(folder).join(', ') || 'none'}`);
}
/** Puts a file into the n-th file field of the page. */
async function bring(n: number, name: string, content: string | Uint8Array): Promise<void> {
  const file = path.join(folder, `in-${name}`);
  writeFileSync(file, content);
  await page.waitForSelector('input[type="file"]');
  const fields = await page.$$('input[type="file"]');
  await (fields[n] as unknown as { uploadFile(file: string): Promise<void> }).uploadFile(file);
}

describe('a rig from each of the five starters', () => {
  test.each([
    ['Pedals into an amp', 2],
    ['Switcher in front', 3],
    ['Four-cable', 3],
    ['Without an amp', 3],
    ['Two amps by A/B/Y', 3],
  ] as const)('%s: named, opened, proved, nothing found', async (name, sounds) => {
    await page.goto(running.url);
    await (await page.waitForSelector(`::-p-xpath(//label[.//b[text()="${name}"]]//input)`))!.click();
    await type(page, 'Name', `My ${name}`);
    await find(page, 'heading', 'Gear');
    await waitForText(page, '.top', `My ${name}`);
    await go('overview');
    await waitForText(page, '.verdictline', 'Yes.');
    await go('proof');
    await waitForText(page, level(2), `${sounds} of ${sounds} recall`);
    await waitForText(page, level(4), `${sounds} of ${sounds} recall`);
  });
});

describe('overview', () => {
  test('says the verdict first, and a fix pressed there turns it', async () => {
    await openDemo();
    await go('overview');
    await waitForText(page, '.verdictline', 'Not tonight: 2 things stop the show, 5 more to fix before load-in.');
    await click(page, 'button', 'Generate this slot from its sound');
    await waitForText(page, '.verdictline', 'Not tonight: 1 thing stops the show');
    await waitForText(page, '.main', 'Generate this slot from its sound');
  });

  test('a finding can be lived with, with its reason, and judged again', async () => {
    await click(page, 'button', 'Live with it');
    await page.keyboard.type('only for the rehearsal');
    await page.keyboard.press('Enter');
    await waitForText(page, '.verdictline', 'Not yet:');
    await waitForText(page, '.side', 'Lived with: 1');
    await saved(page);
    await page.reload();
    await waitForText(page, '.side', 'Lived with: 1');
    await (await page.waitForSelector('.side details summary'))!.click();
    await waitForText(page, '.side', 'only for the rehearsal');
    await click(page, 'button', 'Judge it again');
    await waitForText(page, '.verdictline', 'Not tonight');
  });

  test('a school chosen there quiets the rule that it disputes', async () => {
    await waitForText(page, '.main', 'A synced delay in a song without a tempo');
    await page.select('#school-tempo', 'tapped');
    await page.waitForFunction(() => !document.querySelector('.main')!.textContent!.includes('A synced delay'));
    await click(page, 'button', 'History');
    await waitForText(page, '[role="dialog"]', 'Choose tapped');
    await page.keyboard.press('Escape');
  });
});

describe('gear', () => {
  test('is walked by arrows, and what is changed in the inspector is in the table', async () => {
    await openDemo();
    await (await find(page, 'button', 'Inspect Guitar')).focus();
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('ArrowDown');
    await find(page, 'heading', 'Tuner');
    await type(page, 'Add a device', 'preamp');
    await find(page, 'heading', 'Preamp');
    await waitForText(page, '.main', '12 pieces');
  });
});

describe('sounds', () => {
  test('an edit in one of several marked sounds goes into all, as one step', async () => {
    await openDemo();
    await go('sounds');
    await (await page.waitForSelector('[data-cell="0.0"]'))!.focus();
    for (const key of ['x', 'ArrowDown', 'x', 'ArrowDown', 'x']) await page.keyboard.press(key as 'x');
    await waitForText(page, '.main', '3 sounds marked');
    await page.keyboard.press('Space');
    const cells = () => Promise.all([0, 1, 2].map((row) => page.$eval(`[data-cell="${row}.0"]`, (node) => node.getAttribute('aria-label')!.split(': ')[1])));
    await page.waitForFunction(() => document.querySelector('[data-cell="1.0"]')!.getAttribute('aria-label')!.endsWith('on'));
    expect(await cells()).toEqual(['on', 'on', 'on']);
    await click(page, 'button', 'Undo: Change Compressor in 2 sounds');
    await page.waitForFunction(() => document.querySelector('[data-cell="1.0"]')!.getAttribute('aria-label')!.endsWith('off'));
    expect(await cells()).toEqual(['on', 'off', 'off']);
  });

  test('a sound is moved among the others by Alt and an arrow, and only what differs is shown', async () => {
    await click(page, 'button', 'Clear marks');
    await (await page.waitForSelector('[data-cell="0.0"]'))!.focus();
    await page.keyboard.down('Alt');
    await page.keyboard.press('ArrowDown');
    await page.keyboard.up('Alt');
    await page.waitForFunction(() => document.querySelector('[data-cell="1.0"]')!.getAttribute('aria-label')!.startsWith('Slow Lock, verse'));
    const before = (await page.$$('.matrix .dev')).length;
    await (await page.waitForSelector('::-p-xpath(//label[contains(., "only columns that differ")]/input)'))!.click();
    expect((await page.$$('.matrix .dev')).length).toBeLessThan(before);
  });
});

describe('program', () => {
  test('ticks of the worksheet persist, and an edit that changes a line opens it again', async () => {
    await openDemo();
    await go('program');
    await waitForText(page, '.main', '0 of ');
    await (await page.waitForSelector('::-p-xpath(//summary[contains(., "Echo")])'))!.click();
    await click(page, 'checkbox', 'Echo: Receive channel 2');
    await waitForText(page, '.main', '1 of ');
    await page.reload();
    await waitForText(page, '.main', '1 of ');
    await page.keyboard.down('Control');
    await page.keyboard.press('k');
    await page.keyboard.up('Control');
    await page.waitForSelector('.palette input');
    await page.keyboard.type('echo device');
    await page.keyboard.press('Enter');
    await find(page, 'heading', 'Echo');
    const channel = await page.waitForSelector('::-p-xpath(//label[text()="Receive channel"]/following::input[1])');
    await channel!.click();
    await (await page.waitForSelector('::-p-xpath(//*[@role="option"][.="9"])'))!.click();
    await waitForText(page, '.main', '0 of ');
    await waitForText(page, '.main', '1 to do again');
  });

  test('patch list, worksheet and cue sheet come as one PDF', async () => {
    await click(page, 'button', 'PDF: patch, worksheet, cues');
    const pdf = await downloaded('river-boat-combo-rig.pdf');
    expect(pdf.subarray(0, 5).toString()).toBe('%PDF-');
    expect(pdf.subarray(-8).toString()).toContain('%%EOF');
    expect(pdf.length).toBeGreaterThan(20_000);
  });
});

describe('set', () => {
  test('a song is put into another place by keyboard, and the list plays in that order', async () => {
    await openDemo();
    await go('set');
    await (await find(page, 'button', 'Move Slow Lock')).focus();
    await page.keyboard.press('Space');
    await new Promise((resolve) => setTimeout(resolve, 300));
    await page.keyboard.press('ArrowDown');
    await new Promise((resolve) => setTimeout(resolve, 300));
    await page.keyboard.press('Space');
    await page.waitForFunction(() => document.querySelector('.songs input')!.getAttribute('aria-label') === 'Name of Ferry Bell');
    await saved(page);
  });

  test('delay times follow the tempo and say why', async () => {
    await click(page, 'button', '2 parts of Copper Evening');
    await waitForText(page, '.delays', '468.8 ms');
    await click(page, 'button', 'Delay, dotted eighth: 468.8 ms. Why?');
    await waitForText(page, '.evidence', '60,000 / tempo');
    await page.keyboard.press('Escape');
    await page.waitForSelector('.evidence', { hidden: true });
  });

  test('the MIDI file of a song is read by another program, and what was assumed is told', async () => {
    await click(page, 'button', 'MIDI file of this song');
    const parsed = parseMidi(await downloaded('copper-evening.mid'));
    expect(parsed.tracks.flat().filter((event) => event.type === 'marker').map((event) => (event as { text: string }).text)).toEqual(['verse', 'refrain']);
    await waitForText(page, '.notice', 'stay with the foot');
    await click(page, 'button', 'Dismiss');
  });

  test('songs come in from a table, and go out again as they came', async () => {
    await bring(0, 'songs.csv', 'song;tempo;part;bars;plays\r\nHarbour Light;96,5;verse;16;Slow Lock, verse\r\nHarbour Light;96,5;refrain;8;\r\n');
    await waitForText(page, '.main', '19');
    await waitForText(page, '.counts', '3 stop the show');
    await click(page, 'button', 'Take away');
    await click(page, 'menuitem', 'Songs, CSV');
    const text = (await downloaded('river-boat-combo-rig-songs.csv')).toString();
    expect(text).toContain('Harbour Light,96.5,,,,verse,16,"Slow Lock, verse"\r\n');
    await click(page, 'button', 'Undo: Bring in 1 song');
    await waitForText(page, '.counts', '2 stop the show');
  });

  test.each([
    ['wrong columns', 'title,bpm\nA,120\n', 'Line 1, title: Unknown field'],
    ['a value out of range', 'song,tempo\nA,120\nB,9000\n', 'Line 3, tempo: 9000 is not allowed here'],
    ['an open quote', 'song\n"A\nB\n', 'Line 2: a quote'],
    ['another encoding', Uint8Array.from([0x73, 0x6f, 0x6e, 0x67, 0x0a, 0xc9, 0x0a]), 'not UTF-8'],
    ['a hundred thousand lines', `song\n${'A\n'.repeat(100_000)}`, 'Too large'],
  ] as const)('%s: refused whole, with the place and the reason', async (name, content, words) => {
    const before = await textOf(page, '.rig');
    await bring(0, `${name.replaceAll(' ', '-')}.csv`, content);
    await waitForText(page, '.refusal', words);
    expect(await textOf(page, '.rig')).toBe(before);
    await click(page, 'button', 'Dismiss');
  });
});

describe('narrow windows', () => {
  test.each([[1024, 768], [390, 844]])('at %i wide nothing is cut off sideways', async (width, height) => {
    await openDemo();
    await page.setViewport({ width, height });
    for (const station of ['overview', 'gear', 'routing', 'sounds', 'program', 'set', 'proof']) {
      await go(station);
      await page.waitForSelector('.stationhead');
      expect([station, await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth)]).toEqual([station, 0]);
    }
    await page.setViewport({ width: 1280, height: 800 });
  });
});

test('nothing went wrong in the page, and nothing but this machine was asked', () => {
  expect(browsing.errors).toEqual([]);
  expect(browsing.asked.filter((address) => !address.startsWith(running.url) && !address.startsWith('data:') && !address.startsWith('blob:'))).toEqual([]);
});

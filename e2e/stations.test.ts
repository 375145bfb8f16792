import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { parseMidi, writeMidi } from 'midi-file';
import type { Page } from 'puppeteer-core';
import { axeFaults, Browsing, click, find, saved, textOf, type, waitForText } from './browsing.ts';
import { Running } from './running.ts';

jest.setTimeout(120_000);
const running = new Running();
const browsing = new Browsing();
const folder = mkdtempSync(path.join(os.tmpdir(), 'yunta-files-'));
let page: Page;
beforeAll(async () => {
  await running.start();
  page = await browsing.open();
});
afterAll(async () => {
  await browsing.close();
  await running.stop();
  rmSync(folder, { recursive: true, force: true });
});

const go = async (station: string): Promise<void> =>
  (await page.waitForSelector(`.rail a[href$="/${station}"]`))!.click();
const level = (n: number) => `[data-level="${n}"]`;
const openDemo = async (): Promise<void> => {
  await page.goto(running.url);
  await click(page, 'button', 'Open a fresh demo');
  await find(page, 'heading', 'Gear');
};
const downloaded = (name: string): Promise<Buffer> => browsing.downloaded(name);
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
    await click(page, 'button', 'Accept');
    await page.keyboard.type('only for the rehearsal');
    await page.keyboard.press('Enter');
    await waitForText(page, '.verdictline', 'Not yet:');
    await waitForText(page, '.side', 'Accepted: 1');
    await saved(page);
    await page.reload();
    await waitForText(page, '.side', 'Accepted: 1');
    await (await page.waitForSelector('.side details summary'))!.click();
    await waitForText(page, '.side', 'only for the rehearsal');
    await click(page, 'button', 'Reopen');
    await waitForText(page, '.verdictline', 'Not tonight');
  });

  test('a convention chosen there quiets the rule that it disputes', async () => {
    await waitForText(page, '.main', 'A synced delay in a song without a tempo');
    await page.select('#convention-tempo', 'tapped');
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

describe('the selected piece', () => {
  test('stays between gear and routing, and is laid down where one works on something else', async () => {
    await click(page, 'button', 'Inspect Echo');
    await page.waitForSelector('.inspector');
    await go('routing');
    await find(page, 'heading', 'Routing');
    await page.waitForSelector('.inspector');
    await go('sounds');
    await page.waitForSelector('.inspector', { hidden: true });
    await go('gear');
    await find(page, 'heading', 'Gear');
  });
});

describe('places', () => {
  test('a new one is typed where the piece stands, and is one edit; Escape leaves all as it was', async () => {
    const field = await find(page, 'combobox', 'Place of Echo');
    await field.select('+');
    await find(page, 'textbox', 'New place for Echo');
    await page.keyboard.press('Escape');
    await (await find(page, 'combobox', 'Place of Echo')).select('+');
    await find(page, 'textbox', 'New place for Echo');
    await page.keyboard.type('Rack');
    await page.keyboard.press('Enter');
    await page.waitForFunction(
      () =>
        document.querySelector<HTMLSelectElement>('[aria-label="Place of Echo"]')?.selectedOptions[0]?.textContent ===
        'Rack',
    );
    await find(page, 'button', 'Undo: Add place Rack');
    expect(await page.evaluate(() => document.activeElement?.getAttribute('aria-label'))).toBe('Place of Echo');
    await saved(page);
  });
});

describe('a Y cord in the patch', () => {
  const named = (role: string, name: string) => page.waitForSelector(`::-p-aria([name="${name}"][role="${role}"])`);
  const isGone = (role: string, name: string) =>
    page.waitForSelector(`::-p-aria([name="${name}"][role="${role}"])`, { hidden: true });

  test('is a cable with one end more: put on, seen in the run, taken off, by the keyboard too', async () => {
    await openDemo();
    await go('routing');
    await (await named('button', 'Split C01'))!.press('Enter');
    const field = (await named('combobox', 'Another end of C01'))!;
    await page.keyboard.press('Escape');
    await isGone('combobox', 'Another end of C01');
    expect(await page.evaluate(() => document.activeElement?.getAttribute('aria-label'))).toBe('Split C01');
    await field.dispose();
    await page.keyboard.press('Enter');
    await (await named('combobox', 'Another end of C01'))!.select('switcher:return-8');
    await saved(page);
    await named('combobox', 'To 2 of C01');
    await waitForText(page, '.findings', 'Return 8 is plugged in, Send 8 is not');
    expect(await axeFaults(page)).toEqual([]);
    await (await named('button', 'Take off To 2 of C01'))!.press('Enter');
    await named('combobox', 'To of C01');
    await saved(page);
    await page.waitForFunction(() => !document.querySelector('.findings')?.textContent?.includes('Return 8'));
  });

  test('is said in one line, and refused there where no jack is left for an end', async () => {
    await type(page, 'Add a cable', 'switcher send 8 > switcher return 8 + switcher return 9 + moon');
    await waitForText(page, 'main', 'No device is called “moon”');
    const field = (await page.waitForSelector('::-p-aria([name="Add a cable"])'))!;
    for (let i = 0; i < ' + moon'.length; i += 1) await field.press('Backspace');
    await field.press('Enter');
    await named('combobox', 'To 2 of C22');
    await saved(page);
    expect(await textOf(page, 'main')).toContain('22 cables');
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
    const cells = () =>
      Promise.all(
        [0, 1, 2].map((row) =>
          page.$eval(`[data-cell="${row}.0"]`, (node) => node.getAttribute('aria-label')!.split(': ')[1]),
        ),
      );
    await page.waitForFunction(() =>
      document.querySelector('[data-cell="1.0"]')!.getAttribute('aria-label')!.endsWith('on'),
    );
    expect(await cells()).toEqual(['on', 'on', 'on']);
    await click(page, 'button', 'Undo: Change Compressor in 2 sounds');
    await page.waitForFunction(() =>
      document.querySelector('[data-cell="1.0"]')!.getAttribute('aria-label')!.endsWith('off'),
    );
    expect(await cells()).toEqual(['on', 'off', 'off']);
  });

  test('a sound is moved among the others by Alt and an arrow, and only what differs is shown', async () => {
    await click(page, 'button', 'Clear marks');
    await (await page.waitForSelector('[data-cell="0.0"]'))!.focus();
    await page.keyboard.down('Alt');
    await page.keyboard.press('ArrowDown');
    await page.keyboard.up('Alt');
    await page.waitForFunction(() =>
      document.querySelector('[data-cell="1.0"]')!.getAttribute('aria-label')!.startsWith('Slow Lock, verse'),
    );
    const before = (await page.$$('.matrix .dev')).length;
    await (await page.waitForSelector('::-p-xpath(//label[contains(., "only columns that differ")]/input)'))!.click();
    expect((await page.$$('.matrix .dev')).length).toBeLessThan(before);
  });
});

describe('a number in a cell of the matrix', () => {
  const cells = async () =>
    (
      await page.$$eval('[data-cell^="0."]', (found) => found.map((cell) => cell.getAttribute('aria-label')!))
    ).findIndex((label) => label.includes('Hall PC'));
  const shown = (place: string) => textOf(page, `[data-cell="${place}"]`);

  test('is typed into it: an arrow takes it, Escape gives it up, Backspace mends it, undo takes it back once', async () => {
    await openDemo();
    await go('sounds');
    await page.waitForSelector('[data-cell="0.0"]');
    const column = await cells();
    const [here, below] = [`0.${column}`, `1.${column}`];
    await (await page.waitForSelector(`[data-cell="${here}"]`))!.focus();
    const before = await shown(here);
    await page.keyboard.type('7');
    await waitForText(page, '.matrix .typed', '7');
    await page.keyboard.press('Escape');
    expect(await shown(here)).toBe(before);
    await page.keyboard.type('19');
    await page.keyboard.press('Backspace');
    await page.keyboard.type('2');
    await page.keyboard.press('ArrowDown');
    await waitForText(page, `[data-cell="${here}"]`, '12');
    expect(await page.evaluate(() => (document.activeElement as HTMLElement).dataset.cell)).toBe(below);
    await saved(page);
    await waitForText(page, '.rig', 'revision 1, saved');
    await page.keyboard.type('5');
    await page.keyboard.press('Tab');
    await waitForText(page, `[data-cell="${below}"]`, '5');
    await saved(page);
    await page.keyboard.down('Control');
    await page.keyboard.press('z');
    await page.keyboard.press('z');
    await page.keyboard.up('Control');
    await waitForText(page, `[data-cell="${here}"]`, before);
  });

  test('and by pointer into a field', async () => {
    const column = await cells();
    await page.click(`[data-cell="0.${column}"]`, { count: 2 });
    await page.waitForSelector(`[data-cell="0.${column}"] input`);
    await page.keyboard.type('4');
    await page.keyboard.press('Enter');
    await waitForText(page, `[data-cell="0.${column}"]`, '4');
    expect(await page.evaluate(() => (document.activeElement as HTMLElement).dataset.cell)).toBe(`0.${column}`);
  });

  test('a sound is renamed in place, and the hand stays there', async () => {
    await (await find(page, 'button', 'Rename Slow Lock, verse')).focus();
    await page.keyboard.press('Enter');
    await find(page, 'textbox', 'Name of Slow Lock, verse');
    await page.keyboard.type('Slow Lock, first verse');
    await page.keyboard.press('Enter');
    await find(page, 'button', 'Rename Slow Lock, first verse');
    expect(await page.evaluate(() => document.activeElement?.getAttribute('aria-label'))).toBe(
      'Rename Slow Lock, first verse',
    );
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

describe('what the switcher does beside its slots', () => {
  const beside = (words: string) => waitForText(page, 'table.beside', words);

  test('a slot fired at power-up and one called by a program change are told there, and stand on the worksheet', async () => {
    await openDemo();
    await go('program');
    const fired = await find(page, 'combobox', 'Slot fired at power-up');
    await fired.select('slot-sound-2');
    await saved(page);
    await type(page, 'Program that calls', '300');
    await beside('A program is 0 to 127');
    for (let i = 0; i < 3; i += 1) await page.keyboard.press('Backspace');
    await type(page, 'Program that calls', '12');
    await beside('program 12 presses bank 1, switch 1: Slow Lock, verse');
    await (await find(page, 'combobox', 'Channel that calls come on')).select('5');
    await saved(page);
    await waitForText(page, '.main', 'fires bank 1, switch 3');
    await waitForText(page, '.main', 'Program change 12, channel 5');
    await page.reload();
    await beside('program 12 presses bank 1, switch 1');
    expect(
      await page.$eval('[aria-label="Slot fired at power-up"]', (field) => (field as HTMLSelectElement).value),
    ).toBe('slot-sound-2');
    await click(page, 'button', 'No longer called by program 12');
    await saved(page);
    await page.waitForSelector('[aria-label="Channel that calls come on"]', { hidden: true });
  });

  test('a momentary switch is given what it does by typing, by keyboard alone, and the proof follows', async () => {
    await go('gear');
    await (await find(page, 'button', 'Inspect Switcher')).press('Enter');
    const facts = (await page.waitForSelector('::-p-xpath(//summary[.="Settings"])'))!;
    if (!(await facts.evaluate((summary) => (summary.parentElement as HTMLDetailsElement).open)))
      await facts.press('Enter');
    const count = (await page.waitForSelector('::-p-aria([name="Momentary switches"])'))!;
    await count.focus();
    await page.keyboard.press('Backspace');
    await page.keyboard.type('1');
    await page.keyboard.press('Enter');
    await saved(page);
    await go('program');
    await beside('Momentary 1, pressed');
    const press = (await page.waitForSelector('::-p-aria([name="Add an action: Momentary 1, pressed"])'))!;
    await press.focus();
    await page.keyboard.type('remember loop 99');
    await page.keyboard.press('Enter');
    await beside('The switcher has no loop of this number');
    for (let i = 0; i < 2; i += 1) await page.keyboard.press('Backspace');
    await page.keyboard.type('6');
    await page.keyboard.press('Enter');
    await beside('Remember Loop 6');
    await page.keyboard.type('loop 6 on');
    await page.keyboard.press('Enter');
    await beside('Loop 6 on');
    await (await page.waitForSelector('::-p-aria([name="Add an action: Momentary 1, released"])'))!.focus();
    await page.keyboard.type('sing');
    await page.keyboard.press('Enter');
    await beside('Write: loop 4 on');
    for (let i = 0; i < 4; i += 1) await page.keyboard.press('Backspace');
    await page.keyboard.type('restore loop 6');
    await page.keyboard.press('Enter');
    await beside('Loop 6 as remembered');
    await saved(page);
    expect(await axeFaults(page)).toEqual([]);
    await go('proof');
    await waitForText(page, '.main', 'Switcher: Momentary 1');
    await go('program');
    await page.reload();
    await beside('Loop 6 as remembered');
    await (await find(page, 'button', 'Remove from Momentary 1, released: Loop 6 as remembered')).press('Enter');
    await saved(page);
    await find(page, 'button', 'Undo: Change Switcher');
    expect(await textOf(page, 'table.beside')).not.toContain('as remembered');
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
    await page.waitForFunction(
      () => document.querySelector('.songs input')!.getAttribute('aria-label') === 'Name of Ferry Bell',
    );
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
    expect(
      parsed.tracks
        .flat()
        .filter((event) => event.type === 'marker')
        .map((event) => (event as { text: string }).text),
    ).toEqual(['verse', 'chorus']);
    await waitForText(page, '.notice', 'stay with the foot');
    await click(page, 'button', 'Dismiss');
  });

  test('songs come in from a table, and go out again as they came', async () => {
    await bring(
      0,
      'songs.csv',
      'song;tempo;part;bars;plays\r\nHarbour Light;96,5;verse;16;Slow Lock, verse\r\nHarbour Light;96,5;chorus;8;\r\n',
    );
    await waitForText(page, '.main', '19');
    await waitForText(page, '.counts', '3 stop the show');
    await click(page, 'button', 'Export tables');
    await click(page, 'menuitem', 'Songs, CSV');
    const text = (await downloaded('river-boat-combo-rig-songs.csv')).toString();
    expect(text).toContain('Harbour Light,96.5,,,,verse,16,"Slow Lock, verse"\r\n');
    await click(page, 'button', 'Undo: Import 1 song');
    await waitForText(page, '.counts', '2 stop the show');
  });

  test('songs come in from a MIDI file, as another program writes it: tempo, markers as parts, bars', async () => {
    const marker = (text: string, deltaTime: number) => ({ deltaTime, meta: true, type: 'marker', text });
    const track = [
      { deltaTime: 0, meta: true, type: 'trackName', text: 'Grey Heron' },
      { deltaTime: 0, meta: true, type: 'setTempo', microsecondsPerBeat: 600_000 },
      marker('verse', 0),
      marker('chorus', 8 * 4 * 96),
      { deltaTime: 10, meta: true, type: 'setTempo', microsecondsPerBeat: 500_000 },
      { deltaTime: 4 * 4 * 96 - 10, meta: true, type: 'endOfTrack' },
    ];
    await bring(
      0,
      'heron.mid',
      Uint8Array.from(writeMidi({ header: { format: 0, numTracks: 1, ticksPerBeat: 96 }, tracks: [track as never] })),
    );
    await waitForText(page, '.notice', 'the tempo changes inside Grey Heron');
    await click(page, 'button', '2 parts of Grey Heron');
    await click(page, 'button', 'Export tables');
    await click(page, 'menuitem', 'Songs, CSV');
    expect((await downloaded('river-boat-combo-rig-songs.csv')).toString()).toContain(
      'Grey Heron,100,,,,verse,8,\r\nGrey Heron,100,,,,chorus,4,\r\n',
    );
    await click(page, 'button', 'Undo: Import 1 song');
    await page.waitForSelector('.notice', { hidden: true });
    await saved(page);
  });

  test.each([
    [
      'cut short',
      Uint8Array.from([
        ...Buffer.from('MThd'),
        0,
        0,
        0,
        6,
        0,
        0,
        0,
        1,
        0,
        96,
        ...Buffer.from('MTrk'),
        0,
        0,
        1,
        0,
        0,
        0xff,
      ]),
      'Byte 18: Expected 256 bytes of track',
    ],
    [
      'in time code',
      Uint8Array.from([...Buffer.from('MThd'), 0, 0, 0, 6, 0, 0, 0, 1, 0xe7, 40]),
      'time code is not read',
    ],
  ] as const)('a MIDI file %s: refused whole, with the byte and the reason', async (name, content, words) => {
    const before = await textOf(page, '.rig');
    await bring(0, `${name.replaceAll(' ', '-')}.mid`, content);
    await waitForText(page, '.refusal', words);
    expect(await textOf(page, '.rig')).toBe(before);
    await click(page, 'button', 'Dismiss');
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

describe('songs that two rigs share', () => {
  const value = (label: string) => `[aria-label="${label}"]`;
  const openRig = async (on: Page, name: string) => {
    await on.goto(running.url);
    await click(on, 'link', name);
    await find(on, 'heading', 'Overview');
    await (await on.waitForSelector('.rail a[href$="/set"]'))!.click();
    await on.waitForSelector('.shared');
  };

  test('a new rig takes the songs of another; what is changed there is here when one comes back', async () => {
    await page.goto(running.url);
    await page.type('::-p-aria([name="Name"][role="textbox"])', 'Winter rig');
    await (
      await find(page, 'radio', 'Four-cable The switcher wraps the amp’s preamp: drives before it, echoes after it.')
    ).click();
    const songs = await find(page, 'combobox', 'Songs');
    const fly = (
      await songs.$$eval('option', (options) =>
        options.map((option) => [option.label, (option as HTMLOptionElement).value]),
      )
    ).find(([label]) => label.includes('Fly rig, no amp'))!;
    await songs.select(fly[1]);
    await click(page, 'button', 'New rig');
    await find(page, 'heading', 'Gear');
    await go('set');
    await waitForText(page, '.shared', '“Fly rig, no amp”, “River-boat combo rig”');
    const other = await browsing.newPage();
    await openRig(other, 'Fly rig, no amp');
    await waitForText(other, '.shared', 'Winter rig');
    await other.bringToFront();
    await other.click(value('Tempo of Slow Lock'), { count: 3 });
    await other.keyboard.type('85.5');
    await other.keyboard.press('Enter');
    await saved(other);
    await page.bringToFront();
    await waitForText(page, '.notice', 'Changed elsewhere');
    expect(await page.$eval(value('Tempo of Slow Lock'), (field) => (field as HTMLInputElement).value)).toBe('85.5');
    await other.close();
  });

  test('a part that another rig plays stays, and the page says whose it is', async () => {
    await click(page, 'button', '3 parts of Slow Lock');
    const before = await textOf(page, '.rig');
    await click(page, 'button', 'Remove part verse');
    await waitForText(page, '.refusal', 'Slow Lock, verse');
    expect(await textOf(page, '.refusal')).toContain('the rig “Fly rig, no amp”');
    await find(page, 'button', 'Remove part verse');
    expect(await textOf(page, '.rig')).toBe(before);
    await (await page.waitForSelector('[aria-label^="Discard"]'))!.click();
    await page.waitForSelector('.aside', { hidden: true });
  });

  test('with a copy of its own the rig goes its way', async () => {
    page.once('dialog', (dialog) => void dialog.accept());
    await click(page, 'button', 'Make a copy of its own');
    await page.waitForSelector('.shared', { hidden: true });
    await click(page, 'button', 'Remove part verse');
    await saved(page);
    await page.reload();
    await find(page, 'button', '2 parts of Slow Lock');
    expect(await page.$('.shared')).toBeNull();
    await openRig(page, 'Fly rig, no amp');
    await find(page, 'button', '3 parts of Slow Lock');
  });
});

describe('narrow windows', () => {
  test.each([
    [1024, 768],
    [390, 844],
  ])('at %i wide nothing is cut off sideways', async (width, height) => {
    await openDemo();
    await page.setViewport({ width, height });
    for (const station of ['overview', 'gear', 'routing', 'sounds', 'program', 'set', 'proof']) {
      await go(station);
      await page.waitForFunction(
        (name) => document.querySelector('.stationhead h1')?.textContent?.toLowerCase() === name,
        {},
        station,
      );
      expect([
        station,
        await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth),
      ]).toEqual([station, 0]);
    }
    await page.setViewport({ width: 1280, height: 800 });
  });
});

test('nothing went wrong in the page, and nothing but this machine was asked', () => {
  expect(browsing.errors).toEqual([]);
  expect(
    browsing.asked.filter(
      (address) => !address.startsWith(running.url) && !address.startsWith('data:') && !address.startsWith('blob:'),
    ),
  ).toEqual([]);
});

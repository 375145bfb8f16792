import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterAll, describe, expect, test } from '@jest/globals';
import { parseMidi, writeMidi } from 'midi-file';
import type { Page } from 'puppeteer-core';
import {
  axeFaults,
  choose,
  chosen,
  click,
  find,
  focusedName,
  go as goOn,
  gone,
  named,
  saved,
  seen,
  textOf,
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
const folder = mkdtempSync(path.join(os.tmpdir(), 'yunta-files-'));
afterAll(async () => {
  rmSync(folder, { recursive: true, force: true });
});

const go = (station: string): Promise<void> => goOn(page, station);
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
  await seen(page, 'input[type="file"]');
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
    await (await seen(page, `::-p-xpath(//label[.//b[text()="${name}"]])`))!.click();
    await type(page, 'Name', `My ${name}`);
    await find(page, 'heading', 'Gear');
    await waitForText(page, 'header', `My ${name}`);
    await go('Overview');
    await waitForSaid(page, 'status', 'Nothing found stands in the way, but not all is judged: there are no songs yet');
    await go('Proof');
    await waitForVerdict(page, 'From anywhere', `${sounds} of ${sounds} recall`);
    await waitForVerdict(page, 'After a fault', `${sounds} of ${sounds} recall`);
  });
});

describe('overview', () => {
  test('says the verdict first, and a fix pressed there turns it', async () => {
    await openDemo();
    await go('Overview');
    await waitForSaid(page, 'status', 'Not tonight: 2 things stop the show, 7 more to fix before load-in.');
    await click(page, 'button', 'Generate this slot from its sound');
    await waitForSaid(page, 'status', 'Not tonight: 1 thing stops the show');
    await waitForText(page, 'main', 'Generate this slot from its sound');
  });

  test('the loudspeaker pulled is one card, with what follows folded under it; plugged in again all is as it was', async () => {
    await openDemo();
    await waitForCount(page, '2 stop the show');
    await go('Routing');
    await click(page, 'button', 'Unplug S18');
    await waitForFinding(page, 'A power amp without its load');
    const drawer = 'section[aria-label="Findings"]';
    const cards = await page.$$eval(`${drawer} ul.findings > li:not(.gone) > .title`, (titles) =>
      titles.map((title) => title.textContent ?? ''),
    );
    expect(cards.filter((title) => title.includes('without its load'))).toHaveLength(1);
    expect(cards.length).toBeLessThan(8);
    expect(await page.$eval(drawer, (section) => section.textContent)).not.toContain('Solved');
    await page.$eval(drawer, (section) =>
      [...section.querySelectorAll('button')]
        .find((button) => button.textContent.includes('more have the same cause'))!
        .click(),
    );
    await waitForText(page, drawer, 'No route to any destination');
    await click(page, 'button', 'Undo: Unplug S18');
    await waitForCount(page, '2 stop the show');
  });

  test('a finding can be accepted, with its reason, and reopened', async () => {
    await openDemo();
    await waitForFinding(page, 'A preset that the device does not have');
    await click(page, 'button', 'Accept');
    await page.keyboard.type('only for the rehearsal');
    await page.keyboard.press('Enter');
    await click(page, 'button', 'Accepted: 1');
    await saved(page);
    await go('Overview');
    await waitForSaid(page, 'status', 'Not tonight: 1 thing stops the show');
    await page.reload();
    await go('Gear');
    await waitForFinding(page, 'Accepted: 1');
    await click(page, 'button', 'Accepted: 1');
    await waitForFinding(page, 'only for the rehearsal');
    await click(page, 'button', 'Reopen');
    await go('Overview');
    await waitForSaid(page, 'status', 'Not tonight: 2 things stop the show');
  });

  test('a convention chosen there quiets the rule that it disputes', async () => {
    await openDemo();
    await go('Overview');
    await waitForText(page, 'main', 'A synced delay in a song without a tempo');
    await choose(page, 'Tempo', 'tapped');
    await page.waitForFunction(() => !document.querySelector('main')!.textContent!.includes('A synced delay'));
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
    await waitForText(page, 'main', '14 pieces');
  });
});

describe('the selected piece', () => {
  test('stays between gear and routing, and is laid down where one works on something else', async () => {
    await openDemo();
    await click(page, 'button', 'Inspect Echo');
    await find(page, 'region', 'Inspector: Echo');
    await go('Routing');
    await find(page, 'region', 'Inspector: Echo');
    await go('Sounds');
    await gone(page, '', 'Inspector: Echo');
  });
});

describe('places', () => {
  test('a new one is typed where the piece stands, and is one edit; Escape leaves all as it was', async () => {
    await openDemo();
    await choose(page, 'Place of Echo', 'another place …');
    await find(page, 'textbox', 'New place for Echo');
    await page.keyboard.press('Escape');
    await find(page, 'combobox', 'Place of Echo');
    await choose(page, 'Place of Echo', 'another place …');
    await find(page, 'textbox', 'New place for Echo');
    await page.keyboard.type('Rack');
    await page.keyboard.press('Enter');
    await find(page, 'button', 'Undo: Add place Rack');
    expect(await chosen(page, 'Place of Echo')).toBe('Rack');
    await page.waitForFunction(() => document.activeElement?.getAttribute('aria-label') === 'Place of Echo');
    await saved(page);
  });
});

describe('a Y cord in the patch', () => {
  const isGone = (role: string, name: string) => gone(page, role, name);

  test('is a cable with one end more: put on, seen in the run, taken off, by the keyboard too', async () => {
    await openDemo();
    await go('Routing');
    await (await find(page, 'button', 'Split C01')).press('Enter');
    await find(page, 'textbox', 'Find: Another end of C01');
    await page.keyboard.press('Escape');
    await isGone('combobox', 'Another end of C01');
    await page.waitForFunction(() => document.activeElement?.getAttribute('aria-label') === 'Split C01');
    await page.keyboard.press('Enter');
    await find(page, 'textbox', 'Find: Another end of C01');
    await page.keyboard.type('switcher return 8');
    await find(page, 'option', 'Switcher Return 8');
    await page.keyboard.press('Enter');
    await saved(page);
    await find(page, 'combobox', 'To 2 of C01');
    await waitForFinding(page, 'Return 8 is plugged in, Send 8 is not');
    expect(await axeFaults(page)).toEqual([]);
    await (await find(page, 'button', 'Take off To 2 of C01')).press('Enter');
    await find(page, 'combobox', 'To of C01');
    await saved(page);
    await waitForFinding(page, 'Solved. It said: Switcher: Return 8');
    await click(page, 'button', 'Close the findings');
  });

  test('is said in one line, and refused there where no jack is left for an end', async () => {
    await openDemo();
    await go('Routing');
    await type(page, 'Add a cable', 'switcher send 8 > switcher return 8 + switcher return 9 + moon');
    await waitForText(page, 'main', 'No device is called “moon”');
    const field = await named(page, 'Add a cable');
    for (let i = 0; i < ' + moon'.length; i += 1) await field.press('Backspace');
    await field.press('Enter');
    await find(page, 'combobox', 'To 2 of C31');
    await saved(page);
    expect(await textOf(page, 'main')).toContain('31 cables');
  });
});

describe('sounds', () => {
  test('an edit in one of several marked sounds goes into all, as one step', async () => {
    await openDemo();
    await go('Sounds');
    await (await seen(page, '[data-cell="0.0"]')).focus();
    await page.keyboard.down('Shift');
    for (const key of ['X', 'ArrowDown', 'X', 'ArrowDown', 'X']) await page.keyboard.press(key as 'X');
    await page.keyboard.up('Shift');
    await waitForText(page, 'main', '3 sounds marked');
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
    await openDemo();
    await go('Sounds');
    await (await seen(page, '[data-cell="0.0"]')).focus();
    await page.keyboard.down('Alt');
    await page.keyboard.press('ArrowDown');
    await page.keyboard.up('Alt');
    await page.waitForFunction(() =>
      document.querySelector('[data-cell="1.0"]')!.getAttribute('aria-label')!.startsWith('Slow Lock, verse'),
    );
    const before = (await page.$$('.matrix .dev')).length;
    await click(page, 'checkbox', 'only columns that differ');
    expect((await page.$$('.matrix .dev')).length).toBeLessThan(before);
  });
});

describe('a number in a cell of the matrix', () => {
  /** The cell of a sound in a column, with what stands in it. */
  const cell = async (sound: string, column: string) =>
    await seen(page, `[role="gridcell"][aria-label^="${sound}, ${column}: "]`);
  const shown = async (sound: string, column: string) =>
    (await cell(sound, column)).evaluate((node) => node.getAttribute('aria-label')!.split(': ')[1]);
  const verse = 'Slow Lock, verse';
  const chorus = 'Slow Lock, chorus';

  test('is typed into it: an arrow takes it, Escape gives it up, Backspace mends it, undo takes it back once', async () => {
    await openDemo();
    await go('Sounds');
    await (await cell(verse, 'Hall PC')).focus();
    const before = await shown(verse, 'Hall PC');
    await page.keyboard.type('7');
    await waitForSaid(page, 'status', 'typed 7');
    await page.keyboard.press('Escape');
    expect(await shown(verse, 'Hall PC')).toBe(before);
    await page.keyboard.type('19');
    await page.keyboard.press('Backspace');
    await page.keyboard.type('2');
    await page.keyboard.press('ArrowDown');
    await find(page, 'gridcell', `${verse}, Hall PC: 12`);
    expect(await focusedName(page)).toContain(`${chorus}, Hall PC`);
    await saved(page);
    await waitForSaid(page, 'status', 'revision 1, saved');
    await page.keyboard.type('5');
    await page.keyboard.press('Tab');
    await find(page, 'gridcell', `${chorus}, Hall PC: 5`);
    await saved(page);
    await page.keyboard.down('Control');
    await page.keyboard.press('z');
    await page.keyboard.press('z');
    await page.keyboard.up('Control');
    await find(page, 'gridcell', `${verse}, Hall PC: ${before}`);
  });

  test('and by pointer into a field', async () => {
    await openDemo();
    await go('Sounds');
    await (await cell(verse, 'Hall PC')).click({ count: 2 });
    await find(page, 'textbox', 'Hall PC');
    await page.keyboard.type('4');
    await page.keyboard.press('Enter');
    await find(page, 'gridcell', `${verse}, Hall PC: 4`);
    expect(await focusedName(page)).toBe(`${verse}, Hall PC: 4`);
  });

  test('that cannot be stays in its cell with its reason, until it is given up', async () => {
    await openDemo();
    await go('Sounds');
    await (await cell(verse, 'Hall PC')).focus();
    await page.keyboard.type('0');
    await page.keyboard.press('ArrowDown');
    await waitForSaid(page, 'alert', '“0” is not a number of Hall: its panel counts from 1.');
    expect(await focusedName(page)).toContain(`${verse}, Hall PC`);
    await page.keyboard.press('Escape');
    await page.waitForFunction(() => !document.querySelector('main [role="alert"]'));
  });

  test('letters find a sound, Home and End the edges', async () => {
    await openDemo();
    await go('Sounds');
    await (await cell(verse, 'Echo PC')).focus();
    await page.keyboard.type('pump');
    expect(await focusedName(page)).toContain('Pump Milonga, verse, Echo PC');
    await page.keyboard.press('End');
    expect(await focusedName(page)).toContain('Pump Milonga, verse, Guitar volume');
    await page.keyboard.press('Home');
    expect(await focusedName(page)).toContain('Pump Milonga, verse, Compressor');
    await page.keyboard.press('PageUp');
    expect(await focusedName(page)).not.toContain('Pump Milonga');
  });

  test('a sound is renamed in place, and the hand stays there', async () => {
    await openDemo();
    await go('Sounds');
    await (await find(page, 'button', `Rename ${verse}`)).focus();
    await page.keyboard.press('Enter');
    await find(page, 'textbox', `Name of ${verse}`);
    await page.keyboard.type('Slow Lock, first verse');
    await page.keyboard.press('Enter');
    await find(page, 'button', 'Rename Slow Lock, first verse');
    await page.waitForFunction(
      () => document.activeElement?.getAttribute('aria-label') === 'Rename Slow Lock, first verse',
    );
  });
});

describe('a sound and its switch', () => {
  test('dragged to another switch, it swaps with what lies there; undone by name', async () => {
    await openDemo();
    await go('Program');
    const from = (await (await find(page, 'gridcell', '1·1: Slow Lock, verse')).boundingBox())!;
    const to = (await (await find(page, 'gridcell', '2·3: Copper Evening, chorus')).boundingBox())!;
    await page.mouse.move(from.x + 30, from.y + 15);
    await page.mouse.down();
    await page.mouse.move(from.x + 60, from.y + 40, { steps: 4 });
    await page.mouse.move(to.x + 40, to.y + 15, { steps: 8 });
    await waitForSaid(page, 'status', 'over 2·3: Copper Evening, chorus');
    await page.mouse.up();
    await find(page, 'gridcell', '2·3: Slow Lock, verse');
    await find(page, 'gridcell', '1·1: Copper Evening, chorus');
    await saved(page);
    await page.reload();
    await find(page, 'gridcell', '2·3: Slow Lock, verse');
    await click(page, 'button', 'Undo: Move bank 1, switch 1 to bank 2, switch 3');
    await find(page, 'gridcell', '1·1: Slow Lock, verse');
  });

  test('by keys: picked up, moved, put down; given up it lies where it was; cleared and brought back', async () => {
    await openDemo();
    await go('Program');
    await (await find(page, 'gridcell', '1·1: Slow Lock, verse')).focus();
    const press = async (...keys: readonly string[]) => {
      for (const key of keys) await page.keyboard.press(key as 'Space');
    };
    await press('Space');
    await waitForSaid(page, 'status', 'Slow Lock, verse picked up from 1·1');
    await press('PageDown', 'ArrowRight', 'Escape');
    await find(page, 'gridcell', '1·1: Slow Lock, verse');
    await press('Home', 'PageUp', 'Space', 'ArrowRight');
    await waitForSaid(page, 'status', 'over 1·2: Ferry Bell, verse');
    await press('Space');
    await find(page, 'gridcell', '1·2: Slow Lock, verse');
    await find(page, 'gridcell', '1·1: Ferry Bell, verse');
    await press('Delete');
    await find(page, 'gridcell', '1·2: empty');
    await find(page, 'button', 'Put Slow Lock, verse on a switch');
    await click(page, 'button', 'Undo: Clear bank 1, switch 2');
    await find(page, 'gridcell', '1·2: Slow Lock, verse');
    await (await find(page, 'gridcell', '1·2: Slow Lock, verse')).focus();
    await page.keyboard.type('pum');
    expect(await focusedName(page)).toContain('Pump Milonga');
  });

  test('typed in the sounds: another switch, one that is not there, none', async () => {
    await openDemo();
    await go('Sounds');
    const slot = async (now: string) => {
      await (await find(page, 'button', `Slot of Slow Lock, verse: ${now}`)).focus();
      await page.keyboard.press('Enter');
      await find(page, 'textbox', 'Slot of Slow Lock, verse');
    };
    await slot('1·1');
    await page.keyboard.type('2.3');
    await page.keyboard.press('Enter');
    await find(page, 'button', 'Slot of Copper Evening, chorus: 1·1');
    await slot('2·3');
    await page.keyboard.type('99.9');
    await page.keyboard.press('Enter');
    await waitForSaid(page, 'alert', 'Switcher has 20 banks of 5 switches.');
    const field = await find(page, 'textbox', 'Slot of Slow Lock, verse');
    expect(
      await field.evaluate((node) => [(node as HTMLInputElement).value, node.getAttribute('aria-invalid')]),
    ).toEqual(['99.9', 'true']);
    expect(await axeFaults(page)).toEqual([]);
    await page.keyboard.press('Escape');
    await slot('2·3');
    await page.keyboard.press('Backspace');
    await page.keyboard.press('Enter');
    await find(page, 'button', 'Slot of Slow Lock, verse: none');
    await click(page, 'button', 'Undo: Clear bank 2, switch 3');
    await find(page, 'button', 'Slot of Slow Lock, verse: 2·3');
  });

  test('laid out by song: what it costs is shown before anything moves', async () => {
    await openDemo();
    await go('Program');
    await click(page, 'button', 'Layouts');
    await click(page, 'radio', 'By song');
    await find(page, 'gridcell', '2·2: Ferry Bell, solo');
    const costs = await textOf(page, 'table[aria-label="What each layout costs in the set"]');
    expect(costs).toMatch(/Bank presses in mid-song \(there is no time for them\)25250/);
    await click(page, 'button', 'Leave as it is');
    await find(page, 'gridcell', '1·2: Ferry Bell, verse');
    await click(page, 'button', 'Layouts');
    await click(page, 'radio', 'By song');
    await click(page, 'button', 'Lay out by song');
    await find(page, 'gridcell', '2·1: Ferry Bell, verse');
    await saved(page);
    await go('Proof');
    await waitForVerdict(page, 'From anywhere', 'of 37 recall');
  });
});

describe('a column pasted from a spreadsheet', () => {
  const paste = (label: string, text: string) =>
    page.$eval(
      `[aria-label="${label}"]`,
      (field, words) => {
        const data = new DataTransfer();
        data.setData('text/plain', words);
        field.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
      },
      text,
    );

  test('becomes rows, as one edit each: devices, sounds, songs; a line that is no device stays, with why', async () => {
    await openDemo();
    const field = await named(page, 'Add a device');
    await field.click();
    await page.keyboard.sendCharacter('fuzz\nwah\nunheard of');
    await find(page, 'button', 'Add 2 devices');
    await waitForText(page, 'main', 'No device is called “unheard of”, and no type has these words.');
    await field.press('Enter');
    await waitForText(page, 'main', '15 pieces');
    await waitForSaid(page, 'status', 'Added 2 devices. 1 line left, with why.');
    expect(await field.evaluate((node) => (node as HTMLTextAreaElement).value)).toBe('unheard of');
    await go('Sounds');
    await paste('Add a sound', 'Ebb, verse\nEbb, chorus\nEbb, solo');
    await find(page, 'button', 'Rename Ebb, solo');
    await go('Set');
    await paste('Add a song', 'Ebb\nFlood');
    await find(page, 'textbox', 'Name of Flood');
    await click(page, 'button', 'Undo: Add 2 songs');
    await click(page, 'button', 'Undo: Add 3 sounds');
    await click(page, 'button', 'Undo: Add 2 devices');
    await saved(page);
  });
});

describe('a value that is refused', () => {
  test('stays, marked, with its reason beside it, until it is mended or given up', async () => {
    await openDemo();
    await go('Set');
    await type(page, 'Tempo of Slow Lock', '');
    const field = await find(page, 'textbox', 'Tempo of Slow Lock');
    await field.click({ count: 3 });
    await page.keyboard.type('9000');
    await page.keyboard.press('Tab');
    await waitForSaid(page, 'alert', '“9000” is not a tempo');
    expect(await field.evaluate((node) => (node as HTMLInputElement).value)).toBe('9000');
    await waitForSaid(page, 'status', 'revision 0, saved');
    await field.click({ count: 3 });
    await page.keyboard.type('84,5');
    await page.keyboard.press('Enter');
    await waitForSaid(page, 'status', 'revision 1, saved');
    await field.click({ count: 3 });
    await page.keyboard.type('x');
    await page.keyboard.press('Enter');
    await click(page, 'button', 'Give up');
    expect(await field.evaluate((node) => (node as HTMLInputElement).value)).toBe('84.5');
  });

  test('what was typed and not confirmed is taken when one leaves the station by a key', async () => {
    await openDemo();
    await go('Routing');
    await (await find(page, 'textbox', 'Length of C01')).click({ count: 3 });
    await page.keyboard.type('20 ft');
    await page.keyboard.down('Alt');
    await page.keyboard.press('2');
    await page.keyboard.up('Alt');
    await find(page, 'heading', 'Gear');
    await waitForSaid(page, 'status', 'revision 1, saved');
    await go('Routing');
    const field = await find(page, 'textbox', 'Length of C01');
    expect(await field.evaluate((node) => (node as HTMLInputElement).value)).toBe('6.096');
    await go('Overview');
    await choose(page, 'Lengths in', 'feet');
    await go('Routing');
    await page.waitForFunction(
      () => document.querySelector<HTMLInputElement>('[aria-label="Length of C01"]')?.value === '20',
    );
  });

  test('a tag that another cable has', async () => {
    await openDemo();
    await go('Routing');
    await (await find(page, 'textbox', 'Tag of C02')).click({ count: 3 });
    await page.keyboard.type('C01');
    await page.keyboard.press('Enter');
    await waitForSaid(page, 'alert', 'Another cable has the tag C01');
  });
});

describe('program', () => {
  test('ticks of the worksheet persist, and an edit that changes a line opens it again', async () => {
    await openDemo();
    await go('Program');
    await click(page, 'tab', 'Worksheet');
    await waitForText(page, 'main', '0 of ');
    await (await seen(page, '::-p-xpath(//button[starts-with(., "Echo")])'))!.click();
    await click(page, 'checkbox', 'Echo: Receive channel 2');
    await waitForText(page, 'main', '1 of ');
    await page.reload();
    await waitForText(page, 'main', '1 of ');
    await page.keyboard.down('Control');
    await page.keyboard.press('k');
    await page.keyboard.up('Control');
    await find(page, 'combobox', 'Command, station, sound, device or field');
    await page.keyboard.type('echo device');
    await page.keyboard.press('Enter');
    await find(page, 'region', 'Inspector: Echo');
    const channel = await seen(page, '::-p-xpath(//label[text()="Receive channel"]/following::input[1])');
    await channel!.click();
    await (await seen(page, '::-p-xpath(//*[@role="option"][.="9"])')).click();
    await go('Program');
    await click(page, 'tab', 'Worksheet');
    await waitForText(page, 'main', '0 of ');
    await waitForText(page, 'main', '1 to do again');
  });

  test('patch list, worksheet and cue sheet come as one PDF', async () => {
    await openDemo();
    await go('Program');
    await click(page, 'tab', 'Worksheet');
    await click(page, 'button', 'Print …');
    expect(await axeFaults(page)).toEqual([]);
    await click(page, 'button', 'Bank plan as CSV');
    expect((await downloaded('river-boat-combo-rig-bank-plan.csv')).toString()).toContain('1  Slow Lock, verse');
    await click(page, 'button', 'Routing drawing as SVG');
    expect((await downloaded('river-boat-combo-rig-routing-drawing.svg')).toString()).toMatch(/^<svg .*Compressor/s);
    await click(page, 'button', 'Make the PDF');
    const pdf = await downloaded('river-boat-combo-rig.pdf');
    expect(pdf.subarray(0, 5).toString()).toBe('%PDF-');
    expect(pdf.subarray(-8).toString()).toContain('%%EOF');
    expect(pdf.length).toBeGreaterThan(20_000);
  });
});

describe('what the switcher does beside its slots', () => {
  const beside = (words: string) => waitForText(page, 'table[aria-label="What Switcher does beside its slots"]', words);
  const worksheet = async (words: string) => {
    await click(page, 'tab', 'Worksheet');
    await waitForText(page, 'main', words);
  };

  test('a slot fired at power-up and one called by a program change are told there, and stand on the worksheet', async () => {
    await openDemo();
    await go('Program');
    await click(page, 'tab', 'Power-up, momentary switches, calls');
    await choose(page, 'Slot fired at power-up', 'bank 1, switch 3: Slow Lock, chorus');
    await saved(page);
    await type(page, 'Program that calls', '300');
    await beside('A program is 0 to 127');
    for (let i = 0; i < 3; i += 1) await page.keyboard.press('Backspace');
    await type(page, 'Program that calls', '12');
    await beside('program 12 presses bank 1, switch 1: Slow Lock, verse');
    await choose(page, 'Channel that calls come on', '5');
    await saved(page);
    await worksheet('fires bank 1, switch 3');
    await worksheet('Program change 12, channel 5');
    await click(page, 'tab', 'Power-up, momentary switches, calls');
    await page.reload();
    await beside('program 12 presses bank 1, switch 1');
    expect(await chosen(page, 'Slot fired at power-up')).toContain('bank 1, switch 3');
    await click(page, 'button', 'No longer called by program 12');
    await saved(page);
    await gone(page, '', 'Channel that calls come on');
  });

  test('a momentary switch is given what it does by typing, by keyboard alone, and the proof follows', async () => {
    await openDemo();
    await (await find(page, 'button', 'Inspect Switcher')).press('Enter');
    const facts = await find(page, 'button', 'Settings');
    if ((await facts.evaluate((button) => button.getAttribute('aria-expanded'))) === 'false')
      await facts.press('Enter');
    const count = await named(page, 'Momentary switches');
    await count.focus();
    await page.keyboard.press('Backspace');
    await page.keyboard.type('1');
    await page.keyboard.press('Enter');
    await saved(page);
    await go('Program');
    await click(page, 'tab', 'Power-up, momentary switches, calls');
    await beside('Momentary 1, pressed');
    const press = await named(page, 'Add an action: Momentary 1, pressed');
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
    await (await named(page, 'Add an action: Momentary 1, released')).focus();
    await page.keyboard.type('sing');
    await page.keyboard.press('Enter');
    await beside('Write: loop 4 on');
    for (let i = 0; i < 4; i += 1) await page.keyboard.press('Backspace');
    await page.keyboard.type('restore loop 6');
    await page.keyboard.press('Enter');
    await beside('Loop 6 as remembered');
    await saved(page);
    expect(await axeFaults(page)).toEqual([]);
    await go('Proof');
    await waitForText(page, 'main', 'Switcher: Momentary 1');
    await go('Program');
    await click(page, 'tab', 'Power-up, momentary switches, calls');
    await page.reload();
    await beside('Loop 6 as remembered');
    await (await find(page, 'button', 'Remove from Momentary 1, released: Loop 6 as remembered')).press('Enter');
    await saved(page);
    await find(page, 'button', 'Undo: Change Switcher');
    expect(await textOf(page, 'table[aria-label="What Switcher does beside its slots"]')).not.toContain(
      'as remembered',
    );
  });
});

describe('set', () => {
  test('a song is put into another place by keyboard, and the list plays in that order', async () => {
    await openDemo();
    await go('Set');
    await (await find(page, 'button', 'Move Slow Lock')).focus();
    await page.keyboard.press('Space');
    await new Promise((resolve) => setTimeout(resolve, 300));
    await page.keyboard.press('ArrowDown');
    await new Promise((resolve) => setTimeout(resolve, 300));
    await page.keyboard.press('Space');
    await page.waitForFunction(
      () => document.querySelector('ol input')!.getAttribute('aria-label') === 'Name of Ferry Bell',
    );
    await saved(page);
  });

  test('a part is cast by typing the sound’s name, and put into another place by Alt and an arrow', async () => {
    await openDemo();
    await go('Set');
    await click(page, 'button', '3 parts of Slow Lock');
    await (await find(page, 'combobox', 'Sound for bridge')).focus();
    await page.keyboard.type('pump milonga, sol');
    await named(page, 'Find: Sound for bridge');
    for (let i = 0; i < 3; i += 1) await page.keyboard.press('Backspace');
    await page.keyboard.type('bridge');
    await find(page, 'option', 'Pump Milonga, bridge, 4·5');
    await page.keyboard.press('Enter');
    await page.waitForFunction(() =>
      document.querySelector('[aria-label="Sound for bridge"]')!.textContent!.startsWith('Pump Milonga, bridge'),
    );
    await (await find(page, 'button', 'Move part bridge')).focus();
    await page.keyboard.down('Alt');
    await page.keyboard.press('ArrowUp');
    await page.keyboard.up('Alt');
    await find(page, 'button', 'Undo: Move part bridge');
    await saved(page);
  });

  test('delay times follow the tempo and say why', async () => {
    await openDemo();
    await go('Set');
    await click(page, 'button', '2 parts of Copper Evening');
    await waitForText(page, 'main', '468.8 ms');
    await click(page, 'button', 'Delay, dotted eighth: 468.8 ms. Why?');
    await waitForText(page, '[role="dialog"]', '60,000 / tempo');
    await page.keyboard.press('Escape');
    await page.waitForSelector('[role="dialog"]', { hidden: true });
  });

  test('the MIDI file of a song is read by another program, and what was assumed is told', async () => {
    await openDemo();
    await go('Set');
    await click(page, 'button', '2 parts of Copper Evening');
    await click(page, 'button', 'MIDI file of this song');
    const parsed = parseMidi(await downloaded('copper-evening.mid'));
    expect(
      parsed.tracks
        .flat()
        .filter((event) => event.type === 'marker')
        .map((event) => (event as { text: string }).text),
    ).toEqual(['verse', 'chorus']);
    await waitForSaid(page, 'status', 'stay with the foot');
    await click(page, 'button', 'Dismiss');
  });

  test('songs come in from a table, and go out again as they came', async () => {
    await openDemo();
    await go('Set');
    await bring(
      0,
      'songs.csv',
      'song;tempo;part;bars;plays\r\nHarbour Light;96,5;verse;16;Slow Lock, verse\r\nHarbour Light;96,5;chorus;8;\r\n',
    );
    await waitForText(page, 'main', '19');
    await waitForCount(page, '3 stop the show');
    await click(page, 'button', 'Export tables');
    await click(page, 'menuitem', 'Songs, CSV');
    const text = (await downloaded('river-boat-combo-rig-songs.csv')).toString();
    expect(text).toContain('Harbour Light,96.5,,,,verse,16,"Slow Lock, verse"\r\n');
    await click(page, 'button', 'Undo: Import 1 song');
    await waitForCount(page, '2 stop the show');
  });

  test('songs come in from a MIDI file, as another program writes it: tempo, markers as parts, bars', async () => {
    await openDemo();
    await go('Set');
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
    await waitForSaid(page, 'status', 'the tempo changes inside Grey Heron');
    await click(page, 'button', '2 parts of Grey Heron');
    await click(page, 'button', 'Export tables');
    await click(page, 'menuitem', 'Songs, CSV');
    expect((await downloaded('river-boat-combo-rig-songs.csv')).toString()).toContain(
      'Grey Heron,100,,,,verse,8,\r\nGrey Heron,100,,,,chorus,4,\r\n',
    );
    await click(page, 'button', 'Undo: Import 1 song');
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
    await openDemo();
    await go('Set');
    const before = await textOf(page, '[data-saving]');
    await bring(0, `${name.replaceAll(' ', '-')}.mid`, content);
    await waitForSaid(page, 'alert', words);
    expect(await textOf(page, '[data-saving]')).toBe(before);
    await click(page, 'button', 'Dismiss');
  });

  test.each([
    ['wrong columns', 'title,bpm\nA,120\n', 'Line 1, title: Unknown field'],
    ['a value out of range', 'song,tempo\nA,120\nB,9000\n', 'Line 3, tempo: 9000 is not allowed here'],
    ['an open quote', 'song\n"A\nB\n', 'Line 2: a quote'],
    ['another encoding', Uint8Array.from([0x73, 0x6f, 0x6e, 0x67, 0x0a, 0xc9, 0x0a]), 'not UTF-8'],
    ['a hundred thousand lines', `song\n${'A\n'.repeat(100_000)}`, 'Too large'],
  ] as const)('%s: refused whole, with the place and the reason', async (name, content, words) => {
    await openDemo();
    await go('Set');
    const before = await textOf(page, '[data-saving]');
    await bring(0, `${name.replaceAll(' ', '-')}.csv`, content);
    await waitForSaid(page, 'alert', words);
    expect(await textOf(page, '[data-saving]')).toBe(before);
    await click(page, 'button', 'Dismiss');
  });
});

describe('songs that two rigs share', () => {
  /** A rig that plays the songs of the demo: open on Set. */
  const share = async (name: string) => {
    await openDemo();
    const demo = await textOf(page, 'header b');
    await page.goto(running.url);
    await (await find(page, 'textbox', 'Name')).type(name);
    await (await seen(page, '::-p-xpath(//label[.//b[text()="Four-cable"]])'))!.click();
    await click(page, 'combobox', 'Songs');
    const options = await seen(page, '::-p-xpath((//*[@role="option"][contains(., "River-boat combo rig")])[1])');
    await options!.click();
    await click(page, 'button', 'New rig');
    await find(page, 'heading', 'Gear');
    await go('Set');
    return demo;
  };
  const openFirst = async (on: Page, name: string) => {
    await on.goto(running.url);
    await seen(on, 'table a');
    await on.evaluate((called) => {
      [...document.querySelectorAll<HTMLElement>('table a')].find((link) => link.textContent === called)!.click();
    }, name);
    await find(on, 'heading', 'Overview');
    await goOn(on, 'Set');
  };
  const note = (on: Page) => textOf(on, '[role="note"]');

  test('what is changed there is here when one comes back; a part that another rig plays stays', async () => {
    await share('Winter rig');
    await seen(page, '[role="note"]');
    const sharers = await note(page);
    expect(sharers).toContain('River-boat combo rig');
    const other = await browsing.newPage();
    await openFirst(other, 'River-boat combo rig');
    await waitForText(other, '[role="note"]', 'Winter rig');
    await other.bringToFront();
    await (await find(other, 'textbox', 'Tempo of Slow Lock')).click({ count: 3 });
    await other.keyboard.type('85.5');
    await other.keyboard.press('Enter');
    await saved(other);
    await page.bringToFront();
    await page.waitForFunction(
      () => document.querySelector<HTMLInputElement>('[aria-label="Tempo of Slow Lock"]')?.value === '85.5',
    );
    await other.close();
    await click(page, 'button', '3 parts of Slow Lock');
    await click(page, 'button', 'Remove part verse');
    await waitForSaid(page, 'alert', 'the rig “River-boat combo rig”');
    await find(page, 'button', 'Remove part verse');
    await (await seen(page, '[aria-label^="Discard"]')).click();
    await page.waitForSelector('[aria-label^="Discard"]', { hidden: true });
  });

  test('a duplicate of a rig plays the same songs, and says so', async () => {
    await page.goto(running.url);
    await click(page, 'button', 'Duplicate River-boat combo rig');
    await waitForSaid(page, 'status', 'River-boat combo rig, copy is there. It plays the same songs');
    await page.waitForFunction(() =>
      [...document.querySelectorAll('table a')].some((link) => link.textContent === 'River-boat combo rig, copy'),
    );
    await openFirst(page, 'River-boat combo rig, copy');
    await seen(page, '[role="note"]');
  });

  test('with a copy of its own the rig goes its way', async () => {
    await share('Spring rig');
    await click(page, 'button', 'Make a copy of its own');
    await click(page, 'button', 'Make a copy');
    await page.waitForSelector('[role="note"]', { hidden: true });
    await click(page, 'button', '3 parts of Slow Lock');
    await click(page, 'button', 'Remove part verse');
    await saved(page);
    await page.reload();
    await find(page, 'button', '2 parts of Slow Lock');
    expect(await page.$('[role="note"]')).toBeNull();
    await openFirst(page, 'River-boat combo rig');
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
    for (const station of ['Overview', 'Gear', 'Routing', 'Sounds', 'Program', 'Set', 'Proof']) {
      await go(station);
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

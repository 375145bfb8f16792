import { expect, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import {
  axeFaults,
  choose,
  click,
  find,
  focusedName,
  go,
  named,
  saved,
  seen,
  textOf,
  type,
  waitForFinding,
  waitForText,
  waitForVerdict,
} from './browsing.ts';
import { opened } from './opened.ts';

let page: Page;
const { running, browsing } = opened((now) => (page = now));

const field = (name: string) => named(page, name);
const press = async (...keys: readonly string[]) => {
  for (const key of keys) await page.keyboard.press(key as 'Enter');
};
const paste = (text: string) =>
  page.evaluate((pasted) => {
    const data = new DataTransfer();
    data.setData('text/plain', pasted);
    document.activeElement!.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
    );
  }, text);
async function standsOn(name: string): Promise<void> {
  try {
    await page.waitForFunction((wanted) => document.activeElement?.getAttribute('aria-label') === wanted, {}, name);
  } catch {
    throw new Error(`waited for the focus on "${name}"; it is on "${await focusedName(page)}"`);
  }
}

async function newRig(name: string, text: string): Promise<void> {
  await page.goto(running.url);
  await (await find(page, 'textbox', 'Name')).type(name);
  await page.keyboard.press('Enter');
  await find(page, 'heading', 'Gear');
  for (const line of text.split('\n')) {
    await (await field('Add a device')).focus();
    await page.keyboard.sendCharacter(line);
    await page.keyboard.press('Enter');
    await saved(page);
    await page.waitForFunction(
      () => (document.querySelector('[aria-label="Add a device"]') as HTMLInputElement).value === '',
    );
  }
}

async function addSounds(...names: readonly string[]): Promise<void> {
  await go(page, 'Sounds');
  for (const name of names) {
    await (await field('Add a sound')).focus();
    await page.keyboard.sendCharacter(name);
    await page.keyboard.press('Enter');
    await saved(page);
  }
}

async function layOut(): Promise<void> {
  await click(page, 'button', 'Layouts');
  await click(page, 'radio', 'By role');
  await click(page, 'button', 'Lay out by role');
}

test('a modeller: its presets entered as a table by keyboard, its sounds proved', async () => {
  await newRig('Hub', 'guitar > hub = modeller > desk\nfloor = midi foot controller\nmidi: floor > hub');
  await click(page, 'button', 'Inspect Hub');
  await click(page, 'button', 'Edit presets as a table');
  await find(page, 'heading', 'Presets of Hub');
  await (await field('Add presets')).focus();
  await page.keyboard.sendCharacter('1–3');
  await page.keyboard.press('Enter');
  await (await field('Name of preset 1: unknown')).focus();
  // Typed, filled down, and pasted from a spreadsheet.
  await page.keyboard.type('Verse');
  await press('Enter');
  await standsOn('Name of preset 2: unknown');
  await page.keyboard.type('Chorus');
  await press('Enter');
  await standsOn('Name of preset 3: unknown');
  await page.keyboard.type('Solo');
  await press('Enter', 'ArrowUp', 'ArrowUp', 'ArrowRight');
  await standsOn('Order of preset 1: unknown');
  await page.keyboard.type('Drive > Amp > Delay > Drive');
  await press('Enter');
  await waitForText(page, '#station [role="alert"]', 'Drive stands twice: each has one place.');
  await press('Escape');
  await standsOn('Order of preset 1: unknown');
  await page.keyboard.type('Drive > Amp > Delay');
  await press('Enter', 'ArrowUp');
  await standsOn('Order of preset 1: Drive > Amp > Delay > …');
  await page.keyboard.down('Shift');
  await press('ArrowDown', 'ArrowDown');
  await page.keyboard.up('Shift');
  await page.keyboard.down('Control');
  await press('d');
  await page.keyboard.up('Control');
  await field('Order of preset 3: Drive > Amp > Delay > …');
  await press('ArrowRight', 'ArrowUp', 'ArrowUp');
  await standsOn('Compressor of preset 1: unknown');
  await paste(
    'off\toff\ton\ton\toff\toff\toff\toff\noff\ton\ton\ton\toff\toff\toff\toff\noff\ton\ton\ton\toff\ton\toff\toff',
  );
  await field('Delay of preset 3: on');
  await saved(page);
  expect(await axeFaults(page)).toEqual([]);
  await click(page, 'button', 'Undo: Change 3 presets of Hub');
  await field('Delay of preset 3: unknown');
  await click(page, 'button', 'Redo: Change 3 presets of Hub');
  await field('Delay of preset 3: on');

  await addSounds('Verse', 'Solo');
  await (await field('Verse, Hub PC: –')).focus();
  await press('1', 'Enter', 'ArrowDown');
  await press('3', 'Enter');
  await saved(page);
  await go(page, 'Routing');
  await waitForText(page, 'main', 'Hub');
  await go(page, 'Program');
  await layOut();
  await go(page, 'Proof');
  await waitForVerdict(page, 'From anywhere', '2 of 2 recall');
}, 120_000);

test('the order of the loops by slot: typed, sent, and the one that differs found', async () => {
  await newRig(
    'Crosspoint',
    'guitar > switcher = loop switcher, 8 loops, order by slot\nswitcher 1: drive; 2: echo = delay\nswitcher > amp = valve amp one > cabinet',
  );
  await addSounds('Verse', 'Chorus', 'Bridge', 'Solo');
  await (await field('Solo, Switcher order: –')).focus();
  await press('2');
  await page.keyboard.type(' 2');
  await press('Enter');
  await waitForText(page, '[role="alert"]', '2 stands twice');
  await press('Backspace', '1', 'Enter');
  await field('Solo, Switcher order: 2 1 3 4 5 6 7 8');
  await go(page, 'Program');
  await layOut();
  await waitForText(page, 'main', 'Solo');
  await waitForFinding(page, 'alone has Switcher in the order 2 1 3 4 5 6 7 8');
  expect(await textOf(page, 'main')).toContain('Order of the loops');
}, 120_000);

test('tonight without the chorus: a variant made, judged and moved to, and the rig itself left as it is', async () => {
  await newRig(
    'River',
    'guitar > switcher = loop switcher, 4 loops\nswitcher 1: drive; 2: chorus\nswitcher > amp = valve amp one > cabinet',
  );
  await addSounds('Clean');
  await (await field('Clean, Chorus L2: don’t care')).focus();
  await press('Space');
  await field('Clean, Chorus L2: on');
  await go(page, 'Program');
  await layOut();
  await go(page, 'Overview');
  // By keyboard from the list of commands.
  await page.keyboard.down('Control');
  await press('k');
  await page.keyboard.up('Control');
  await standsOn('Command, station, sound, device or field');
  await page.keyboard.type('Variants');
  await press('Enter');
  await find(page, 'heading', 'Variants');
  await (await field('Name of a new variant')).focus();
  await page.keyboard.type('Without the chorus');
  await press('Enter');
  await waitForText(page, '[aria-label="Variants"]', 'nothing yet: use it, and edit what is otherwise');
  expect(await textOf(page, 'header.top')).toContain('Without the chorus');
  await waitForText(page, '[aria-label="Moves"]', 'Nothing is moved between the two.');

  await go(page, 'Gear');
  await click(page, 'button', 'Inspect Chorus');
  await click(page, 'button', 'Remove Chorus');
  await saved(page);
  await waitForText(page, 'main', '5 pieces');
  await go(page, 'Overview');
  await page.goto(`${page.url()}?view=variants`);
  await waitForText(page, '[aria-label="Moves in their order"]', 'pull Switcher, Send 2');
  expect(await textOf(page, '[aria-label="Moves in their order"]')).toContain('Chorus (Board)');
  expect(await textOf(page, '[aria-label="Moves"]')).toMatch(/4 of them plugs/);
  expect(await axeFaults(page)).toEqual([]);
  await click(page, 'button', 'Print the moves');
  const pdf = await browsing.downloaded('river-moves.pdf');
  expect(pdf.subarray(0, 5).toString()).toBe('%PDF-');

  // The rig changes under it: told, and settled.
  await click(page, 'button', 'Use River');
  await go(page, 'Gear');
  await waitForText(page, 'main', '6 pieces');
  await click(page, 'button', 'Inspect Chorus');
  await go(page, 'Overview');
  await page.goto(`${page.url()}?view=variants`);
  await click(page, 'button', 'Remove the variant Without the chorus');
  await waitForText(page, 'main', 'Nothing is moved between the two.');
  await click(page, 'button', 'Undo: Remove the variant Without the chorus');
  await click(page, 'button', 'Use Without the chorus');
  await waitForText(page, '[aria-label="Moves in their order"]', 'pull Switcher, Send 2');
}, 120_000);

test('a sound that builds on another follows it; a bank of twins keeps in step, and the one that drifts is found', async () => {
  await newRig(
    'Twins',
    'guitar > switcher = loop switcher, 10 loops, inputs and outputs by slot\nswitcher 1: drive; 2: echo = delay\nswitcher > amp = valve amp one > cabinet',
  );
  await addSounds('Verse');
  await (await field('Verse, Drive L1: don’t care')).focus();
  await press('Space');
  await field('Verse, Drive L1: on');
  await page.keyboard.down('Shift');
  await press('b');
  await page.keyboard.up('Shift');
  await field('Verse 2, Drive L1: on');
  // What it has of its own is told, and an edit of its base goes into it.
  await (await field('Verse 2, Echo L2: don’t care')).focus();
  await press('Space');
  await waitForText(page, '[aria-label="What Verse 2 has of its own"]', 'Echo');
  await (await field('Verse, Drive L1: on')).focus();
  await press('Space');
  await field('Verse 2, Drive L1: off');
  expect(await axeFaults(page)).toEqual([]);

  await go(page, 'Program');
  await layOut();
  await click(page, 'button', 'A bank of twins');
  await choose(page, 'What is otherwise', 'Switcher input');
  await choose(page, 'What it is there', 'B');
  await (await field('Called')).focus();
  await page.keyboard.type('cable');
  await click(page, 'button', 'Make the twins');
  await field('2·1: Verse, cable');
  expect(await axeFaults(page)).toEqual([]);
  await go(page, 'Sounds');
  await (await field('Verse, cable, Echo L2: don’t care')).focus();
  await press('Space');
  await waitForFinding(page, 'it has Echo on rather than don’t care too.');
  await click(page, 'button', 'Put Verse, cable back to Verse there');
  await field('Verse, cable, Echo L2: don’t care');
}, 120_000);

test('the rig changes under a variant: what parts is told, and settled', async () => {
  await newRig('Ferry', 'guitar > drive > amp = valve amp one > cabinet');
  const rig = page.url();
  await page.goto(rig.replace('/gear', '/overview?view=variants'));
  await (await field('Name of a new variant')).focus();
  await page.keyboard.type('Tonight');
  await press('Enter');
  await find(page, 'combobox', 'Variant in use');
  const rename = async (from: string, to: string) => {
    await page.goto(rig);
    await click(page, 'button', `Inspect ${from}`);
    const name = await find(page, 'textbox', 'Name');
    await name.click({ count: 3 });
    await page.keyboard.type(to);
    await press('Enter');
    await seen(page, `[aria-label="Inspector: ${to}"]`);
    await saved(page);
  };
  await rename('Drive', 'Fuzz');
  await choose(page, 'Variant in use', 'the rig itself');
  await rename('Drive', 'Overdrive');
  await choose(page, 'Variant in use', 'Tonight');
  await seen(page, '[aria-label="Inspector: Fuzz"]');
  await (await seen(page, '::-p-text(1 to settle)')).click();
  await waitForText(page, '[aria-label="Differences with the rig"]', 'the rig has “Overdrive” now, the variant “Fuzz”');
  expect(await axeFaults(page)).toEqual([]);
  await click(page, 'button', 'Take the rig’s');
  await waitForText(page, '[aria-label="Variants"]', 'nothing yet: use it, and edit what is otherwise');
}, 120_000);

test('a looping station: what is recorded when is said on Set, and a press that would record over it is found', async () => {
  await newRig(
    'Loops',
    'guitar > switcher = loop switcher, 4 loops\nswitcher 1: drive\nswitcher > looper = looping station three inputs; looper out A > amp = valve amp one > cabinet\nmidi: switcher > looper',
  );
  await click(page, 'button', 'Inspect Looper');
  await click(page, 'button', 'Edit presets as a table');
  await (await field('Add presets')).focus();
  await page.keyboard.type('1');
  await press('Enter');
  await (await field('Track 1 of preset 1: unknown')).focus();
  await paste('empty\tempty\tempty\tA\tA\tA\tall');
  await field('Input of preset 1: all');
  await addSounds('Verse', 'Chorus');
  await (await field('Verse, Looper PC: –')).focus();
  await press('1', 'Enter');
  await go(page, 'Program');
  await layOut();
  await go(page, 'Set');
  await type(page, 'Add a song', 'Ferry');
  await click(page, 'button', '0 parts of Ferry');
  for (const part of ['Verse', 'Chorus']) {
    await type(page, 'Add a part to Ferry', part);
    await choose(page, `Sound for ${part}`, `${part}, 1·${part === 'Verse' ? 1 : 2}`);
    await choose(page, `Plan a foot for ${part}`, 'after: Looper, track 1');
    await choose(page, `What Looper: Track 1 after ${part} is meant for`, 'for recording');
  }
  await waitForFinding(page, 'Ferry, Chorus: Looper: Track 1 is meant for recording, and is playing');
}, 120_000);

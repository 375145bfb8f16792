import { mkdtempSync, readdirSync, readFileSync, rmSync, statSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import axe from 'axe-core';
import { findNamed } from './named.ts';
import puppeteer, { type Browser, type ElementHandle, type Page } from 'puppeteer-core';

/** Debian's Chromium over a page, driven as people do: by role and name. */
export class Browsing {
  private browser: Browser | null = null;
  private readonly profile = mkdtempSync(path.join(os.tmpdir(), 'yunta-chromium-'));
  private readonly downloads = mkdtempSync(path.join(os.tmpdir(), 'yunta-downloads-'));
  /** Every address that was asked for. */
  readonly asked: string[] = [];
  /** What went wrong in the page. */
  readonly errors: string[] = [];

  async open(): Promise<Page> {
    this.browser = await puppeteer.launch({
      executablePath: '/usr/bin/chromium',
      userDataDir: this.profile,
      defaultViewport: { width: 1280, height: 800 },
      args: [
        '--headless=new',
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--disable-dev-shm-usage',
      ],
    });
    const page = await this.newPage();
    const session = await page.createCDPSession();
    await session.send('Browser.setDownloadBehavior', { behavior: 'allow', downloadPath: this.downloads });
    return page;
  }

  /**
   * A file that the browser saved, once it is whole: it stands there empty at first. Taken away, so that the next one
   * of its name is not it.
   */
  async downloaded(name: string): Promise<Buffer> {
    const file = path.join(this.downloads, name);
    let size = 0;
    for (let i = 0; i < 200; i += 1) {
      const now = statSync(file, { throwIfNoEntry: false })?.size ?? 0;
      if (now > 0 && now === size && !readdirSync(this.downloads).some((other) => other.endsWith('.crdownload'))) {
        const content = readFileSync(file);
        rmSync(file);
        return content;
      }
      size = now;
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
    throw new Error(`${name} did not come; there are ${readdirSync(this.downloads).join(', ') || 'none'}`);
  }

  /** Another tab of the same browser, with what its profile has kept. */
  async newPage(): Promise<Page> {
    const page = await this.browser!.newPage();
    page.setDefaultTimeout(30_000);
    page.on('request', (request) => this.asked.push(request.url()));
    page.on('pageerror', (error) => this.errors.push(String(error)));
    return page;
  }

  async close(): Promise<void> {
    await this.browser?.close();
    for (const folder of [this.profile, this.downloads])
      rmSync(folder, { recursive: true, force: true, maxRetries: 5, retryDelay: 200 });
  }
}

/** What is announced with a role and a name, once it is there. */
export async function find(page: Page, role: string, name: string): Promise<ElementHandle> {
  try {
    const found = await page.waitForFunction(findNamed, { polling }, role, name);
    return found.asElement() as ElementHandle;
  } catch (reason) {
    throw new Error(`waited for ${role === '' ? 'something' : `a ${role}`} called “${name}”`, { cause: reason });
  }
}
/** Anything of a name. */
export const named = (page: Page, name: string): Promise<ElementHandle> => find(page, '', name);
/** Waits until nothing is announced so any more. */
export const gone = (page: Page, role: string, name: string): Promise<unknown> =>
  page.waitForFunction(`!(${findNamed.toString()})(${JSON.stringify(role)}, ${JSON.stringify(name)})`, { polling });
/**
 * The first that a selector finds, once there is one. Looked for again and again: a page that changes between the
 * first look and the first watch, and never after, would be waited for in vain.
 */
export async function seen(page: Page, selector: string): Promise<ElementHandle> {
  for (const end = Date.now() + page.getDefaultTimeout(); ; await pause(polling)) {
    // While the page gives way to another there is nothing to look at.
    const found = await page.$(selector).catch(() => null);
    if (found) return found;
    if (Date.now() > end) throw new Error(`waited for ${selector}`);
  }
}

/** Looked at so often, ms. */
const polling = 50;

/** Once it stands still: what comes in above it would move it from under the pointer between the look and the press. */
export async function click(page: Page, role: string, name: string): Promise<void> {
  const found = await find(page, role, name);
  await found.evaluate(async (node) => {
    const frame = () => new Promise((resolve) => requestAnimationFrame(resolve));
    node.scrollIntoView({ block: 'nearest', inline: 'nearest' });
    for (let still = 0, at = ''; still < 2;) {
      await frame();
      const { x, y, width, height } = node.getBoundingClientRect();
      const now = [x, y, width, height].join(' ');
      still = now === at ? still + 1 : 0;
      at = now;
    }
  });
  await found.click();
}

export async function type(page: Page, name: string, text: string): Promise<void> {
  const field = await named(page, name);
  await field.click();
  // What has come in above it since may have moved it from under the pointer.
  await field.focus();
  await page.keyboard.type(text);
  await page.keyboard.press('Enter');
}

/** Puts something else into a field, by keys. */
export async function retype(page: Page, name: string, text: string): Promise<void> {
  await (await find(page, 'textbox', name)).focus();
  await page.keyboard.down('Control');
  await page.keyboard.press('a');
  await page.keyboard.up('Control');
  await page.keyboard.type(text);
  await page.keyboard.press('Enter');
}

/** Opens the list of a choice and picks from it, as people do: by typing what it is called. */
export async function choose(page: Page, label: string, option: string): Promise<void> {
  await (await find(page, 'combobox', label)).focus();
  await page.keyboard.press('Enter');
  await named(page, `Find: ${label}`);
  await page.keyboard.type(option);
  await find(page, 'option', option);
  await page.keyboard.press('Enter');
  await gone(page, '', `Find: ${label}`);
}

/** What a choice shows. */
export const chosen = (page: Page, label: string): Promise<string> =>
  find(page, 'combobox', label).then((field) => field.evaluate((node) => node.textContent ?? ''));

/** To a station, by its link in the list of stations. */
export async function go(page: Page, station: string): Promise<void> {
  await find(page, 'navigation', 'Stations');
  await page.evaluate((name) => {
    const links = [...document.querySelectorAll<HTMLElement>('nav[aria-label="Stations"] a')];
    links.find((link) => link.textContent!.startsWith(name))!.click();
  }, station);
  await find(page, 'heading', station);
}

/** Waits until something is said: an alert or a status that holds some words. */
export async function waitForSaid(page: Page, role: 'alert' | 'status', words: string): Promise<void> {
  try {
    await page.waitForFunction(
      (which, what) =>
        [...document.querySelectorAll(`[role="${which}"]`)].some((node) => node.textContent!.includes(what)),
      { polling },
      role,
      words,
    );
  } catch {
    const said = await page.$$eval(`[role="${role}"]`, (nodes) => nodes.map((node) => node.textContent).join(' | '));
    throw new Error(`waited for "${words}" to be said as ${role}; said is: ${said}`);
  }
}

const findingsButton = '::-p-xpath(//header//button[starts-with(normalize-space(.), "Findings")])';

/** Waits until the count of findings holds some words. */
export async function waitForCount(page: Page, words: string): Promise<void> {
  await seen(page, `::-p-xpath(//header//button[starts-with(., "Findings") and contains(., "${words}")])`);
}

/** Opens the findings, if they are shut, and waits until they hold some words. */
export async function waitForFinding(page: Page, words: string): Promise<void> {
  await seen(page, findingsButton);
  const button = (await page.$(findingsButton))!;
  if ((await button.evaluate((node) => node.getAttribute('aria-expanded'))) === 'false') await button.click();
  await waitForText(page, 'section[aria-label="Findings"]', words);
}

/** How many recall, as the table of verdicts says of a level. */
export const waitForVerdict = (page: Page, level: string, words: string): Promise<void> =>
  page
    .waitForFunction(
      (name, what) =>
        [...document.querySelectorAll('table[aria-label="Verdicts by level"] tr')].some(
          (row) => row.querySelector('th')!.textContent!.trim() === name && row.textContent!.includes(what),
        ),
      { polling },
      level,
      words,
    )
    .then(() => undefined);

export const focusedName = (page: Page): Promise<string | null> =>
  page.evaluate(() => document.activeElement?.getAttribute('aria-label') ?? null);

export const textOf = (page: Page, selector: string): Promise<string> =>
  page.$eval(selector, (node) => node.textContent ?? '');

/** Waits until the text of a place holds some words; says what it held where it does not. */
export async function waitForText(page: Page, selector: string, words: string): Promise<void> {
  try {
    await page.waitForFunction(
      (where, what) => document.querySelector(where)?.textContent?.includes(what) ?? false,
      { polling },
      selector,
      words,
    );
  } catch {
    throw new Error(
      `waited for "${words}" in ${selector}, which holds: ${await page.$eval(selector, (node) => node.textContent).catch(() => 'nothing')}`,
    );
  }
}

export const saved = (page: Page): Promise<unknown> => seen(page, '[data-saving="saved"]');

/** Violations of WCAG 2.2 AA that axe sees, as short sentences. */
export async function axeFaults(page: Page): Promise<readonly string[]> {
  await page.evaluate(axe.source);
  const { violations } = await page.evaluate(() =>
    (globalThis as unknown as { axe: typeof axe }).axe.run(document, {
      runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'],
    }),
  );
  return violations.map(
    (violation) =>
      `${violation.id}: ${violation.nodes
        .map((node) => node.html.slice(0, 160))
        .slice(0, 4)
        .join(' | ')}`,
  );
}

import { afterAll, beforeAll, jest } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import { Browsing } from './browsing.ts';
import { Running } from './running.ts';

/**
 * A server with a database of its own and a page in a browser, for the tests of one file. `use` is given the page
 * once both are up; `seconds`: how long a test may take.
 */
export function opened(
  use: (page: Page) => void,
  seconds = 120,
): { readonly running: Running; readonly browsing: Browsing } {
  jest.setTimeout(seconds * 1_000);
  const running = new Running();
  const browsing = new Browsing();
  beforeAll(async () => {
    await running.start();
    use(await browsing.open());
  });
  afterAll(async () => {
    await browsing.close();
    await running.stop();
  });
  return { running, browsing };
}

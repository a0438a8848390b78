import { expect, test as base, type Page } from '@playwright/test';
import type { Job, JobList } from '../contract/job/records.ts';
import { rememberSocket } from './go-to.ts';
import { KeptPage } from './kept-page.ts';
import { recordedOnce, type Recipe } from './recordings.ts';
import { Suvok, type ServerAs } from './running-suvok.ts';

/** A Suvok that some runs were recorded with before. */
export interface Recorded {
  suvok: Suvok;
  job: Job;
}

/**
 * A test with a Suvok of its own, empty or with a job recorded once for all tests; in the page that its
 * worker keeps, or where `ownPage` is set in one of its own. Anything on the browser's console that is an error fails it.
 */
export const test = base.extend<
  {
    suvok: Suvok;
    serverAs: ServerAs;
    ownPage: boolean;
    recorded: (recipe: Recipe) => Promise<Recorded>;
    consoleErrors: string[];
  },
  { kept: KeptPage }
>({
  kept: [
    async ({ browser }, use) => {
      const kept = await KeptPage.open(browser);
      await kept.context.addInitScript(readCautions);
      await kept.context.addInitScript(rememberSocket);
      await use(kept);
      await kept.close();
    },
    { scope: 'worker' },
  ],
  ownPage: [false, { option: true }],
  context: async ({ kept, ownPage, browser, viewport, colorScheme, hasTouch }, use) => {
    if (!ownPage) return use(kept.context);
    const context = await browser.newContext({ viewport, colorScheme, hasTouch });
    await context.addInitScript(readCautions);
    await use(context);
    await context.close();
  },
  serverAs: ['part of the test', { option: true }],
  recorded: async ({ serverAs, kept }, use) => {
    const ends: (() => Promise<void>)[] = [];
    await use(async (recipe) => {
      const database = await recordedOnce(recipe);
      const port = await kept.takePort();
      const suvok = await Suvok.start(serverAs, port, database);
      ends.push(async () => kept.givePort(port, await suvok.stop()));
      const { jobs } = await suvok.ask<JobList>('GET', '/jobs');
      return { suvok, job: await suvok.ask<Job>('GET', `/jobs/${jobs[0]!.id}`) };
    });
    for (const end of ends) await end();
  },
  suvok: async ({ serverAs, kept }, use) => {
    const port = await kept.takePort();
    const suvok = await Suvok.start(serverAs, port);
    await use(suvok);
    kept.givePort(port, await suvok.stop());
  },
  consoleErrors: [
    async ({ page }, use) => {
      const errors: string[] = [];
      page.on('pageerror', (error) => errors.push(error.message));
      page.on('console', (message) => {
        // A refused request is said on screen; the browser notes it as well.
        if (message.type() === 'error' && !/Failed to load resource|WebSocket/.test(message.text()))
          errors.push(message.text());
      });
      await use(errors);
      expect(errors).toEqual([]);
    },
    { auto: true },
  ],
  page: async ({ kept, ownPage, context }, use, { status, expectedStatus }) => {
    if (ownPage) return use(await context.newPage());
    await use(await kept.page());
    await kept.clean(status !== expectedStatus);
  },
});

/** The cautions have a test of their own; elsewhere they have been read. */
function readCautions(): void {
  const key = 'suvok-preferences';
  if (!localStorage.getItem(key))
    localStorage.setItem(key, JSON.stringify({ state: { cautionsRead: true }, version: 0 }));
}

/** The gain table as the page shows it: row id → the texts of its cells. */
export async function tableOf(page: Page): Promise<Record<string, string[]>> {
  await expect(page.getByTestId('gain-table')).toBeVisible();
  return page
    .getByTestId('gain-table')
    .evaluate((table) =>
      Object.fromEntries(
        [...table.querySelectorAll<HTMLElement>('tr[data-row]')].map((row) => [
          row.dataset.row!,
          [...row.querySelectorAll('td')].map((cell) => cell.textContent.trim()),
        ]),
      ),
    );
}

export { expect, Suvok };

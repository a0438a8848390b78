import { expect, test as base, type Page } from '@playwright/test';
import type { Job } from '../contract/job/records.ts';
import { Recordings, type Recipe } from './recordings.ts';
import { Suvok, type ServerAs } from './running-suvok.ts';

/** A Suvok that some runs were recorded with before. */
export interface Recorded {
  suvok: Suvok;
  job: Job;
}

/** A test with a Suvok of its own, empty or with a job recorded once for all tests of a worker; anything on the browser's console that is an error fails it. */
export const test = base.extend<
  { suvok: Suvok; serverAs: ServerAs; recorded: (recipe: Recipe) => Promise<Recorded>; consoleErrors: string[] },
  { recordings: Recordings }
>({
  recordings: [
    async ({}, use) => {
      const recordings = new Recordings();
      await use(recordings);
      await recordings.drop();
    },
    { scope: 'worker' },
  ],
  serverAs: ['part of the test', { option: true }],
  recorded: async ({ recordings, serverAs }, use) => {
    const started: Suvok[] = [];
    await use(async (recipe) => {
      const { database, jobId } = await recordings.of(recipe);
      const suvok = await Suvok.start(serverAs, database);
      started.push(suvok);
      return { suvok, job: await suvok.ask<Job>('GET', `/jobs/${jobId}`) };
    });
    for (const suvok of started) await suvok.stop();
  },
  suvok: async ({ serverAs }, use) => {
    const suvok = await Suvok.start(serverAs);
    await use(suvok);
    await suvok.stop();
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
  page: async ({ page }, use) => {
    // The cautions have a test of their own; elsewhere they have been read.
    await page.context().addInitScript(() => {
      const key = 'suvok-preferences';
      if (!localStorage.getItem(key))
        localStorage.setItem(key, JSON.stringify({ state: { cautionsRead: true }, version: 0 }));
    });
    await use(page);
  },
});

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

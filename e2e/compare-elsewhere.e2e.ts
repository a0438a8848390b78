import type { Page } from '@playwright/test';
import type { Job } from '../contract/records.ts';
import { expect, tableOf, test, type Suvok } from './suvok.ts';

/** A second job with two runs, of the same vehicle or of another. */
async function secondJob(suvok: Suvok, vehicle?: string): Promise<Job> {
  await suvok.startStandIns('fast');
  const job = await suvok.mountedJob(vehicle);
  await suvok.record(job, 2);
  return suvok.ask<Job>('GET', `/jobs/${job.id}`);
}

async function openElsewhere(page: Page): Promise<void> {
  await page.getByRole('button', { name: /^Compare against/ }).click();
  await page.getByRole('button', { name: 'From elsewhere…' }).click();
}

test('another visit of the same vehicle is laid beside, with where it comes from, and a link shows it again', async ({
  page,
  recorded,
}) => {
  const { suvok, job } = await recorded('two-setups');
  const other = await secondJob(suvok);
  await page.goto(`${suvok.origin}/jobs/${other.id}/compare?smoothing=300`);
  await openElsewhere(page);
  await page.getByRole('radio', { name: new RegExp(`^Job ${job.id},`) }).check();
  await expect(page.getByTestId('sentence')).toContainText(`A of job ${job.id}`);
  await page.getByRole('radio', { name: /^B, intake trumpets/ }).check();
  await page.keyboard.press('Escape');
  await expect(page).toHaveURL(new RegExp(`from=${job.id}\\.B`));
  await expect(page.getByTestId('sentence')).toContainText(`B of job ${job.id}`);
  await expect(page.getByText(/comes from elsewhere: setup B of job \d+, intake trumpets/)).toBeVisible();
  await expect(page.getByRole('img', { name: new RegExp(`^Power of B of job ${job.id}, A over`) })).toBeVisible();
  // This job's own column tells nothing of it.
  await expect(page.getByRole('complementary', { name: 'Setups' })).not.toContainText('of job');
  const table = await tableOf(page);
  const fresh = await (await page.context().browser()!.newContext()).newPage();
  await fresh.goto(page.url());
  expect(await tableOf(fresh)).toEqual(table);
  await fresh.context().close();
});

test('another vehicle withholds the verdict and says why', async ({ page, recorded }) => {
  const { suvok, job } = await recorded('two-setups');
  const other = await secondJob(suvok, 'Ostrel 990 twin');
  await page.goto(`${suvok.origin}/jobs/${other.id}/compare?smoothing=300`);
  await openElsewhere(page);
  await page.getByRole('combobox', { name: 'Another vehicle’s job' }).fill('Tarrow');
  await page.getByRole('option', { name: /Tarrow Six/ }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByText('The runs are of different vehicles: Ostrel 990 twin and Tarrow Six')).toBeVisible();
  await expect(page.getByTestId('sentence')).toContainText(/not like for like, .*: no verdict/);
  await expect(page.locator('[data-testid=gain-table] .gain, [data-testid=gain-table] .loss')).toHaveCount(0);
  // A job that is not there is said, and the parent is one press away.
  await page.goto(`${suvok.origin}/jobs/${job.id}/compare?smoothing=300&from=99999`);
  await expect(page.getByRole('alert')).toContainText('Job 99999 cannot be laid beside');
  await page.getByRole('button', { name: 'compare with its parent' }).click();
  await expect(page.getByRole('alert')).toHaveCount(0);
  await expect(page.getByTestId('sentence')).toContainText('A');
});

test('a borrowed curve is pasted with its origin, drawn beside, and never judged', async ({ page, recorded }) => {
  const { suvok, job } = await recorded('two-setups');
  await page.goto(`${suvok.origin}/jobs/${job.id}/compare?smoothing=300`);
  await openElsewhere(page);
  await page.getByRole('button', { name: 'Borrow a curve…' }).click();
  await page.getByLabel('Name', { exact: true }).fill('maker’s sheet');
  await page.getByLabel('Its points').fill('rpm kW\n3000 47\n4000 6x\n5000 90');
  await page.getByRole('button', { name: 'Lay it beside' }).click();
  await expect(page.getByText('Say where it comes from: a curve of unknown origin is worth nothing.')).toBeVisible();
  await expect(page.getByText('Line 3, “4000 6x”, is not an engine speed and a power')).toBeVisible();
  await page.getByLabel('Where it comes from').fill('brochure, read off the print');
  await page.getByLabel('Its points').fill('rpm kW\n3000 47\n4000 67\n5000 90');
  await page.getByRole('button', { name: 'Lay it beside' }).click();
  await expect(page).toHaveURL(/from=curve-\d+/);
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('sentence')).toContainText(
    /^B reads [+−]\d+\.\d kW against maker’s sheet from 3,000 to 5,000 rpm/,
  );
  await expect(page.getByText('brochure, read off the print').first()).toBeVisible();
  await expect(page.locator('[data-testid=gain-table] i').filter({ hasText: '±' })).toHaveCount(0);
  await expect(page.getByRole('img', { name: /^Power of A, maker’s sheet, B over/ })).toBeVisible();
});

test('an earlier version of the frozen baseline is shown as it was', async ({ page, recorded }) => {
  const { suvok, job } = await recorded('two-setups');
  const [a, b] = job.setups.map(({ id }) => id);
  const runsOfA = job.runs.filter((run) => run.setupId === a).map(({ id }) => id);
  await suvok.ask('POST', `/jobs/${job.id}/baseline`, { setupId: a, runIds: runsOfA.slice(0, 2), why: 'first two' });
  await suvok.ask('POST', `/jobs/${job.id}/baseline`, { setupId: a, runIds: runsOfA, why: 'a third run' });
  expect(b).toBeDefined();
  await page.goto(`${suvok.origin}/jobs/${job.id}/compare?smoothing=300`);
  const now = (await tableOf(page)).common!;
  await page.getByRole('button', { name: 'Baseline: A, frozen v2' }).click();
  await page.getByRole('radio', { name: 'Version 1' }).check();
  await page.keyboard.press('Escape');
  await expect(page).toHaveURL(/version=1/);
  await expect(page.getByRole('button', { name: 'Baseline: A, frozen v1' })).toBeVisible();
  await expect(
    page.getByText('The baseline shown is version 1 (A1 A2), which version 2 has replaced: a third run.'),
  ).toBeVisible();
  await expect.poll(async () => (await tableOf(page)).common![0]).not.toBe(now[0]);
});

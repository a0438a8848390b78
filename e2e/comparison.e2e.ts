import { execFile } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import type { ComparisonJson } from '../contract/comparison.ts';
import { expect, tableOf, test } from './suvok.ts';

const gainOf = (cells: string[]) => Number(/[+−-]?[\d.]+/.exec(cells[2]!)![0].replace('−', '-'));

test('swapping the two sides flips every sign', async ({ page, recorded }) => {
  const { suvok, job } = await recorded('two-setups');
  await page.goto(`${suvok.origin}/jobs/${job.id}/compare?at=5600&band=5000-6500&smoothing=300`);
  const there = await tableOf(page);
  await page.getByRole('button', { name: 'Swap the two sides' }).click();
  await expect(page).toHaveURL(/setup=A.*against=B|against=B.*setup=A/);
  await expect.poll(async () => gainOf((await tableOf(page)).band!)).toBeCloseTo(-gainOf(there.band!), 5);
  const back = await tableOf(page);
  for (const row of ['band', 'common', 'at-speed', 'peak-power', 'torque-at-speed', 'peak-torque']) {
    expect(gainOf(back[row]!)).toBeCloseTo(-gainOf(there[row]!), 5);
  }
  // Whether the gain is clear of scatter is these runs' luck; whose it is, and which way, is not.
  await expect(page.getByTestId('sentence')).toContainText(
    /^A (makes .* less than|is within repeatability of|reads −.*) /,
  );
  await expect(page.getByTestId('sentence')).toContainText(/\bB\b.*from 5,000 to 6,500 rpm/);
});

test('a setup against itself claims nothing, and a run set aside is out of every figure at once', async ({
  page,
  suvok,
}) => {
  await suvok.startStandIns('fast');
  const job = await suvok.mountedJob();
  await suvok.record(job, 5);
  await page.goto(`${suvok.origin}/jobs/${job.id}/compare?smoothing=300`);
  await page.getByRole('button', { name: /^Compare against/ }).click();
  await page.getByRole('button', { name: 'A against itself' }).click();
  await page.keyboard.press('Escape');
  await expect(page).toHaveURL(/runs=A3\.A4\.A5/);
  const sentence = page.getByTestId('sentence');
  await expect(sentence).toContainText('within repeatability');
  await expect(page.locator('[data-testid=sentence] .gain, [data-testid=sentence] .loss')).toHaveCount(0);
  await expect(page.locator('[data-testid=gain-table] .gain, [data-testid=gain-table] .loss')).toHaveCount(0);
  const before = (await tableOf(page)).common!;
  await page.getByRole('button', { name: /^Run A5/ }).click();
  await page.getByLabel('Set aside because').fill('visitor at the fan');
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await tableOf(page)).common).not.toEqual(before);
  await expect(sentence).toContainText('A3, A4');
  await expect(sentence).not.toContainText('A5');
});

test('what the runs can show, what they differ in, and the points behind the line', async ({ page, recorded }) => {
  const { suvok, job } = await recorded('two-setups');
  await page.goto(`${suvok.origin}/jobs/${job.id}/compare`);
  await expect(page.getByText(/is found four times in five/)).toBeVisible();
  await expect(page.getByText(/With drift from run to run taken out/)).toBeVisible();
  await expect(page.getByText(/baseline was not repeated after the change/)).toBeVisible();
  await expect(page.getByText(/Return to the earlier setup/)).toBeVisible();
  await page.getByRole('button', { name: /^Smoothing/ }).click();
  await expect(page.getByText(/At the peak of B a third of the span would read/)).toBeVisible();
  await page.getByRole('switch', { name: 'Show the unsmoothed points' }).click();
  await expect(page).toHaveURL(/raw=1/);
});

test('the page and the command line make the same comparison', async ({ page, recorded }) => {
  const { suvok, job } = await recorded('two-setups');
  const { runs } = job;
  const folder = mkdtempSync(join(tmpdir(), 'suvok-e2e-'));
  const ask = async (path: string) => (await fetch(`${suvok.origin}/api/runs/${path}`)).text();
  for (const run of runs) {
    writeFileSync(join(folder, `${run.label}.csv`), await ask(`${run.id}/run.csv`));
    writeFileSync(join(folder, `${run.label}.air.json`), await ask(`${run.id}/air.json`));
  }
  writeFileSync(join(folder, 'dyno.json'), await ask(`${runs[0]!.id}/dyno.json`));
  const of = (letter: string) => [1, 2, 3].map((number) => join(folder, `${letter}${number}.csv`));
  const words = ['--baseline', ...of('A'), '--test', ...of('B'), '--dyno', join(folder, 'dyno.json')];
  const { stdout } = await promisify(execFile)(
    process.execPath,
    ['--import', 'tsx', 'cli/main.ts', 'compare', ...words, '--band', '5000-6500', '--smoothing', '300'],
    { maxBuffer: 1e7 },
  );
  const found = JSON.parse(stdout) as ComparisonJson;
  await page.goto(`${suvok.origin}/jobs/${job.id}/compare?band=5000-6500&smoothing=300`);
  const { band, 'peak-power': peak } = await tableOf(page);
  const { meanKw, highKw } = found.bands[0]!;
  expect(gainOf(band!)).toBeCloseTo(Number(meanKw!.toFixed(1)), 5);
  expect(band![2]).toContain(`±${(highKw! - meanKw!).toFixed(1)}`);
  expect(Number(peak![1])).toBeCloseTo(Number(found.peaks.test.kw!.toFixed(1)), 5);
});

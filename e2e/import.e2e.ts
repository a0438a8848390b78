import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { writeRecordingCsv } from '../core/exchange/write-csv.ts';
import { generatedRun } from '../core/testing/generated-run.ts';
import { testDyno } from '../core/testing/test-car.ts';
import { expect, test } from './suvok.ts';

const folder = mkdtempSync(join(tmpdir(), 'suvok-import-'));
const file = (name: string, content: string) => {
  writeFileSync(join(folder, name), content);
  return join(folder, name);
};

test('a recording that other instruments made comes in with its dyno and air', async ({ page, suvok }) => {
  const job = await suvok.mountedJob();
  await page.goto(`${suvok.origin}/jobs/${job.id}/compare`);
  await page.getByRole('button', { name: 'Import a recording' }).click();
  const name = 'core/testing/cases/inertia-roller-petrol';
  await page.locator('input[type=file]').setInputFiles([`${name}/run.csv`, `${name}/dyno.json`, `${name}/air.json`]);
  await expect(page.getByText('4124 samples over 20.6 s; rollerSpeed, engineSpeed.')).toBeVisible();
  await page.getByRole('button', { name: 'Import', exact: true }).click();
  await expect(page.getByText('Imported as A1.')).toBeVisible();
  const truth = readFileSync(`${name}/truth.csv`, 'utf8')
    .trim()
    .split('\n')
    .slice(1)
    .map((line) => line.split(',').map(Number));
  const peakKw = Math.max(...truth.map(([, kw]) => kw!));
  const setup = page.getByText(/^peak \d/);
  await expect(setup).toBeVisible();
  // The air of the case is corrected by ×0.9926.
  expect(Number(/peak ([\d.]+)/.exec(await setup.innerText())![1]) / (peakKw * 0.9926)).toBeCloseTo(1, 2);
});

test('what is exported comes back as the same figures', async ({ page, suvok }) => {
  await suvok.startStandIns('fast');
  const job = await suvok.mountedJob();
  await suvok.record(job, 1);
  await page.goto(`${suvok.origin}/jobs/${job.id}/compare`);
  await page.getByRole('button', { name: 'Run A1, counted' }).click();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Export CSV' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('A1.csv');
  const exported = join(folder, 'A1.csv');
  await download.saveAs(exported);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Import a recording' }).click();
  await page.locator('input[type=file]').setInputFiles(exported);
  await expect(page.getByText('The air is in the recording’s own columns.')).toBeVisible();
  await page.getByRole('button', { name: 'Import', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Run A2, counted' })).toBeVisible();
  const [a1, a2] = await suvok.runs(job);
  const curve = (id: number) => suvok.ask('GET', `/runs/${id}/curve`);
  expect(await curve(a2!.id)).toEqual(await curve(a1!.id));
});

test('files that cannot be used are refused with a sentence, and a ratio is asked for where there is no pickup', async ({
  page,
  suvok,
}) => {
  const job = await suvok.mountedJob();
  await page.goto(`${suvok.origin}/jobs/${job.id}/compare`);
  await page.getByRole('button', { name: 'Import a recording' }).click();
  const drop = (...paths: string[]) => page.locator('input[type=file]').setInputFiles(paths);
  await drop(file('notes.csv', 'just words\nand more words\n'));
  await expect(page.getByText('notes.csv: The file has no "time" column')).toBeVisible();
  await drop(file('odd.json', '{"colour": "red"}'));
  await expect(page.getByText(/odd\.json is neither a dyno nor air/)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Import', exact: true })).toBeDisabled();
  await drop(
    file('run.csv', writeRecordingCsv(generatedRun({ pickup: false })).replace(/^0\.5,.*$/m, '0.5,oops')),
    file('dyno.json', JSON.stringify(testDyno)),
  );
  await expect(page.getByText('1 row was left out: a needed cell held no number.')).toBeVisible();
  await expect(page.getByText('No air was given')).toBeVisible();
  await page.getByLabel('Engine speed ÷ drum speed').fill('3.4');
  await page.getByRole('button', { name: 'Import', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Run A1, counted' })).toBeVisible();
  await expect(page.getByText('stands by itself').first()).toBeVisible();
  await expect(page.getByText(/A1: No air was recorded with this run/)).toBeVisible();
});

test('a large recording is told as it goes; cancelled, nothing of it is stored, and it may be sent again', async ({
  page,
  suvok,
}) => {
  test.setTimeout(90_000);
  const job = await suvok.mountedJob();
  const run = generatedRun({ rateHz: 2000, coastS: 60, speedNoise: 0.01 });
  const more = Array.from({ length: 13 }, (_, at) => ({
    name: `more${at}`,
    unit: 'V',
    values: run.channels[0]!.values,
  }));
  const large = file('large.csv', writeRecordingCsv({ ...run, channels: [...run.channels, ...more] }));
  await page.goto(`${suvok.origin}/jobs/${job.id}/compare`);
  await page.getByRole('button', { name: 'Import a recording' }).click();
  await page.locator('input[type=file]').setInputFiles([large, file('dyno.json', JSON.stringify(testDyno))]);
  await expect(page.getByText('large.csv is being looked at.')).toBeVisible();
  await page.getByRole('button', { name: 'Import', exact: true }).click();
  await expect(page.getByRole('progressbar', { name: 'How far the import is' })).toBeVisible();
  await expect(page.getByText(/^(Sending the file|Reading it): \d+ %$/)).toBeVisible();
  await page.getByRole('button', { name: 'Cancel the import' }).click();
  await expect(page.getByText('Cancelled. Nothing was stored.')).toBeVisible();
  expect(await suvok.runs(job)).toEqual([]);
  await page.getByRole('button', { name: 'Import', exact: true }).click();
  await expect(page.getByText('Imported as A1.')).toBeVisible({ timeout: 30_000 });
  expect(await suvok.runs(job)).toHaveLength(1);
});

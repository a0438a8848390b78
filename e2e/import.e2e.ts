import { goTo } from './go-to.ts';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { writeRecordingCsv } from '../core/exchange/recordings/write-csv.ts';
import { generatedRun } from '../core/testing/generated-run.ts';
import { steppedDyno, steppedRatio, steppedRun } from '../core/testing/stepped-run.ts';
import { testDyno } from '../core/testing/test-car.ts';
import { expect, test } from './suvok.ts';

const folder = mkdtempSync(join(tmpdir(), 'suvok-import-'));
const file = (name: string, content: string) => {
  writeFileSync(join(folder, name), content);
  return join(folder, name);
};

test(
  'a recording that other instruments made comes in with its dyno and air',
  { tag: '@long' },
  async ({ page, suvok }) => {
    const job = await suvok.mountedJob();
    await goTo(page, `${suvok.origin}/jobs/${job.id}/compare`);
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
  },
);

test('what is exported comes back as the same figures', { tag: '@long' }, async ({ page, suvok }) => {
  await suvok.startStandIns('fast');
  const job = await suvok.mountedJob();
  await suvok.record(job, 1);
  await goTo(page, `${suvok.origin}/jobs/${job.id}/compare`);
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
  await goTo(page, `${suvok.origin}/jobs/${job.id}/compare`);
  await page.getByRole('button', { name: 'Import a recording' }).click();
  const drop = (...paths: string[]) => page.locator('input[type=file]').setInputFiles(paths);
  await drop(file('notes.csv', 'just words\nand more words\n'));
  await expect(page.getByRole('listitem').filter({ hasText: 'notes.csv' })).toContainText(
    'The file has no "time" column',
  );
  await drop(file('odd.json', '{"colour": "red"}'));
  await expect(page.getByText(/odd\.json is neither a dyno nor air/)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Import', exact: true })).toBeDisabled();
  await page.getByRole('button', { name: 'Take away notes.csv' }).click();
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

test(
  'a large recording is told as it goes; cancelled, nothing of it is stored, and it may be sent again',
  { tag: '@long' },
  async ({ page, suvok }) => {
    const job = await suvok.mountedJob();
    const run = generatedRun({ rateHz: 2000, coastS: 60, speedNoise: 0.01 });
    const more = Array.from({ length: 13 }, (_, at) => ({
      name: `more${at}`,
      unit: 'V',
      values: run.channels[0]!.values,
    }));
    const large = file('large.csv', writeRecordingCsv({ ...run, channels: [...run.channels, ...more] }));
    await goTo(page, `${suvok.origin}/jobs/${job.id}/compare`);
    await page.getByRole('button', { name: 'Import a recording' }).click();
    await page.locator('input[type=file]').setInputFiles([large, file('dyno.json', JSON.stringify(testDyno))]);
    await expect(page.getByText('It is being looked at.')).toBeVisible();
    await page.getByRole('button', { name: 'Import', exact: true }).click();
    await expect(page.getByRole('progressbar', { name: 'How far the import is' })).toBeVisible();
    await expect(page.getByText(/^(Sending the file|Reading it): \d+ %$/)).toBeVisible();
    await page.getByRole('button', { name: 'Cancel the import' }).click();
    await expect(page.getByText('Cancelled. Nothing was stored.')).toBeVisible();
    expect(await suvok.runs(job)).toEqual([]);
    await page.getByRole('button', { name: 'Import', exact: true }).click();
    await expect(page.getByText('Imported as A1.')).toBeVisible();
    expect(await suvok.runs(job)).toHaveLength(1);
  },
);

test(
  'two visits in one batch keep their days, holds are no power runs, and what a run was made under is put right',
  { tag: '@long' },
  async ({ page, suvok }) => {
    const job = await suvok.mountedJob();
    await goTo(page, `${suvok.origin}/jobs/${job.id}/compare`);
    await page.getByRole('button', { name: 'Import a recording' }).click();
    const pull = (seed: number) =>
      writeRecordingCsv(generatedRun({ seed, speedNoise: 0.01, dyno: steppedDyno, ratio: steppedRatio }));
    const holds = writeRecordingCsv(steppedRun({ speedsRpm: [2500, 3000, 3500, 4000], dwellS: 4 }));
    await page
      .locator('input[type=file]')
      .setInputFiles([
        file('march.csv', pull(1)),
        file('may.csv', pull(2)),
        file('holds.csv', holds),
        file('dyno.json', JSON.stringify(steppedDyno)),
        file('air.json', JSON.stringify({ temperatureC: 20, pressureHpa: 1000, relativeHumidityPct: 50 })),
      ]);
    const row = (name: string) => page.getByRole('listitem').filter({ hasText: name }).getByLabel('Recorded');
    await row('march.csv').fill('2026-03-02T10:00');
    await row('may.csv').fill('2026-05-04T16:30');
    await row('holds.csv').fill('2026-05-04T16:50');
    await page.getByLabel('Gear').fill('4th');
    await page.getByLabel('Engine speed ÷ drum speed').fill(String(steppedRatio));
    await page.getByRole('button', { name: 'Import', exact: true }).click();
    await expect(page.getByText('Imported as A1, A2 and A3, steady-speed steps.')).toBeVisible();
    const [march, may] = await suvok.runs(job);
    expect([march!.gear, march!.startedAt.slice(0, 10), may!.startedAt.slice(0, 10)]).toEqual([
      '4th',
      '2026-03-02',
      '2026-05-04',
    ]);

    // Everything that it was made under in one form, by the keyboard too.
    await page.getByRole('button', { name: 'Run A2, counted' }).click();
    await page.getByRole('button', { name: 'Made under…' }).click();
    const form = page.getByRole('dialog', { name: 'What A2 was made under' });
    await form.getByLabel('Tyres', { exact: true }).fill('slicks');
    await form.getByLabel('Pressure hPa').fill('1020');
    await form.getByLabel('Pressure is').selectOption('at sea level');
    await form.getByRole('button', { name: 'Put right' }).click();
    await expect(form.getByRole('alert')).toContainText('takes the height of the place');
    await form.getByLabel('Height of the place').fill('400');
    await form.getByLabel('Moisture by').selectOption('dew point');
    await form.getByLabel('Dew point').fill('25');
    await page.keyboard.press('Enter');
    await expect(form.getByRole('alert')).toContainText('dew point lies above the air temperature');
    await form.getByLabel('Dew point').fill('9');
    await page.keyboard.press('Enter');
    await expect(form).toBeHidden();
    const [, put] = await suvok.runs(job);
    expect(put).toMatchObject({ tyres: 'slicks', given: { air: { pressureHpa: 1000 } } });
    expect(put!.air!.pressureHpa).toBeCloseTo(972.6, 0);
    // What was recorded first stands beside it, the timeline tells of it, and it is undone by the key.
    await page.getByRole('button', { name: 'Run A2, counted' }).click();
    await page.getByRole('button', { name: 'Made under…' }).click();
    await expect(form).toContainText('Recorded first: 20.0 °C, 1,000 hPa, 50 %');
    await page.keyboard.press('Escape');
    await page.getByRole('link', { name: /^Brief/ }).click();
    await page.getByText('History', { exact: true }).click();
    await expect(page.getByText('A2 put right: air, tyres')).toBeVisible();
    await page.keyboard.press('Control+z');
    await expect.poll(async () => (await suvok.runs(job))[1]!.tyres).toBeNull();
  },
);

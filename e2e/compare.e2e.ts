import { goTo } from './go-to.ts';
import { execFile } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import type { CurveJson } from '../contract/files/curve.ts';
import { expect, tableOf, test } from './suvok.ts';

const figure = (cell: string) => Number(/[\d.]+/.exec(cell)![0]);

test('every figure follows the standard, the smoothing, the units and the band', async ({ page, recorded }) => {
  const { suvok, job } = await recorded('two-setups');
  await goTo(page, `${suvok.origin}/jobs/${job.id}/compare?at=5200`);
  const usual = await tableOf(page);

  await page.getByRole('button', { name: /Correction standard/ }).click();
  await page.getByRole('radio', { name: /SAE J607/ }).check();
  await page.keyboard.press('Escape');
  await expect(page).toHaveURL(/standard=std-j607/);
  await expect
    .poll(async () => figure((await tableOf(page)).common![0]!) / figure(usual.common![0]!))
    .toBeGreaterThan(1.03);
  const other = await tableOf(page);
  expect(figure(other['at-speed']![0]!)).toBeGreaterThan(figure(usual['at-speed']![0]!) * 1.03);
  expect(figure(other['peak-torque']![1]!)).toBeGreaterThan(figure(usual['peak-torque']![1]!) * 1.03);

  await page.getByRole('button', { name: /^Smoothing/ }).click();
  await page.getByRole('slider', { name: 'Smoothing span' }).press('Home');
  await expect(page).toHaveURL(/smoothing=0/);
  await expect.poll(async () => (await tableOf(page))['peak-power']).not.toEqual(other['peak-power']);
  await page.getByRole('button', { name: 'Auto', exact: true }).click();
  await page.keyboard.press('Escape');
  await expect.poll(async () => (await tableOf(page))['peak-power']).toEqual(other['peak-power']);

  await page.getByRole('button', { name: /Unit of power/ }).click();
  await page.getByRole('radio', { name: 'hp' }).check();
  await page.keyboard.press('Escape');
  await expect
    .poll(async () => figure((await tableOf(page)).common![0]!) / figure(other.common![0]!))
    .toBeCloseTo(1 / 0.7457, 2);
  expect((await tableOf(page))['peak-torque']).toEqual(other['peak-torque']);
  await expect(page.getByTestId('sentence')).toContainText('hp');

  await page.getByRole('button', { name: /Range that the sentence/ }).click();
  await page.getByLabel('from, rpm').fill('5000');
  await page.getByLabel('to, rpm').fill('6500');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  // Whether it is clear of scatter is these runs' luck; what it is about is not.
  await expect(page.getByTestId('sentence')).toContainText(/^B (makes|is within|reads).*from 5,000 to 6,500 rpm/);

  // The address holds all of it: a browser that knows nothing shows the same.
  const table = await tableOf(page);
  const fresh = await (await page.context().browser()!.newContext()).newPage();
  await fresh.goto(page.url());
  expect(await tableOf(fresh)).toEqual(table);
  await fresh.context().close();
});

test('the crosshair is moved by pointer and keys, and its values stand in the gutter', async ({ page, recorded }) => {
  const { suvok, job } = await recorded('two-setups');
  await goTo(page, `${suvok.origin}/jobs/${job.id}/compare`);
  const lane = page.getByRole('img', { name: /^Power of/ });
  await expect(lane).toBeVisible();
  const box = (await lane.boundingBox())!;
  await page.mouse.move(box.x + box.width * 0.6, box.y + 60);
  await expect(page.getByText('B mean').first()).toBeVisible();
  await expect(page.getByText('B − A')).toBeVisible();
  await page.mouse.click(box.x + box.width * 0.6, box.y + 60);
  await expect(page).toHaveURL(/at=\d+/);
  const locked = Number(/at=(\d+)/.exec(page.url())![1]);
  await page.keyboard.press('ArrowRight');
  await expect(page).toHaveURL(new RegExp(`at=${locked + 10}\\b`));
  await page.keyboard.press('Shift+ArrowLeft');
  await expect(page).toHaveURL(new RegExp(`at=${locked - 90}\\b`));
  await page.mouse.move(5, 5);
  await expect(page.getByTestId('gain-table')).toContainText(`at ${(locked - 90).toLocaleString('en')} rpm`);
  await page.keyboard.press('Escape');
  await expect(page).not.toHaveURL(/at=/);
});

test('a band is dragged on the axis and taken away', async ({ page, recorded }) => {
  const { suvok, job } = await recorded('two-setups');
  await goTo(page, `${suvok.origin}/jobs/${job.id}/compare`);
  const axis = page.getByTitle('Drag along the axis to mark the band that matters');
  const box = (await axis.boundingBox())!;
  await page.mouse.move(box.x + box.width * 0.5, box.y + 10);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width * 0.8, box.y + 10, { steps: 5 });
  await page.mouse.up();
  await expect(page).toHaveURL(/band=\d+-\d+/);
  await expect(page.getByTestId('gain-table')).toContainText('band,');
  await page.getByRole('button', { name: 'Take the band away' }).click();
  await expect(page).not.toHaveURL(/band=/);
});

test('the page and the command line make the same figures of a run', { tag: '@long' }, async ({ page, suvok }) => {
  await suvok.startStandIns('fast');
  const job = await suvok.mountedJob();
  const [run] = await suvok.record(job, 1);
  const folder = mkdtempSync(join(tmpdir(), 'suvok-e2e-'));
  for (const name of ['run.csv', 'dyno.json', 'air.json']) {
    writeFileSync(join(folder, name), await (await fetch(`${suvok.origin}/api/runs/${run!.id}/${name}`)).text());
  }
  const words = [
    'launch/run.cjs',
    'cli/main.ts',
    'reduce',
    join(folder, 'run.csv'),
    '--dyno',
    join(folder, 'dyno.json'),
    '--air',
    join(folder, 'air.json'),
  ];
  const curve = JSON.parse((await promisify(execFile)(process.execPath, words)).stdout) as CurveJson;
  await goTo(page, `${suvok.origin}/jobs/${job.id}/compare`);
  const peak = page.getByRole('img', { name: /^Power of A/ });
  await expect(peak).toHaveAttribute(
    'aria-label',
    new RegExp(`has most, (at least )?${Math.max(...curve.powerKw).toFixed(1)} kW`),
  );
  await expect(page.getByText(`peak ${curve.peakPower.kw.toFixed(1)} kW`)).toBeVisible();
  await expect(page.getByText('stands by itself').first()).toBeVisible();
  expect(await suvok.ask<CurveJson>('GET', `/runs/${run!.id}/curve`)).toEqual(curve);
});

test(
  'what else changed names the channels that differ, and opens one as a lane',
  { tag: '@long' },
  async ({ page, recorded }) => {
    const { suvok, job } = await recorded('two-setups');
    await goTo(page, `${suvok.origin}/jobs/${job.id}/compare`);
    const table = page.getByRole('table', { name: 'Logged channels, B against A' });
    await expect(table.getByRole('rowheader')).toHaveCount(6);
    await page.getByRole('button', { name: /^Show \d+ more$/ }).click();
    const lambda = table.locator('[data-channel=lambda]');
    await expect(lambda).toContainText(/λ0\.\d+0\.\d+[+−]?0[.\d]*±[<\d.]+largest [+−]?0[.\d]* ±[<\d.]+ at \d,\d+ rpm/);
    await lambda.getByRole('button', { name: 'λ', exact: true }).click();
    await expect(page).toHaveURL(/lanes=power\.torque\.gain\.lambda/);
    await expect(page.getByRole('img', { name: /^λ of A\d and B\d over engine speed/ })).toBeVisible();
    await lambda.getByRole('button').click();
    await expect(page).not.toHaveURL(/lanes=/);
  },
);

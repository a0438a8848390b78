import type { Job, Run } from '../contract/records.ts';
import type { BayState } from '../contract/live.ts';
import { expect, test } from './suvok.ts';

test('a row of holds by keyboard: chosen, held under load, and its table', async ({ page, suvok }) => {
  test.setTimeout(90_000);
  await suvok.startStandIns('fast', 5, 'loaded-roller');
  const job = await suvok.mountedJob();
  await page.goto(`${suvok.origin}/jobs/${job.id}/record`);
  await page.getByRole('button', { name: 'Kind of run: power run' }).focus();
  await page.keyboard.press('Enter');
  await page.getByRole('menuitem', { name: /^row of holds/ }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Kind of run: row of holds' })).toBeVisible();
  await page.getByRole('button', { name: /holds at 2,500/ }).click();
  await page.getByLabel('Speeds to hold, rpm').fill('3000, 4500');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: /holds at 3,000, 4,500 rpm/ })).toBeVisible();
  await page.getByRole('main', { name: 'Recording' }).click({ position: { x: 5, y: 5 } });
  await page.keyboard.press('Space');
  await expect(page.getByRole('heading', { name: 'A1 row of holds' })).toBeVisible({ timeout: 30_000 });
  const rows = page.getByTestId('measured').locator('tbody tr');
  await expect(rows).toHaveCount(2);
  await expect(rows.first()).toContainText(/3,0\d\d\d?/);
  const [run] = await suvok.runs(job);
  expect(run).toMatchObject({ kind: 'step', plan: { steps: { speedsRpm: [3000, 4500] } } });
  // It is no sweep: Compare does not complain of it.
  await page.goto(`${suvok.origin}/jobs/${job.id}/compare`);
  await expect(page.getByText('No curve can be made')).toHaveCount(0);
});

test('a dyno without a load says that it cannot hold a speed', async ({ page, suvok }) => {
  await suvok.startStandIns('fast');
  const job = await suvok.mountedJob();
  const { plan } = await suvok.ask<BayState>('GET', '/bay');
  await suvok.ask('PUT', '/bay/plan', { ...plan, kind: 'step' });
  await page.goto(`${suvok.origin}/jobs/${job.id}/record`);
  await expect(page.getByRole('status').filter({ hasText: 'Ready' })).toBeVisible();
  await page.keyboard.press('Space');
  await expect(page.getByText('has no load that could hold a speed')).toBeVisible();
});

test('a coast-down gives the losses, and check runs the dyno’s own repeatability', async ({ page, suvok }) => {
  test.setTimeout(120_000);
  await suvok.startStandIns('fast');
  const job = await suvok.mountedJob();
  const { plan } = await suvok.ask<BayState>('GET', '/bay');
  await suvok.ask('PUT', '/bay/plan', { ...plan, kind: 'coast-down', toRpm: 5000 });
  await page.goto(`${suvok.origin}/jobs/${job.id}/record`);
  await expect(page.getByRole('status').filter({ hasText: 'Ready' })).toBeVisible();
  await page.keyboard.press('Space');
  await expect(page.getByRole('heading', { name: 'A1 coast-down' })).toBeVisible({ timeout: 40_000 });
  await expect(page.getByTestId('measured')).toContainText('lower bound');
  await expect(page.getByTestId('measured').locator('tbody tr')).toHaveCount(5);
  await suvok.ask('PUT', '/bay/plan', { ...plan, kind: 'check' });
  await suvok.record(job, 3);
  await page.goto(`${suvok.origin}/devices`);
  await expect(page.getByText(/3 runs · spread back to back 0\.\d\d %/)).toBeVisible();
  await page.getByText('Check runs').click();
  await expect(page.getByRole('cell', { name: 'A3', exact: true })).toBeVisible();
  // They are not in the job's own figures.
  await page.goto(`${suvok.origin}/jobs/${job.id}/record`);
  await expect(page.getByText('Runs of A')).toBeVisible();
  await expect(page.getByText('0 of 3')).toBeVisible();
});

test('a planned lift is made and written down; after the run its kind, gear and setup are put right', async ({
  page,
  suvok,
}) => {
  await suvok.startStandIns('fast');
  const job = await suvok.mountedJob();
  await page.goto(`${suvok.origin}/jobs/${job.id}/record`);
  await page.getByRole('button', { name: /3 runs a setup, 8 min apart/ }).click();
  await page.getByRole('textbox', { name: 'Runs a setup' }).fill('1');
  await page.getByLabel('Lift at, rpm').fill('5500');
  await page.getByRole('button', { name: 'Use it' }).click();
  await expect(page.getByRole('button', { name: /1 run a setup.*to 5,500 rpm/ })).toBeVisible();
  await page.getByRole('main', { name: 'Recording' }).click({ position: { x: 5, y: 5 } });
  await page.keyboard.press('Space');
  await expect(page.getByRole('heading', { name: 'A1 counted' })).toBeVisible({ timeout: 20_000 });
  const curve = await suvok.ask<{ sweep: { endRpm: number } }>('GET', `/runs/${(await suvok.runs(job))[0]!.id}/curve`);
  expect(Math.abs(curve.sweep.endRpm - 5500)).toBeLessThan(120);
  await expect(page.getByRole('heading', { name: 'The planned run of A done' })).toBeVisible();
  await page.getByLabel('Gear of this run').fill('3rd');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Kind of this run: power run' }).click();
  await page.getByRole('menuitem', { name: 'conditioning' }).click();
  await expect(page.getByRole('heading', { name: 'A1 conditioning' })).toBeVisible();
  await expect
    .poll(async () => (await suvok.runs(job))[0])
    .toMatchObject({ kind: 'conditioning', gear: '3rd', plan: { toRpm: 5500 } });
});

test('after a hop the straps come first, and that they were looked at is written down', async ({ page, suvok }) => {
  await suvok.startStandIns('fast');
  const job = await suvok.mountedJob();
  await suvok.ask('PUT', '/bay/faults', { device: 'stand-in-roller', faults: ['wheel hop'] });
  await page.goto(`${suvok.origin}/jobs/${job.id}/record`);
  await expect(page.getByRole('status').filter({ hasText: 'Ready' })).toBeVisible();
  await page.keyboard.press('Space');
  await expect(page.getByRole('alert').filter({ hasText: 'Re-check straps or hub bolts' })).toBeVisible({
    timeout: 20_000,
  });
  await page.getByRole('button', { name: 'They are checked' }).click();
  await expect(page.getByText('Straps: checked again after A1.')).toBeVisible();
  const { inspections } = await suvok.ask<Job>('GET', `/jobs/${job.id}`);
  expect(inspections).toMatchObject([{ key: 'straps', outcome: 'ok', note: 'checked again after A1' }]);
});

test('a limit that is crossed shouts by shape, word and sound, on both screens', async ({ page, suvok, context }) => {
  test.setTimeout(90_000);
  const job = await suvok.mountedJob();
  await suvok.ask('POST', `/jobs/${job.id}/limits`, {
    quantity: 'lambda',
    value: 0.86,
    scale: null,
    reason: '',
    source: 'us',
  });
  await suvok.startStandIns('real');
  const drive = await context.newPage();
  await drive.goto(`${suvok.origin}/drive`);
  await page.bringToFront();
  await page.goto(`${suvok.origin}/jobs/${job.id}/record`);
  await expect(page.getByRole('status').filter({ hasText: 'Ready' })).toBeVisible();
  await page.keyboard.press('Space');
  await expect(page.getByRole('alert').filter({ hasText: /Stop λ at full load 0\.\d\d/ })).toBeVisible({
    timeout: 30_000,
  });
  await expect.poll(() => page.evaluate(() => document.documentElement.dataset.lastCue)).toMatch(/^stop: Stop/);
  await expect(page.getByRole('region', { name: 'Limits' })).toContainText('0.86 at most');
  await expect(drive.getByRole('status')).toHaveText('Stop', { timeout: 15_000 });
});

test('an instrument is calibrated, its probe placed and a channel renamed, and runs carry it', async ({
  page,
  suvok,
}) => {
  test.setTimeout(120_000);
  const job = await suvok.mountedJob();
  await suvok.startStandIns('real', 5, 'loaded-roller');
  await page.goto(`${suvok.origin}/devices`);
  const roller = page.getByRole('region', { name: 'Stand-in loaded roller' });
  await roller.getByText('Calibration').click();
  await roller.getByRole('button', { name: 'Take the zero now' }).click();
  await expect(page.getByText('The drum turns. Let it come to rest')).toBeVisible();
  await expect(roller.getByText('heard', { exact: true })).toBeVisible();
  await page.waitForTimeout(2500);
  await roller.getByRole('button', { name: 'Take the ratio now' }).click();
  await expect(roller.getByText(/for Tarrow Six hill-climb coupé, 4th/).first()).toBeVisible();
  await roller.getByRole('button', { name: 'Let the stand-in come to rest' }).click();
  await expect
    .poll(
      async () => {
        await roller.getByRole('button', { name: 'Take the zero now' }).click();
        return roller.getByText(/Absorber torque/).count();
      },
      { timeout: 40_000, intervals: [2500] },
    )
    .toBeGreaterThan(1);
  const logger = page.getByRole('region', { name: 'Stand-in engine logger' });
  await logger.getByText('λ probe').click();
  await logger.getByLabel('Late by, s').fill('0.16');
  await logger.getByRole('button', { name: 'Use it' }).first().click();
  await expect(logger.getByText('0.16 s late')).toBeVisible();
  await logger.getByText('Channel names').click();
  await logger.getByLabel('crankcasePressure [kPa]').fill('blowBy');
  await page.keyboard.press('Escape');
  await logger.getByRole('button', { name: 'Use these names' }).click();
  await expect(logger.getByText('blowBy (custom)')).toBeVisible({ timeout: 15_000 });
  await suvok.ask('POST', '/bay/arm', {});
  await expect.poll(async () => (await suvok.runs(job))[0]?.state, { timeout: 60_000 }).toBe('sealed');
  const run = (await suvok.runs(job))[0] as Run;
  expect(run.dyno.absorberZeroNm?.absorberTorque).toBeCloseTo(3, 0);
  expect(run.engineToDrumRatio).toBeCloseTo(3.45 * (0.159 / 0.26), 1);
  expect(run.logs[0]).toMatchObject({ device: 'stand-in-logger', probe: { delayS: 0.16 } });
  expect(run.logs[0]!.channels.map(({ name }) => name)).toContain('blowBy');
  await page.goto(`${suvok.origin}/jobs/${job.id}/logs`);
  await expect(
    page.getByText(/Stand-in engine logger laid on the dyno’s clock.*correlation (0\.99|1\.0)/),
  ).toBeVisible();
});

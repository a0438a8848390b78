import type { BayState } from '../contract/bays/live.ts';
import type { Run } from '../contract/job/records.ts';
import { expect, test } from './suvok.ts';

/** `npm run soak`: what takes a minute of the stand-ins' time. */
test('a coast-down gives the losses, and check runs the dyno’s own repeatability', async ({ page, suvok }) => {
  await suvok.startStandIns('fast');
  const job = await suvok.mountedJob();
  const { plan } = await suvok.ask<BayState>('GET', '/bays/1');
  await suvok.ask('PUT', '/bays/1/plan', { ...plan, kind: 'coast-down', toRpm: 5000 });
  await suvok.openRecord(page, job);
  await page.keyboard.press('Space');
  await expect(page.getByRole('heading', { name: 'A1 coast-down' })).toBeVisible();
  await expect(page.getByTestId('measured')).toContainText('lower bound');
  await expect(page.getByTestId('measured').locator('tbody tr')).toHaveCount(5);
  await suvok.ask('PUT', '/bays/1/plan', { ...plan, kind: 'check' });
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

test('an instrument is calibrated, its probe placed and a channel renamed, and runs carry it', async ({
  page,
  suvok,
}) => {
  const job = await suvok.mountedJob();
  await suvok.startStandIns('real', 5, 'loaded-roller');
  await page.goto(`${suvok.origin}/devices`);
  const roller = page.getByRole('region', { name: 'Stand-in loaded roller' });
  await roller.getByText('Calibration').click();
  await roller.getByRole('button', { name: 'Take the zero now' }).click();
  await expect(page.getByText('The drum turns. Let it come to rest')).toBeVisible();
  await expect(roller.getByText('connected', { exact: true })).toBeVisible();
  // The ratio is one of a speed held for some seconds.
  await expect(async () => {
    await roller.getByRole('button', { name: 'Take the ratio now' }).click();
    await expect(roller.getByText(/for Tarrow Six hill-climb coupé, 4th/).first()).toBeVisible({ timeout: 1000 });
  }).toPass();
  await roller.getByRole('button', { name: 'Let the stand-in come to rest' }).click();
  await expect
    .poll(
      async () => {
        await roller.getByRole('button', { name: 'Take the zero now' }).click();
        return roller.getByText(/Absorber torque/).count();
      },
      { intervals: [2500] },
    )
    .toBeGreaterThan(1);
  const logger = page.getByRole('region', { name: 'Stand-in engine logger' });
  await logger.getByText('λ probe').click();
  await logger.getByLabel('Late by, s').fill('0.16');
  await logger.getByRole('button', { name: 'Apply' }).first().click();
  await expect(logger.getByText('0.16 s late')).toBeVisible();
  await logger.getByText('Channel names').click();
  await logger.getByLabel('crankcasePressure [kPa]').fill('blowBy');
  await page.keyboard.press('Escape');
  await logger.getByRole('button', { name: 'Use these names' }).click();
  await expect(logger.getByText('blowBy (custom)')).toBeVisible();
  await suvok.ask('POST', '/bays/1/arm', {});
  await expect.poll(async () => (await suvok.runs(job))[0]?.state).toBe('sealed');
  const run = (await suvok.runs(job))[0] as Run;
  expect(run.dyno.absorberZeroNm?.absorberTorque).toBeCloseTo(3, 0);
  expect(run.engineToDrumRatio).toBeCloseTo(3.45 * (0.159 / 0.26), 1);
  expect(run.logs[0]).toMatchObject({ device: 'stand-in-logger', probe: { delayS: 0.16 } });
  expect(run.logs[0]!.channels.map(({ name }) => name)).toContain('blowBy');
  await page.goto(`${suvok.origin}/jobs/${job.id}/logs`);
  await expect(
    page.getByText(/Stand-in engine logger time-aligned with the dyno.*correlation (0\.99|1\.0)/),
  ).toBeVisible();
});

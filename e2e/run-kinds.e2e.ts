import { goTo } from './go-to.ts';
import type { Job } from '../contract/job/records.ts';
import type { BayState } from '../contract/bays/live.ts';
import { expect, test } from './suvok.ts';

test('steady-speed steps by keyboard: chosen, held under load, and its table', async ({ page, suvok }) => {
  await suvok.startStandIns('fast', 5, 'loaded-roller');
  const job = await suvok.mountedJob();
  await goTo(page, `${suvok.origin}/jobs/${job.id}/record`);
  await page.getByRole('button', { name: 'Kind of run: power run' }).focus();
  await page.keyboard.press('Enter');
  await page.getByRole('menuitem', { name: /^steady-speed steps/ }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Kind of run: steady-speed steps' })).toBeVisible();
  await page.getByRole('button', { name: /holds at 2,500/ }).click();
  await page.getByLabel('Speeds to hold, rpm').fill('3000, 4500');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: /holds at 3,000, 4,500 rpm/ })).toBeVisible();
  await page.getByRole('main', { name: 'Recording' }).click({ position: { x: 5, y: 5 } });
  await page.keyboard.press('Space');
  await expect(page.getByRole('heading', { name: 'A1 steady-speed steps' })).toBeVisible();
  const rows = page.getByTestId('measured').locator('tbody tr');
  await expect(rows).toHaveCount(2);
  await expect(rows.first()).toContainText(/3,0\d\d\d?/);
  const [run] = await suvok.runs(job);
  expect(run).toMatchObject({ kind: 'step', plan: { steps: { speedsRpm: [3000, 4500] } } });
  // It is no sweep: Compare does not complain of it.
  await goTo(page, `${suvok.origin}/jobs/${job.id}/compare`);
  await expect(page.getByText('No curve can be made')).toHaveCount(0);
});

test('a dyno without a load says that it cannot hold a speed', { tag: '@long' }, async ({ page, suvok }) => {
  await suvok.startStandIns('fast');
  const job = await suvok.mountedJob();
  const { plan } = await suvok.ask<BayState>('GET', '/bays/1');
  await suvok.ask('PUT', '/bays/1/plan', { ...plan, kind: 'step' });
  await suvok.openRecord(page, job);
  await page.keyboard.press('Space');
  await expect(page.getByText('has no load that could hold a speed')).toBeVisible();
});

test(
  'a planned lift is made and written down; after the run its kind, gear and setup are put right',
  { tag: '@long' },
  async ({ page, suvok }) => {
    await suvok.startStandIns('fast');
    const job = await suvok.mountedJob();
    await goTo(page, `${suvok.origin}/jobs/${job.id}/record`);
    await page.getByRole('button', { name: /3 runs a setup, 8 min apart/ }).click();
    await page.getByRole('textbox', { name: 'Runs a setup' }).fill('1');
    await page.getByLabel('Lift at, rpm').fill('5500');
    await page.getByRole('button', { name: 'Apply' }).click();
    await expect(page.getByRole('button', { name: /1 run a setup.*to 5,500 rpm/ })).toBeVisible();
    await page.getByRole('main', { name: 'Recording' }).click({ position: { x: 5, y: 5 } });
    await page.keyboard.press('Space');
    await expect(page.getByRole('heading', { name: 'A1 counted' })).toBeVisible();
    const curve = await suvok.ask<{ sweep: { endRpm: number } }>(
      'GET',
      `/runs/${(await suvok.runs(job))[0]!.id}/curve`,
    );
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
  },
);

test(
  'after a hop the straps come first, and that they were looked at is written down',
  { tag: '@long' },
  async ({ page, suvok }) => {
    await suvok.startStandIns('fast');
    const job = await suvok.mountedJob();
    await suvok.ask('PUT', '/device/faults', { device: 'stand-in-roller', faults: ['wheel hop'] });
    await suvok.openRecord(page, job);
    await page.keyboard.press('Space');
    await expect(page.getByRole('alert').filter({ hasText: 'Re-check straps or hub bolts' })).toBeVisible();
    await page.getByRole('button', { name: 'They are checked' }).click();
    await expect(page.getByText('Straps: checked again after A1.')).toBeVisible();
    const { inspections } = await suvok.ask<Job>('GET', `/jobs/${job.id}`);
    expect(inspections).toMatchObject([{ key: 'straps', outcome: 'ok', note: 'checked again after A1' }]);
  },
);

test('a limit that is crossed shouts by shape, word and sound, on both screens', async ({ page, suvok, context }) => {
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
  await suvok.openRecord(page, job);
  await page.keyboard.press('Space');
  await expect(page.getByRole('alert').filter({ hasText: /Stop λ at full load 0\.\d\d/ })).toBeVisible();
  await expect.poll(() => page.evaluate(() => document.documentElement.dataset.lastCue)).toMatch(/^stop: Stop/);
  await expect(page.getByRole('region', { name: 'Limits' })).toContainText('0.86 at most');
  await expect(drive.getByRole('status')).toHaveText('Stop');
});

import type { BayState } from '../contract/bays/live.ts';
import type { Job } from '../contract/job/records.ts';
import { expect, test, type Suvok } from './suvok.ts';
import { goTo } from './go-to.ts';

const axes = {
  across: { channel: 'engineSpeed', breakpoints: [2000, 2500, 3000, 3500] },
  down: { channel: 'manifoldPressure', breakpoints: [40, 55, 70] },
};

/** A coupé on the loaded dyno whose table is laid out, its probe's offset known. */
async function laidOut(suvok: Suvok, over: object = axes): Promise<Job> {
  const job = await suvok.mountedJob();
  await suvok.ask('PATCH', `/vehicles/${job.car.id}`, {
    fuelling: { axes: over, dealing: { by: 'corners' }, delay: null, lambdaTarget: 1 },
  });
  await suvok.ask('PUT', '/device', { device: 'stand-in-logger', probe: { delayS: 0.16, offset: 0.004 } });
  return job;
}

test(
  'a wrong fuel table is brought within 1 % with confidence in fewer than four revisions, from the keyboard',
  { tag: '@long' },
  async ({ page, suvok }) => {
    await suvok.startStandIns('fast', 5, 'loaded-roller');
    const job = await laidOut(suvok);
    const { plan } = await suvok.ask<BayState>('GET', '/bays/1');
    const steps = { speedsRpm: axes.across.breakpoints, loadsKpa: axes.down.breakpoints, dwellS: 6, tolerance: 0.01 };
    await suvok.ask('PUT', '/bays/1/plan', { ...plan, kind: 'step', steps });
    await suvok.openRecord(page, job);
    const told: string[] = [];
    const proposal = page.getByTestId('proposal');
    for (let revision = 0; revision < 4; revision++) {
      await page.keyboard.press('Space');
      await expect(page.getByTestId('fuelling-result')).toBeVisible();
      await page.getByRole('link', { name: 'See the table, and what it proposes' }).focus();
      await page.keyboard.press('Enter');
      await expect(proposal).toBeVisible();
      told.push(await proposal.innerText());
      if (/table is done/.test(told.at(-1)!)) break;
      await proposal.getByRole('button', { name: /^Begin setup with revision/ }).focus();
      await page.keyboard.press('Enter');
      await expect(page.getByRole('status').filter({ hasText: 'Ready' })).toBeVisible();
    }
    expect(told[0]).toMatch(/cells are changed, by −\d.*to \+\d/);
    expect(told.at(-1)).toMatch(/Every cell is within 1 %, with confidence/);
    expect(told.length).toBeLessThanOrEqual(4);
    // Each revision stands beside the others, and the first was far off.
    const revisions = page.getByRole('complementary', { name: 'What to do about the table' }).getByRole('listitem');
    await expect(revisions).toHaveCount(told.length);
    await expect(revisions.first()).toContainText(/[1-9] more than 3 % off/);
    await expect(revisions.last()).toContainText('12 of 12 cells known · 12 within 1 % · 0 more than 3 % off');
    await page.getByText('beside A', { exact: true }).click();
    await expect(page.getByRole('button', { name: /^2,500 rpm, 55 kPa/ })).toContainText(/[+−]\d\.\d → [+−]?\d\.\d/);
    // A cell is looked into, walked to with the arrows, and a link shows the same again.
    const cell = page.getByRole('button', { name: /^2,500 rpm, 55 kPa/ });
    await cell.focus();
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('region', { name: 'Readings of the cell' })).toContainText('3,000 rpm, 55 kPa');
    await page.reload();
    await expect(page.getByRole('region', { name: 'Readings of the cell' })).toContainText('3,000 rpm, 55 kPa');
  },
);

test(
  'the map fills while driving: the next cell is named, the stand-in goes there, and the driver sees the same',
  { tag: '@long' },
  async ({ page, context, suvok }) => {
    await suvok.startStandIns('real', 5, 'loaded-roller');
    const few = {
      across: { ...axes.across, breakpoints: [2000, 2500] },
      down: { ...axes.down, breakpoints: [40, 60] },
    };
    const job = await laidOut(suvok, few);
    const { plan } = await suvok.ask<BayState>('GET', '/bays/1');
    await suvok.ask('PUT', '/bays/1/plan', { ...plan, kind: 'part-load' });
    await suvok.openRecord(page, job);
    await expect(page.getByRole('region', { name: 'Part load' })).toContainText('has 2 × 2 cells');
    await page.keyboard.press('Space');
    const next = page.getByTestId('next-cell');
    await expect(next).toHaveText(/^(Go to|Hold) 2,\d00 rpm at \d0 kPa,? (hold|for) \d+ s$/);
    const driver = await context.newPage();
    await driver.goto(`${suvok.origin}/bays/1/drive`);
    await expect(driver.getByRole('table', { name: 'Fuel table' })).toBeVisible();
    await expect(driver.getByRole('status')).toHaveText(/2,\d00 rpm at \d0 kPa/);
    await driver.close();
    const map = page.getByRole('region', { name: 'Fuel table while driving' });
    await expect(map).toContainText(/4 of 4 cells known/);
    await page.keyboard.press('Space');
    await expect(page.getByTestId('fuelling-result')).toContainText('4 of 4 cells known');
    const [run] = await suvok.runs(job);
    expect(run).toMatchObject({ kind: 'part-load', state: 'sealed' });
  },
);

test('a table is laid out by pasting it, copied out again, and a run without λ says what is missing', async ({
  page,
  suvok,
  context,
}) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  await suvok.startStandIns('fast', 5, 'loaded-roller');
  const job = await suvok.mountedJob();
  const { plan } = await suvok.ask<BayState>('GET', '/bays/1');
  const steps = { speedsRpm: [2000, 2500], loadsKpa: [45, 60], dwellS: 5, tolerance: 0.01 };
  await suvok.ask('PUT', '/bays/1/plan', { ...plan, kind: 'step', steps });
  await suvok.record(job, 1);
  await goTo(page, `${suvok.origin}/jobs/${job.id}/logs`);
  await page.getByRole('radiogroup', { name: 'What is shown' }).getByText('Fuelling').click();
  await expect(page.getByRole('table', { name: 'Fuel table' })).toBeVisible();
  await page.getByRole('button', { name: 'Axes and probe…' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Breakpoints across, rpm').fill('2000 1500');
  await expect(dialog).toContainText('must rise');
  await expect(dialog.getByRole('button', { name: 'Apply' })).toBeDisabled();
  await dialog.getByLabel('Breakpoints across, rpm').fill('\t2000\t2500\n45\t1\t1\n60\t1\t1');
  await expect(dialog.getByLabel('Breakpoints up, kPa')).toHaveValue('45, 60');
  await dialog.getByRole('button', { name: 'Apply' }).click();
  await expect(page.getByRole('button', { name: /^2,500 rpm, 60 kPa/ })).toBeVisible();
  await page.getByText('Multiply fuel by', { exact: true }).click();
  await page.getByRole('button', { name: 'Copy table' }).click();
  await expect(page.getByText('table copied')).toBeVisible();
  expect(await page.evaluate(() => navigator.clipboard.readText())).toMatch(
    /^\t2000\t2500\n45\t\d\.\d{4}\t\d\.\d{4}\n60\t/,
  );
  await suvok.ask('PATCH', `/vehicles/${job.car.id}`, {
    fuelling: {
      axes: { across: axes.across, down: { channel: 'airFlowSensor', breakpoints: [1, 2] } },
      dealing: { by: 'corners' },
      delay: null,
      lambdaTarget: 1,
    },
  });
  await page.reload();
  await expect(page.getByRole('alert')).toContainText('no Air flow sensor');
});

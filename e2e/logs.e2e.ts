import type { BayState } from '../contract/bays/live.ts';
import { goTo, goWithin } from './go-to.ts';
import { expect, test } from './suvok.ts';

test('the log of the last run: what was found and where, the channels that tell most, then all others', async ({
  page,
  suvok,
}) => {
  const job = await suvok.mountedJob();
  await suvok.ask('POST', `/jobs/${job.id}/limits`, {
    quantity: 'knockRetard',
    value: 1.5,
    scale: null,
    reason: '',
    source: 'us',
  });
  await goTo(page, `${suvok.origin}/jobs/${job.id}/logs`);
  await expect(page.getByText('No run to look into yet')).toBeVisible();
  await suvok.startStandIns('fast');
  await suvok.record(job, 2);
  await expect(page.getByRole('heading', { name: 'A2', exact: true })).toBeVisible();
  await expect(page.getByTestId('log-events')).toContainText('Nothing stands out in what was logged.');
  // Far too much advance knocks, and the log names it.
  await suvok.mountedSetup(job, 'ignition +8°');
  await suvok.record(job, 1);
  await page.getByRole('button', { name: /^Setup B/ }).click();
  await expect(page.getByRole('heading', { name: 'B1', exact: true })).toBeVisible();
  await expect(page.getByTestId('log-events')).toContainText(
    /Knock: up to \d+\.\d° taken back from \d,\d+ to \d,\d+ rpm/,
  );
  // Ignition stands over the baseline's, with the knock retard, its limit, and the mark where it was found.
  const ignition = page.getByRole('figure').filter({ hasText: 'Knock retard dashed' });
  await expect(ignition).toContainText('Ignition');
  await expect(page.getByRole('img', { name: 'Ignition of B1 and A2, in °BTDC.' })).toBeVisible();
  // Pressed where it stands on the strip, the lanes go there, and the address shows the same again.
  await page
    .getByRole('region', { name: 'Found in B1' })
    .getByRole('button', { name: /Knock: up to/ })
    .click();
  await expect(page).toHaveURL(/at=\d+/);
  await goTo(page, `${page.url()}&zoom=3000_5000`);
  await page.getByRole('button', { name: 'Whole range' }).click();
  await expect(page).not.toHaveURL(/zoom=/);
  // Over time engine speed has a course of its own.
  await page.getByText('time', { exact: true }).click();
  await expect(page).toHaveURL(/by=time/);
  const others = page.getByRole('region', { name: 'All other channels' });
  await others.getByRole('button', { name: /^Engine speed/ }).click();
  await expect(page.getByRole('img', { name: /Engine speed of B1/ })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('heading', { name: 'B1', exact: true })).toBeVisible();
  // The same list stands wherever the run is looked at: tab, chip, Compare, the driver's view.
  await expect(page.getByRole('link', { name: /^Logs ◆ B1 broke a limit/ })).toBeVisible();
  await page.getByRole('link', { name: /^Compare/ }).click();
  await expect(page.getByTestId('sentence')).toContainText(/it knocked, \d+\.\d° taken back at \d,\d+ rpm/);
  const findings = page.getByRole('complementary', { name: 'Findings' });
  await expect(findings).toContainText(/B1: Knock: up to \d+\.\d° taken back from \d,\d+ to \d,\d+ rpm/);
  const told = (await findings.textContent())!.match(/it knocked, (\d+\.\d)°.*Knock: up to (\d+\.\d)°/)!;
  expect(told[1]).toBe(told[2]);
  await goWithin(page, '/drive');
  await expect(page.getByTestId('broken')).toContainText(`B1: it knocked, ${told[1]}° taken back`);
});

test(
  'lanes are opened, pinned for the job, read with the keys, and laid beside other runs and setups',
  { tag: '@long' },
  async ({ page, suvok }) => {
    const job = await suvok.mountedJob();
    await suvok.startStandIns('fast');
    await suvok.record(job, 2);
    await suvok.mountedSetup(job, 'ignition +2°');
    await suvok.record(job, 2);
    await goTo(page, `${suvok.origin}/jobs/${job.id}/logs?run=B2`);
    const others = page.getByRole('region', { name: 'All other channels' });
    // Each with least and greatest, a reading, and how far it is from the other's.
    await expect(others.getByRole('listitem').filter({ hasText: 'Battery' })).toContainText(
      /13\.\d … 1[34]\.\d13\.\d V[+−]?\d/,
    );
    await others.getByRole('button', { name: /^Battery/ }).click();
    await expect(page.getByRole('img', { name: /^Battery of B2 and A2/ })).toBeVisible();
    await expect(others.getByRole('button', { name: /^Battery/ })).toHaveCount(0);
    // Pinned it stays open in every run of the job, for everybody.
    await others.getByRole('button', { name: 'Pin Oil pressure for this job' }).click();
    await goTo(page, `${suvok.origin}/jobs/${job.id}/logs?run=A1`);
    await expect(page.getByRole('img', { name: /^Oil pressure of A1/ })).toBeVisible();
    await expect(page.getByRole('img', { name: /^Battery of/ })).toHaveCount(0);
    await page.getByRole('button', { name: 'Lanes' }).click();
    await page.getByRole('button', { name: 'Unpin Oil pressure' }).click();
    await expect(page.getByRole('img', { name: /^Oil pressure of/ })).toHaveCount(0);
    await page.keyboard.press('Escape');
    // Two at once: the mean of a setup, and a run.
    await goTo(page, `${suvok.origin}/jobs/${job.id}/logs?run=B2`);
    await page.getByRole('button', { name: 'Beside A2' }).click();
    await page.getByRole('checkbox', { name: 'A2' }).click();
    await expect(page).toHaveURL(/beside=none/);
    await page.getByRole('checkbox', { name: 'mean of its 2 runs' }).first().click();
    await expect(page).toHaveURL(/beside=A$/);
    await page.getByRole('checkbox', { name: 'B1' }).click();
    await page.keyboard.press('Escape');
    await expect(page).toHaveURL(/beside=A\.B1/);
    await expect(page.getByRole('img', { name: /^λ of B2 and A and B1/ })).toBeVisible();
    await expect(page.getByText('difference from A', { exact: false })).toBeVisible();
    // The crosshair rests at the power peak; the keys move it, and it is let go again.
    await page.locator('body').click({ position: { x: 5, y: 790 } });
    await page.keyboard.press('ArrowRight');
    await expect(page).toHaveURL(/at=\d+/);
    const first = Number(new URL(page.url()).searchParams.get('at'));
    await page.keyboard.press('Shift+ArrowLeft');
    await expect.poll(() => Number(new URL(page.url()).searchParams.get('at'))).toBe(first - 100);
    await page.keyboard.press('Escape');
    await expect(page).not.toHaveURL(/at=/);
  },
);

test(
  'a coast-down is shown over time, and it is said that nothing of it is judged',
  { tag: '@long' },
  async ({ page, suvok }) => {
    const job = await suvok.mountedJob();
    await suvok.startStandIns('fast');
    const { plan } = await suvok.ask<BayState>('GET', '/bays/1');
    await suvok.ask('PUT', '/bays/1/plan', { ...plan, kind: 'coast-down' });
    await suvok.ask('POST', '/bays/1/arm', { afterS: 300 });
    await expect.poll(async () => (await suvok.runs(job)).filter(({ state }) => state === 'sealed').length).toBe(1);
    await goTo(page, `${suvok.origin}/jobs/${job.id}/logs`);
    await expect(page.getByText('This run is no pull: nothing in its log is judged.')).toBeVisible();
    await expect(page.getByText('engine speed', { exact: true })).toHaveCount(0);
    const others = page.getByRole('region', { name: 'All other channels' });
    const shown = page.getByRole('img', { name: /speed of A1/ });
    await expect(shown.or(others.getByRole('button', { name: /speed/ })).first()).toBeVisible();
  },
);

test('devices show what is heard, and the driver’s view one word and the big figures', async ({ page, suvok }) => {
  await goTo(page, `${suvok.origin}/devices`);
  await expect(page.getByText('No instrument is connected.')).toBeVisible();
  const job = await suvok.mountedJob();
  await suvok.startStandIns('real');
  const roller = page.getByRole('region', { name: 'Stand-in inertia roller' });
  await expect(roller.getByText('connected', { exact: true })).toBeVisible();
  await expect(roller.getByText(/^\d\d\d Hz$/)).toBeVisible();
  const logger = page.getByRole('region', { name: 'Stand-in engine logger' });
  await expect(logger.locator('li', { hasText: 'Coolant' }).locator('b')).toHaveText(/\d+(\.\d)? °C/);
  await goWithin(page, '/drive');
  await expect(page.getByRole('status')).toHaveText('Ready');
  await expect(page.getByText(/^A, As arrived/)).toBeVisible();
  await expect(page.getByRole('navigation')).toHaveCount(0);
  await suvok.ask('POST', '/bays/1/arm', {});
  await expect(page.getByRole('status')).toHaveText('Go');
  expect(job.id).toBeGreaterThan(0);
});

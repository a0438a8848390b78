import { expect, test } from './suvok.ts';

test('the log of the last run: what stands out first, then every channel beside the baseline’s', async ({
  page,
  suvok,
}) => {
  const job = await suvok.mountedJob();
  await suvok.ask('POST', `/jobs/${job.id}/limits`, { quantity: 'knockRetard', value: 1.5, scale: null, reason: '', source: 'us' }); // prettier-ignore
  await page.goto(`${suvok.origin}/jobs/${job.id}/logs`);
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
  await expect(page.getByRole('img', { name: /Knock retard around/ })).toBeVisible();
  await expect(page.getByRole('img', { name: /λ of B1, at the end/ })).toBeVisible();
  await expect(page.getByText('All channels of B1, A2 in grey')).toBeVisible();
  await page.getByText('over time', { exact: true }).click();
  await expect(page).toHaveURL(/by=time/);
  await expect(page.getByRole('img', { name: /Engine speed of B1/ })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('heading', { name: 'B1', exact: true })).toBeVisible();
  // The same list stands wherever the run is looked at: tab, chip, Compare, the driver's view.
  await expect(page.getByRole('link', { name: /^Logs ◆ B1 broke a limit/ })).toBeVisible();
  await page.getByRole('link', { name: /^Compare/ }).click();
  await expect(page.getByTestId('sentence')).toContainText(/it knocked, \d+\.\d ° taken back at \d,\d+ rpm/);
  const findings = page.getByRole('complementary', { name: 'Findings' });
  await expect(findings).toContainText(/B1: Knock: up to \d+\.\d° taken back from \d,\d+ to \d,\d+ rpm/);
  const told = (await findings.textContent())!.match(/it knocked, (\d+\.\d) °.*Knock: up to (\d+\.\d)°/)!;
  expect(told[1]).toBe(told[2]);
  await page.goto(`${suvok.origin}/drive`);
  await expect(page.getByTestId('broken')).toContainText(`B1: it knocked, ${told[1]} ° taken back`);
});

test('devices show what is heard, and the driver’s view one word and the big figures', async ({ page, suvok }) => {
  await page.goto(`${suvok.origin}/devices`);
  await expect(page.getByText('No instrument is connected.')).toBeVisible();
  const job = await suvok.mountedJob();
  await suvok.startStandIns('real');
  const roller = page.getByRole('region', { name: 'Stand-in inertia roller' });
  await expect(roller.getByText('connected', { exact: true })).toBeVisible();
  await expect(roller.getByText(/^\d\d\d Hz$/)).toBeVisible();
  const logger = page.getByRole('region', { name: 'Stand-in engine logger' });
  await expect(logger.locator('li', { hasText: 'Coolant' }).locator('b')).toHaveText(/\d+(\.\d)? °C/);
  await page.goto(`${suvok.origin}/drive`);
  await expect(page.getByRole('status')).toHaveText('Ready');
  await expect(page.getByText(/^A, As arrived/)).toBeVisible();
  await expect(page.getByRole('navigation')).toHaveCount(0);
  await suvok.ask('POST', '/bays/1/arm', {});
  await expect(page.getByRole('status')).toHaveText('Go', { timeout: 20_000 });
  expect(job.id).toBeGreaterThan(0);
});

import { goTo } from './go-to.ts';
import { expect, test } from './suvok.ts';

const password = 'quite a long one';

test(
  'units chosen once are those of every screen, of what is typed, and of what is said',
  { tag: '@long' },
  async ({ page, suvok }) => {
    const job = await suvok.mountedJob();
    await suvok.startStandIns('fast');
    await goTo(page, `${suvok.origin}/jobs/${job.id}/brief`);
    await page.getByRole('button', { name: 'Units', exact: true }).click();
    const dialog = page.getByRole('dialog', { name: 'Units' });
    await dialog.getByRole('button', { name: 'US', exact: true }).click();
    await expect(dialog.getByRole('radio', { name: 'psi' })).toBeChecked();
    await dialog.getByText('bar', { exact: true }).click();
    await expect(dialog.getByRole('button', { name: 'US', exact: true })).toHaveAttribute('aria-pressed', 'false');
    await dialog.getByText('psi', { exact: true }).click();
    await page.keyboard.press('Escape');

    // Typed in them, kept as everything is kept.
    await page.getByText('Every run begins with').click();
    await page.getByLabel('Tyre pressure', { exact: true }).fill('35');
    await page.keyboard.press('Tab');
    await page.getByRole('combobox', { name: 'Quantity' }).click();
    await page.getByRole('option', { name: 'Oil temperature' }).click();
    await page.getByLabel('Value', { exact: true }).fill('230');
    await page
      .getByRole('heading', { name: 'Limits' })
      .locator('..')
      .getByRole('button', { name: 'Add', exact: true })
      .click();
    await expect(page.getByText('Oil temperature at most 230 °F')).toBeVisible();
    await page.getByText('History', { exact: true }).click();
    await expect(page.getByText('Tyre pressure: 35.0 psi')).toBeVisible();
    const stored = (await suvok.ask('GET', `/jobs/${job.id}`)) as {
      tyrePressureKpa: number;
      limits: { value: number }[];
    };
    expect(stored.tyrePressureKpa).toBeCloseTo(241.317, 3);
    expect(stored.limits[0]!.value).toBeCloseTo(110, 6);
    // A limit that every run breaks: what is said of it stands in the same unit everywhere.
    await suvok.ask('POST', `/jobs/${job.id}/limits`, {
      quantity: 'intakeTemperature',
      value: 20,
      scale: null,
      reason: '',
      source: 'us',
    });

    await goTo(page, `${suvok.origin}/jobs/${job.id}/record`);
    await expect(page.getByText('Road speed mph')).toBeVisible();
    await expect(page.getByText('Air–fuel ratio')).toBeVisible();
    await suvok.record(job, 1);
    await expect(page.getByTestId('run-figures')).toContainText(/\d hp.*\d lb·ft/);
    await suvok.mountedSetup(job, 'ignition +1°');
    await suvok.record(job, 1);

    await goTo(page, `${suvok.origin}/jobs/${job.id}/logs`);
    const told = /Intake temperature reaches (\d+)\s°F.*the limit is 68\s°F\./;
    await expect(page.getByTestId('log-events')).toContainText(told);
    const reached = told.exec((await page.getByTestId('log-events').textContent()) ?? '')![1]!;
    await expect(page.getByRole('figure').filter({ hasText: 'limit ≤ 68' })).toContainText('°F');
    await page.getByRole('link', { name: /^Compare/ }).click();
    await expect(page.getByTestId('sentence')).toContainText(`intake temperature reached ${reached} °F`);
    await expect(page.getByTestId('headroom')).toContainText(`Intake temperature, 68 °F${reached}`);
    await expect(page.getByTestId('sentence')).toContainText(' hp ');

    // A link that names a unit is told in it, and the person's own stay theirs.
    await goTo(page, `${suvok.origin}/jobs/${job.id}/compare?power=PS`);
    await expect(page.getByTestId('sentence')).toContainText(' PS ');
    await goTo(page, `${suvok.origin}/drive`);
    await expect(page.getByTestId('broken')).toContainText(`reached ${reached} °F`);
    await goTo(page, `${suvok.origin}/jobs/${job.id}/compare`);
    await expect(page.getByTestId('sentence')).toContainText(' hp ');
  },
);

test('units go with the account, wherever its person signs in', { tag: '@long' }, async ({ page, context, suvok }) => {
  const job = await suvok.mountedJob();
  await goTo(page, `${suvok.origin}/people`);
  await page.getByLabel('Your name').fill('Ola Nordby');
  await page.getByLabel('A password').fill(password);
  await page.getByRole('button', { name: 'Make the first account' }).click();
  await expect(page.getByRole('button', { name: 'Account of Ola Nordby' })).toBeVisible();
  await page.getByRole('button', { name: 'Units', exact: true }).click();
  const dialog = page.getByRole('dialog', { name: 'Units' });
  await expect(dialog).toContainText('Kept with Ola Nordby’s account.');
  const kept = page.waitForResponse((response) => response.url().endsWith('/account/units') && response.ok());
  await dialog.getByRole('button', { name: 'UK', exact: true }).click();
  await kept;
  const other = await context.browser()!.newContext();
  const theirs = await other.newPage();
  await theirs.goto(`${suvok.origin}/jobs/${job.id}/brief`);
  await theirs.getByLabel('Name').fill('Ola Nordby');
  await theirs.getByLabel('Password', { exact: true }).fill(password);
  await theirs.getByRole('button', { name: 'Sign in' }).click();
  await theirs.getByText('Every run begins with').click();
  await expect(theirs.getByPlaceholder('e.g. 34.8')).toBeVisible();
  // What the server does not take is told, and shown as it was.
  await theirs.route('**/api/account/units', (route) => route.abort());
  await theirs.getByRole('button', { name: 'Units', exact: true }).click();
  await theirs.getByRole('button', { name: 'Metric', exact: true }).click();
  await expect(theirs.getByText('The server does not answer.')).toBeVisible();
  await expect(theirs.getByRole('radio', { name: 'psi' })).toBeChecked();
  await other.close();
});

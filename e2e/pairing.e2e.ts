import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { stopProgram } from '../launch/program.ts';
import { goTo, goWithin } from './go-to.ts';
import { expect, test } from './suvok.ts';

test.use({ serverAs: 'reached from elsewhere' });

test('an owner lets an instrument on another machine in by a code, sees it come, and shuts it out again', async ({
  page,
  suvok,
}) => {
  const keys = join(mkdtempSync(join(tmpdir(), 'suvok-keys-')), 'keys.json');
  await goTo(page, `${suvok.origin}/devices`);
  const place = page.getByRole('region', { name: 'On other machines' });
  await expect(place).toContainText('It takes an account first');
  await expect(place.getByRole('button')).toHaveCount(0);
  await goWithin(page, '/people');
  await page.getByLabel('Your name').fill('Ola Nordby');
  await page.getByLabel('A password').fill('quite a long one');
  await page.getByRole('button', { name: 'Make the first account' }).click();
  // The page begins anew with it.
  await expect(page.getByRole('button', { name: 'Account of Ola Nordby' })).toBeVisible();
  await page.getByRole('link', { name: 'Devices' }).click();

  await place.getByRole('button', { name: 'Pair an instrument' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText(suvok.outside.fingerprint);
  await expect(dialog).toContainText(`port ${suvok.outside.port}`);
  const code = (await dialog.getByLabel('Code').textContent())!;
  // Another certificate than the one shown: nothing is said to it, and the code still holds.
  await expect(dialog.getByRole('status')).toContainText(/Waiting for the instrument; the code lasts (9|10) min/);
  const standIns = suvok.startFarStandIns(keys, code);
  await expect(dialog.getByRole('status')).toContainText('stand-in-roller is paired');
  await dialog.getByRole('button', { name: 'Done' }).click();
  await expect(place).toContainText('stand-in-roller paired');
  const dyno = page.getByRole('region', { name: 'Stand-in inertia roller' });
  await expect(dyno).toContainText(/state(connected)/);

  // It comes back by its key alone.
  await stopProgram(standIns);
  await expect(dyno).toContainText(/state(not connected|silent)/);
  suvok.startFarStandIns(keys);
  await expect(dyno).toContainText(/state(connected)/);
  await place.getByRole('button', { name: 'Shut it out' }).click();
  await expect(place).toContainText('it has to be paired anew');
  await place.getByRole('button', { name: 'Shut it out now' }).click();
  await expect(place).toContainText('None is paired');
  await expect(dyno).toContainText(/state(not connected|silent)/);

  // A phone is shown where this bay's driver's view is.
  await goWithin(page, '/jobs');
  await page.getByRole('button', { name: 'New job' }).click();
  await page.getByRole('combobox', { name: 'Vehicle' }).fill('Tarrow Six');
  await page.keyboard.press('Enter');
  await page.getByRole('link', { name: /^Record/ }).click();
  await page.getByTestId('control').click();
  await page.getByRole('button', { name: 'Driver’s view on a phone' }).click();
  await expect(
    page.getByRole('img', { name: /^The driver’s view at https:\/\/suvok\.shop:\d+\/bays\/1\/drive$/ }),
  ).toBeVisible();
  await page.keyboard.press('Escape');
  await goWithin(page, '/devices');

  // A code that was said five times wrong, or taken back, is worth nothing: the dialog says so.
  await place.getByRole('button', { name: 'Pair an instrument' }).click();
  await expect(dialog.getByRole('status')).toContainText('Waiting for the instrument');
  const withdrawn = await page.request.delete(`${suvok.origin}/api/pairing`);
  expect(withdrawn.ok()).toBe(true);
  await expect(dialog.getByRole('status')).toContainText('worth nothing any more');
  await dialog.getByRole('button', { name: 'Another code' }).click();
  await expect(dialog.getByRole('status')).toContainText('Waiting for the instrument');
  await page.keyboard.press('Escape');
  await expect(dialog).toBeHidden();
});

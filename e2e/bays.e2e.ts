import type { BaysState } from '../contract/bays/live.ts';
import type { Job } from '../contract/job/records.ts';
import { expect, test } from './suvok.ts';
import { goTo } from './go-to.ts';

test(
  'a job is put on the dyno of the second bay, recorded there, and moved to the first',
  { tag: '@long' },
  async ({ page, suvok }) => {
    await suvok.startStandIns('fast');
    await suvok.startSecondBay('fast');
    await suvok.mountedJob();
    const other = await suvok.ask<Job>('POST', '/jobs', { vehicle: 'Marrick tourer', question: 'Does it pull?' });
    await goTo(page, `${suvok.origin}/jobs/${other.id}/record`);
    // The first bay has a car: the empty one is offered.
    await expect(page.getByRole('button', { name: 'Bay: Bay 2' })).toBeVisible();
    await expect(page.getByText('No car is on the dyno.')).toBeVisible();
    await page.keyboard.press('Space');
    await expect(page.getByRole('status').filter({ hasText: 'Ready' })).toBeVisible();
    await page.waitForTimeout(1100);
    await page.getByTestId('control').click();
    await expect(page.getByText('A1', { exact: true }).first()).toBeVisible();
    await expect
      .poll(async () => (await suvok.runs(other)).map(({ bay, dyno, state }) => [bay, dyno.kind, state]))
      .toEqual([[2, 'hub', 'sealed']]);
    // Moved, the car that was there is off.
    await page.getByRole('button', { name: 'Bay: Bay 2' }).click();
    await page.getByRole('menuitem', { name: /Bay 1.*a car is on it/ }).click();
    await expect(page.getByRole('button', { name: 'Bay: Bay 1' })).toBeVisible();
    const { bays } = await suvok.ask<BaysState>('GET', '/bays');
    expect(bays.map(({ mounted }) => mounted?.jobId)).toEqual([other.id, undefined]);
  },
);

test(
  'the strip leads to every bay’s own Record, where a job is put on and whose car the driver sees',
  { tag: '@long' },
  async ({ page, suvok }) => {
    await suvok.startStandIns('fast');
    await suvok.startSecondBay('fast');
    const job = await suvok.mountedJob();
    await suvok.ask('POST', '/jobs', { vehicle: 'Marrick tourer', question: 'Does it pull?' });
    await goTo(page, `${suvok.origin}/jobs/${job.id}/brief`);
    const strip = page.getByRole('navigation', { name: 'Bays' });
    await expect(strip.getByRole('link', { name: 'Bay 1: car on it' })).toBeVisible();
    await strip.getByRole('link', { name: /Bay 2/ }).click();
    await expect(page).toHaveURL(/\/bays\/2\/record$/);
    await expect(page.getByRole('heading', { name: 'No car is on the dyno of Bay 2' })).toBeVisible();
    await page.getByRole('combobox', { name: 'Job' }).click();
    await page.getByRole('option', { name: /Marrick tourer/ }).click();
    await page.getByRole('button', { name: 'Put on dyno' }).click();
    await expect(page.getByRole('status').filter({ hasText: 'Ready' })).toBeVisible();
    await expect(page.getByText('Does it pull?')).toBeVisible();
    await expect(strip.getByRole('link', { name: 'Bay 2: car on it' })).toBeVisible();
    // A screen that hangs in bay 1 shows bay 1.
    await goTo(page, `${suvok.origin}/bays/1/record`);
    await expect(page.getByText('Does it pay?')).toBeVisible();
    // The driver's view is handed to a phone; this page is reached from this machine alone, and says so.
    await page.getByRole('button', { name: 'Driver’s view on a phone' }).click();
    await expect(page.getByText('No phone reaches this machine')).toBeVisible();
    await expect(page.getByRole('link', { name: 'Open it on this screen' })).toHaveAttribute('href', '/bays/1/drive');
    await goTo(page, `${suvok.origin}/drive`);
    await page.getByRole('link', { name: /Bay 2.*Marrick tourer/ }).click();
    await expect(page).toHaveURL(/\/bays\/2\/drive$/);
    await expect(page.getByRole('status')).toHaveText('Ready');
    await goTo(page, `${suvok.origin}/bays/9/record`);
    await expect(page.getByRole('alert')).toContainText('There is no bay “9”');
  },
);

test('bays are named, added and taken away on Devices, and instruments moved between them', async ({ page, suvok }) => {
  await suvok.startStandIns('fast');
  await suvok.startSecondBay('fast');
  await goTo(page, `${suvok.origin}/devices?bay=2`);
  await expect(page.getByRole('region', { name: 'Stand-in hub pair 2' })).toBeVisible();
  await page.getByLabel('Name of the bay').fill('Hub cell');
  await page.getByRole('button', { name: 'Rename' }).click();
  await expect(page.getByRole('radio', { name: 'Hub cell' })).toBeChecked();
  await page.getByRole('button', { name: 'Add a bay' }).click();
  await page.getByText('Bay 3', { exact: true }).first().click();
  await expect(page.getByText('No instrument is connected in Bay 3')).toBeHidden();
  await goTo(page, `${suvok.origin}/devices?bay=2`);
  await page.getByRole('combobox', { name: 'Stand-in engine logger 2 stands in' }).click();
  await page.getByRole('option', { name: 'Bay 3' }).click();
  await expect
    .poll(async () => (await suvok.ask<BaysState>('GET', '/bays')).bays[2]?.devices.map(({ device }) => device))
    .toContain('stand-in-logger-2');
  // A bay with a dyno in it is not taken away, and the page says why.
  await page.getByRole('button', { name: 'Take this bay away' }).click();
  await expect(page.getByText('Instruments stand in Hub cell: place them in another bay first.')).toBeVisible();
});

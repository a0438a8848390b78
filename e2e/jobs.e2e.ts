import { goTo } from './go-to.ts';
import { BenchClient } from '../server/testing/bench-client.ts';
import { expect, test } from './suvok.ts';

test('a first job is begun by keyboard, and found by its owner', async ({ page, suvok }) => {
  await goTo(page, `${suvok.origin}/jobs`);
  await expect(page.getByText('No job yet. Begin one with “New job”')).toBeVisible();
  await page.getByRole('button', { name: 'New job' }).click();
  await expect(page.getByRole('combobox', { name: 'Vehicle' })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByText('Name the vehicle')).toBeVisible();
  await page.getByRole('combobox', { name: 'Vehicle' }).fill('Marrick tourer');
  await page.getByLabel('Owner').fill('B. Thistle');
  await page.getByLabel('Gear').fill('3rd');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/jobs\/\d+\/brief/);
  await expect(page.getByText('Arrived with A')).toBeVisible();
  await page.getByRole('link', { name: 'Suvok, today' }).click();
  await page.getByRole('link', { name: 'Jobs', exact: true }).click();
  await page.getByLabel('Search jobs').fill('thistle');
  await expect(page.getByRole('link', { name: /Marrick tourer/ })).toBeVisible();
  await page.getByLabel('Search jobs').fill('nobody');
  await expect(page.getByText('No job matches “nobody”.')).toBeVisible();
});

test('a pull kept while no job was on the dyno is put where it belongs', async ({ page, suvok }) => {
  const client = await BenchClient.connect(suvok.benchLinkPort);
  client.hello();
  client.pull({ speedNoise: 0.01 });
  await goTo(page, `${suvok.origin}/jobs`);
  await expect(page.getByText('One pull was kept while no job was on the dyno')).toBeVisible();
  await suvok.ask('POST', '/jobs', { vehicle: 'Marrick tourer' });
  await expect(page.getByRole('link', { name: /Marrick tourer/ })).toBeVisible();
  await page.getByPlaceholder('Put it into a job').click();
  await page.getByRole('option', { name: 'Marrick tourer' }).click();
  await expect(page.getByText('One pull was kept')).toBeHidden();
  await expect(page.getByTitle(/1 setup, 1 run/)).toBeVisible();
  client.close();
});

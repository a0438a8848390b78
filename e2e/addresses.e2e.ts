import { goTo } from './go-to.ts';
import type { Setup } from '../contract/job/records.ts';
import { expect, test } from './suvok.ts';

test('an address that leads nowhere says so and leads on', async ({ page, suvok }) => {
  for (const [path, sentence, way] of [
    ['/nowhere', 'There is nothing at this address', 'All jobs'],
    ['/jobs/999/compare', 'There is no such job.', 'All jobs'],
    ['/jobs/abc/record', '“abc” is not the number of a job.', 'All jobs'],
    ['/vehicles/999', 'There is no such vehicle.', 'All vehicles'],
    ['/vehicles/12x', '“12x” is not the number of a vehicle.', 'All vehicles'],
  ] as const)
    await test.step(path, async () => {
      await goTo(page, suvok.origin + path);
      const main = page.getByRole(path === '/nowhere' ? 'main' : 'alert');
      await expect(main).toContainText(sentence);
      await expect(page.locator('body')).not.toContainText('NaN');
      if (path !== '/nowhere') await expect(page.getByRole('navigation', { name: 'Suvok' })).toBeVisible();
      const link = main.getByRole('link', { name: way });
      // The link is Suvok's own, not the browser's blue.
      await expect(link).toHaveCSS('color', await main.evaluate((element) => getComputedStyle(element).color));
      await link.click();
      await expect(page).toHaveURL(way === 'All jobs' ? /\/jobs$/ : /\/vehicles$/);
    });
});

test('what a comparison’s address names and the job does not have is said, and the view can be kept', async ({
  page,
  recorded,
}) => {
  const { suvok, job } = await recorded('two-setups');
  await goTo(page, `${suvok.origin}/jobs/${job.id}/compare?smoothing=300&setup=Z&standard=mine`);
  const alert = page.getByRole('alert');
  await expect(alert).toContainText('This job has no setup Z.');
  await expect(alert).toContainText('“mine” is not understood as a correction standard.');
  await expect(alert).toContainText('Shown is B against A.');
  await expect(page.getByTestId('gain-table')).toBeVisible();
  await alert.getByRole('button', { name: 'Keep this view' }).click();
  await expect(alert).toHaveCount(0);
  await expect(page).toHaveURL(/\?smoothing=300$/);
  await goTo(page, `${suvok.origin}/jobs/${job.id}/compare?smoothing=300&from=curve-99`);
  await expect(alert).toContainText('The borrowed curve in the address is not in this job any more.');
});

test(
  'Record compares with the frozen baseline, whichever setup it belongs to',
  { tag: '@long' },
  async ({ page, recorded }) => {
    const { suvok, job } = await recorded('two-setups');
    const [, b] = job.setups;
    const runIds = job.runs.filter(({ setupId }) => setupId === b!.id).map(({ id }) => id);
    await suvok.ask('POST', `/jobs/${job.id}/baseline`, { setupId: b!.id, runIds, why: 'the intake stays' });
    const c = await suvok.ask<Setup>('POST', `/jobs/${job.id}/setups`, { parentId: b!.id, change: 'cold plugs' });
    await suvok.ask('PUT', '/bays/1/mounted', { jobId: job.id, setupId: c.id });
    await goTo(page, `${suvok.origin}/jobs/${job.id}/record`);
    const card = (letter: string) =>
      page
        .getByRole('listitem')
        .filter({ has: page.getByRole('button', { name: `Setup ${letter}: put it on the dyno` }) });
    await expect(card('B')).toContainText('baseline');
    await expect(card('A')).not.toContainText('baseline');
    await expect(card('A')).toContainText('on B');
  },
);

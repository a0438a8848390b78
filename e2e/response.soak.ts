import { expect, test } from './suvok.ts';

test('two levels of an item say that three make a curve', async ({ page, suvok }) => {
  await suvok.startStandIns('fast');
  const job = await suvok.mountedJob();
  await suvok.record(job, 1);
  await page.goto(`${suvok.origin}/jobs/${job.id}/compare?show=response`);
  await expect(page.getByRole('heading', { name: 'Nothing to respond to yet' })).toBeVisible();
  await suvok.mountedSetup(job, 'ignition +2°');
  await suvok.record(job, 1);
  await expect(page.getByText('Two levels of ignition: three are needed for a curve')).toBeVisible();
});

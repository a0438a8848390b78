import type { Job, Setup } from '../contract/job/records.ts';
import { goTo, goWithin } from './go-to.ts';
import { expect, test } from './suvok.ts';

test('a plan is stated before the first run, waits for its runs, and holds once it is carried out', async ({
  page,
  suvok,
}) => {
  await suvok.startStandIns('fast');
  const job = await suvok.mountedJob();
  await goTo(page, `${suvok.origin}/jobs/${job.id}/record`);
  const planned = page.getByRole('checkbox', { name: /^Judge A when all 3 runs are there/ });
  // It is ticked once the server has stored it, which takes a moment where the machine is busy.
  await planned.click();
  await expect(planned).toBeChecked();
  const setups = async () => (await suvok.ask<Job>('GET', `/jobs/${job.id}`)).setups;
  await expect.poll(async () => (await setups())[0]!.plannedRuns).toBe(3);
  // Nobody looks at the lanes of these pulls.
  await goWithin(page, '/jobs');
  await suvok.record(job, 3);
  await suvok.mountedSetup(job, 'ignition +1.5°');
  await expect.poll(async () => (await setups())[1]!.plannedRuns).toBe(3);
  await suvok.record(job, 1);
  await goTo(page, `${suvok.origin}/jobs/${job.id}/compare?smoothing=300`);
  await expect(page.getByTestId('sentence')).toContainText('the plan is not full: 2 more runs of B');
  await expect(page.getByTestId('next-run')).toContainText('2 more runs of B: the plan is not full.');
  await expect(page.locator('.gain, .loss')).toHaveCount(0);
  await expect(page.getByRole('complementary', { name: 'Setups' })).toContainText('no verdict: plan not full');
  await suvok.record(job, 2);
  await expect(page.getByTestId('rule')).toContainText('holds for the plan carried out');
  await expect(page.getByTestId('sentence')).not.toContainText('plan is not full');
});

test(
  'another gear: sentence, card, steps and owner’s view claim nothing',
  { tag: '@long' },
  async ({ page, suvok }) => {
    await suvok.startStandIns('fast');
    const job = await suvok.mountedJob();
    await suvok.record(job, 2);
    await suvok.mountedSetup(job, 'ignition +1.5°');
    const runs = await suvok.record(job, 2);
    const { setups } = await suvok.ask<Job>('GET', `/jobs/${job.id}`);
    const changed: Setup = setups[1]!;
    for (const run of runs.filter(({ setupId }) => setupId === changed.id))
      await suvok.ask('PATCH', `/runs/${run.id}`, { gear: '3rd' });
    await goTo(page, `${suvok.origin}/jobs/${job.id}/compare?smoothing=300&show=steps`);
    await expect(page.getByTestId('sentence')).toContainText('not like for like, another gear: no verdict');
    await expect(page.getByRole('complementary', { name: 'Setups' })).toContainText('no verdict: another gear');
    await expect(page.getByTestId('ladder')).toContainText('no verdict: another gear');
    await expect(page.getByTestId('ladder')).not.toContainText('best so far');
    await expect(page.locator('.gain, .loss')).toHaveCount(0);
    await page.getByRole('button', { name: 'Present' }).click();
    await expect(page.getByTestId('plain-sentence')).toContainText('no fair comparison');
    await expect(page.getByRole('dialog', { name: 'Presentation' })).toContainText('in different gears');
  },
);

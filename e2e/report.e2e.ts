import type { Job } from '../contract/records.ts';
import { expect, test } from './suvok.ts';

test('the report stands composed when it is opened, with the figures that Compare has', async ({ page, recorded }) => {
  const { suvok, job } = await recorded('ignition');
  await suvok.ask('POST', `/jobs/${job.id}/limits`, { quantity: 'engineSpeed', value: 7100, scale: null, reason: '', source: 'us' }); // prettier-ignore
  const [arrived, delivered] = [job.setups[0]!, job.setups[1]!];
  await suvok.ask('PATCH', `/jobs/${job.id}`, { question: 'Does more ignition pay?', untested: 'Cold start' });
  await page.goto(`${suvok.origin}/jobs/${job.id}/report`);
  const sheet = page.getByRole('main', { name: 'Report' });
  await expect(sheet.getByTestId('report-answer')).not.toBeEmpty();
  await expect(sheet).toContainText('The question was: Does more ignition pay?');
  await expect(sheet.getByText('Last setup', { exact: true })).toBeVisible();
  const draft = page.getByRole('complementary', { name: 'Draft of the report' });
  await expect(draft).toContainText('No setup is named as delivered');
  // Never in the owner's copy.
  await expect(sheet).not.toContainText('No setup is named');

  // Named as delivered it is called so, and its gain is the one that Compare tells.
  await suvok.ask('PUT', `/jobs/${job.id}/state`, { state: 'closed', deliveredSetupId: delivered.id, untested: 'Cold start', deliveredNote: '' }); // prettier-ignore
  await page.reload();
  await expect(sheet.getByText('Delivered', { exact: true })).toBeVisible();
  await expect(draft).not.toContainText('No setup is named as delivered');
  await expect(sheet.getByRole('img', { name: /Power, torque and gain/ })).toContainText('delivered');
  const whole = sheet.getByRole('row', { name: /^B, / });
  const told = /[+−]\d+\.\d ± <?\d+\.\d/.exec((await whole.textContent()) ?? '')![0];
  await page.goto(`${suvok.origin}/jobs/${job.id}/compare?setup=${delivered.letter}&against=${arrived.letter}`);
  const row = page.getByTestId('gain-table').getByRole('row').filter({ hasText: 'common range' }).first();
  await expect(row).toContainText(told.split(' ± ')[0]!);
  await expect(row).toContainText(`±${told.split(' ± ')[1]!}`);
});

test('what is changed of it is kept, undone, and taken back; the one-page form leaves out what it has no room for', async ({
  page,
  recorded,
}) => {
  const { suvok, job } = await recorded('ignition');
  await page.goto(`${suvok.origin}/jobs/${job.id}/report`);
  const sheet = page.getByRole('main', { name: 'Report' });
  const draft = page.getByRole('complementary', { name: 'Draft of the report' });
  await expect(sheet.getByRole('heading', { name: 'Conditions' })).toBeVisible();
  await draft.getByRole('checkbox', { name: 'Conditions' }).click();
  await expect(sheet.getByRole('heading', { name: 'Conditions' })).toHaveCount(0);
  await draft.getByLabel('Answer in your own words').fill('It pays, a little.');
  await draft.getByLabel('After the answer').fill('Come back after the race.');
  await page.keyboard.press('Tab');
  await expect(sheet.getByTestId('report-answer')).toHaveText('It pays, a little.');
  await expect(sheet).toContainText('Come back after the race.');
  const titles = () => sheet.getByRole('heading', { level: 2 }).allTextContents();
  await expect.poll(titles).toEqual(['What each change gave', 'Read with care', 'How the figures were made']);
  await draft.getByRole('button', { name: 'Move Read with care up' }).click();
  await expect.poll(titles).toEqual(['Read with care', 'What each change gave', 'How the figures were made']);
  // In other units, whatever the operator's are.
  await draft.getByLabel('Units of the report').selectOption('US');
  await expect(sheet.getByText('Arrived', { exact: true }).locator('..')).toContainText(/\d hp/);
  await expect.poll(async () => (await suvok.ask<Job>('GET', `/jobs/${job.id}`)).report?.units?.power).toBe('hp');
  await page.reload();
  await expect(sheet.getByTestId('report-answer')).toHaveText('It pays, a little.');
  await expect.poll(titles).toEqual(['Read with care', 'What each change gave', 'How the figures were made']);
  const kept = (await suvok.ask<Job>('GET', `/jobs/${job.id}`)).report;
  expect(kept).toMatchObject({ hidden: ['conditions'], headline: 'It pays, a little.', units: { power: 'hp' } });
  await draft.getByText('one page', { exact: true }).click();
  await expect(draft.getByRole('checkbox', { name: 'Conditions' })).toHaveCount(0);
  await expect(page.getByText('Undone.')).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(page.getByText('Undone.')).toBeVisible();
  await expect(draft.getByRole('checkbox', { name: 'Conditions' })).toBeVisible();
  await draft.getByRole('button', { name: 'As it was composed' }).click();
  await expect(sheet.getByRole('heading', { name: 'Conditions' })).toBeVisible();
  await expect(sheet.getByTestId('report-answer')).not.toHaveText('It pays, a little.');
  // A form that is none is refused, and nothing is stored of it.
  await expect(suvok.ask('PATCH', `/jobs/${job.id}`, { report: { form: 'round' } })).rejects.toThrow();
});

test('a job without a run says what to do, and one with a baseline alone is reported as it arrived', async ({
  page,
  suvok,
}) => {
  const job = await suvok.mountedJob();
  await page.goto(`${suvok.origin}/jobs/${job.id}/report`);
  await expect(page.getByText('Nothing to report yet')).toBeVisible();
  await suvok.startStandIns('fast');
  await suvok.record(job, 2);
  await expect(page.getByTestId('report-answer')).toHaveText(
    'The car as it arrived: nothing was changed and measured yet.',
  );
  await expect(page.getByRole('main', { name: 'Report' }).getByText('Arrived', { exact: true })).toBeVisible();
});

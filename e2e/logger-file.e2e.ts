import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from './suvok.ts';
import { goTo } from './go-to.ts';

const folder = mkdtempSync(join(tmpdir(), 'suvok-logger-'));

/** What a logger wrote of a run: a clock of its own, ratios for λ, semicolons and decimal commas. */
async function loggedFile(
  suvok: { ask: (method: string, path: string) => Promise<unknown>; origin: string },
  runId: number,
): Promise<string> {
  const csv = await (await fetch(`${suvok.origin}/api/runs/${runId}/run.csv`)).text();
  const [head = '', ...rows] = csv.trim().split('\n');
  const at = (name: string) => head.split(',').findIndex((heading) => heading.startsWith(name));
  const [time, rpm] = [at('time'), at('engineSpeed')];
  const written = (value: number) => value.toFixed(3).replace('.', ',');
  // Every tenth sample: 20 a second.
  const lines = rows
    .filter((_, index) => index % 10 === 0)
    .map((row) => {
      const cells = row.split(',').map(Number);
      const speed = cells[rpm] ?? 0;
      return [(cells[time] ?? 0) + 412.5, speed, speed > 3000 ? 12.5 : 14.7, 40].map(written).join(';');
    });
  const path = join(folder, 'day.csv');
  writeFileSync(
    path,
    Buffer.from(['Log of the day', 'Time;RPM;AFR;Oil P', 's;rpm;;psi', ...lines].join('\r\n'), 'latin1'),
  );
  return path;
}

test('a logger’s file is read, laid on the run that it holds, remembered, and taken back', async ({ page, suvok }) => {
  await suvok.startStandIns('fast');
  const job = await suvok.mountedJob();
  await suvok.record(job, 1);
  const [run] = await suvok.runs(job);
  const file = await loggedFile(suvok, run!.id);
  const open = async () => {
    await goTo(page, `${suvok.origin}/jobs/${job.id}/logs?run=A1`);
    await page.getByRole('button', { name: 'Add a logger’s file' }).click();
    await page.locator('input[type=file]').setInputFiles(file);
  };
  await open();
  const form = page.getByRole('dialog');
  await expect(form).toContainText('A new source');
  await expect(form.getByLabel('What RPM is')).toHaveValue('engineSpeed');
  await expect(form.getByLabel('Ratio that it shows for λ 1')).toHaveValue('14.7');
  await expect(form.getByLabel('What Oil P is')).toHaveValue('');
  await form.getByLabel('What Oil P is').selectOption('Oil pressure');
  await expect(form.getByText(/fits: 0\.\d % apart/)).toBeVisible();
  // A column that is taken twice is refused in a sentence, at once.
  await form.getByLabel('What AFR is').selectOption('Engine speed');
  await expect(form.getByText(/Two columns are taken for the same channel/)).toBeVisible();
  await expect(form.getByRole('button', { name: /^Add it to/ })).toBeDisabled();
  await form.getByLabel('What AFR is').selectOption('λ');
  await form.getByLabel('Called').fill('Engine controller');
  await form.getByRole('button', { name: 'Add it to A1' }).click();
  await expect(page.getByText('Engine controller joins A1.')).toBeVisible();
  await expect(page.getByText(/Engine controller time-aligned with the dyno/)).toBeVisible();
  await page
    .getByRole('region', { name: 'All other channels' })
    .getByRole('button', { name: /^Oil pressure/ })
    .click();
  await expect(page.getByRole('img', { name: /^Oil pressure of A1/ })).toBeVisible();
  const [joined] = await suvok.runs(job);
  expect(joined!.logs.at(-1)).toMatchObject({ name: 'Engine controller' });
  // The next file of the source is known by its headings.
  await open();
  await expect(page.getByRole('dialog')).toContainText('Its headings are known: it is read as last time.');
  await expect(page.getByRole('dialog').getByLabel('What Oil P is')).toHaveValue('oilPressure');
  await page.keyboard.press('Escape');
  // Taken off, it can be brought back.
  const logs = () => expect.poll(async () => (await suvok.runs(job))[0]!.logs.length);
  await page.getByRole('button', { name: 'Take Engine controller off this run' }).click();
  await logs().toBe(joined!.logs.length - 1);
  await expect(page.getByText(/Engine controller time-aligned/)).toBeHidden();
  await page.keyboard.press('Control+z');
  await logs().toBe(joined!.logs.length);
});

test('a file that is no table, and another car’s, say so', { tag: '@long' }, async ({ page, suvok }) => {
  await suvok.startStandIns('fast');
  const job = await suvok.mountedJob();
  await suvok.record(job, 1);
  await goTo(page, `${suvok.origin}/jobs/${job.id}/logs`);
  await page.getByRole('button', { name: 'Add a logger’s file' }).click();
  const drop = (name: string, text: string) => {
    writeFileSync(join(folder, name), text);
    return page.locator('input[type=file]').setInputFiles(join(folder, name));
  };
  const form = page.getByRole('dialog');
  await drop('notes.csv', 'nothing but words\nand more of them\n');
  await expect(form).toContainText('No table was found in the file');
  const rows = Array.from({ length: 200 }, (_, at) => `${at / 10},${2000 + 300 * Math.sin(at / 9)}`);
  await drop('other.csv', ['Time,RPM', ...rows].join('\n'));
  await expect(form).toContainText(/does not fit|too short|no pull|fits the dyno’s in more/i);
  await expect(form.getByRole('button', { name: /^Add it to/ })).toBeDisabled();
});

test(
  'the dialog that is opened while the log is still being read stays open',
  { tag: '@long' },
  async ({ page, suvok }) => {
    await suvok.startStandIns('fast');
    const job = await suvok.mountedJob();
    await suvok.record(job, 1);
    let read = () => undefined as void;
    const waited = new Promise<void>((resolve) => (read = resolve));
    await page.route(/\/api\/(runs\/\d+\/)?recordings?\b/, async (route) => {
      await waited;
      await route.continue();
    });
    await goTo(page, `${suvok.origin}/jobs/${job.id}/logs?run=A1`);
    await expect(page.getByRole('main', { name: 'Logs' })).toHaveAttribute('aria-busy');
    await page.getByRole('button', { name: 'Add a logger’s file' }).click();
    const dialog = page.getByRole('dialog', { name: /A logger’s file/ });
    await expect(dialog.getByText('Choose', { exact: false }).first()).toBeVisible();
    read();
    await expect(page.getByRole('region', { name: 'Found in A1', includeHidden: true })).toBeAttached();
    await expect(dialog).toBeVisible();
  },
);

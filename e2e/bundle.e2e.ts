import { goTo } from './go-to.ts';
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { exportCommand, importCommand } from '../cli/bundles.ts';
import { filesIn } from '../server/testing/zip-files.ts';
import { expect, tableOf, test } from './suvok.ts';

const folder = () => mkdtempSync(join(tmpdir(), 'suvok-bundles-'));

test(
  'a job is exported on the page, imported into another Suvok, and its figures are the same there',
  { tag: '@long' },
  async ({ page, recorded, suvok: other }) => {
    const { suvok, job } = await recorded('two-setups');
    await goTo(page, `${suvok.origin}/jobs/${job.id}/compare`);
    await expect(page.getByTestId('gain-table')).toBeVisible();
    const figures = await tableOf(page);
    await goTo(page, `${suvok.origin}/jobs/${job.id}/report`);
    await page.getByRole('button', { name: 'Export', exact: true }).click();
    await page.getByRole('menuitem', { name: 'Job file (.zip)' }).click();
    const saved = page.waitForEvent('download');
    await page.getByRole('dialog').getByRole('button', { name: 'Export' }).click();
    const file = join(folder(), 'job.zip');
    await (await saved).saveAs(file);
    await expect(page.getByText(/is saved by the browser/)).toBeVisible();

    await goTo(page, `${other.origin}/jobs`);
    await page.getByRole('button', { name: 'Import job' }).click();
    const broken = join(folder(), 'broken.zip');
    writeFileSync(broken, 'no zip');
    const choose = (path: string) => page.getByRole('dialog').locator('input[type=file]').setInputFiles(path);
    await choose(broken);
    await expect(page.getByRole('alert')).toContainText(
      'it is no .zip file, or its end is missing. Nothing was stored.',
    );
    await choose(file);
    await expect(page).toHaveURL(/\/jobs\/\d+\/brief/);
    await expect(page.getByText('Imported with 6 runs.')).toBeVisible();
    await goTo(page, page.url().replace('/brief', '/compare'));
    await expect(page.getByTestId('gain-table')).toBeVisible();
    await expect.poll(() => tableOf(page)).toEqual(figures);
    // A second time nothing is doubled, and the job that is here is a press away.
    await goTo(page, `${other.origin}/jobs`);
    await page.getByRole('button', { name: 'Import job' }).click();
    await choose(file);
    await expect(page.getByText('This job is here already. Nothing was stored.')).toBeVisible();
    await page.getByRole('link', { name: 'Open job' }).click();
    await expect(page).toHaveURL(/\/jobs\/\d+\/brief/);
  },
);

test('the whole shop is exported and imported by commands', { tag: '@long' }, async ({ recorded, suvok: other }) => {
  const { suvok, job } = await recorded('two-setups');
  const to = folder();
  const { jobs } = await exportCommand(['all', '--to', to, '--server', suvok.origin]);
  expect(jobs.map((one) => one.job)).toEqual([job.id]);
  const files = readdirSync(to).map((name) => join(to, name));
  const { files: taken } = await importCommand([...files, '--server', other.origin]);
  expect(taken).toMatchObject([{ already: false, runs: 6, remarks: [] }]);
  await expect(importCommand([join(to, 'none.zip'), '--server', other.origin])).rejects.toThrow(
    /none\.zip could not be read \(ENOENT\)/,
  );
  await expect(exportCommand(['999', '--to', to, '--server', suvok.origin])).rejects.toThrow('There is no such job.');
  await expect(exportCommand(['all', '--to', files[0]!, '--server', suvok.origin])).rejects.toThrow(/is no folder/);
  await expect(exportCommand(['one', '--to', to])).rejects.toThrow(/Say the number of one job, or all/);
  await expect(exportCommand(['1', '--to', to, '--server', 'http://127.0.0.1:9'])).rejects.toThrow(/No Suvok answers/);
});

test(
  'what a remote tuner is sent opens without Suvok, with lanes, crosshair, findings and table, and without the owner',
  { tag: '@long' },
  async ({ page, recorded }) => {
    const { suvok, job } = await recorded('two-setups');
    await suvok.ask('PATCH', `/vehicles/${job.vehicleId}`, { plate: 'SU 12', ownerName: 'A. Sorrel' });
    const file = new FormData();
    file.append('file', new Blob(['a tune']), 'short intake r2.bin');
    expect(
      (await fetch(`${suvok.origin}/api/setups/${job.setups[1]!.id}/tune-files`, { method: 'POST', body: file }))
        .status,
    ).toBe(201);
    await goTo(page, `${suvok.origin}/jobs/${job.id}/report`);
    await page.getByRole('button', { name: 'Export', exact: true }).click();
    await page.getByRole('menuitem', { name: 'For a remote tuner (.zip)' }).click();
    await expect(page.getByText('With the tune file short intake r2.bin.')).toBeVisible();
    await page.getByRole('checkbox', { name: /^A3 / }).check();
    const saved = page.waitForEvent('download');
    await page.getByRole('dialog').getByRole('button', { name: 'Export' }).click();
    const files = await filesIn(readFileSync(await (await saved).path()));
    expect([...files.keys()].filter((path) => !path.startsWith('runs/')).sort()).toEqual([
      'curves.csv',
      'open-me.html',
      'report.txt',
      'tune-file/short-intake-r2.bin',
    ]);
    for (const label of ['A3', 'B1', 'B2', 'B3']) expect(files.has(`runs/${label}.csv`)).toBe(true);
    expect(files.has('runs/A1.csv')).toBe(false);
    for (const content of files.values()) expect(content.toString('utf8')).not.toMatch(/Sorrel|SU 12/);

    // Who waits for whom is told until the file is back, and then the other way round.
    await goTo(page, `${suvok.origin}/jobs`);
    await expect(page.getByRole('link', { name: /Tarrow Six/ })).toContainText('a file from the tuner');
    await goTo(page, `${suvok.origin}/jobs/${job.id}/brief?show=history`);
    const brief = page.getByRole('main', { name: 'Brief' });
    await expect(brief).toContainText(
      /Waiting for the tuner for \d+ s\..*1 package with 4 runs sent, no file back yet\./,
    );
    await expect(brief).toContainText('Sent to the tuner: 4 runs');
    const back = new FormData();
    back.append('file', new Blob(['a better tune']), 'r3.bin');
    expect(
      (await fetch(`${suvok.origin}/api/setups/${job.setups[1]!.id}/returned-files`, { method: 'POST', body: back }))
        .status,
    ).toBe(201);
    await expect(brief).toContainText(
      /The tuner waits for runs of C for \d+ s\..*1 file back \(r3\.bin, C\)\. The tuner took \d+ s\./,
    );

    const place = join(folder(), 'open-me.html');
    writeFileSync(place, files.get('open-me.html')!);
    const asked: string[] = [];
    page.on('request', (request) => asked.push(request.url()));
    await page.goto(`file://${place}`);
    await expect(page.getByRole('heading', { level: 1 })).toContainText(/kW/);
    const lanes = page.getByRole('img', { name: /lanes over rpm/ });
    await expect(lanes.locator('path.line')).toHaveCount(5);
    const at = page.locator('#at');
    const before = await at.textContent();
    await lanes.focus();
    await page.keyboard.press('Shift+ArrowRight');
    await expect(at).not.toHaveText(before ?? '');
    await expect(at).toContainText(/At [\d,]+ rpm: arrived [\d.]+ kW.*gain [\d.−]+ ±\s[\d.]+ kW/);
    const views = await page.getByLabel('Lanes of').locator('option').allTextContents();
    expect(views.map((name) => name.slice(0, 2))).toEqual(['Cu', 'A3', 'B1', 'B2', 'B3']);
    await page.getByLabel('Lanes of').selectOption({ index: 3 });
    await expect(page.getByRole('img', { name: /^B2.*lanes over s/ })).toBeVisible();
    await expect(page.getByRole('heading', { name: 'Curves every 250 rpm' })).toBeVisible();
    // Nothing but the file itself is asked for.
    expect(asked).toEqual([`file://${place}`]);
  },
);

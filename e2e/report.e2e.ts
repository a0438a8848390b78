import { goTo } from './go-to.ts';
import { readFileSync } from 'node:fs';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import type { Job } from '../contract/job/records.ts';
import { expect, test } from './suvok.ts';

test('the report stands composed when it is opened, with the figures that Compare has', async ({ page, recorded }) => {
  const { suvok, job } = await recorded('ignition');
  await suvok.ask('POST', `/jobs/${job.id}/limits`, {
    quantity: 'engineSpeed',
    value: 7100,
    scale: null,
    reason: '',
    source: 'us',
  });
  const [arrived, delivered] = [job.setups[0]!, job.setups[1]!];
  await suvok.ask('PATCH', `/jobs/${job.id}`, { question: 'Does more ignition pay?', untested: 'Cold start' });
  await goTo(page, `${suvok.origin}/jobs/${job.id}/report`);
  const sheet = page.getByRole('main', { name: 'Report' });
  await expect(sheet.getByTestId('report-answer')).not.toBeEmpty();
  await expect(sheet).toContainText('The question was: Does more ignition pay?');
  await expect(sheet.getByText('Last setup', { exact: true })).toBeVisible();
  const draft = page.getByRole('complementary', { name: 'Draft of the report' });
  await expect(draft).toContainText('No setup is named as delivered');
  // Never in the owner's copy.
  await expect(sheet).not.toContainText('No setup is named');

  // Named as delivered it is called so, and its gain is the one that Compare tells.
  await suvok.ask('PUT', `/jobs/${job.id}/state`, {
    state: 'closed',
    deliveredSetupId: delivered.id,
    untested: 'Cold start',
    deliveredNote: '',
  });
  await page.reload();
  await expect(sheet.getByText('Delivered', { exact: true })).toBeVisible();
  await expect(draft).not.toContainText('No setup is named as delivered');
  await expect(sheet.getByRole('img', { name: /Power, torque and gain/ })).toContainText('delivered');
  const whole = sheet.getByRole('row', { name: /^B, / });
  const told = /[+−]\d+\.\d ± <?\d+\.\d/.exec(((await whole.textContent()) ?? '').replaceAll('\u00a0', ' '))![0];
  await goTo(page, `${suvok.origin}/jobs/${job.id}/compare?setup=${delivered.letter}&against=${arrived.letter}`);
  const row = page.getByTestId('gain-table').getByRole('row').filter({ hasText: 'common range' }).first();
  await expect(row).toContainText(told.split(' ± ')[0]!);
  await expect(row).toContainText(`±${told.split(' ± ')[1]!}`);
});

test('what is changed of it is kept, undone, and taken back; the one-page form leaves out what it has no room for', async ({
  page,
  recorded,
}) => {
  const { suvok, job } = await recorded('ignition');
  await goTo(page, `${suvok.origin}/jobs/${job.id}/report`);
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
  // Words of a block's own, and another large figure.
  await draft.getByRole('button', { name: 'Words of Read with care' }).click();
  await page.getByLabel('Title').fill('Please note');
  await page.getByLabel('Own words under it').fill('The tyres were new.');
  await page.keyboard.press('Escape');
  await expect(sheet.locator('[data-block=care]')).toContainText(/^Please noteThe tyres were new\..+/);
  await draft.getByRole('button', { name: 'Words of Arrived, delivered, best' }).click();
  await page.getByRole('checkbox', { name: /^Run A1, / }).click();
  await expect(sheet.getByText('Run A1', { exact: true })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect
    .poll(async () => (await suvok.ask<Job>('GET', `/jobs/${job.id}`)).report)
    .toMatchObject({ figures: ['arrived', 'delivered', 'run A1'], titles: { care: 'Please note' } });
  // In another language, and back.
  await draft.getByLabel('Language of the report').selectOption('Deutsch');
  await expect(sheet.getByRole('heading', { name: 'Wie die Zahlen entstanden sind' })).toBeVisible();
  await expect(sheet.getByText('Angeliefert', { exact: true })).toBeVisible();
  await expect(draft.getByRole('checkbox', { name: 'How the figures were made' })).toBeVisible();
  await draft.getByLabel('Language of the report').selectOption('English');
  await expect(sheet.getByText('Arrived', { exact: true })).toBeVisible();
  // In other units, whatever the operator's are.
  await draft.getByLabel('Units of the report').selectOption('US');
  await expect(sheet.getByText('Arrived', { exact: true }).locator('..')).toContainText(/\d hp/);
  await expect.poll(async () => (await suvok.ask<Job>('GET', `/jobs/${job.id}`)).report?.units?.power).toBe('hp');
  await page.reload();
  await expect(sheet.getByTestId('report-answer')).toHaveText('It pays, a little.');
  await expect.poll(titles).toEqual(['Please note', 'What each change gave', 'How the figures were made']);
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

test(
  'a job without a run says what to do, and one with a baseline alone is reported as it arrived',
  { tag: '@long' },
  async ({ page, suvok }) => {
    const job = await suvok.mountedJob();
    await goTo(page, `${suvok.origin}/jobs/${job.id}/report`);
    await expect(page.getByText('Nothing to report yet')).toBeVisible();
    await suvok.startStandIns('fast');
    await suvok.record(job, 2);
    await expect(page.getByTestId('report-answer')).toHaveText(
      'The car as it arrived: nothing was changed and measured yet.',
    );
    await expect(page.getByRole('main', { name: 'Report' }).getByText('Arrived', { exact: true })).toBeVisible();
  },
);

test(
  'the report is saved as a PDF with the figures of the sheet, told as it goes, and may be cancelled',
  { tag: '@long' },
  async ({ page, recorded }) => {
    const { suvok, job } = await recorded('ignition');
    await goTo(page, `${suvok.origin}/jobs/${job.id}/report`);
    const answer = await page.getByTestId('report-answer').innerText();
    const large = await page.locator('[data-block=figures] dd').allInnerTexts();
    const save = page.getByRole('button', { name: 'Save as PDF' });
    const download = page.waitForEvent('download');
    await save.click();
    await expect(page.getByRole('progressbar', { name: 'How far the PDF is' })).toBeVisible();
    const file = await download;
    expect(file.suggestedFilename()).toMatch(/\.pdf$/);
    const words = await pdfWords(await file.path());
    for (const text of [answer, ...large]) expect(words).toContain(text.replace(/\s+/g, ''));
    // Cancelled it is made no further, and the button is there again.
    let downloads = 0;
    page.on('download', () => downloads++);
    await save.click();
    await page
      .getByRole('complementary', { name: 'Draft of the report' })
      .getByRole('button', { name: 'Cancel' })
      .click();
    await expect(save).toBeVisible();
    expect(downloads).toBe(0);
    // A server that is not there is one sentence.
    await page.route('**/report/pdf', (route) => route.abort());
    await save.click();
    await expect(page.getByText('The server does not answer.')).toBeVisible();
  },
);

test(
  'a version is kept as it is, says what would be otherwise today, and what was taken away comes back',
  { tag: '@long' },
  async ({ page, recorded }) => {
    const { suvok, job } = await recorded('ignition');
    await goTo(page, `${suvok.origin}/jobs/${job.id}/report`);
    const answer = page.getByTestId('report-answer');
    const draft = page.getByRole('complementary', { name: 'Draft of the report' });
    await draft.getByLabel('Answer in your own words').fill('As it was on that day.');
    await draft.getByLabel('What the version is for').fill('for the owner');
    await draft.getByRole('button', { name: 'Keep as version 1' }).click();
    const first = page.getByRole('link', { name: /^Version 1.*for the owner/ });
    await first.click();
    await expect(page).toHaveURL(/\?version=1$/);
    await expect(answer).toHaveText('As it was on that day.');
    await expect(page.getByText('Nothing has changed since')).toBeVisible();
    // What the job becomes afterwards changes nothing of it.
    const run = (await suvok.runs(job)).filter(({ setupId }) => setupId === job.setups.at(-1)!.id).at(-1)!;
    const large = await page.locator('[data-block=figures]').innerText();
    await suvok.ask('PATCH', `/runs/${run.id}`, { setAsideReason: 'tyre slip' });
    await suvok.ask('PATCH', `/jobs/${job.id}`, { report: null });
    await page.reload();
    await expect(page.getByText(/Today it would say otherwise: .*the large figures/)).toBeVisible();
    await expect(page.getByText(new RegExp(`Runs delivered: .*${run.label!} then`))).toBeVisible();
    expect(await page.locator('[data-block=figures]').innerText()).toBe(large);
    await expect(answer).toHaveText('As it was on that day.');
    await page.getByRole('link', { name: 'Show the draft' }).click();
    await expect(answer).not.toHaveText('As it was on that day.');
    await page.getByRole('button', { name: 'Take away version 1' }).click();
    await expect(first).toHaveCount(0);
    await page.getByRole('button', { name: 'Bring back' }).click();
    await expect(first).toBeVisible();
    // One that is not there says so.
    await goTo(page, `${suvok.origin}/jobs/${job.id}/report?version=9`);
    await expect(page.getByRole('alert')).toContainText('There is no version 9 of this report');
  },
);

test('curves and text of the report are taken away as files', { tag: '@long' }, async ({ page, recorded, context }) => {
  const { suvok, job } = await recorded('ignition');
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  await goTo(page, `${suvok.origin}/jobs/${job.id}/report`);
  const answer = await page.getByTestId('report-answer').innerText();
  const taken = async (name: string) => {
    await page.getByRole('button', { name: 'Export' }).click();
    const download = page.waitForEvent('download');
    await page.getByRole('menuitem', { name }).click();
    return readFileSync(await (await download).path());
  };
  expect((await taken('Curves, SVG')).toString()).toMatch(/^<svg [^]*>arrived<\/text>/);
  expect((await taken('Curves, PNG')).subarray(1, 4).toString()).toBe('PNG');
  expect((await taken('Curves and gain, CSV')).toString().split('\r\n')[0]).toMatch(
    /^engineSpeed \[rpm\],.*gain last setup less arrived/,
  );
  await page.getByRole('button', { name: 'Export' }).click();
  await page.getByRole('menuitem', { name: 'Copy as e-mail text' }).click();
  await expect(page.getByText('The report is copied as text')).toBeVisible();
  const text = await page.evaluate(() => navigator.clipboard.readText());
  expect(text).toContain(answer.replaceAll('\u00a0', ' '));
  expect(text).toContain('READ WITH CARE');
});

/** The words of a PDF without the spaces between them. */
async function pdfWords(path: string): Promise<string> {
  const document = await getDocument({ data: new Uint8Array(readFileSync(path)), verbosity: 0 }).promise;
  const pages = await Promise.all(
    Array.from({ length: document.numPages }, async (_, at) =>
      (await (await document.getPage(at + 1)).getTextContent()).items.map((item) => ('str' in item ? item.str : '')),
    ),
  );
  return pages.flat().join('').replace(/\s+/g, '');
}

test(
  'what a change means on the road stands in Compare as in the report; without a car’s gears it says what is missing',
  { tag: '@long' },
  async ({ page, recorded }) => {
    const { suvok, job } = await recorded('ignition');
    await goTo(page, `${suvok.origin}/jobs/${job.id}/compare`);
    await page.getByText('Road', { exact: true }).click();
    await expect(page.getByRole('heading', { name: 'Nothing to tell of the road yet' })).toBeVisible();
    await expect(page).toHaveURL(/show=road/);
    await suvok.ask('PATCH', `/vehicles/${job.vehicleId}`, {
      tyres: '195/60 R15',
      finalDrive: 3.9,
      gears: [
        { gear: '3rd', ratio: 1.36 },
        { gear: '4th', ratio: 1.03 },
      ],
      massKg: 940,
    });
    await page.reload();
    const road = page.getByRole('region', { name: 'Road' });
    const row = road.getByRole('row', { name: /^4th / });
    await expect(row).toContainText(/\d+ to \d+\skm\/h/);
    await expect(road).toContainText('940 kg');
    const told = await row.getByRole('cell').allInnerTexts();
    const { letter } = job.setups.at(-1)!;
    // Against what arrived it is the table of the report.
    await goTo(page, `${suvok.origin}/jobs/${job.id}/compare?show=road&setup=${letter}&against=A&baseline=A`);
    await expect(row).toContainText(/\d/);
    const compared = await row.getByRole('cell').allInnerTexts();
    await goTo(page, `${suvok.origin}/jobs/${job.id}/report`);
    const reported = page.locator('[data-block=road]').getByRole('row', { name: /^4th / });
    await expect(reported).toContainText(/km\/h/);
    expect(await reported.getByRole('cell').allInnerTexts()).toEqual(compared);
    expect(told).toHaveLength(compared.length);
  },
);

test(
  'a kept report is shared by a link that another browser reads without the rest, and is taken back',
  { tag: '@long' },
  async ({ page, browser, recorded }) => {
    const { suvok, job } = await recorded('ignition');
    await goTo(page, `${suvok.origin}/jobs/${job.id}/report`);
    await page.getByLabel('What the version is for').fill('given to the owner');
    await page.getByRole('button', { name: 'Keep as version 1' }).click();
    await expect(page.getByRole('link', { name: /Version 1/ })).toBeVisible();
    await page.getByRole('button', { name: 'Share, to read only' }).click();
    const dialog = page.getByRole('dialog');
    await expect(dialog.getByRole('radio', { name: /version 1: given to the owner/ })).toBeChecked();
    await dialog.getByLabel('For whom').fill('the owner');
    await dialog.getByLabel('The link holds for').selectOption('7');
    await dialog.getByRole('button', { name: 'Make the link' }).click();
    await expect(dialog.getByRole('note')).toContainText('answers on this machine only');
    const address = (await dialog.getByTestId('shared-address').textContent()) ?? '';
    await dialog.getByRole('button', { name: 'Done' }).click();
    const links = page.getByRole('region', { name: 'Shared links' });
    await expect(links).toContainText('Version 1 for the owner');
    await expect(links).toContainText('not opened yet');

    const context = await browser.newContext({ viewport: { width: 390, height: 800 } });
    const reader = await context.newPage();
    const asked: string[] = [];
    reader.on('request', (request) => asked.push(new URL(request.url()).pathname));
    await reader.goto(address);
    const sheet = reader.getByRole('main', { name: 'Report' });
    await expect(sheet.getByTestId('report-answer')).not.toBeEmpty();
    await expect(sheet).toContainText('version 1');
    await expect(reader.getByText('Shared until')).toBeVisible();
    expect(asked.filter((path) => path.startsWith('/api/') && !path.startsWith('/api/shared/'))).toEqual([]);
    expect(await reader.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
    const saving = reader.waitForEvent('download');
    await reader.getByRole('link', { name: 'Save as PDF' }).click();
    expect((await saving).suggestedFilename()).toMatch(/\.pdf$/);

    // A comparison opens as a page with its own lanes.
    await page.getByRole('button', { name: 'Share, to read only' }).click();
    await dialog.getByRole('radio', { name: /Comparison/ }).click();
    await dialog.getByRole('button', { name: 'Make the link' }).click();
    await expect(dialog.getByTestId('shared-address')).not.toHaveText(address);
    await reader.goto((await dialog.getByTestId('shared-address').textContent()) ?? '');
    await expect(reader.getByRole('heading', { level: 1 })).toContainText(/kW|shown/);
    await expect(reader.locator('#lanes svg').first()).toBeVisible();
    await dialog.getByRole('button', { name: 'Done' }).click();

    await page.reload();
    await expect(links).toContainText('opened once');
    await links.getByRole('button', { name: /version 1 for the owner/ }).click();
    await expect(links).not.toContainText('for the owner');
    await reader.goto(address);
    await expect(reader.getByRole('alert')).toContainText('Ask whoever sent it for another one.');
    await context.close();
  },
);

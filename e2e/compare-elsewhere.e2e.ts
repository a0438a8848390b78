import { goTo } from './go-to.ts';
import type { Page } from '@playwright/test';
import type { Job } from '../contract/job/records.ts';
import { expect, tableOf, test, type Suvok } from './suvok.ts';

/** Opens what a curve can be borrowed from, with the words that all of them want. */
async function openBorrow(
  page: Page,
  suvok: Suvok,
  job: Job,
  source: string,
  words: { name?: string; origin: string },
): Promise<void> {
  await goTo(page, `${suvok.origin}/jobs/${job.id}/compare?smoothing=300`);
  await openElsewhere(page);
  await page.getByRole('button', { name: 'Borrow a curve…' }).click();
  await page.getByText(source, { exact: true }).click();
  if (words.name) await page.getByLabel('Name', { exact: true }).fill(words.name);
  await page.getByLabel('Where it comes from').fill(words.origin);
}

/** A second job with two runs, of the same vehicle or of another. */
async function secondJob(suvok: Suvok, vehicle?: string): Promise<Job> {
  await suvok.startStandIns('fast');
  const job = await suvok.mountedJob(vehicle);
  await suvok.record(job, 2);
  return suvok.ask<Job>('GET', `/jobs/${job.id}`);
}

async function openElsewhere(page: Page): Promise<void> {
  await page.getByRole('button', { name: /^Compare against/ }).click();
  await page.getByRole('button', { name: 'From elsewhere…' }).click();
}

test(
  'another visit of the same vehicle is laid beside, with where it comes from, and a link shows it again',
  { tag: '@long' },
  async ({ page, recorded }) => {
    const { suvok, job } = await recorded('two-setups');
    const other = await secondJob(suvok);
    await goTo(page, `${suvok.origin}/jobs/${other.id}/compare?smoothing=300`);
    await openElsewhere(page);
    await page.getByRole('radio', { name: new RegExp(`^Job ${job.id},`) }).check();
    await expect(page.getByTestId('sentence')).toContainText(`A of job ${job.id}`);
    await page.getByRole('radio', { name: /^B, intake trumpets/ }).check();
    await page.keyboard.press('Escape');
    await expect(page).toHaveURL(new RegExp(`from=${job.id}\\.B`));
    await expect(page.getByTestId('sentence')).toContainText(`B of job ${job.id}`);
    await expect(page.getByText(/comes from elsewhere: setup B of job \d+, intake trumpets/)).toBeVisible();
    await expect(page.getByRole('img', { name: new RegExp(`^Power of B of job ${job.id}, A over`) })).toBeVisible();
    // This job's own column tells nothing of it.
    await expect(page.getByRole('complementary', { name: 'Setups' })).not.toContainText('of job');
    const table = await tableOf(page);
    const fresh = await (await page.context().browser()!.newContext()).newPage();
    await fresh.goto(page.url());
    expect(await tableOf(fresh)).toEqual(table);
    await fresh.context().close();
  },
);

test('another vehicle withholds the verdict and says why', { tag: '@long' }, async ({ page, recorded }) => {
  const { suvok, job } = await recorded('two-setups');
  const other = await secondJob(suvok, 'Ostrel 990 twin');
  await goTo(page, `${suvok.origin}/jobs/${other.id}/compare?smoothing=300`);
  await openElsewhere(page);
  await page.getByRole('combobox', { name: 'Another vehicle’s job' }).fill('Tarrow');
  await page.getByRole('option', { name: /Tarrow Six/ }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByText('The runs are of different vehicles: Ostrel 990 twin and Tarrow Six')).toBeVisible();
  await expect(page.getByTestId('sentence')).toContainText(/not like for like, .*: no verdict/);
  await expect(page.locator('[data-testid=gain-table] .gain, [data-testid=gain-table] .loss')).toHaveCount(0);
  // A job that is not there is said, and the parent is one press away.
  await goTo(page, `${suvok.origin}/jobs/${job.id}/compare?smoothing=300&from=99999`);
  await expect(page.getByRole('alert')).toContainText('Job 99999 cannot be laid beside');
  await page.getByRole('button', { name: 'Compare with its parent' }).click();
  await expect(page.getByRole('alert')).toHaveCount(0);
  await expect(page.getByTestId('sentence')).toContainText('A');
});

test('a borrowed curve is pasted with its origin, drawn beside, and never judged', async ({ page, recorded }) => {
  const { suvok, job } = await recorded('two-setups');
  await goTo(page, `${suvok.origin}/jobs/${job.id}/compare?smoothing=300`);
  await openElsewhere(page);
  await page.getByRole('button', { name: 'Borrow a curve…' }).click();
  await page.getByLabel('Name', { exact: true }).fill('maker’s sheet');
  await page.getByLabel('Its points').fill('rpm kW\n3000 47\n4000 6x\n5000 90');
  await page.getByRole('button', { name: 'Lay it beside' }).click();
  await expect(page.getByText('Say where it comes from: a curve of unknown origin is worth nothing.')).toBeVisible();
  await expect(page.getByText('Line 3, “4000 6x”, is not an engine speed and a power')).toBeVisible();
  await page.getByLabel('Where it comes from').fill('brochure, read off the print');
  await page.getByLabel('Its points').fill('rpm kW\n3000 47\n4000 67\n5000 90');
  await page.getByRole('button', { name: 'Lay it beside' }).click();
  await expect(page).toHaveURL(/from=curve-\d+/);
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('sentence')).toContainText(
    /^B reads [+−]\d+\.\d kW against maker’s sheet from 3,000 to 5,000 rpm/,
  );
  await expect(page.getByText('brochure, read off the print').first()).toBeVisible();
  await expect(page.locator('[data-testid=gain-table] i').filter({ hasText: '±' })).toHaveCount(0);
  await expect(page.getByRole('img', { name: /^Power of A, maker’s sheet, B over/ })).toBeVisible();
});

test('an earlier version of the frozen baseline is shown as it was', { tag: '@long' }, async ({ page, suvok }) => {
  await suvok.startStandIns('fast', 5, 'inertia-roller', 200);
  const begun = await suvok.mountedJob();
  await suvok.record(begun, 3);
  await suvok.mountedSetup(begun, 'intake trumpets 40 mm shorter');
  await suvok.record(begun, 3);
  const job = await suvok.ask<Job>('GET', `/jobs/${begun.id}`);
  const [a, b] = job.setups.map(({ id }) => id);
  const runsOfA = job.runs.filter((run) => run.setupId === a).map(({ id }) => id);
  await suvok.ask('POST', `/jobs/${job.id}/baseline`, { setupId: a, runIds: runsOfA.slice(0, 2), why: 'first two' });
  await suvok.ask('POST', `/jobs/${job.id}/baseline`, { setupId: a, runIds: runsOfA, why: 'a third run' });
  expect(b).toBeDefined();
  await goTo(page, `${suvok.origin}/jobs/${job.id}/compare?smoothing=300`);
  const now = (await tableOf(page)).common!;
  await page.getByRole('button', { name: 'Baseline: A, frozen v2' }).click();
  await page.getByRole('radio', { name: 'Version 1' }).check();
  await page.keyboard.press('Escape');
  await expect(page).toHaveURL(/version=1/);
  await expect(page.getByRole('button', { name: 'Baseline: A, frozen v1' })).toBeVisible();
  await expect(
    page.getByText('The baseline shown is version 1 (A1 A2), which version 2 has replaced: a third run.'),
  ).toBeVisible();
  await expect.poll(async () => (await tableOf(page)).common![0]).not.toBe(now[0]);
});

test(
  'a result table of another dyno gives a curve a run, and one that cannot be read says why',
  { tag: '@long' },
  async ({ page, recorded }) => {
    const { suvok, job } = await recorded('two-setups');
    await openBorrow(page, suvok, job, 'Result table', { origin: 'another shop, in spring' });
    const file = page.locator('input[type=file]');
    await file.setInputFiles({ name: 'notes.txt', mimeType: 'text/plain', buffer: Buffer.from('no table\nat all') });
    await expect(page.getByText(/No table was found|No row of headings/)).toBeVisible();
    const rows = [3000, 4000, 5000, 6000].map((rpm) => `${rpm};${rpm / 50},0;${rpm / 48}`);
    await file.setInputFiles({
      name: 'results.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from(['RPM;Before power (PS);After power (PS)', ...rows].join('\n')),
    });
    await expect(page.getByLabel(/^Before: 3,000 to 6,000 rpm, peak 88\.3 kW at 6,000/)).toBeChecked();
    await page.getByLabel(/^Before:/).uncheck();
    await page.getByRole('button', { name: 'Lay it beside' }).click();
    await expect(page).toHaveURL(/from=curve-\d+/);
    await page.keyboard.press('Escape');
    await expect(page.getByTestId('sentence')).toContainText(/against After from 3,000 to [56],/);
  },
);

test(
  'a norm known as one figure is a dashed line and a plain difference, without a verdict',
  { tag: '@long' },
  async ({ page, recorded }) => {
    const { suvok, job } = await recorded('two-setups');
    await openBorrow(page, suvok, job, 'One figure', { name: 'club norm', origin: 'twelve like cars' });
    await page.getByRole('button', { name: 'Lay it beside' }).click();
    await expect(page.getByText('Give the peak power.')).toBeVisible();
    await page.getByLabel('Peak power').fill('90');
    await page.getByRole('button', { name: 'Lay it beside' }).click();
    await page.keyboard.press('Escape');
    await expect(page.getByTestId('sentence')).toContainText(
      /^B peaks at \d+\.\d kW at the wheels, \d+\.\d kW \(\d+\.\d %\) (above|below) the norm\. “club norm” is 90\.0 kW/,
    );
    await expect(page.getByRole('figure').filter({ hasText: 'club norm 90.0, dashed' })).toBeVisible();
    await expect(page.getByTestId('gain-table')).toHaveCount(0);
  },
);

/** A sheet with a red line from 20 kW at 2,000 rpm to 100 kW at 6,000: its frame runs from 1,000 rpm and 0 kW to 7,000 and 120. */
async function drawnSheet(page: Page): Promise<Buffer> {
  const address = await page.evaluate(() => {
    const canvas = document.createElement('canvas');
    Object.assign(canvas, { width: 700, height: 500 });
    const pen = canvas.getContext('2d')!;
    pen.fillStyle = 'white';
    pen.fillRect(0, 0, 700, 500);
    pen.strokeStyle = '#bbb';
    pen.strokeRect(50, 40, 600, 420);
    pen.strokeStyle = '#c22';
    pen.lineWidth = 3;
    pen.beginPath();
    pen.moveTo(150, 460 - (20 / 120) * 420);
    pen.lineTo(550, 460 - (100 / 120) * 420);
    pen.stroke();
    return canvas.toDataURL('image/png');
  });
  return Buffer.from(address.split(',')[1]!, 'base64');
}

/** The same line as a document of one page, 700 × 500 points. */
function drawnDocument(): Buffer {
  const y = (kw: number) => 40 + (kw / 120) * 420;
  const content = `0.7 G 50 40 600 420 re S 0.8 0.1 0.1 RG 3 w 150 ${y(20)} m 550 ${y(100)} l S`;
  const objects = [
    '<< /Type /Catalog /Pages 2 0 R >>',
    '<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
    '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 700 500] /Contents 4 0 R >>',
    `<< /Length ${content.length} >>\nstream\n${content}\nendstream`,
  ];
  const body = objects.map((object, at) => `${at + 1} 0 obj\n${object}\nendobj\n`).join('');
  return Buffer.from(`%PDF-1.4\n${body}trailer\n<< /Root 1 0 R /Size 5 >>\n%%EOF\n`);
}

for (const kind of ['png', 'pdf'] as const)
  test(
    `a printed sheet (${kind}) is traced by its colour, with what the tracing leaves open`,
    { tag: kind === 'png' ? [] : '@long' },
    async ({ page, recorded }) => {
      const { suvok, job } = await recorded('two-setups');
      await openBorrow(page, suvok, job, 'Picture of a sheet', {
        name: 'old sheet',
        origin: 'the folder in the glove box',
      });
      const buffer = kind === 'png' ? await drawnSheet(page) : drawnDocument();
      const file = page.locator('input[type=file]');
      await file.setInputFiles({ name: 'broken.pdf', mimeType: 'application/pdf', buffer: Buffer.from('no document') });
      await expect(page.getByText('broken.pdf cannot be read as a PDF')).toBeVisible();
      await file.setInputFiles({
        name: `sheet.${kind}`,
        mimeType: kind === 'png' ? 'image/png' : 'application/pdf',
        buffer,
      });
      const sheet = page.getByRole('img', { name: 'The sheet' });
      await expect(sheet).toBeVisible();
      for (const [label, figure] of [
        ['Low speed', 1000],
        ['High speed', 7000],
        ['Low value', 0],
        ['High value', 120],
      ] as const)
        await page.getByLabel(label).fill(String(figure));
      await sheet.scrollIntoViewIfNeeded();
      const press = async (x: number, y: number) => {
        const box = (await sheet.boundingBox())!;
        await sheet.click({ position: { x: (x / 700) * box.width, y: (y / 500) * box.height } });
      };
      await press(50, 460);
      await press(650, 460);
      await press(50, 460);
      await press(50, 40);
      await expect(page.getByRole('status').filter({ hasText: 'Press on the line' })).toBeVisible();
      await press(350, 460 - (60 / 120) * 420);
      await expect(
        page.getByText(
          /^Traced from [12],\d+ to [56],\d+ rpm: peak (99|100|101)\.\d kW at [56],\d+ rpm, ±\s\d\.\d\skW by the tracing/,
        ),
      ).toBeVisible();
      await page.getByRole('button', { name: 'Lay it beside' }).click();
      await expect(page).toHaveURL(/from=curve-\d+/);
      await page.keyboard.press('Escape');
      await expect(
        page.getByText(/It was traced within\s±\s\d\.\d\skW; how it was measured is another matter/),
      ).toBeVisible();
    },
  );

import { goTo, goWithin, load } from './go-to.ts';
import { expect, test } from './suvok.ts';

test('everything is reached by what is typed: a place, a job by its plate, a setup, a run, a command', async ({
  page,
  suvok,
}) => {
  await suvok.startStandIns('fast');
  const job = await suvok.mountedJob('Tarrow Six');
  await suvok.ask('PATCH', `/vehicles/${job.vehicleId}`, { plate: 'TS 66' });
  await suvok.record(job, 1);
  await suvok.mountedSetup(job, 'Shorter trumpets');
  await goTo(page, `${suvok.origin}/today`);
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  const typed = page.getByPlaceholder('Job, car, plate, setup, run, command');
  const go = async (words: string, option: RegExp) => {
    await page.keyboard.press('Control+k');
    await typed.fill(words);
    await expect(page.getByRole('button', { name: option }).first()).toBeVisible();
    await page.keyboard.press('Enter');
    await expect(typed).toHaveCount(0);
  };
  await go('equip', /^Equipment/);
  await expect(page.getByRole('heading', { level: 1, name: 'Equipment' })).toBeVisible();
  await go('ts 66', /^Tarrow Six/);
  await expect(page).toHaveURL(new RegExp(`/jobs/${job.id}/brief`));
  await go('trumpets', /^B, Shorter trumpets/);
  await expect(page).toHaveURL(/compare\?setup=B/);
  await go('a1', /^A1, power run/);
  await expect(page).toHaveURL(/logs\?run=A1/);
  await go('bay theme', /^Bay theme/);
  await expect(page.locator('html')).toHaveAttribute('data-mantine-color-scheme', 'dark');
  await page.getByRole('button', { name: 'Menu' }).click();
  await page.getByRole('menuitem', { name: 'Jobs' }).click();
  await go('new job', /^New job/);
  await expect(page.getByRole('dialog', { name: 'New job' })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+k');
  await typed.fill('qqqq');
  await expect(page.getByText('Nothing is called that.')).toBeVisible();
});

test('the keys of a screen are listed by ?, and the first Tab skips the bar', async ({ page, suvok }) => {
  await load(page, `${suvok.origin}/today`);
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await page.keyboard.press('Tab');
  await expect(page.getByRole('link', { name: 'Skip to the screen' })).toBeFocused();
  await page.keyboard.press('Enter');
  await page.keyboard.press('?');
  const keys = page.getByRole('dialog', { name: 'Keys of this screen' });
  await expect(keys).toContainText('New booking');
  await expect(keys).toContainText('Undo what this page did last');
  await page.keyboard.press('Escape');
  await expect(keys).toHaveCount(0);
});

test('equipment is told of before it is due, and done with one press', { tag: '@long' }, async ({ page, suvok }) => {
  await goTo(page, `${suvok.origin}/equipment`);
  await expect(page.getByText('Nothing is kept in date here yet.')).toBeVisible();
  await page.keyboard.press('n');
  const form = page.getByRole('dialog', { name: 'New equipment' });
  const day = (by: number) => {
    const moment = new Date(Date.now() + by * 24 * 3_600_000);
    return `${moment.getFullYear()}-${String(moment.getMonth() + 1).padStart(2, '0')}-${String(moment.getDate()).padStart(2, '0')}`;
  };
  await form.getByLabel('Name').fill('λ probe 2');
  await form.getByLabel('What is done').fill('free-air check');
  await form.getByLabel('Last done').fill(day(-29));
  await form.getByLabel('Every, days').fill('30');
  await form.getByRole('button', { name: 'Add' }).click();
  const row = page.getByRole('row', { name: /λ probe 2/ });
  await expect(row).toContainText('tomorrow');
  await page.getByRole('button', { name: 'λ probe 2' }).click();
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'sheet.pdf', mimeType: 'application/pdf', buffer: Buffer.from('%PDF-1.4\n%%EOF') });
  await expect(page.getByRole('dialog').getByRole('link', { name: 'sheet.pdf' })).toBeVisible();
  await page.keyboard.press('Escape');
  await goTo(page, `${suvok.origin}/today`);
  await expect(page.getByRole('listitem').filter({ hasText: 'λ probe 2' })).toContainText('tomorrow');
  await page.getByRole('link', { name: /λ probe 2/ }).click();
  await row.getByRole('button', { name: 'Done today' }).click();
  await expect(row).toContainText('in 30 days');
});

test(
  'what a job comes to is proposed by its acts and the price list, put right with a reason, and stands in the report',
  { tag: '@long' },
  async ({ page, suvok }) => {
    await suvok.startStandIns('fast');
    const job = await suvok.mountedJob();
    await suvok.record(job, 2);
    await goTo(page, `${suvok.origin}/prices`);
    await page.getByLabel('Name').fill('Inertia roller');
    await page.getByLabel('Price', { exact: true }).fill('90');
    await page.getByRole('button', { name: 'Add' }).click();
    await expect(page.getByRole('textbox', { name: 'Inertia roller, price' })).toHaveValue('90 €');
    await goTo(page, `${suvok.origin}/jobs/${job.id}/brief?show=history`);
    await page.getByRole('button', { name: 'Charge Inertia roller' }).click();
    await page.getByLabel('Part or work').fill('Pulley, 68 mm');
    await page.getByLabel(/^Price, €/).fill('140');
    await page.getByRole('button', { name: 'Add', exact: true }).last().click();
    await page.getByRole('button', { name: 'Inertia roller', exact: true }).click();
    await page.getByRole('textbox', { name: 'Quantity' }).fill('1');
    await page.getByLabel(/^Why/).fill('a whole hour was agreed');
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(page.getByTestId('sum')).toHaveText(/Sum\s*230\.00 €/);
    await expect(page.getByText(/the acts tell .* h · a whole hour was agreed/)).toBeVisible();
    await page.getByRole('link', { name: /^Report/ }).click();
    await expect(page.getByRole('row', { name: /^sum/ })).toContainText('230.00 €');
  },
);

test('a consent is asked for before the first run, signed by hand on the page, and kept with its text', async ({
  page,
  suvok,
}) => {
  const job = await suvok.mountedJob();
  await goTo(page, `${suvok.origin}/jobs/${job.id}/record`);
  await expect(page.getByText('Not signed: Running on the dyno.')).toBeVisible();
  await goWithin(page, `/jobs/${job.id}/brief?show=safety`);
  await page.getByRole('button', { name: 'Sign Running on the dyno' }).click();
  const form = page.getByRole('dialog', { name: 'Running on the dyno' });
  await form.getByLabel(/^Name/).fill('A. Sorrel');
  await expect(form.getByRole('button', { name: 'Sign', exact: true })).toBeDisabled();
  const pad = (await form.getByRole('img', { name: /^Signature, empty/ }).boundingBox())!;
  await page.mouse.move(pad.x + 30, pad.y + 60);
  await page.mouse.down();
  for (const [x, y] of [
    [80, 20],
    [130, 80],
    [200, 40],
  ] as const)
    await page.mouse.move(pad.x + x, pad.y + y, { steps: 5 });
  await page.mouse.up();
  await form.getByRole('button', { name: 'Sign', exact: true }).click();
  await expect(page.getByText(/^A\. Sorrel, \d/)).toBeVisible();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'PDF' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('Running on the dyno, A. Sorrel.pdf');
  await goWithin(page, `/jobs/${job.id}/record`);
  await expect(page.getByRole('main', { name: 'Recording' })).toBeVisible();
  await expect(page.getByText('Not signed')).toHaveCount(0);
  // The text changes: what was signed says that it is of an older one.
  await goWithin(page, '/consents');
  const text = page.getByRole('form', { name: 'Running on the dyno' });
  await text.getByLabel('Text').fill('At my own risk, and I was told of it.');
  await text.getByRole('button', { name: 'Save as a new version' }).click();
  await expect(text).toContainText('version 2');
  await goWithin(page, `/jobs/${job.id}/brief?show=safety`);
  await expect(page.getByText('the text was changed since')).toBeVisible();
});

test(
  'several people say what a setup will make; its first run locks that and scores it',
  { tag: '@long' },
  async ({ page, suvok }) => {
    await suvok.startStandIns('fast');
    const job = await suvok.mountedJob();
    await goTo(page, `${suvok.origin}/jobs/${job.id}/compare`);
    const open = () =>
      page
        .getByRole('button', { name: /all about setup A$/ })
        .first()
        .click();
    await open();
    const details = page.getByRole('dialog', { name: 'Setup A' });
    for (const [who, value] of [
      ['Ann', '100'],
      ['Bo', '20'],
    ] as const) {
      await details.getByLabel('Who').fill(who);
      await details.getByLabel(/^Value/).fill(value);
      await details.getByRole('button', { name: 'Add', exact: true }).click();
      await expect(details.getByText(`${who}: peak power`)).toBeVisible();
    }
    await page.keyboard.press('Escape');
    await suvok.record(job, 1);
    await goTo(page, `${suvok.origin}/jobs/${job.id}/compare`);
    await open();
    await expect(details.getByText(/it made \d+\.\d.*% off/).first()).toBeVisible();
    await expect(details.getByLabel('Who')).toHaveCount(0);
  },
);

test('the inspection is gone through one large item at a time: right, fails with a note, later', async ({
  page,
  suvok,
}) => {
  const job = await suvok.mountedJob();
  await goTo(page, `${suvok.origin}/jobs/${job.id}/brief?show=safety`);
  await page.getByRole('button', { name: 'Go through: Inspection' }).click();
  const dialog = page.getByRole('dialog', { name: 'Inspection' });
  await expect(dialog).toContainText('Oil level right, no leaks');
  await dialog.getByRole('button', { name: 'Right' }).click();
  await expect(dialog).toContainText('Coolant level right');
  await dialog.getByRole('button', { name: 'Fails' }).click();
  await dialog.getByLabel('What is wrong').fill('hose weeps');
  await dialog.getByRole('button', { name: 'Store what fails' }).click();
  await expect(dialog).toContainText('Fuel lines dry');
  await dialog.getByRole('button', { name: 'Later' }).click();
  await expect(dialog).toContainText('Belts whole');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: 'Oil level right, no leaks: right' })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
  await expect(page.getByLabel('Coolant level right, no leaks: what is wrong')).toHaveValue('hose weeps');
  // A toast goes when its act is undone by the key.
  await goTo(page, `${suvok.origin}/equipment`);
  await suvok.ask('POST', '/equipment', {
    name: 'Ratchet lashings',
    kind: 'straps',
    serial: '',
    what: '',
    lastOn: null,
    everyDays: null,
    dueOn: null,
    device: '',
    note: '',
  });
  await page.getByRole('button', { name: 'Ratchet lashings' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Remove', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Bring back' })).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('button', { name: 'Bring back' })).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'Ratchet lashings' })).toBeVisible();
});

import type { Booking, Day } from '../contract/shop/day.ts';
import { expect, test, type Suvok } from './suvok.ts';
import type { Page } from '@playwright/test';
import { goTo } from './go-to.ts';

/** A day ahead, so that no hour of it is past. */
const tomorrow = new Date(Date.now() + 24 * 3_600_000);
const date = `${tomorrow.getFullYear()}-${String(tomorrow.getMonth() + 1).padStart(2, '0')}-${String(tomorrow.getDate()).padStart(2, '0')}`;
const at = (clock: string) => new Date(`${date}T${clock}:00`).toISOString();
const book = (suvok: Suvok, title: string, from: string, to: string, bay: number | null = 1) =>
  suvok.ask<Booking[]>('POST', '/bookings', {
    bay,
    jobId: null,
    title,
    work: 'first look',
    startsAt: at(from),
    endsAt: at(to),
  });
const bookings = async (suvok: Suvok) =>
  (await suvok.ask<Day>('GET', `/day?${new URLSearchParams({ from: at('00:00'), to: at('23:59') }).toString()}`))
    .bookings;
const open = (page: Page, suvok: Suvok) => goTo(page, `${suvok.origin}/today?date=${date}`);

test('a day is booked by keyboard: begun, moved, stretched, put elsewhere, taken away and brought back', async ({
  page,
  suvok,
}) => {
  await open(page, suvok);
  await expect(page.getByText('Nothing is booked for this day.')).toBeVisible();
  await page.keyboard.press('n');
  const form = page.getByRole('dialog', { name: 'New booking' });
  await form.getByLabel('Job, or who comes').fill('M. Aldous, blue saloon');
  await page.keyboard.press('Escape');
  await form.getByLabel('Work').fill('what does it make');
  await form.getByLabel(/^From/).fill('09:00');
  await form.getByLabel(/^To/).fill('11:00');
  await form.getByLabel(/^To/).press('Enter');
  const booking = page.getByRole('button', { name: /^M\. Aldous, blue saloon, what does it make/ });
  await expect(booking).toHaveAccessibleName(/Bay 1, 09:00 to 11:00, to come/);
  await booking.focus();
  for (const key of ['ArrowRight', 'ArrowRight', 'ArrowLeft', 'Shift+ArrowRight', 'ArrowDown'])
    await page.keyboard.press(key);
  await expect(booking).toHaveAccessibleName(/Floor, 09:15 to 11:30/);
  await expect(booking).toBeFocused();
  await expect
    .poll(async () => (await bookings(suvok)).map(({ bay, startsAt, endsAt }) => [bay, startsAt, endsAt]))
    .toEqual([[null, at('09:15'), at('11:30')]]);
  await page.reload();
  await expect(booking).toHaveAccessibleName(/Floor, 09:15 to 11:30/);
  await booking.focus();
  await page.keyboard.press('Delete');
  await expect(booking).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(booking).toBeVisible();
});

test('a booking is dragged and stretched by pointer; what stands on another one says so', async ({ page, suvok }) => {
  await book(suvok, 'Coupé', '09:00', '10:00');
  await book(suvok, 'Saloon', '13:00', '14:00');
  await open(page, suvok);
  const saloon = page.getByRole('button', { name: /^Saloon/ });
  const track = (await page.getByRole('group', { name: 'Bookings' }).boundingBox())!;
  const hourPx = track.width / 10;
  const drag = async (from: { x: number; y: number }, byX: number, byY: number) => {
    await page.mouse.move(from.x, from.y);
    await page.mouse.down();
    await page.mouse.move(from.x + byX / 2, from.y + byY / 2, { steps: 4 });
    await page.mouse.move(from.x + byX, from.y + byY, { steps: 4 });
    await page.mouse.up();
  };
  const middle = async () => {
    const box = (await saloon.boundingBox())!;
    return { x: box.x + box.width / 3, y: box.y + box.height / 2 };
  };
  await drag(await middle(), -3.5 * hourPx, 0);
  await expect(saloon).toHaveAccessibleName(/09:30 to 10:30, .*the bay is booked for Coupé too/);
  const end = (await page.locator('[data-stretch]').last().boundingBox())!;
  const box = (await saloon.boundingBox())!;
  await drag({ x: box.x + box.width - 1, y: end.y + end.height / 2 }, hourPx, 0);
  await expect(saloon).toHaveAccessibleName(/09:30 to 11:30/);
  await drag(await middle(), 0, 110);
  await expect(saloon).toHaveAccessibleName(/Floor, 09:30 to 11:30, to come$/);
  // A press without a move opens it.
  await saloon.click();
  await expect(page.getByRole('dialog', { name: 'Booking' }).getByLabel(/^From/)).toHaveValue('09:30');
});

test('in the week a booking goes to another day, by keys and by pointer', { tag: '@long' }, async ({ page, suvok }) => {
  await book(suvok, 'Twin', '09:00', '10:00');
  await goTo(page, `${suvok.origin}/today?view=week&date=${date}`);
  const twin = page.getByRole('button', { name: /^Twin/ });
  const day = (by: number) =>
    new Date(tomorrow.getTime() + by * 24 * 3_600_000).toLocaleDateString('en-GB', { weekday: 'long' });
  const way = tomorrow.getDay() === 0 ? -1 : 1;
  await twin.focus();
  await page.keyboard.press(way > 0 ? 'ArrowRight' : 'ArrowLeft');
  await expect(twin).toHaveAccessibleName(new RegExp(`${day(way)} 09:00 to 10:00`));
  // On a phone the week is a list, and nothing is wider than the window.
  await page.setViewportSize({ width: 390, height: 844 });
  await expect(page.getByRole('heading', { name: /^Monday, / })).toBeVisible();
  await expect(page.getByRole('button', { name: /Bay 1/ }).filter({ visible: true })).toHaveCount(1);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBe(390);
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.getByText('Day', { exact: true }).click();
  await expect(page).not.toHaveURL(/view=week/);
});

test('who waits is said with since when; the overrun of what is on the dyno moves what follows and names whom to call', async ({
  page,
  suvok,
}) => {
  await suvok.startStandIns('fast');
  const job = await suvok.mountedJob('Tarrow Six');
  await suvok.record(job, 1);
  const soon = (minutes: number) => new Date(Date.now() + minutes * 60_000).toISOString();
  const bookAt = (fields: object) =>
    suvok.ask('POST', '/bookings', { bay: 1, jobId: null, title: '', work: '', ...fields });
  await bookAt({ jobId: job.id, startsAt: soon(-60), endsAt: soon(2) });
  const next = await suvok.ask<{ id: number }>('POST', '/jobs', { vehicle: 'Hallam minibus', owner: 'Corrie Lines' });
  await bookAt({ jobId: next.id, startsAt: soon(5), endsAt: soon(65) });
  await goTo(page, `${suvok.origin}/today`);
  await expect(page.getByText(/the day runs (5\d min|1 h).* late/)).toBeVisible();
  await expect(page.getByTestId('next')).toContainText(
    /Tarrow Six on Bay 1\. Then call Corrie Lines: Hallam minibus begins at \d\d:\d\d/,
  );
  await goTo(page, `${suvok.origin}/jobs/${next.id}/brief`);
  await page.getByRole('button', { name: 'Pause' }).click();
  await page.getByLabel('It waits for').selectOption('part');
  await page.getByLabel('Which').fill('a pulley, ordered');
  await page.getByRole('dialog').getByRole('button', { name: 'Pause' }).click();
  await expect(page.getByText('Paused, waits for a part (a pulley, ordered)')).toBeVisible();
  await page.getByRole('link', { name: 'Suvok, today' }).click();
  const waiting = page.getByRole('listitem').filter({ hasText: 'for a part (a pulley, ordered)' });
  await expect(waiting).toContainText('just now');
  await waiting.getByRole('button', { name: 'Resume' }).click();
  await expect(page.getByText('Nobody waits for anything.')).toBeVisible();
  // Times put right by hand stand in the place of what the runs tell.
  await page.getByRole('button', { name: /^Worked from/ }).click();
  const early = new Date(Date.now() - 90 * 60_000 - new Date().getTimezoneOffset() * 60_000);
  await page.getByLabel(/^From/).fill(early.toISOString().slice(0, 16));
  await page.getByLabel('Why').fill('mounted since the morning');
  await page.getByRole('dialog').getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('button', { name: /^Worked from .*by hand$/ })).toBeVisible();
});

test('a shift is handed over with a draft of the day and own words, and the next one takes over', async ({
  page,
  suvok,
}) => {
  await suvok.mountedJob('Tarrow Six');
  const other = await suvok.ask<{ id: number }>('POST', '/jobs', { vehicle: 'Hallam minibus', owner: 'Corrie Lines' });
  await suvok.ask('PUT', `/jobs/${other.id}/state`, { state: 'paused', for: 'part', why: 'a pump', expectedAt: null });
  await goTo(page, `${suvok.origin}/today`);
  await expect(page.getByText('for a part (a pump)')).toBeVisible();
  await page.keyboard.press('h');
  const dialog = page.getByRole('dialog', { name: 'Hand over to the next shift' });
  const words = dialog.getByLabel(/^What the next shift must know/);
  await expect(words).toHaveValue(/^Bay 1: Tarrow Six\. Next: .*\nHallam minibus waits for a part \(a pump\)\.$/);
  await words.press('End');
  await words.pressSequentially(' The left strap creaks.');
  await dialog.getByLabel('Your name').fill('Ola');
  await dialog.getByRole('button', { name: 'Hand over' }).click();
  const handed = page.getByRole('region', { name: 'Handed over' });
  await expect(handed.getByRole('heading')).toHaveText(/^Ola hands over, \d\d:\d\d$/);
  await expect(handed).toContainText('The left strap creaks.');
  await handed.getByRole('button', { name: 'I take over' }).click();
  await expect(handed.getByRole('button', { name: /^Ola took over \d\d:\d\d$/ })).toBeVisible();
  await handed.getByRole('button', { name: /took over/ }).click();
  await expect(handed).toContainText('Hallam minibus waits for a part');
});

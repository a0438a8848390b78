import { readFileSync } from 'node:fs';
import type { Job } from '../contract/job/records.ts';
import { goTo, goWithin } from './go-to.ts';
import { expect, test } from './suvok.ts';
import type { Download, Page } from '@playwright/test';

async function taken(page: Page, item: string): Promise<string> {
  await page.getByRole('button', { name: 'Export' }).click();
  const waiting: Promise<Download> = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: item }).click();
  return (await waiting).path();
}

test('steps, response, headroom and the decision, each where it is asked for', async ({ page, recorded }) => {
  const { suvok, job } = await recorded('ignition');
  await suvok.ask('POST', `/jobs/${job.id}/limits`, {
    quantity: 'engineSpeed',
    value: 7100,
    scale: null,
    reason: '',
    source: 'us',
  });
  await goTo(page, `${suvok.origin}/jobs/${job.id}/compare`);
  await expect(page.getByTestId('gain-table')).toBeVisible();
  await page.getByText('Steps', { exact: true }).click();
  await expect(page).toHaveURL(/show=steps/);
  const ladder = page.getByTestId('ladder');
  await expect(ladder.locator('tr[data-step]')).toHaveCount(3);
  // The steps add up to the whole, as they are shown.
  const gains = await ladder.locator('tbody tr td:nth-child(4) b').allTextContents();
  const [steps, whole] = [gains.slice(0, -1), gains.at(-1)!].map((texts) =>
    [texts].flat().reduce((sum, text) => sum + Number(text.replace('−', '-')), 0),
  ) as [number, number];
  expect(Math.abs(steps - whole)).toBeLessThan(0.21);
  await page.getByText('Response', { exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Power over ignition' })).toBeVisible();
  // Three levels one after the other, and no return: a drift would bend the curve.
  await expect(page.getByTestId('response-advice')).toContainText(
    /^Where the best lies is not told: .* Run .* once more/,
  );
  await expect(page.getByRole('img', { name: /Mean power over ignition/ })).toBeVisible();
  await expect(page.getByTestId('headroom')).toContainText(/Engine speed, 7,100 rpm/);
  await page.getByTestId('decision').getByText('go back', { exact: true }).click();
  await page.getByTestId('decision').getByLabel('Why').fill('knocks, gives nothing');
  await page.keyboard.press('Enter');
  await expect
    .poll(async () => (await suvok.ask<Job>('GET', `/jobs/${job.id}`)).setups[2])
    .toMatchObject({ decision: 'go back', decisionWhy: 'knocks, gives nothing' });
  // What it rested on is kept with it, with the rule and where the spread is known from.
  await expect(page.getByTestId('decided-on')).toHaveText(
    /^It rested on: C on B [+−]\d+\.\d\s±\s\d+\.\d\skW from \d,\d+ to \d,\d+ rpm, .+; interval holds however often you look; spread .+\.$/,
  );
  await page.getByTestId('decision').getByRole('button', { name: 'Go back to B now' }).click();
  await expect
    .poll(async () => (await suvok.ask<Job>('GET', `/jobs/${job.id}`)).setups.at(-1))
    .toMatchObject({ letter: 'D', change: 'Back to B', items: [] });
});

test('lanes are zoomed, the crosshair locked, the band taken by its handles; views are named, figures taken along, and the owner is shown', async ({
  page,
  recorded,
  context,
}) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  const { suvok, job } = await recorded('ignition');
  await goTo(page, `${suvok.origin}/jobs/${job.id}/compare?band=3000-5000`);
  await expect(page.getByTestId('gain-table')).toBeVisible();
  const lane = page.getByRole('img', { name: /^Power of/ });
  const box = (await lane.boundingBox())!;
  await page.mouse.move(box.x + box.width * 0.5, box.y + 60);
  await page.mouse.wheel(0, -400);
  await expect(page).toHaveURL(/zoom=\d+-\d+/);
  const zoomed = /zoom=(\d+)-(\d+)/.exec(page.url())!.slice(1).map(Number) as [number, number];
  expect(zoomed[1] - zoomed[0]).toBeLessThan(3500);
  await expect(page.getByRole('button', { name: 'Whole range' })).toBeVisible();
  // Dragging pans and sets no crosshair.
  await page.mouse.down();
  await page.mouse.move(box.x + box.width * 0.3, box.y + 60, { steps: 4 });
  await page.mouse.up();
  await expect.poll(() => Number(/zoom=(\d+)/.exec(page.url())![1])).toBeGreaterThan(zoomed[0]);
  expect(page.url()).not.toContain('at=');
  await page.keyboard.press('0');
  await expect(page).not.toHaveURL(/zoom=/);
  await page.mouse.click(box.x + box.width * 0.5, box.y + 60);
  await expect(page).toHaveURL(/at=\d+/);
  const locked = Number(/at=(\d+)/.exec(page.url())![1]);
  await page.mouse.move(box.x + box.width * 0.8, box.y + 60);
  await page.keyboard.press('c');
  await expect(page.getByText(/The readings at .* are copied/)).toBeVisible();
  const copied = await page.evaluate(() => navigator.clipboard.readText());
  expect(copied.split('\n')[0]).toBe('setup\tengine speed [rpm]\tpower [kW]\ttorque [N·m]\tgain [kW]');
  expect(copied).toContain(`\t${locked}\t`);
  await page.getByRole('slider', { name: 'Upper end of the band' }).focus();
  await page.keyboard.press('ArrowRight');
  await expect(page).toHaveURL(/band=3000-5050/);

  // A view is named and found again, and what is seen is taken along.
  await goWithin(page, `/jobs/${job.id}/compare?band=3000-5000&smoothing=300&setup=C`);
  await expect(page.getByTestId('gain-table')).toBeVisible();
  await page.getByRole('button', { name: 'Views' }).click();
  await page.getByLabel('Name what is shown now').fill('street');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'views (1)' })).toBeVisible();
  await goWithin(page, `/jobs/${job.id}/compare`);
  await expect(page.getByTestId('gain-table').locator('tr[data-row=band]')).toHaveCount(0);
  // The list of views is still open.
  await page.getByRole('button', { name: 'street', exact: true }).click();
  await expect(page).toHaveURL(/band=3000-5000.*smoothing=300/);
  await expect(page.getByTestId('gain-table').locator('tr[data-row=band]')).toBeVisible();
  const csv = readFileSync(await taken(page, 'Curves and gain, CSV'), 'utf8');
  expect(csv.split('\r\n')[0]).toContain('power C [kW]');
  const svg = readFileSync(await taken(page, 'Picture, SVG'), 'utf8');
  expect(svg.match(/<path[^>]*fill="none"/g)!.length).toBeGreaterThan(5);
  expect([...readFileSync(await taken(page, 'Picture, PNG')).subarray(1, 4)]).toEqual([80, 78, 71]);
  const json = JSON.parse(readFileSync(await taken(page, 'Figures, JSON'), 'utf8')) as { bands: { meanKw: number }[] };
  // What is taken along is what is shown.
  const shown = await page.getByTestId('gain-table').locator('tr[data-row=band] b').textContent();
  expect(json.bands[0]!.meanKw).toBeCloseTo(Number(shown!.replace('−', '-')), 1);
  await page.getByRole('button', { name: 'Export' }).click();
  await page.getByRole('menuitem', { name: 'Copy the table' }).click();
  await expect.poll(() => page.evaluate(() => navigator.clipboard.readText())).toContain('common range\t');

  // Shown to the owner: from arrived to the last by the arrow keys.
  await goWithin(page, `/jobs/${job.id}/compare?setup=A`);
  await page.getByRole('button', { name: 'Present' }).click();
  const dialog = page.getByRole('dialog', { name: 'Presentation' });
  await expect(dialog.getByTestId('plain-sentence')).toContainText('the car as it came');
  await page.keyboard.press('ArrowRight');
  await expect(dialog.getByText('Step 1 of 2')).toBeVisible();
  await expect(dialog.getByTestId('plain-sentence')).toContainText(
    /B (makes between|and A cannot|reads)|The car changed/,
  );
  await page.keyboard.press('ArrowRight');
  await expect(dialog.getByText('Step 2 of 2')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(dialog).toHaveCount(0);
});

test(
  'lanes are added from the log, moved by keyboard and taken away; the address keeps them',
  { tag: '@long' },
  async ({ page, recorded }) => {
    const { suvok, job } = await recorded('ignition');
    await goTo(page, `${suvok.origin}/jobs/${job.id}/compare`);
    await expect(page.getByTestId('gain-table')).toBeVisible();
    await page.getByRole('button', { name: 'Lanes', exact: true }).click();
    await page.getByPlaceholder('λ, boost, knock…').fill('λ');
    await page.getByRole('option', { name: 'λ', exact: true }).click();
    await expect(page.getByRole('img', { name: /^λ of A\d and B2 and C2 over engine speed/ })).toBeVisible();
    await expect(page).toHaveURL(/lanes=power\.torque\.gain\.lambda/);
    await page.getByRole('button', { name: 'Move λ up' }).focus();
    await page.keyboard.press('Enter');
    await expect(page).toHaveURL(/lanes=power\.torque\.lambda\.gain/);
    await page.getByRole('button', { name: 'Take Torque away' }).click();
    await expect(page).toHaveURL(/lanes=power\.lambda\.gain/);
    await page.reload();
    await expect(page.getByRole('img', { name: /^λ of/ })).toBeVisible();
    await expect(page.getByRole('img', { name: /^Torque of/ })).toHaveCount(0);
  },
);

import { goTo } from './go-to.ts';
import type { BayState } from '../contract/bays/live.ts';
import { expect, tableOf, test } from './suvok.ts';

/** The first figure of a cell, a loss with its sign. */
const figure = (cell: string) => Number(/[+−-]?[\d.]+/.exec(cell)![0].replace('−', '-'));

test('at the crank every figure says that it is an estimate, and grows by the loss that is assumed', async ({
  page,
  recorded,
}) => {
  const { suvok, job } = await recorded('two-setups');
  await goTo(page, `${suvok.origin}/jobs/${job.id}/compare?smoothing=300`);
  const wheels = await tableOf(page);
  await page.getByRole('button', { name: 'Wheels or crank: at the wheels' }).click();
  await page.getByRole('radio', { name: /At the crank, loss assumed/ }).check();
  await page.getByRole('textbox', { name: /^Lost on the way/ }).fill('20');
  await page.keyboard.press('Escape');
  await expect(page).toHaveURL(/crank=20/);
  await expect
    .poll(async () => figure((await tableOf(page)).common![1]!) / figure(wheels.common![1]!))
    .toBeCloseTo(1 / 0.8, 2);
  await expect(page.getByTestId('sentence')).toContainText('Estimated for the crank: 20 % lost, assumed.');
  await expect(page.getByTestId('gain-table')).toContainText('power, kW ≈ at the crank (20 % lost, assumed)');
  await expect(page.getByRole('complementary', { name: 'Setups' })).toContainText('≈ at the crank, 20 % lost, assumed');
  await expect(page.locator('figcaption').filter({ hasText: 'Power' })).toContainText('≈ at the crank, 20 % lost');
});

test(
  'the loss that a coast-down measured is taken for the crank, as a lower bound',
  { tag: '@long' },
  async ({ page, recorded }) => {
    const { suvok, job } = await recorded('two-setups');
    await suvok.startStandIns('fast');
    await suvok.ask('PUT', '/bays/1/mounted', { jobId: job.id, setupId: job.setups[0]!.id });
    const { plan } = await suvok.ask<BayState>('GET', '/bays/1');
    await suvok.ask('PUT', '/bays/1/plan', { ...plan, kind: 'coast-down', toRpm: 5000 });
    await suvok.openRecord(page, job);
    await page.keyboard.press('Space');
    await expect(page.getByRole('heading', { name: /coast-down/ })).toBeVisible();
    const coast = (await suvok.runs(job)).find(({ kind }) => kind === 'coast-down')!;
    await goTo(page, `${suvok.origin}/jobs/${job.id}/compare?smoothing=300&setup=B&against=A`);
    const wheels = await tableOf(page);
    await page.getByRole('button', { name: 'Wheels or crank: at the wheels' }).click();
    await page.getByRole('radio', { name: `At the crank, loss from coast-down ${coast.label}` }).check();
    await page.keyboard.press('Escape');
    await expect(page.getByTestId('sentence')).toContainText(
      `Estimated for the crank: coast-down ${coast.label}, a lower bound.`,
    );
    await expect
      .poll(async () => figure((await tableOf(page)).common![1]!) - figure(wheels.common![1]!))
      .toBeGreaterThan(0.5);
    // One that is not there leaves the figures at the wheels, and says why.
    await goTo(page, `${suvok.origin}/jobs/${job.id}/compare?smoothing=300&setup=B&against=A&crank=A99`);
    await expect(page.getByText('no estimate for the crank. This job has no coast-down A99.')).toBeVisible();
    expect((await tableOf(page)).common).toEqual(wheels.common);
  },
);

test(
  'the gain in percent, the time a band takes, and how much earlier the peak is reached',
  { tag: '@long' },
  async ({ page, recorded }) => {
    const { suvok, job } = await recorded('two-setups');
    await goTo(page, `${suvok.origin}/jobs/${job.id}/compare?smoothing=300&band=3000-6000`);
    const ownBand = (await tableOf(page)).band!;
    await page.getByTestId('gain-table').getByRole('button', { name: 'gain' }).click();
    await expect(page).toHaveURL(/gain=percent/);
    await expect(page.getByRole('button', { name: 'gain, %' })).toBeVisible();
    const percent = (await tableOf(page)).band!;
    expect(figure(percent[2]!)).toBeCloseTo((100 * figure(ownBand[2]!)) / figure(ownBand[0]!), 0);
    const { swept } = await tableOf(page);
    // Seconds of a pull on the stand-in roller, with what the test takes less or more.
    expect(figure(swept![0]!)).toBeGreaterThan(2);
    expect(Math.abs(figure(swept![1]!) - figure(swept![0]!))).toBeLessThan(1);
  },
);

test(
  'the lanes stand over road speed or time; the gains stay those at the same engine speed',
  { tag: '@long' },
  async ({ page, recorded }) => {
    const { suvok, job } = await recorded('two-setups');
    await goTo(page, `${suvok.origin}/jobs/${job.id}/compare?smoothing=300&at=5000`);
    const table = await tableOf(page);
    await page.getByRole('button', { name: 'Lanes', exact: true }).click();
    await page.getByText('time', { exact: true }).click();
    await expect(page).toHaveURL(/axis=time/);
    await expect(page.getByRole('img', { name: /^Power of .* over time/ })).toBeVisible();
    await expect(page.getByText(/^\d+\.\d\d s$/)).toBeVisible();
    expect(await tableOf(page)).toEqual(table);
    await page.getByText('road speed', { exact: true }).click();
    await page.keyboard.press('Escape');
    await expect(page.getByText(/^\d+ km\/h$/).first()).toBeVisible();
    // Zoomed over road speed, the address still speaks of engine speed.
    const lane = page.getByRole('img', { name: /^Power of/ });
    const box = (await lane.boundingBox())!;
    await page.mouse.move(box.x + box.width * 0.5, box.y + 60);
    await page.mouse.wheel(0, -400);
    await expect(page).toHaveURL(/zoom=[2-5]\d{3}-[4-7]\d{3}/);
    // By keyboard as well: in, out, and the whole again.
    const zoomed = () => {
      const [, from, to] = /zoom=(\d+)-(\d+)/.exec(page.url()) ?? [];
      return Number(to) - Number(from);
    };
    const byWheel = zoomed();
    await page.keyboard.press('+');
    await expect.poll(zoomed).toBeLessThan(byWheel);
    await page.keyboard.press('-');
    await expect.poll(zoomed).toBeGreaterThan(0.9 * byWheel);
    await page.keyboard.press('0');
    await expect(page).not.toHaveURL(/zoom=/);
  },
);

test(
  'lines are shown, hidden and left alone by digits; the address keeps it',
  { tag: '@long' },
  async ({ page, recorded }) => {
    const { suvok, job } = await recorded('ignition');
    await goTo(page, `${suvok.origin}/jobs/${job.id}/compare?smoothing=300&at=5000`);
    const power = page.getByRole('img', { name: /^Power of/ });
    await expect(power).toHaveAttribute('aria-label', /^Power of A, B, C over/);
    await page.keyboard.press('1');
    await expect(power).toHaveAttribute('aria-label', /^Power of B, C over/);
    await expect(page).toHaveURL(/hide=A/);
    await page.keyboard.press('Shift+Digit1');
    await expect(power).toHaveAttribute('aria-label', /^Power of A, C over/);
    await page.keyboard.press('Shift+Digit1');
    await expect(power).toHaveAttribute('aria-label', /^Power of A, B, C over/);
    await expect(page).not.toHaveURL(/hide|also/);
    // Another pair: the one left out can be shown beside it.
    await goTo(page, `${suvok.origin}/jobs/${job.id}/compare?smoothing=300&setup=B&against=A`);
    await expect(power).toHaveAttribute('aria-label', /^Power of A, B over/);
    await page.getByRole('button', { name: 'Lines', exact: true }).click();
    await page.getByRole('checkbox', { name: /^C, / }).check();
    await page.getByText('of all shown').click();
    await page.keyboard.press('Escape');
    await expect(page).toHaveURL(/also=C.*singles=all|singles=all.*also=C/);
    await expect(power).toHaveAttribute('aria-label', /^Power of A, C, B over/);
  },
);

test(
  'λ is told as an air–fuel ratio of the fuel that was burnt, and says which',
  { tag: '@long' },
  async ({ page, recorded }) => {
    const { suvok, job } = await recorded('two-setups');
    await goTo(page, `${suvok.origin}/jobs/${job.id}/compare?smoothing=300&lanes=power.lambda&at=5000`);
    const reading = () => page.locator('figure + div b').last().textContent();
    await expect(page.getByRole('img', { name: /^λ of/ })).toBeVisible();
    await expect.poll(async () => Number(await reading())).toBeLessThan(1.2);
    const lambda = Number(await reading());
    await page.getByRole('button', { name: 'Mixture as: λ' }).click();
    await page.getByRole('radio', { name: 'air–fuel ratio' }).check();
    await page.keyboard.press('Escape');
    await expect(page).toHaveURL(/mixture=afr/);
    await expect(page.getByText(/by mass, λ × 14\.7 \(petrol assumed\)/)).toBeVisible();
    await expect.poll(async () => Number(await reading()) / lambda / 14.7).toBeCloseTo(1, 1);
  },
);

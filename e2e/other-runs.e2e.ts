import { goTo } from './go-to.ts';
import type { BayState } from '../contract/bays/live.ts';
import type { RunPlan } from '../contract/instruments/recording.ts';
import type { Job } from '../contract/job/records.ts';
import { writeRecordingCsv } from '../core/exchange/recordings/write-csv.ts';
import { roadDrive } from '../core/testing/kind-runs.ts';
import { expect, test, type Suvok } from './suvok.ts';

const faults = (suvok: Suvok, device: string, names: string[]) =>
  suvok.ask('PUT', '/device/faults', { device, faults: names });

async function planned(suvok: Suvok, kind: RunPlan['kind'], ofKind: Partial<RunPlan['ofKind']> = {}): Promise<void> {
  const { plan } = await suvok.ask<BayState>('GET', '/bays/1');
  await suvok.ask('PUT', '/bays/1/plan', { ...plan, kind, ofKind: { ...plan.ofKind, ...ofKind } });
}

test(
  'idle and cold start are chosen on Record, their faults found, and both sides judged in Compare',
  { tag: '@long' },
  async ({ page, suvok }) => {
    // With half as many rows the battery's fall while cranking is not found.
    await suvok.startStandIns('fast', 5, 'inertia-roller', 200);
    const job = await suvok.mountedJob();
    await goTo(page, `${suvok.origin}/jobs/${job.id}/record`);
    await page.getByRole('button', { name: 'Kind of run: power run' }).click();
    await page.getByRole('menuitem', { name: /^idle/ }).click();
    await page.getByRole('button', { name: /45 s of idle/ }).click();
    await page.getByLabel('Idles for, s').fill('30');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('button', { name: /30 s of idle/ })).toBeVisible();
    await page.getByRole('main', { name: 'Recording' }).click({ position: { x: 5, y: 5 } });
    await page.keyboard.press('Space');
    const result = page.getByTestId('kind-figures');
    await expect(page.getByRole('heading', { name: 'A1 idle' })).toBeVisible();
    await expect(result).toContainText(/Idle speed8\d\d\s±\s\d+\srpm/);
    await expect(result).toContainText(/Hunting, amplitude0\srpm/);
    await suvok.record(job, 1);
    await suvok.mountedSetup(job, 'Idle valve cleaned');
    await faults(suvok, 'stand-in-roller', ['hunting idle']);
    await suvok.record(job, 1);
    await expect(page.getByText(/The idle hunts: ±\d\d rpm every 2\.\d s/)).toBeVisible();
    await faults(suvok, 'stand-in-roller', ['vacuum leak']);
    await suvok.record(job, 1);
    await expect(page.getByText(/above its target at idle: false air/)).toBeVisible();
    await planned(suvok, 'cold-start', { startS: 40 });
    await faults(suvok, 'stand-in-roller', ['weak battery']);
    await suvok.record(job, 1);
    await expect(page.getByText(/The battery fell to 8\.\d V while cranking/)).toBeVisible();
    await page.getByRole('link', { name: 'Before and after, in Compare' }).click();
    const idle = page.getByRole('region', { name: 'idle', exact: true });
    await expect(idle).toContainText('A1, A2');
    await expect(idle).toContainText('B1, B2');
    await expect(idle.getByRole('row', { name: /^Idle speed/ })).toContainText(/±\s\d+\srpm/);
    await expect(page.getByRole('region', { name: 'cold start' })).toContainText('make one in A too');
  },
);

test(
  'a saving at the cruise that is none is refused, one at another wheel power too; a lazy turbo is found',
  { tag: '@long' },
  async ({ page, suvok }) => {
    await suvok.startStandIns('fast', 5, 'loaded-roller');
    const job = await suvok.mountedJob('Brindle 1.0 kit car, three-cylinder turbo');
    await planned(suvok, 'cruise', { cruiseS: 120 });
    await suvok.record(job, 1);
    await suvok.mountedSetup(job, 'Fuel additive');
    await suvok.record(job, 1);
    await goTo(page, `${suvok.origin}/jobs/${job.id}/compare?show=tests`);
    const cruise = page.getByRole('region', { name: 'cruise' });
    await expect(cruise.getByRole('row', { name: /^Fuel\b(?! for)/ })).toContainText('not shown');
    await expect(cruise).toContainText(/A saving of 3 % would have been shown|To show 3 % it needs about/);
    await cruise.getByLabel(/^Fuel, .* per litre/).fill('1.72');
    await expect(cruise).toContainText(
      /Fuel for 100 km: \d+\.\d\d € before, \d+\.\d\d € after; .*no difference is shown/,
    );
    await planned(suvok, 'cruise', { cruiseS: 120, wheelKw: 10 });
    await suvok.mountedSetup(job, 'Another additive');
    await suvok.record(job, 1);
    await goTo(page, `${suvok.origin}/jobs/${job.id}/compare?show=tests&setup=C&against=A`);
    await expect(cruise).toContainText(/Not at equal wheel power: 1[2-4]\.\d+ against 1[0-2]\.\d+ kW/);
    await expect(cruise.getByText(/, shown/)).toHaveCount(0);
    await planned(suvok, 'transient');
    await suvok.record(job, 2);
    await faults(suvok, 'stand-in-loaded-roller', ['lazy turbo']);
    await suvok.mountedSetup(job, 'Turbo swapped');
    await suvok.record(job, 2);
    await goTo(page, `${suvok.origin}/jobs/${job.id}/compare?show=tests&setup=D&against=C`);
    const response = page.getByRole('region', { name: 'response' });
    await expect(response.getByRole('row', { name: /^To 90 % of the boost/ })).toContainText('more, shown: worse');
  },
);

test(
  'holds are laid beside each other hold by hold, and an inertia roller says why it can hold nothing',
  { tag: '@long' },
  async ({ page, suvok }) => {
    await suvok.startStandIns('fast', 5, 'loaded-roller');
    const job = await suvok.mountedJob();
    const { plan } = await suvok.ask<BayState>('GET', '/bays/1');
    const steps = { speedsRpm: [2500, 3500], loadsKpa: [50, 70], dwellS: 5, tolerance: 0.01 };
    await suvok.ask('PUT', '/bays/1/plan', { ...plan, kind: 'step', steps });
    await suvok.record(job, 2);
    await suvok.mountedSetup(job, 'Ignition +2°');
    await suvok.record(job, 2);
    await goTo(page, `${suvok.origin}/jobs/${job.id}/compare?show=tests`);
    const holds = page.getByRole('region', { name: 'steady-speed steps' });
    for (const place of ['2,500 rpm, 50 kPa', '3,500 rpm, 50 kPa', '3,500 rpm, 70 kPa', '2,500 rpm, 70 kPa'])
      await expect(holds.getByRole('row', { name: new RegExp(`^${place}: power`) })).toContainText(/±.*kW/);
    await holds.getByLabel('Every logged channel').check();
    await expect(holds.getByRole('row', { name: /^2,500 rpm, 50 kPa: Coolant/ })).toBeVisible();
  },
);

test(
  'what needs a load is refused on an inertia roller, with the reason',
  { tag: '@long' },
  async ({ page, suvok }) => {
    await suvok.startStandIns('fast');
    const job: Job = await suvok.mountedJob();
    for (const kind of ['cruise', 'transient'] as const) {
      await planned(suvok, kind);
      await suvok.openRecord(page, job);
      await page.keyboard.press('Space');
      await expect(page.getByText(/An inertia roller has no load that could hold a speed/)).toBeVisible();
    }
  },
);

test(
  'two items that were moved together become a plane, with what to try next and what is missing',
  { tag: '@long' },
  async ({ page, suvok }) => {
    await suvok.startStandIns('fast');
    const job = await suvok.mountedJob();
    await suvok.ask('POST', `/jobs/${job.id}/limits`, {
      quantity: 'knockRetard',
      value: 3,
      scale: null,
      reason: 'knock',
      source: 'us',
    });
    await suvok.record(job, 1);
    for (const change of ['Ignition +1°', 'Intake cam +3°', 'Ignition +2°, intake cam +3°']) {
      await suvok.mountedSetup(job, change);
      await suvok.record(job, 1);
    }
    await goTo(page, `${suvok.origin}/jobs/${job.id}/compare?show=response`);
    const shown = page.getByRole('region', { name: 'Response' });
    const choice = shown.getByText(/× .*, 4 points/);
    await expect(choice.or(shown.getByTestId('plane-advice')).first()).toBeVisible();
    if (await choice.isVisible()) await choice.click();
    const advice = page.getByTestId('plane-advice');
    await expect(advice).toContainText(/Try next.*ignition [+−]?[\d.]+°/);
    await expect(advice).toContainText('a third level of intake cam');
    await expect(page.getByRole('img', { name: /^Power over/ })).toBeVisible();
    await expect(page.getByText('The address asks for something')).toHaveCount(0);
  },
);

test(
  'logs from the road are taken without a dyno, judged before and after, and answer in the report',
  { tag: '@long' },
  async ({ page, suvok }) => {
    const job = await suvok.mountedJob();
    const taken = async (letter: string, acceleration: number, seeds: readonly number[]) => {
      await goTo(page, `${suvok.origin}/jobs/${job.id}/compare?setup=${letter}`);
      await page.getByRole('button', { name: 'Import a recording' }).click();
      await page.locator('input[type=file]').setInputFiles(
        seeds.map((seed) => ({
          name: `road-${seed}.csv`,
          mimeType: 'text/csv',
          buffer: Buffer.from(writeRecordingCsv(roadDrive({ seed, acceleration }))),
        })),
      );
      await expect(page.getByLabel('Engine speed ÷ drum speed')).toHaveCount(0);
      await expect(page.getByRole('dialog').getByLabel('Dyno', { exact: true })).toHaveCount(0);
      await page.getByRole('button', { name: 'Import', exact: true }).click();
      await expect(page.getByText(/^Imported as .*, road check/)).toBeVisible();
    };
    await taken('A', 2, [1, 2]);
    await suvok.ask('POST', `/jobs/${job.id}/setups`, { parentId: job.setups[0]!.id, change: 'Shorter final drive' });
    await taken('B', 2.5, [3, 4]);
    await goTo(page, `${suvok.origin}/jobs/${job.id}/compare`);
    const road = page.getByRole('region', { name: 'road check' });
    await expect(road.getByRole('row', { name: /^80 to 120\skm\/h/ })).toContainText('less, shown: better');
    await expect(page.getByTestId('sentence')).toContainText(/^Road check: 40 to 80\skm\/h, flat out\s−1\.\d\d\s±/);
    await page.getByRole('link', { name: /^Report/ }).click();
    await expect(page.getByRole('heading', { level: 1, name: /^Road check: 40 to 80\skm\/h/ })).toBeVisible();
    await expect(page.getByRole('row', { name: /^road check: Coolant, highest/ })).toHaveCount(0);
    await expect(page.getByRole('row', { name: /^road check: 80 to 120/ })).toContainText('less, shown: better');
  },
);

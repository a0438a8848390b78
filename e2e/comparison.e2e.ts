import { goTo } from './go-to.ts';
import { execFile } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { compareCommand } from '../cli/compare.ts';
import type { ComparisonJson } from '../contract/files/comparison-json.ts';
import type { Job } from '../contract/job/records.ts';
import { standardIds, type StandardId } from '../core/air/correction.ts';
import { chance } from '../core/testing/chance.ts';
import { convert, powerUnits, type PowerUnit } from '../core/units/units.ts';
import { expect, tableOf, test, type Suvok } from './suvok.ts';

const gainOf = (cells: string[]) => Number(/[+−-]?[\d.]+/.exec(cells[2]!)![0].replace('−', '-'));

test('swapping the two sides flips every sign', { tag: '@long' }, async ({ page, recorded }) => {
  const { suvok, job } = await recorded('two-setups');
  await goTo(page, `${suvok.origin}/jobs/${job.id}/compare?at=5600&band=5000-6500&smoothing=300`);
  const there = await tableOf(page);
  await page.getByRole('button', { name: /^Exchange/ }).click();
  await expect(page).toHaveURL(/setup=A.*against=B|against=B.*setup=A/);
  await expect.poll(async () => gainOf((await tableOf(page)).band!)).toBeCloseTo(-gainOf(there.band!), 5);
  const back = await tableOf(page);
  for (const row of ['band', 'common', 'at-speed', 'peak-power', 'torque-at-speed', 'peak-torque']) {
    expect(gainOf(back[row]!)).toBeCloseTo(-gainOf(there[row]!), 5);
  }
  // Whether the gain is clear of scatter is these runs' luck; whose it is, and which way, is not.
  await expect(page.getByTestId('sentence')).toContainText(
    /^A (makes .* less than|is within repeatability of|reads −.*) /,
  );
  await expect(page.getByTestId('sentence')).toContainText(/\bB\b.*from 5,000 to 6,500 rpm/);
});

test(
  'a setup against itself claims nothing, and a run set aside is out of every figure at once',
  { tag: '@long' },
  async ({ page, suvok }) => {
    await suvok.startStandIns('fast');
    const job = await suvok.mountedJob();
    await suvok.record(job, 5);
    await goTo(page, `${suvok.origin}/jobs/${job.id}/compare?smoothing=300`);
    await page.getByRole('button', { name: /^Compare against/ }).click();
    await page.getByRole('button', { name: 'A against itself' }).click();
    await page.keyboard.press('Escape');
    await expect(page).toHaveURL(/runs=A3\.A4\.A5/);
    const sentence = page.getByTestId('sentence');
    await expect(sentence).toContainText('within repeatability');
    await expect(page.locator('[data-testid=sentence] .gain, [data-testid=sentence] .loss')).toHaveCount(0);
    await expect(page.locator('[data-testid=gain-table] .gain, [data-testid=gain-table] .loss')).toHaveCount(0);
    const before = (await tableOf(page)).common!;
    await page.getByRole('button', { name: /^Run A5/ }).click();
    await page.getByLabel('Set aside because').fill('visitor at the fan');
    await page.keyboard.press('Enter');
    await expect.poll(async () => (await tableOf(page)).common).not.toEqual(before);
    await expect(sentence).toContainText('A3, A4');
    await expect(sentence).not.toContainText('A5');
  },
);

test(
  'what the runs can show, what they differ in, and the points behind the line',
  { tag: '@long' },
  async ({ page, recorded }) => {
    const { suvok, job } = await recorded('two-setups');
    await goTo(page, `${suvok.origin}/jobs/${job.id}/compare`);
    await expect(page.getByText(/is detected 80 % of the time/)).toBeVisible();
    await expect(page.getByText(/allows for a drift of up to .* between the two/)).toBeVisible();
    await expect(page.getByText(/baseline was not repeated after the change/)).toBeVisible();
    await expect(page.getByText(/Return to the earlier setup/)).toBeVisible();
    await page.getByRole('button', { name: /^Smoothing/ }).click();
    await expect(page.getByText(/At the peak of B a third of the span would read/)).toBeVisible();
    await page.getByRole('switch', { name: 'Show the unsmoothed points' }).click();
    await expect(page).toHaveURL(/raw=1/);
  },
);

/** The runs of a job as files that the command line takes, and the words that name them. */
async function filesOf(suvok: Suvok, job: Job): Promise<string[]> {
  const folder = mkdtempSync(join(tmpdir(), 'suvok-e2e-'));
  const ask = async (path: string) => (await fetch(`${suvok.origin}/api/runs/${path}`)).text();
  for (const run of job.runs) {
    writeFileSync(join(folder, `${run.label}.csv`), await ask(`${run.id}/run.csv`));
    writeFileSync(join(folder, `${run.label}.air.json`), await ask(`${run.id}/air.json`));
  }
  writeFileSync(join(folder, 'dyno.json'), await ask(`${job.runs[0]!.id}/dyno.json`));
  const of = (letter: string) => [1, 2, 3].map((number) => join(folder, `${letter}${number}.csv`));
  return ['--baseline', ...of('A'), '--test', ...of('B'), '--dyno', join(folder, 'dyno.json')];
}

interface Settings {
  standard: StandardId;
  share: number;
  smoothing: number | 'auto';
  band: string;
  crank: string | undefined;
  power: PowerUnit;
}

/** Settings as somebody might come to look at them with, the same at every run of the test. */
function drawnSettings(seed: number): Settings {
  const random = chance(seed);
  const drawn = <T>(list: readonly T[]) => list[Math.floor(random() * list.length)]!;
  const from = 2500 + 50 * Math.floor(random() * 40);
  return {
    standard: drawn(standardIds),
    share: 5 * Math.floor(random() * 21),
    smoothing: random() < 0.2 ? 'auto' : 20 * Math.floor(random() * 30),
    band: `${from}-${from + 200 + 50 * Math.floor(random() * 30)}`,
    crank: drawn([undefined, '12', '15+2.5']),
    power: drawn(powerUnits),
  };
}

function commandLine(files: readonly string[], { standard, share, smoothing, band, crank }: Settings): string[] {
  // The page's runs were not planned: three looks since both setups had a run.
  const settings = {
    look: '3',
    standard,
    share: String(share),
    smoothing: String(smoothing),
    band,
    ...(crank ? { crank } : {}),
  };
  return [...files, ...Object.entries(settings).flatMap(([name, value]) => [`--${name}`, value])];
}

test(
  'for eight settings the page and the command line make the same comparison',
  { tag: '@long' },
  async ({ page, recorded }) => {
    const { suvok, job } = await recorded('two-setups');
    const files = await filesOf(suvok, job);
    const { stdout } = await promisify(execFile)(
      process.execPath,
      ['launch/run.cjs', 'cli/main.ts', 'compare', ...commandLine(files, drawnSettings(1))],
      { maxBuffer: 1e7 },
    );
    await goTo(page, `${suvok.origin}/jobs/${job.id}/compare`);
    for (let seed = 1; seed <= 8; seed++) {
      const settings = drawnSettings(seed);
      const found = seed === 1 ? (JSON.parse(stdout) as ComparisonJson) : compareCommand(commandLine(files, settings));
      const query = new URLSearchParams(
        Object.entries(settings).flatMap(([name, value]) => (value === undefined ? [] : [[name, String(value)]])),
      );
      await page.evaluate((search) => {
        history.pushState(null, '', `?${search}`);
        dispatchEvent(new PopStateEvent('popstate'));
      }, query.toString());
      const [{ meanKw, lowKw, highKw }, shown] = [
        found.bands[0]!,
        (kw: number | null) => convert(kw!, 'kW', settings.power),
      ];
      // Rounded to a tenth on the page and to a ten-thousandth by the command line: within 0.06, a tie's other side included.
      const tenth = (value: number) => expect.closeTo(value, 0.92);
      await expect
        .poll(
          async () => {
            const { band, 'peak-power': peak } = await tableOf(page);
            return [gainOf(band!), Number(/±([\d.]+)/.exec(band![2]!)?.[1]), Number(peak![0]), Number(peak![1])];
          },
          { message: query.toString() },
        )
        .toEqual([
          tenth(shown(meanKw)),
          tenth(shown((highKw! - lowKw!) / 2)),
          tenth(shown(found.peaks.baseline.kw)),
          tenth(shown(found.peaks.test.kw)),
        ]);
    }
  },
);

import { goTo } from './go-to.ts';
import type { ImportSettings } from '../contract/job/job-requests.ts';
import type { Job, Run, Setup } from '../contract/job/records.ts';
import { writeRecordingCsv } from '../core/exchange/recordings/write-csv.ts';
import { generatedRun } from '../core/testing/generated-run.ts';
import { testDyno, usualTorque } from '../core/testing/test-car.ts';
import { expect, test, type Suvok } from './suvok.ts';

/** What can be another way with a run of a scenario. */
interface Made {
  seed: number;
  /** Torque ÷ the usual car's. */
  factor?: number;
  settings?: Partial<ImportSettings>;
  /** Put right afterwards. */
  change?: object;
  options?: Parameters<typeof generatedRun>[0];
}

const air = { temperatureC: 21, pressureHpa: 1004, relativeHumidityPct: 45 };
const at = (hour: number, minute: number, day = 2) => new Date(Date.UTC(2026, 2, day, hour, minute)).toISOString();

async function made(
  suvok: Suvok,
  setupId: number,
  { seed, factor = 1, settings, change, options }: Made,
): Promise<Run> {
  const recording = generatedRun({
    seed,
    speedNoise: 0.008,
    drumTorque: (rpm) => factor * usualTorque(rpm),
    ...options,
  });
  const form = new FormData();
  form.append('file', new Blob([writeRecordingCsv(recording)]), 'run.csv');
  form.append(
    'settings',
    JSON.stringify({
      setupId,
      dyno: testDyno,
      air,
      engineToDrumRatio: null,
      startedAt: at(10, 4 * seed),
      gear: '4th',
      ...settings,
    }),
  );
  const response = await fetch(`${suvok.origin}/api/imports`, { method: 'POST', body: form });
  expect(response.ok).toBe(true);
  const { run } = (await response.json()) as { run: Run };
  return change ? suvok.ask<Run>('PATCH', `/runs/${run.id}`, change) : run;
}

/** A job with a baseline of three runs and a second setup with its own. */
async function jobWith(
  suvok: Suvok,
  baseline: readonly Made[],
  tested: readonly Made[],
  setup: object = {},
): Promise<Job> {
  const job = await suvok.ask<Job>('POST', '/jobs', { vehicle: 'Tarrow Six', question: 'Does it pay?', gear: '4th' });
  const second = await suvok.ask<Setup>('POST', `/jobs/${job.id}/setups`, {
    parentId: job.setups[0]!.id,
    change: 'ignition +1°',
    items: [{ kind: 'ignition', by: 1 }],
    ...setup,
  });
  for (const run of baseline) await made(suvok, job.setups[0]!.id, run);
  for (const run of tested) await made(suvok, second.id, run);
  return job;
}
const three = (from: number, over: Partial<Made> = {}): Made[] =>
  [0, 1, 2].map((more) => ({ seed: from + more, ...over }));
const better: Partial<Made> = { factor: 1.03 };

const atAltitude: Partial<ImportSettings> = {
  dyno: { ...testDyno, altitudeM: 700 },
  air: { ...air, pressureHpa: 1016 },
};

/** Each mistake, and the words that name it where the decision is taken. */
const mistakes: [name: string, baseline: Made[], tested: Made[], words: RegExp, setup?: object][] = [
  [
    'a baseline from another day',
    three(1, { settings: { startedAt: at(9, 0, 1) } }),
    three(4, better),
    /more than 12 hours apart; spread from strapping the car anew is not known, so no verdict/,
  ],
  [
    'one run called a baseline',
    [{ seed: 1 }],
    three(4, better),
    /held against is one run, A1: nothing tells how far it would read another time/,
  ],
  [
    'a peak against a run that was revved further',
    three(1),
    three(4, { ...better, options: { toRpm: 5600 } }),
    /cover different ranges: .* Peaks of runs that end at different speeds are not alike/s,
  ],
  ['another gear', three(1), three(4, { ...better, settings: { gear: '3rd' } }), /made in different gears: 3rd, 4th/],
  [
    'another dyno',
    three(1),
    three(4, { ...better, settings: { dyno: { ...testDyno, inertiaKgM2: 70 } } }),
    /come from different dynos or dyno settings/,
  ],
  [
    'other tyres',
    three(1, { change: { tyres: 'road' } }),
    three(4, { ...better, change: { tyres: 'slicks' } }),
    /different tyres: slicks, road/,
  ],
  [
    'the fan off',
    three(1, { change: { fan: 'on' } }),
    three(4, { ...better, change: { fan: 'off' } }),
    /different fan settings: off, on/,
  ],
  [
    'another fuel',
    three(1, { change: { fuel: { name: 'Club 98', ethanolPct: 5 } } }),
    three(4, { ...better, change: { fuel: { name: 'Race', ethanolPct: 20 } } }),
    /different fuels: Race, Club 98.*20 % ethanol for one side and 5 %/s,
  ],
  [
    'a cold engine',
    three(1, { change: { startTemperatures: { coolantTemperature: 88 } } }),
    three(4, { ...better, change: { startTemperatures: { coolantTemperature: 60 } } }),
    /started up to [23]\d\sK colder than any of the runs it is held against/,
  ],
  [
    'two changes at once',
    three(1),
    three(4, better),
    /One step changes 2 things .*: what each of them gave cannot be split/,
    {
      change: 'ignition and filter',
      items: [
        { kind: 'ignition', by: 1 },
        { kind: 'filter', name: 'open' },
      ],
    },
  ],
  [
    'a sea-level pressure typed in',
    three(1, { settings: atAltitude }),
    three(4, { ...better, settings: atAltitude }),
    /1,016\shPa is \d+\shPa above what is usual at 700 m: it looks like a sea-level figure/,
  ],
  [
    'a drift taken for a gain',
    three(1),
    three(4, better),
    /The baseline was not repeated after the change: a steady drift would look the same as a gain/,
  ],
];

// One way for all of them onto the page: core's tests hold each rule, these hold that its words arrive.
for (const [at, [name, baseline, tested, words, setup]] of mistakes.entries())
  test(`named where the decision is taken: ${name}`, { tag: at < 1 ? [] : '@long' }, async ({ page, suvok }) => {
    const job = await jobWith(suvok, baseline, tested, setup);
    await goTo(page, `${suvok.origin}/jobs/${job.id}/compare?smoothing=300`);
    await expect(page.getByRole('complementary', { name: 'Findings' })).toContainText(words);
    await expect(page.getByTestId('decision')).toBeInViewport();
  });

test(
  'a conditioning sweep is in no figure, and its chip says what it is',
  { tag: '@long' },
  async ({ page, suvok }) => {
    const sweep: Made = { seed: 9, factor: 0.8, settings: { kind: 'conditioning' } };
    const job = await jobWith(suvok, [...three(1), sweep], three(4, better));
    await goTo(page, `${suvok.origin}/jobs/${job.id}/compare?smoothing=300`);
    await expect(page.getByTestId('sentence')).toContainText(/^B makes [12]\.\d\s±\s\d\.\d kW more than A/);
    await expect(page.getByRole('button', { name: 'Run A4, conditioning' })).toBeVisible();
  },
);

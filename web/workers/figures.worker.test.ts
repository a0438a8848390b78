import { afterEach, beforeAll, beforeEach, expect, jest, test } from '@jest/globals';
import { wrap, type Remote } from 'comlink';
import type { Run } from '../../contract/job/records.ts';
import { makeJobFigures } from '../../core/figures/make-job-figures.ts';
import { readingOf, type Reading } from '../../core/figures/runs/reading.ts';
import { recordingsToBytes, recordingToBytes } from '../../core/exchange/recordings/recording-bytes.ts';
import type { Recording } from '../../core/recording/recording.ts';
import { generatedRun } from '../../core/testing/generated-run.ts';
import { keyOfRun, runOfKey } from '../../core/testing/run-key.ts';
import { testDyno, usualTorque } from '../../core/testing/test-car.ts';
import { talkingEnds } from '../testing/talking-ends.ts';
import type { FiguresWorker, WorkerRequest } from './figures.worker.ts';

const drawn = [1, 1.02, 1.04].map((factor, index) =>
  generatedRun({ rateHz: 100, seed: index + 1, speedNoise: 0.006, drumTorque: (rpm) => factor * usualTorque(rpm) }),
);
/** The car grows a degree warmer from setup to setup, and a tenth from run to run. */
const coolantOf = (id: number) => 80 + Math.ceil(id / 3) + (id % 3) / 10;
const recordingOf = (id: number): Recording => {
  const { time, channels } = drawn[id % drawn.length]!;
  return {
    time,
    channels: [...channels, { name: 'coolantTemperature', unit: '°C', values: time.map(() => coolantOf(id)) }],
  };
};
const run = (id: number, setupId: number, over: object = {}) =>
  ({
    id,
    key: keyOfRun(id),
    setupId,
    label: `${'ABCDE'[setupId - 1]}${id}`,
    kind: 'power',
    state: 'sealed',
    dyno: testDyno,
    engineToDrumRatio: null,
    logs: [],
    setAsideReason: null,
    startedAt: new Date(Date.UTC(2026, 4, 4, 9, id)).toISOString(),
    gear: '4th',
    air: { temperatureC: 25, pressureHpa: 1000, relativeHumidityPct: 40 },
    airTakenAt: null,
    fuel: null,
    startTemperatures: {},
    ...over,
  }) as unknown as Run;
/** Five setups with three runs each; the last is changed from the fourth. */
const setups = [1, 2, 3, 4, 5].map((id) => ({
  id,
  letter: 'ABCDE'[id - 1]!,
  parentId: id - 1 || null,
  change: `step ${id}`,
  items: [],
}));
const runs = setups.flatMap(({ id }) => [run(3 * id - 2, id), run(3 * id - 1, id), run(3 * id, id)]);
const job = { vehicle: 'Test car', ignition: 'spark', setups, runs, baseline: null } as unknown as WorkerRequest['job'];
const request = (view: object = {}): WorkerRequest => ({
  job,
  view: { standard: 'sae-j1349', share: 1, smoothing: 300, powerUnit: 'kW', ...view },
});

/** What the worker asked of the server, in its order. */
let asked: string[] = [];
let away = false;
let worker: Remote<FiguresWorker>;

/** The worker in this process, started for job 7 as the page does: by its name. */
beforeAll(async () => {
  const { page, worker: own } = talkingEnds();
  Object.assign(globalThis, { self: { name: '7' }, ...own });
  globalThis.fetch = ((path: string) => {
    asked.push(path);
    if (away) return Promise.reject(new TypeError('no network'));
    if (path === '/api/jobs/7') return Promise.resolve(Response.json(job));
    const alone = /runs\/(\d+)\/recording/.exec(path)?.[1];
    if (alone) return Promise.resolve(new Response(recordingToBytes(recordingOf(Number(alone))).buffer as ArrayBuffer));
    const keys = /of=([\da-f.-]+)/.exec(path)![1]!.split('.');
    return Promise.resolve(
      new Response(
        recordingsToBytes(new Map(keys.map((key) => [key, recordingOf(runOfKey(key))]))).buffer as ArrayBuffer,
      ),
    );
  }) as typeof fetch;
  await import('./figures.worker.ts');
  worker = wrap<FiguresWorker>(page);
});
beforeEach(() => {
  away = false;
});
afterEach(() => {
  jest.restoreAllMocks();
});

test('named a job, it makes its runs ready by itself: those of the sides that are looked at first', async () => {
  // Asked for while it is at it, nothing is fetched twice.
  const { runs: made } = await worker.figures(request());
  expect(made).toHaveLength(15);
  expect(asked[0]).toBe('/api/jobs/7');
  const fetched = asked.slice(1).flatMap((path) => /of=([\da-f.-]+)/.exec(path)![1]!.split('.').map(runOfKey));
  // Baseline A, and E against D, then all others.
  expect(fetched.slice(0, 9)).toEqual([1, 2, 3, 10, 11, 12, 13, 14, 15]);
  expect([...fetched].sort((a, b) => a - b)).toEqual(runs.map(({ id }) => id));
});

test('its figures are those of core, and a recording is fetched once whatever is asked of it', async () => {
  asked = [];
  const readings = new Map<number, Reading>(runs.map((one) => [one.id, readingOf(one, recordingOf(one.id))]));
  const asIfHere = makeJobFigures(request({ testId: 3 }), readings);
  const figures = await worker.figures(request({ testId: 3 }));
  expect(figures.sides).toEqual({ baselineId: 1, testId: 3, againstId: 2 });
  expect(figures.spanRpm).toBe(300);
  expect(figures.setups.map(({ setupId, peakKw }) => [setupId, peakKw])).toEqual(
    asIfHere.setups.map(({ setupId, peakKw }) => [setupId, peakKw]),
  );
  expect(asked).toEqual([]);
});

test('samples that do not come are told as such, and come at the next try', async () => {
  const late = run(16, 5);
  const withLate = { ...request(), job: { ...job, runs: [...runs, late] } };
  away = true;
  await expect(worker.figures(withLate)).rejects.toThrow(/samples did not come .* What was recorded is kept/);
  away = false;
  expect((await worker.figures(withLate)).runs).toHaveLength(16);
});

test('a mistake of the program is told as one, never as the recording’s fault', async () => {
  const log = jest.spyOn(console, 'error').mockImplementation(() => undefined);
  const broken = { ...request(), job: { ...job, setups: null as unknown as WorkerRequest['job']['setups'] } };
  await expect(worker.figures(broken)).rejects.toThrow(/Suvok itself made a mistake .* recordings are not at fault/);
  // For whoever looks into the browser's log, too.
  expect(log).toHaveBeenCalledTimes(1);
});

test('a file is looked at before it is sent: what it holds, or the sentence why it is none', async () => {
  const columns = recordingOf(1);
  const lines = [
    'time [s],rollerSpeed [rad/s]',
    ...Array.from(columns.time.slice(0, 200), (at, index) => `${at},${columns.channels[0]!.values[index]}`),
  ];
  const seen = await worker.preview(new File([lines.join('\n')], 'run.csv'));
  expect(seen).toMatchObject({ samples: 200, hasPickup: false, fromRoad: false, hasAir: false });
  expect(await worker.preview(new File(['not a recording'], 'run.csv'))).toEqual({ refusal: expect.any(String) });
});

test('what was logged is told of a run, and how far a channel is from the baseline’s', async () => {
  const engine = { ignition: 'spark', boosted: false, limits: [] } as never;
  const { channels, unjudged } = await worker.log(runs[0]!, engine);
  expect(unjudged).toBeUndefined();
  const coolant = channels.find(({ name }) => name === 'coolantTemperature')!;
  expect([coolant.unit, coolant.time.values[0]]).toEqual(['°C', coolantOf(1)]);
  expect(await worker.startTemperatures(runs[12]!)).toEqual({ coolantTemperature: coolantOf(13) });
  const changes = await worker.channelChanges(runs[14]!, runs.slice(0, 3), [runs.slice(3, 6)]);
  const warmer = changes.find(({ channel }) => channel === 'coolantTemperature')!;
  expect(warmer.mean.difference).toBeCloseTo(coolantOf(15) - 81.1, 9);
});

test('the mean of several logs is that of each channel; the log of a run with no pull is shown unjudged', async () => {
  const engine = { ignition: 'spark', boosted: false, limits: [] } as never;
  const { channels } = await worker.logMean(runs.slice(0, 3).map((one) => [one, engine] as const));
  const coolant = channels.find(({ name }) => name === 'coolantTemperature')!;
  expect(coolant.speed.values[0]).toBeCloseTo(81.1, 9);
  const hold = run(17, 5, { kind: 'step' });
  expect((await worker.log(hold, engine)).unjudged).toMatch(/no pull/);
});

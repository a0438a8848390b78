import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import type { Run } from '../../contract/job/records.ts';
import { recordingsToBytes } from '../../core/exchange/recordings/recording-bytes.ts';
import type { Recording } from '../../core/recording/recording.ts';
import { generatedRun } from '../../core/testing/generated-run.ts';
import { keyOfRun, runOfKey } from '../../core/testing/run-key.ts';
import { testDyno } from '../../core/testing/test-car.ts';
import { cachedReading, cachedReadings, cachedPull, fetchRuns, readInTurn } from './run-readings.ts';

const recording = generatedRun({ rateHz: 100 });
const flat = {
  ...recording,
  channels: recording.channels.map((channel) => ({ ...channel, values: channel.values.map(() => 60) })),
};
const run = (id: number, over: object = {}) =>
  ({
    id,
    key: keyOfRun(id),
    kind: 'power',
    state: 'sealed',
    dyno: testDyno,
    engineToDrumRatio: null,
    logs: [],
    ...over,
  }) as unknown as Run;

/** Asks of the server so far: the runs of each. */
let asked: number[][];
let answer: (ids: number[]) => Response;
const sent = (of: readonly (readonly [id: number, sent: Recording, source?: string])[]) =>
  new Response(
    recordingsToBytes(new Map(of.map(([id, recording, source = '']) => [keyOfRun(id) + source, recording])))
      .buffer as ArrayBuffer,
  );
const real = globalThis.fetch;
let next = 1;
const fresh = (count: number) => Array.from({ length: count }, () => run(next++));

beforeEach(() => {
  asked = [];
  answer = (ids) => sent(ids.map((id) => [id, recording]));
  globalThis.fetch = ((path: string) => {
    const ids = /of=([\da-f.-]+)/.exec(path)![1]!.split('.').map(runOfKey);
    asked.push(ids);
    return Promise.resolve(answer(ids));
  }) as typeof fetch;
});
afterEach(() => {
  globalThis.fetch = real;
  jest.restoreAllMocks();
});

test('many runs come in a few requests, each run once, whatever is asked twice', async () => {
  const runs = fresh(15);
  fetchRuns(runs.slice(0, 5));
  const [first] = await Promise.all([cachedReadings(runs), cachedReadings(runs.slice(3))]);
  expect(first.size).toBe(15);
  expect([...first.values()].every(({ kind }) => kind === 'sweep')).toBe(true);
  expect(asked.flat().sort((a, b) => a - b)).toEqual(runs.map(({ id }) => id));
  expect(asked.every((ids) => ids.length <= 12)).toBe(true);
  await cachedReadings(runs);
  expect(asked.flat()).toHaveLength(15);
});

test('a run whose machine was put right is read anew, and one of which a word was changed is not', async () => {
  const [one] = fresh(1);
  const before = await cachedReading(one!);
  expect(await cachedReading(run(one!.id, { note: 'windy' }))).toBe(before);
  expect(await cachedReading(run(one!.id, { dyno: { ...testDyno, inertiaKgM2: 60 } }))).not.toBe(before);
  expect(await cachedReading(run(one!.id, { kind: 'coast-down' }))).not.toBe(before);
});

test('another run of the same number, in data that were restored, is another run', async () => {
  const [one] = fresh(1);
  const before = await cachedReading(one!);
  const other = run(one!.id, { key: keyOfRun(900_000 + one!.id) });
  answer = () => new Response(recordingsToBytes(new Map([[other.key, recording]])).buffer as ArrayBuffer);
  expect(await cachedReading(other)).not.toBe(before);
  expect(asked.at(-1)).toEqual([900_000 + one!.id]);
});

test('a logger’s file that was joined is asked for by its own key too: its number may be another’s', () => {
  const joined = (key: string) => [
    { source: 2, name: 'Box', device: '', channels: [], probe: { delayS: 0, offset: 0 }, key },
  ];
  const [id, paths] = [next++, [] as string[]];
  globalThis.fetch = ((path: string) => (paths.push(path), Promise.reject(new TypeError('away')))) as typeof fetch;
  fetchRuns([run(id, { logs: joined('aaaaaaaa-0000-4000-8000-000000000000') })]);
  expect(paths).toEqual([`/api/recordings?of=${keyOfRun(id)}.${keyOfRun(id)}-2-aaaaaaaa`]);
});

test('what did not come is no fault of the run, and is fetched by another try', async () => {
  const runs = fresh(2);
  const usual = answer;
  answer = () => new Response('away', { status: 500 });
  await expect(cachedReadings(runs)).rejects.toThrow(/did not come from the server.*is kept/);
  answer = usual;
  expect((await cachedReadings(runs)).size).toBe(2);
});

test('a recording that nothing can be made of is told from a mistake of the program', async () => {
  const [bad, broken] = [run(next++), run(next++, { dyno: undefined })];
  answer = (ids) => sent(ids.map((id) => [id, id === bad.id ? flat : recording]));
  const said = jest.spyOn(console, 'error').mockImplementation(() => undefined);
  const readings = await cachedReadings([bad, broken]);
  expect(readings.get(bad.id)).toMatchObject({ kind: 'unusable', unusable: { fault: 'recording' } });
  expect(readings.get(broken.id)).toMatchObject({ kind: 'unusable', unusable: { fault: 'program' } });
  // Only the program's own mistake goes into the browser's log.
  expect(said).toHaveBeenCalledTimes(1);
  await expect(cachedPull(bad)).rejects.toThrow();
});

test('runs of other kinds, and those still being recorded, are not fetched ahead', () => {
  fetchRuns([run(next++, { kind: 'step' }), run(next++, { state: 'recording' })]);
  expect(asked).toEqual([]);
});

test('runs read in turn give way: one that is asked for meanwhile is not kept waiting for all of them', async () => {
  const runs = fresh(20);
  let done = false;
  const reading = readInTurn(runs).then((found) => {
    done = true;
    return found;
  });
  expect((await cachedReading(runs.at(-1)!)).kind).toBe('sweep');
  expect(done).toBe(false);
  expect([...(await reading).keys()]).toEqual(runs.map(({ id }) => id));
});

test('of runs read in turn those that do not come are left out, and are asked for again later', async () => {
  const [first, away] = fresh(2);
  const usual = answer;
  answer = (ids) => (ids.includes(away!.id) ? new Response('away', { status: 500 }) : usual(ids));
  // Each in a request of its own.
  fetchRuns([first!]);
  expect([...(await readInTurn([first!, away!])).keys()]).toEqual([first!.id]);
  answer = usual;
  expect([...(await readInTurn([away!])).keys()]).toEqual([away!.id]);
});

test('what loggers recorded comes with the run, in the same request; one that does not come is asked for again', async () => {
  const logs = [{ source: 1, name: 'Logger', device: 'l', channels: [], probe: { delayS: 0, offset: 0 } }];
  const logged = run(next++, { logs });
  const rpm = recording.channels.find(({ name }) => name === 'engineSpeed')!;
  const beside = {
    time: recording.time,
    channels: [rpm, { name: 'oilPressure', unit: 'kPa', values: recording.time.map((at) => 400 + at) }],
  };
  const paths: string[] = [];
  globalThis.fetch = ((path: string) => {
    paths.push(path);
    return Promise.resolve(
      sent([[logged.id, recording], ...(paths.length > 1 ? [[logged.id, beside, '-1'] as const] : [])]),
    );
  }) as typeof fetch;
  await expect(cachedReading(logged)).rejects.toThrow(/did not come from the server/);
  const reading = await cachedReading(logged);
  expect(paths.at(-1)).toBe(`/api/recordings?of=${logged.key}.${logged.key}-1`);
  expect(reading).toMatchObject({ kind: 'sweep' });
  if (reading.kind === 'sweep')
    expect(reading.logged.extremes.get('oilPressure')).toMatchObject({ leastRpm: expect.any(Number) });
});

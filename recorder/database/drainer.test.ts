import { describe, expect, jest, test } from '@jest/globals';
import { silentLog } from '../../contract/values/service-log.ts';
import { plainSettings } from '../../contract/instruments/recording.ts';
import { Drainer } from './drainer.ts';
import { Displaced, NeverTaken } from './recorder-store.ts';
import { Journal } from '../spool/journal.ts';
import { MemoryFiles } from '../testing/memory-files.ts';
import { MemoryStore } from '../testing/memory-store.ts';
import { rollerHello } from '../testing/test-instrument.ts';
import { newRun } from '../../store/testing/new-run.ts';

async function bench() {
  const [files, store] = [new MemoryFiles(), new MemoryStore()];
  const journal = await Journal.open(files, silentLog, { segmentBytes: 20_000 });
  const drainer = new Drainer(journal, store, silentLog);
  const session = journal.openSession(rollerHello, plainSettings);
  const rows = (from: number, to: number) => {
    for (let at = from; at < to; at++) journal.row(session, at, Float64Array.of(at, 1, 2), at);
  };
  const settled = async () => {
    await journal.flush();
    await drainer.idle();
    await new Promise((resolve) => setImmediate(resolve));
    await drainer.idle();
  };
  return { store, journal, drainer, session, rows, settled };
}

const stored = (store: MemoryStore, key: string) =>
  store.runs
    .get(key)!
    .rows.get(0)!
    .map((row) => row[0]!);
const count = (from: number, to: number) => Array.from({ length: to - from }, (_, at) => from + at);

test('rows that come after a run’s end, while those before it are being stored, are none of its own', async () => {
  const { store, journal, session, rows, settled } = await bench();
  const run = newRun();
  rows(0, 10);
  journal.begin(run, [{ source: 0, session, from: 5 }]);
  // A database that takes its time: the end, and much after it, is on the disk before the first rows are stored.
  const append = store.appendChunk.bind(store);
  store.appendChunk = async (...words) => {
    await append(...words);
    if (store.runs.get(run.key)!.rows.get(0)!.length < 10) {
      journal.end({ key: run.key, as: 'sealed', remarks: [], to: [20] });
      rows(20, 60);
      await journal.flush();
    }
  };
  rows(10, 20);
  await settled();
  expect(store.runs.get(run.key)).toMatchObject({ as: 'sealed' });
  expect(stored(store, run.key)).toEqual(count(5, 20));
});

test('runs are entered in the order they began, and one that goes on holds nobody up', async () => {
  const { store, journal, session, rows, settled } = await bench();
  const [first, second] = [newRun(), newRun()];
  rows(0, 30);
  journal.begin(first, [{ source: 0, session, from: 0 }]);
  journal.begin(second, [{ source: 0, session, from: 10 }]);
  journal.end({ key: second.key, as: 'sealed', remarks: [], to: [20] });
  await settled();
  expect([...store.runs.keys()]).toEqual([first.key, second.key]);
  expect(store.runs.get(second.key)!.as).toBe('sealed');
  expect(store.runs.get(first.key)!.as).toBeUndefined();
});

test('a run whose setup the database refuses is kept without one; one that it refuses altogether waits and holds nobody up', async () => {
  const { store, journal, drainer, session, rows, settled } = await bench();
  const [lost, refused, good] = [newRun({ setup: { id: 9, jobId: 9 } }), newRun({ gear: 'never' }), newRun()];
  const add = store.addRun.bind(store);
  store.addRun = (run) => (run.setup || run.gear ? Promise.reject(new NeverTaken('no')) : add(run));
  rows(0, 30);
  for (const run of [lost, refused, good]) {
    journal.begin(run, [{ source: 0, session, from: 0 }]);
    journal.end({ key: run.key, as: 'sealed', remarks: [], to: [30] });
  }
  await settled();
  expect([...store.runs.values()].map(({ beginning, as }) => [beginning.key, beginning.setup, as])).toEqual([
    [lost.key, null, 'sealed'],
    [good.key, null, 'sealed'],
  ]);
  expect(journal.unstored.map(({ run }) => run.key)).toEqual([refused.key]);
  expect(drainer.problem).toBe(
    'The database refuses a run (it said: no). Nothing is lost: it stays on this machine’s disk and is offered again every minute.',
  );
  await drainer.stop();
});

test('a run that the database refused is offered again by itself, and nothing is said any more once it is taken', async () => {
  jest.useFakeTimers({ doNotFake: ['setImmediate'] });
  try {
    const { store, journal, drainer, session, rows, settled } = await bench();
    const add = store.addRun.bind(store);
    store.addRun = () => Promise.reject(new NeverTaken('no'));
    rows(0, 30);
    const run = newRun();
    journal.begin(run, [{ source: 0, session, from: 0 }]);
    journal.end({ key: run.key, as: 'sealed', remarks: [], to: [30] });
    await settled();
    store.addRun = add;
    await jest.advanceTimersByTimeAsync(30_000);
    expect(store.runs.size).toBe(0);
    await jest.advanceTimersByTimeAsync(31_000);
    await drainer.idle();
    expect(store.runs.size).toBe(1);
    expect(drainer.problem).toBeNull();
    await drainer.stop();
  } finally {
    jest.useRealTimers();
  }
});

describe('rows that are not on the disk', () => {
  const logger = { source: 1, device: 'logger', name: 'Probe box', channels: [], probe: plainSettings.probe };

  test('of a logger, before the oldest that is kept: the run is whole, and says what is missing', async () => {
    const { store, journal, session, rows, settled } = await bench();
    const beside = journal.openSession(rollerHello, plainSettings);
    for (let at = 1542; at < 1600; at++) journal.row(beside, at, Float64Array.of(at, 1), at);
    rows(0, 30);
    const run = newRun({ logs: [logger] });
    journal.begin(run, [
      { source: 0, session, from: 0 },
      { source: 1, session: beside, from: 376 },
    ]);
    journal.end({ key: run.key, as: 'sealed', remarks: ['one'], to: [30, 1600] });
    await settled();
    expect(store.runs.get(run.key)).toMatchObject({
      as: 'sealed',
      remarks: ['one', '1166 samples of Probe box could not be read back from the recorder’s disk.'],
    });
    expect(store.runs.get(run.key)!.rows.get(1)).toHaveLength(58);
  });

  test.each([
    ['in the middle', [0, 10], [20, 30], 10],
    ['at the end', [0, 10], undefined, 20],
    ['anywhere', undefined, undefined, 30],
  ] as const)('of the dyno, %s: what is there is saved, and it is no whole run', async (_where, one, two, missing) => {
    const { store, journal, session, rows, settled } = await bench();
    const run = newRun();
    if (one) rows(...one);
    journal.begin(run, [{ source: 0, session, from: 0 }]);
    await journal.flush();
    if (two) rows(...two);
    journal.end({ key: run.key, as: 'sealed', remarks: [], to: [30] });
    await settled();
    expect(store.runs.get(run.key)).toMatchObject({
      as: 'interrupted',
      remarks: [
        `${missing} samples of the dyno could not be read back from the recorder’s disk, so it is no whole run.`,
      ],
    });
    expect(store.runs.get(run.key)!.rows.get(0) ?? []).toHaveLength(30 - missing);
  });

  test('what is missing is still known to a drainer that was begun anew halfway', async () => {
    const { store, journal, drainer, session, rows, settled } = await bench();
    const run = newRun();
    rows(0, 10);
    journal.begin(run, [{ source: 0, session, from: 0 }]);
    await journal.flush();
    rows(20, 30);
    journal.end({ key: run.key, as: 'sealed', remarks: [], to: [30] });
    const seal = store.sealRun.bind(store);
    store.sealRun = () => Promise.reject(new Error('the database has gone'));
    await settled();
    await drainer.stop();
    store.sealRun = seal;
    const next = new Drainer(journal, store, silentLog);
    await next.idle();
    expect(store.runs.get(run.key)!.remarks).toEqual([expect.stringMatching(/^10 samples of the dyno/)]);
    await next.stop();
  });
});

test('one that has been displaced asks nothing more, and says so', async () => {
  const { store, journal, drainer, session, rows, settled } = await bench();
  store.addRun = () => Promise.reject(new Displaced('taken'));
  rows(0, 30);
  journal.begin(newRun(), [{ source: 0, session, from: 0 }]);
  await settled();
  expect(drainer.problem).toMatch(/taken this one’s place.*stays on this machine’s disk/);
  const { calls } = store;
  rows(30, 60);
  await settled();
  expect(store.calls).toBe(calls);
  expect(journal.unstored).toHaveLength(1);
});

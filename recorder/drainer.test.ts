import { expect, test } from '@jest/globals';
import { silentLog } from '../contract/log.ts';
import { plainSettings } from '../contract/recording.ts';
import { Drainer } from './drainer.ts';
import { Displaced, NeverTaken } from './recorder-store.ts';
import { Journal } from './spool/journal.ts';
import { MemoryFiles } from './testing/memory-files.ts';
import { MemoryStore } from './testing/memory-store.ts';
import { rollerHello } from './testing/test-instrument.ts';
import { newRun } from '../store/testing/new-run.ts';

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
  expect(drainer.problem).toBeNull();
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

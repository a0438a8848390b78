import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { silentLog } from '../../contract/values/service-log.ts';
import { MemoryFiles } from '../testing/memory-files.ts';
import { Spool } from './spool.ts';
import type { Place, SpoolRecord } from './segment.ts';

interface Life {
  spool: Spool;
  /** Contents found at the start, and those that were called safe since. */
  found: string[];
  safe: { text: string; place: Place }[];
  problems: (string | null)[];
}

async function live(files: MemoryFiles, segmentBytes = 400): Promise<Life> {
  const life = { found: [], safe: [], problems: [] } as unknown as Life;
  const text = (record: SpoolRecord) => record.content.toString();
  life.spool = await Spool.open(
    files,
    {
      segmentBytes,
      log: silentLog,
      gather: () => undefined,
      checkpoint: () => [],
      onSafe: (safe) => life.safe.push(...safe.map(({ record, place }) => ({ text: text(record), place }))),
      onProblem: (problem) => life.problems.push(problem),
    },
    (record) => life.found.push(text(record)),
  );
  return life;
}

const words = (from: number, count: number) => Array.from({ length: count }, (_, index) => `record ${from + index}`);
const add = (life: Life, texts: readonly string[]) => {
  for (const text of texts) life.spool.append(1, Buffer.from(text));
};

test('what was called safe is there in the next life, over many segments, once and in order', async () => {
  const files = new MemoryFiles();
  const life = await live(files);
  add(life, words(0, 50));
  await life.spool.flush();
  expect(life.safe.map(({ text }) => text)).toEqual(words(0, 50));
  expect(life.spool.segments.length).toBeGreaterThan(3);
  files.cutPower();
  const next = await live(files);
  expect(next.found).toEqual(words(0, 50));
  add(next, words(50, 5));
  await next.spool.flush();
  files.cutPower();
  expect((await live(files)).found).toEqual(words(0, 55));
});

test('a record is read back from its place, also in a file that was used before', async () => {
  const files = new MemoryFiles();
  const life = await live(files);
  add(life, words(0, 30));
  await life.spool.flush();
  for (const segment of life.spool.segments.slice(0, -1)) await life.spool.release(segment);
  add(life, words(30, 30));
  await life.spool.flush();
  const last = life.safe.at(-1)!;
  expect((await life.spool.read(last.place)).content.toString()).toBe('record 59');
  // Nothing of the files' earlier life passes for a record of this one.
  const next = await live(files);
  const kept = next.found.map((text) => Number(text.slice(7)));
  expect(kept).toEqual([...kept].sort((a, b) => a - b));
  expect(new Set(kept).size).toBe(kept.length);
  expect(kept.slice(-30)).toEqual(words(30, 30).map((text) => Number(text.slice(7))));
});

test('a torn tail is cut at the last whole record', async () => {
  for (const share of [0.1, 0.4, 0.7, 0.95]) {
    const files = new MemoryFiles();
    const life = await live(files, 10_000);
    add(life, words(0, 5));
    await life.spool.flush();
    files.before = (act) => {
      if (act === 'sync') throw new Error('power');
    };
    add(life, words(5, 20));
    await life.spool.flush();
    files.cutPower(share);
    files.before = () => undefined;
    const { found } = await live(files, 10_000);
    expect(found.slice(0, 5)).toEqual(words(0, 5));
    expect(found).toEqual(words(0, found.length));
    expect(found.length).toBeLessThan(25);
  }
});

/** One power cut or failure, at whatever is asked of the files. */
const happenings = fc.record({
  batches: fc.array(fc.integer({ min: 1, max: 12 }), { minLength: 1, maxLength: 8 }),
  failAt: fc.array(fc.integer({ min: 1, max: 60 }), { maxLength: 6 }),
  cutAfter: fc.integer({ min: 0, max: 8 }),
  through: fc.double({ min: 0, max: 1, noNaN: true }),
});

test('whatever fails, and wherever the power is cut: all that was called safe is there, and nothing is doubled or out of order', async () => {
  await fc.assert(
    fc.asyncProperty(happenings, async ({ batches, failAt, cutAfter, through }) => {
      const files = new MemoryFiles();
      files.before = (act, count) => {
        if (failAt.includes(count) && act !== 'remove') throw new Error('the disk refuses');
      };
      const life = await live(files);
      let written = 0;
      for (const [at, count] of batches.entries()) {
        if (at === cutAfter) break;
        add(life, words(written, count));
        written += count;
        await life.spool.flush();
      }
      files.cutPower(through);
      files.before = () => undefined;
      const { found } = await live(files);
      expect(found).toEqual(words(0, found.length));
      expect(found.length).toBeGreaterThanOrEqual(life.safe.length);
      expect(life.safe.map(({ text }) => text)).toEqual(words(0, life.safe.length));
    }),
    { numRuns: 400 },
  );
});

test('a disk that refuses is told of, and that it takes again; what waited goes in then', async () => {
  const files = new MemoryFiles();
  const life = await live(files);
  let refuses = true;
  files.before = (act) => {
    if (refuses && act === 'write') throw new Error('no space left');
  };
  add(life, words(0, 3));
  await life.spool.flush();
  expect(life.problems).toEqual([expect.stringMatching(/disk takes nothing \(no space left\)/)]);
  expect(life.safe).toEqual([]);
  refuses = false;
  await life.spool.flush();
  expect(life.problems.at(-1)).toBeNull();
  expect(life.safe.map(({ text }) => text)).toEqual(words(0, 3));
});

test('what is taken while a commit is being written is safe a moment later, each once and in order', async () => {
  const files = new MemoryFiles();
  const life = await live(files);
  let next = 0;
  // One more at every act of the disk, with nothing gathered in between.
  files.before = () => {
    if (next < 60) add(life, words(next++, 1));
  };
  add(life, words(next++, 1));
  for (let turn = 0; turn < 80; turn++) await life.spool.flush();
  files.before = () => undefined;
  await life.spool.flush();
  expect(next).toBe(60);
  expect(life.safe.map(({ text }) => text)).toEqual(words(0, 60));
  files.cutPower();
  expect((await live(files)).found).toEqual(words(0, 60));
});

import { expect, test } from '@jest/globals';
import { MemoryFiles } from '../testing/memory-files.ts';
import { MemoryStore, type Fate } from '../testing/memory-store.ts';
import { RecorderLife } from '../testing/recorder-life.ts';
import { rollerHello, TestInstrument } from '../testing/test-instrument.ts';
import { someInShort } from '../../core/testing/short-or-whole.ts';

/**
 * A pull of an instrument that sends again what is not safe, with one thing
 * going wrong at every place where something can: whatever it is, the run is
 * stored whole, once, in order and as good.
 */
const rateHz = 50;
/** Frames that are sent between two commits: some are always under way. */
const atOnce = 25;

/** Roll, pull, roll: as frames of speed and throttle. */
const drive = [
  ...Array.from({ length: 3 * rateHz }, (_, at) => [20 + 0.01 * (at % 3), 5]),
  ...Array.from({ length: 4 * rateHz }, (_, at) => [20 + (15 * at) / rateHz, 100]),
  ...Array.from({ length: 2 * rateHz }, (_, at) => [80 - (8 * at) / rateHz, 5]),
];

interface Trouble {
  files: MemoryFiles;
  store: MemoryStore;
  /** Ends the present life before the next frames. */
  ends: () => boolean;
  /** What becomes of the disk at the end of a life. */
  afterDeath?: () => void;
}

async function pullThrough({ files, store, ends, afterDeath }: Trouble): Promise<{ lives: number }> {
  const instrument = new TestInstrument({ ...rollerHello, protocol: 2, instance: 'one' });
  let safe = -1;
  let lives = 1;
  let life = await RecorderLife.begin(files, store);
  life.connect(instrument);
  const anew = async () => {
    safe = Math.max(safe, instrument.safeTo);
    await life.die();
    afterDeath?.();
    for (let tries = 0; ; tries++) {
      const next = await RecorderLife.begin(files, store).catch((error: Error) => error);
      if (!(next instanceof Error)) {
        life = next;
        break;
      }
      if (tries > 5) throw next;
    }
    lives++;
    // Whatever was called safe, the new life knows.
    const known = Math.max(-1, ...life.journal.sessions.map(({ lastSequence }) => lastSequence ?? -1));
    expect(known).toBeGreaterThanOrEqual(safe);
    life.connect(instrument);
  };
  for (let at = 0; at < drive.length; at += atOnce) {
    for (let next = at; next < Math.min(drive.length, at + atOnce); next++)
      instrument.frame((next + 1) / rateHz, drive[next]!);
    await life.journal.flush();
    if (ends()) await anew();
  }
  await life.settle();
  if (ends()) await anew();
  // As long as anything is tried again.
  for (let tries = 0; tries < 8 && life.journal.unstored.length > 0; tries++) {
    await new Promise((resolve) => setTimeout(resolve, 520));
    await life.settle();
  }
  await life.die();
  return { lives };
}

function mustBeWhole(store: MemoryStore): void {
  const [run, ...others] = [...store.runs.values()];
  expect(others).toEqual([]);
  expect(run).toMatchObject({ as: 'sealed', remarks: [] });
  const times = run!.rows.get(0)!.map((row) => row[0]!);
  // From the lead before the pull to a little after its lift, each frame once.
  expect(times[0]).toBeLessThan(1);
  expect(times.at(-1)).toBeGreaterThan(7.2);
  expect(times.at(-1)).toBeLessThan(7.8);
  expect(times).toEqual(times.map((_, at) => expect.closeTo(times[0]! + at / rateHz, 9)));
}

const never = () => false;

/** Each of so many acts; in short some of them. */
const nth = (count: number) =>
  someInShort(
    Array.from({ length: count }, (_, index) => index),
    8,
  );

test('with nothing going wrong the pull is one run', async () => {
  const [files, store] = [new MemoryFiles(), new MemoryStore()];
  expect(await pullThrough({ files, store, ends: never })).toEqual({ lives: 1 });
  mustBeWhole(store);
});

/** How often the disk and the database are asked for the pull when nothing goes wrong. */
async function actsOfAPull(): Promise<{ disk: number; database: number }> {
  const [files, store] = [new MemoryFiles(), new MemoryStore()];
  await pullThrough({ files, store, ends: never });
  return { disk: files.acts, database: store.calls };
}

test.each<Fate>(['refused', 'answer lost'])('every call of the database, one after the other, is %s', async (fate) => {
  const { database } = await actsOfAPull();
  expect(database).toBeGreaterThan(10);
  await Promise.all(
    nth(database).map(async (index) => {
      const [files, store] = [new MemoryFiles(), new MemoryStore()];
      store.fate = (call) => (call === index + 1 ? fate : 'done');
      await pullThrough({ files, store, ends: never });
      mustBeWhole(store);
    }),
  );
});

test('every write, sync and naming of the disk, one after the other, fails', async () => {
  const { disk } = await actsOfAPull();
  expect(disk).toBeGreaterThan(20);
  await Promise.all(
    nth(disk).map(async (index) => {
      const [files, store] = [new MemoryFiles(), new MemoryStore()];
      files.before = (_act, count) => {
        if (count === index + 1) throw new Error('the disk refuses');
      };
      await pullThrough({ files, store, ends: never });
      mustBeWhole(store);
    }),
  );
});

test.each([
  ['the process is killed', undefined],
  ['the power is cut, and nothing that was not synced is left', 0],
  ['the power is cut, and half of what was not synced is left', 0.5],
] as const)('%s after every act of the disk, one after the other', async (_name, share) => {
  const { disk } = await actsOfAPull();
  await Promise.all(
    nth(disk).map(async (index) => {
      const [files, store] = [new MemoryFiles(), new MemoryStore()];
      let dies = false;
      let died = false;
      files.before = (_act, count) => {
        // From this act on nothing reaches the disk any more, until the next life.
        if (count > index && !died) dies = true;
        if (dies) throw new Error('dead');
      };
      const { lives } = await pullThrough({
        files,
        store,
        ends: () => dies,
        afterDeath: () => {
          dies = false;
          died = true;
          if (share !== undefined) files.cutPower(share);
        },
      });
      expect(lives).toBeLessThanOrEqual(2);
      mustBeWhole(store);
    }),
  );
});

test('killed after every half second of it, again and again, the pull is still one whole run', async () => {
  const [files, store] = [new MemoryFiles(), new MemoryStore()];
  const { lives } = await pullThrough({ files, store, ends: () => true, afterDeath: () => files.cutPower(0.3) });
  expect(lives).toBeGreaterThan(15);
  mustBeWhole(store);
});

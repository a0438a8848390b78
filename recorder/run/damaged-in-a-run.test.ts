import { expect, test } from '@jest/globals';
import { MemoryFiles } from '../testing/memory-files.ts';
import { MemoryStore } from '../testing/memory-store.ts';
import { RecorderLife } from '../testing/recorder-life.ts';
import { rollerHello, TestInstrument } from '../testing/test-instrument.ts';

const rateHz = 50;
/** Roll, pull, roll: as frames of speed and throttle. */
const drive = [
  ...Array.from({ length: 3 * rateHz }, (_, at) => [20 + 0.01 * (at % 3), 5]),
  ...Array.from({ length: 4 * rateHz }, (_, at) => [20 + (15 * at) / rateHz, 100]),
  ...Array.from({ length: 2 * rateHz }, (_, at) => [80 - (8 * at) / rateHz, 5]),
];

test('a disk that is spoilt while the recorder is down in a pull: the run goes on, and says what it lacks', async () => {
  const [files, store] = [new MemoryFiles(), new MemoryStore()];
  const instrument = new TestInstrument({ ...rollerHello, protocol: 2, instance: 'one' });
  let life = await RecorderLife.begin(files, store, 40_000);
  life.connect(instrument);
  // The database is away meanwhile, so that the rows are on the recorder's disk alone.
  store.fate = () => 'refused';
  for (const [at, values] of drive.entries()) {
    instrument.frame((at + 1) / rateHz, values);
    if (at % 10 === 9) await life.journal.flush();
    if (at !== 250) continue;
    await life.die();
    files.cutPower();
    const [session] = life.journal.sessions;
    const { place } = life.journal.index.extentFrom(session!.session, 150)!;
    const name = `${String(place.segment).padStart(12, '0')}.seg`;
    files.spoil(name, place.position + 40, (bytes) => bytes.fill(0), 10);
    life = await RecorderLife.begin(files, store, 40_000);
    expect(life.journal.lost).toBe(1);
    life.connect(instrument);
  }
  store.fate = () => 'done';
  await life.settle();
  await new Promise((resolve) => setTimeout(resolve, 600));
  await life.settle();
  const [run, ...others] = [...store.runs.values()];
  expect(others).toEqual([]);
  const times = run!.rows.get(0)!.map((row) => row[0]!);
  const whole = Math.round((times.at(-1)! - times[0]!) * rateHz) + 1;
  expect(whole - times.length).toBe(10);
  expect(run).toMatchObject({
    as: 'interrupted',
    remarks: ['10 samples of the dyno could not be read back from the recorder’s disk, so it is no whole run.'],
  });
  // The pull went on in the second life to its lift.
  expect(times.at(-1)).toBeGreaterThan(7.2);
  await life.die();
});

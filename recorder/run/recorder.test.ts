import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import fc from 'fast-check';
import { silentLog } from '../../contract/values/service-log.ts';
import type { Conditions } from './beginning.ts';
import { Recorder } from './recorder.ts';
import type { BeginRecord, EndRecord } from '../spool/records.ts';
import { Journal } from '../spool/journal.ts';
import { MemoryFiles } from '../testing/memory-files.ts';
import { plainConditions } from '../testing/recorder-life.ts';
import { rollerHello, TestInstrument } from '../testing/test-instrument.ts';

/** How a pull ends: with the lift, or in the middle of it. */
type Ending = 'lift' | 'end pressed' | 'instrument lost' | 'silence' | 'clock anew';
type Step = { do: 'roll'; s: number } | { do: 'arm' } | { do: 'pull'; s: number; ending: Ending };

interface Kept {
  begun: BeginRecord;
  times: number[];
  as?: 'sealed' | 'interrupted';
  remarks: readonly string[];
}

const rateHz = 50;

/** A bay of one dyno, driven by hand: what it is told, and what the journal keeps of it. */
class Bench {
  readonly runs: Kept[] = [];
  recorder!: Recorder;
  private readonly times: number[] = [];
  private timeS = 0;
  private speed = 20;

  private constructor(
    private readonly journal: Journal,
    private readonly instrument: TestInstrument,
  ) {}

  static async start(over: Partial<Conditions> = {}, instrument = new TestInstrument()): Promise<Bench> {
    const bench = new Bench(await Journal.open(new MemoryFiles(), silentLog, { segmentBytes: 200_000 }), instrument);
    const device = bench.instrument.newDevice(bench.journal);
    // Before the recorder hears of a row, as the journal does.
    device.on('row', (row) => bench.times.push(row[0]!));
    const journal = {
      begin: (...begun: Parameters<Journal['begin']>) => {
        bench.journal.begin(...begun);
        bench.runs.push({ begun: { run: begun[0], sources: begun[1] }, times: [], remarks: [] });
      },
      ending: () => undefined,
      rowsOf: () => 0,
      oldestRow: (session: number) => bench.journal.oldestRow(session),
      end: (end: EndRecord) => {
        bench.journal.end(end);
        const run = bench.runs.find(({ begun }) => begun.run.key === end.key)!;
        Object.assign(run, end, { times: bench.times.slice(run.begun.sources[0]!.from, end.to[0]) });
      },
    };
    bench.recorder = new Recorder(journal, device, () => ({ ...plainConditions, ...over }), silentLog);
    return bench;
  }

  get sent(): string[] {
    return this.instrument.peer.heard.map(({ type }) => type);
  }

  private async rows(seconds: number, growth: number, throttle: number): Promise<void> {
    for (let count = 0; count < seconds * rateHz; count++) {
      this.timeS += 1 / rateHz;
      this.speed = Math.max(20, this.speed + growth / rateHz);
      this.instrument.frame(this.timeS, [this.speed, throttle]);
      await jest.advanceTimersByTimeAsync(1000 / rateHz);
    }
  }

  /** Steady in gear, or rolling out: nothing that is a pull. */
  roll = (seconds: number) => this.rows(seconds, -8, 5);

  /** Frames that are lost on the way. */
  skips(seconds: number): void {
    this.timeS += seconds;
    this.speed += 15 * seconds;
    this.instrument.skip(seconds * rateHz);
  }

  /** Full throttle, going on. */
  pulls = (seconds: number) => this.rows(seconds, 15, 100);

  async pull(seconds: number, ending: Ending): Promise<void> {
    await this.pulls(seconds);
    switch (ending) {
      case 'lift':
        break;
      case 'end pressed':
        this.recorder.end();
        await this.pulls(1);
        break;
      case 'instrument lost':
        this.recorder.device.emit('lost');
        break;
      case 'silence':
        await jest.advanceTimersByTimeAsync(5000);
        // It is judged once the sockets have been read.
        for (let turn = 0; turn < 3; turn++) await new Promise((resolve) => setImmediate(resolve));
        break;
      case 'clock anew':
        this.timeS = 0;
        // The frame that goes back is left out, and one second of them at the least.
        this.instrument.frame(this.timeS, [this.speed, 5]);
    }
    await this.roll(3);
  }
}

beforeEach(() => void jest.useFakeTimers({ doNotFake: ['setImmediate'] }));
afterEach(() => void jest.useRealTimers());

const steps: fc.Arbitrary<Step[]> = fc.array(
  fc.oneof(
    fc.record({ do: fc.constant('roll' as const), s: fc.integer({ min: 1, max: 5 }) }),
    fc.record({ do: fc.constant('arm' as const) }),
    fc.record({
      do: fc.constant('pull' as const),
      s: fc.integer({ min: 3, max: 8 }),
      ending: fc.constantFrom<Ending>('lift', 'end pressed', 'instrument lost', 'silence', 'clock anew'),
    }),
  ),
  { maxLength: 8 },
);

test('in whatever order things happen, every pull is one run, whole, in order, and said to be what it is', async () => {
  await fc.assert(
    fc.asyncProperty(steps, async (happening) => {
      const bench = await Bench.start();
      await bench.roll(1);
      const endings: Ending[] = [];
      for (const step of happening) {
        if (step.do === 'arm') bench.recorder.arm();
        else if (step.do === 'roll') await bench.roll(step.s);
        else {
          endings.push(step.ending);
          await bench.pull(step.s, step.ending);
          const last = bench.runs.at(-1)?.begun.run.key;
          if (last) bench.recorder.stored(last);
          // Over, with nothing going on and nothing announced any more.
          expect(bench.recorder.state()).toMatchObject({ state: 'idle', problem: null });
        }
      }
      expect(bench.runs.map(({ as }) => as)).toEqual(
        endings.map((ending) => (ending === 'lift' || ending === 'end pressed' ? 'sealed' : 'interrupted')),
      );
      for (const { times } of bench.runs) {
        // As it came: nothing doubled, nothing left out.
        const steps = times.slice(1).map((time, index) => time - times[index]!);
        expect(steps.every((step) => Math.abs(step - 1 / rateHz) < 1e-6)).toBe(true);
        expect(times.length).toBeGreaterThan(3 * rateHz);
      }
    }),
    { numRuns: 25 },
  );
});

test('a run begins before its pull was noticed, and says what it was made on', async () => {
  const bench = await Bench.start();
  await bench.roll(6);
  await bench.pull(5, 'lift');
  const [run] = bench.runs;
  expect(run!.begun.run).toMatchObject({ kind: 'power', device: 'roller', source: 'Roller', engineToDrumRatio: 3.4 });
  expect(run!.times[0]!).toBeGreaterThan(2.5);
  expect(run!.times[0]!).toBeLessThan(4);
  // A little after the lift belongs to it.
  expect(run!.times.at(-1)!).toBeGreaterThan(11.2);
  expect(run!.remarks).toEqual([]);
});

test.each([
  ['instrument lost', /was lost during this run/],
  ['silence', /fell silent/],
  ['clock anew', /clock of the instrument began anew/],
] as const)('%s: what had arrived is kept, and said', async (ending, words) => {
  const bench = await Bench.start();
  await bench.roll(3);
  await bench.pull(4, ending);
  expect(bench.runs[0]!.as).toBe('interrupted');
  expect(bench.runs[0]!.remarks.join(' ')).toMatch(words);
  expect(bench.runs[0]!.remarks.join(' ')).toMatch(/kept/);
});

test('one that sends again what it read may be silent for ten seconds, connected or not; never longer, however often it connects', async () => {
  const resuming = () => new TestInstrument({ ...rollerHello, protocol: 2, instance: 'one' });
  const turns = async () => {
    for (let turn = 0; turn < 3; turn++) await new Promise((resolve) => setImmediate(resolve));
  };
  // A network that stood still: what was read meanwhile comes after it, and the pull is one run.
  const stalled = await Bench.start({}, resuming());
  await stalled.roll(3);
  await stalled.pulls(3);
  await jest.advanceTimersByTimeAsync(9000);
  await turns();
  await stalled.pull(2, 'lift');
  expect(stalled.runs).toMatchObject([{ as: 'sealed', remarks: [] }]);
  const instrument = resuming();
  const flapping = await Bench.start({}, instrument);
  await flapping.roll(3);
  await flapping.pulls(3);
  for (let second = 0; second < 11; second++) {
    instrument.peer.close();
    await jest.advanceTimersByTimeAsync(900);
    instrument.comeBack(flapping.recorder.device);
    await jest.advanceTimersByTimeAsync(100);
    await turns();
  }
  expect(flapping.runs).toMatchObject([{ as: 'interrupted', remarks: [expect.stringMatching(/fell silent/)] }]);
});

test('a pull that was under way when the instrument was heard is no whole run, and says so', async () => {
  const bench = await Bench.start();
  await bench.pull(5, 'lift');
  expect(bench.runs).toMatchObject([
    { as: 'interrupted', remarks: [expect.stringMatching(/its beginning is missing/)] },
  ]);
});

test('a pull with a hole in it is no whole run, and says where', async () => {
  const bench = await Bench.start();
  await bench.roll(3);
  await bench.pulls(3);
  bench.skips(1);
  await bench.pull(2, 'lift');
  expect(bench.runs).toMatchObject([
    {
      as: 'interrupted',
      remarks: ['50 frames are missing at 7.02 s.', 'Nothing was read from 6.00 to 7.02 s, so it is no whole run.'],
    },
  ]);
});

test('an announcement is told, taken back, and forgotten by a loss', async () => {
  const bench = await Bench.start();
  await bench.roll(1);
  bench.recorder.arm();
  expect(bench.recorder.state().state).toBe('armed');
  bench.recorder.arm();
  bench.recorder.end();
  expect(bench.recorder.state().state).toBe('idle');
  expect(bench.runs).toEqual([]);
});

test('without room on the disk no run begins, and one begins as soon as there is room', async () => {
  let refusal: string | null = 'The disk is full.';
  const bench = await Bench.start({ mayBegin: () => refusal });
  await bench.roll(3);
  await bench.pull(3, 'lift');
  expect(bench.runs).toEqual([]);
  expect(bench.recorder.state()).toMatchObject({ state: 'idle', problem: null });
  refusal = null;
  await bench.pull(3, 'lift');
  expect(bench.runs).toMatchObject([{ as: 'sealed' }]);
});

test('a recorder that runs out of room ends the run and says so', async () => {
  const bench = await Bench.start();
  await bench.roll(3);
  await bench.pulls(4);
  bench.recorder.endNow('The recorder’s disk was full.');
  await jest.advanceTimersByTimeAsync(100);
  expect(bench.runs).toMatchObject([{ as: 'interrupted', remarks: [expect.stringMatching(/disk was full.*kept/)] }]);
});

test('a run names who announced it; one that nobody announced names nobody', async () => {
  const bench = await Bench.start();
  await bench.roll(2);
  bench.recorder.arm(undefined, 'Ola Nordby');
  await bench.pull(8, 'lift');
  await bench.roll(6);
  await bench.pull(8, 'lift');
  expect(bench.runs.map(({ begun }) => begun.run.recordedBy)).toEqual(['Ola Nordby', '']);
});

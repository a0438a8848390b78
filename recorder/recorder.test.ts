import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { EventEmitter } from 'node:events';
import fc from 'fast-check';
import { usualPlan } from '../contract/recording.ts';
import type { Run } from '../contract/records.ts';
import type { Device } from './devices/device.ts';
import { silentLog } from './log.ts';
import type { NewRun, RecorderStore } from './recorder-store.ts';
import { Recorder, type Conditions } from './recorder.ts';

/** How a pull ends: with the lift, or in the middle of it. */
type Ending = 'lift' | 'end pressed' | 'instrument lost' | 'silence' | 'clock anew';
type Step = { do: 'roll'; s: number } | { do: 'arm' } | { do: 'pull'; s: number; ending: Ending };

interface Kept {
  beginning: NewRun;
  times: number[];
  as?: 'sealed' | 'interrupted';
  remarks: readonly string[];
}

const rateHz = 50;

/** A bay of one dyno, driven by hand: what it is told, what the recorder keeps. */
class Bench {
  readonly runs: Kept[] = [];
  readonly sent: string[] = [];
  readonly recorder: Recorder;
  private readonly device = new EventEmitter();
  private timeS = 0;
  private speed = 20;

  constructor() {
    const store = {
      addRun: (beginning: NewRun) => {
        this.runs.push({ beginning, times: [], remarks: [] });
        return Promise.resolve({ id: this.runs.length } as Run);
      },
      appendChunk: (runId: number, _source: number, _sequence: number, [times]: Float64Array[]) =>
        Promise.resolve(void this.runs[runId - 1]!.times.push(...times!)),
      sealRun: ({ id }: Run, as: 'sealed' | 'interrupted', remarks: readonly string[]) =>
        Promise.resolve(void Object.assign(this.runs[id - 1]!, { as, remarks })),
    };
    Object.assign(this.device, {
      hello: { device: 'roller', name: 'Roller', commands: [], startedAt: undefined, engineToDrumRatio: 3.4 },
      intake: { channels: [{ name: 'rollerSpeed', unit: 'rad/s' }, { name: 'throttle', unit: '%' }] }, // prettier-ignore
      dyno: { name: 'Roller', kind: 'inertia-roller' },
      send: ({ type }: { type: string }) => this.sent.push(type),
    });
    const conditions = { plan: usualPlan, loggers: [], setup: null, gear: null, air: null, airTakenAt: null, recorderId: 1, engineToDrumRatio: null }; // prettier-ignore
    this.recorder = new Recorder(
      store as unknown as RecorderStore,
      this.device as unknown as Device,
      () => conditions as unknown as Conditions,
      silentLog,
    );
  }

  private async rows(seconds: number, growth: number, throttle: number): Promise<void> {
    for (let count = 0; count < seconds * rateHz; count++) {
      this.timeS += 1 / rateHz;
      this.speed = Math.max(20, this.speed + growth / rateHz);
      this.device.emit('row', Float64Array.of(this.timeS, this.speed, throttle));
      await jest.advanceTimersByTimeAsync(1000 / rateHz);
    }
  }

  /** Steady in gear, or rolling out: nothing that is a pull. */
  roll = (seconds: number) => this.rows(seconds, -8, 5);

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
        this.device.emit('lost');
        break;
      case 'silence':
        await jest.advanceTimersByTimeAsync(5000);
        break;
      case 'clock anew':
        this.timeS = 0;
    }
    await this.roll(3);
  }
}

beforeEach(() => void jest.useFakeTimers());
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
      const bench = new Bench();
      await bench.roll(1);
      const endings: Ending[] = [];
      for (const step of happening) {
        if (step.do === 'arm') bench.recorder.arm();
        else if (step.do === 'roll') await bench.roll(step.s);
        else {
          endings.push(step.ending);
          await bench.pull(step.s, step.ending);
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
  const bench = new Bench();
  await bench.roll(6);
  await bench.pull(5, 'lift');
  const [run] = bench.runs;
  expect(run!.beginning).toMatchObject({ kind: 'power', device: 'roller', source: 'Roller', engineToDrumRatio: 3.4 });
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
  const bench = new Bench();
  await bench.roll(3);
  await bench.pull(4, ending);
  expect(bench.runs[0]!.as).toBe('interrupted');
  expect(bench.runs[0]!.remarks.join(' ')).toMatch(words);
  expect(bench.runs[0]!.remarks.join(' ')).toMatch(/kept/);
});

test('an announcement is told, taken back, and forgotten by a loss', async () => {
  const bench = new Bench();
  await bench.roll(1);
  bench.recorder.arm();
  expect(bench.recorder.state().state).toBe('armed');
  bench.recorder.arm();
  expect(bench.sent.filter((type) => type === 'arm')).toHaveLength(1);
  bench.recorder.end();
  expect(bench.recorder.state().state).toBe('idle');
  expect(bench.sent.at(-1)).toBe('stop');
  expect(bench.runs).toEqual([]);
});

test('a server that stops during a run keeps what had come', async () => {
  const bench = new Bench();
  await bench.roll(3);
  await bench.pulls(4);
  expect(bench.recorder.state().state).toBe('recording');
  const drained = bench.recorder.drained();
  await jest.advanceTimersByTimeAsync(2000);
  await drained;
  expect(bench.runs[0]).toMatchObject({ as: 'interrupted' });
  expect(bench.runs[0]!.remarks.join(' ')).toMatch(/server was stopped/);
});

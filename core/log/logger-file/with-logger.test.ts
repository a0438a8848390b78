import { expect, test } from '@jest/globals';
import type { Recording } from '../../recording/recording.ts';
import { preparedSweep } from '../../reduction/prepared-sweep.ts';
import { Refusal } from '../../refusal.ts';
import { generatedRun } from '../../testing/generated-run.ts';
import { testDyno } from '../../testing/test-car.ts';
import { runLog } from '../pull/from-recording.ts';
import type { LoggedEngine } from '../pull/run-log.ts';
import { withLogger } from './with-logger.ts';

const engine: LoggedEngine = { ignition: 'spark', boosted: false, ethanolPct: null, limits: {} };
const dyno = generatedRun({ speedNoise: 0.01 });
const sweep = preparedSweep(dyno, testDyno);
const log = runLog(dyno, sweep, engine);
const rpm = dyno.channels.find(({ name }) => name === 'engineSpeed')!.values;

/** What a logger at 50 Hz records of the run on a clock that is ahead. */
function logger(aheadS: number, lateS = 0): Recording {
  const kept = Array.from(dyno.time.keys()).filter((index) => index % 4 === 0);
  return {
    time: Float64Array.from(kept, (index) => dyno.time[index]! + aheadS),
    channels: [
      { name: 'engineSpeed', unit: 'rpm', values: Float64Array.from(kept, (index) => rpm[index]!) },
      // λ falls with time, so that its place on the clock can be read off it.
      { name: 'lambda', unit: '–', values: Float64Array.from(kept, (index) => 1 - 0.01 * (dyno.time[index]! - lateS)) },
    ],
  };
}

test('a logger’s channels come onto the dyno’s clock, wherever its own stands', () => {
  for (const ahead of [-3.2, 0.4, 41.37]) {
    const beside = withLogger(log, sweep, logger(ahead), { delayS: 0, offset: 0 });
    expect(beside.fit.shiftS).toBeCloseTo(-ahead, 1);
    expect(beside.fit.correlation).toBeGreaterThan(0.999);
    const middle = Math.floor(log.time.length / 2);
    expect(beside.log.channels.get('lambda')![middle]!).toBeCloseTo(1 - 0.01 * log.time[middle]!, 3);
  }
});

test('a late and lean probe is put right, and the dyno’s own channels stay', () => {
  const late = withLogger(log, sweep, logger(5, 0.5), { delayS: 0.5, offset: 0.02 });
  const middle = Math.floor(log.time.length / 2);
  expect(late.log.channels.get('lambda')![middle]!).toBeCloseTo(1 - 0.01 * log.time[middle]! - 0.02, 3);
  expect(late.log.channels.get('engineSpeed')).toBe(log.channels.get('engineSpeed'));
});

test('outside of what it recorded there is no reading', () => {
  const whole = logger(2);
  const from = Math.floor(whole.time.length * 0.2);
  const cut: Recording = {
    time: whole.time.slice(from),
    channels: whole.channels.map((channel) => ({ ...channel, values: channel.values.slice(from) })),
  };
  const { log: joined } = withLogger(log, sweep, cut, { delayS: 0, offset: 0 });
  expect(joined.channels.get('lambda')![0]!).toBeNaN();
});

test('a logger without engine speed, or with another run’s, is refused in a sentence', () => {
  const bare = { ...logger(0), channels: [] };
  expect(() => withLogger(log, sweep, bare, { delayS: 0, offset: 0 })).toThrow(/records no engine speed/);
  const other = logger(0);
  other.channels[0]!.values = other.channels[0]!.values.map((_, index) => 3000 + 400 * Math.sin(index / 9));
  expect(() => withLogger(log, sweep, other, { delayS: 0, offset: 0 })).toThrow(Refusal);
});

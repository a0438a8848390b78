import { describe, expect, test } from '@jest/globals';
import { preparedSweep } from '../../reduction/prepared-sweep.ts';
import { generatedRun } from '../../testing/generated-run.ts';
import { loggedRun } from '../../testing/logged-run.ts';
import { testDyno } from '../../testing/test-car.ts';
import { runLog } from './from-recording.ts';
import { overSpeed, overTime } from './series.ts';

describe('what is drawn', () => {
  test('series keep the channel’s values and few enough points', () => {
    const log = loggedRun(508, undefined, 'turbo');
    const boost = log.channels.get('boost')!;
    for (const series of [overSpeed(log, boost), overTime(log, boost)]) {
      expect(series.x.length).toBeGreaterThan(50);
      expect(series.x.length).toBeLessThanOrEqual(401);
      expect(series.x.every((value, index) => index === 0 || value > series.x[index - 1]!)).toBe(true);
    }
    const top = overSpeed(log, boost).values.at(-1)!;
    const end = log.time.findIndex((at) => at > log.endS) - 1;
    expect(Math.abs(top - boost[end]!)).toBeLessThan(4);
  });
});

describe('the log of a recording', () => {
  test('λ is moved back by the way of the gas', () => {
    const recording = generatedRun({ speedNoise: 0.01 });
    const lambda = recording.time.map((at) => (at > 6 ? 0.85 : 1));
    const logged = { ...recording, channels: [...recording.channels, { name: 'lambda', unit: '–', values: lambda }] };
    const sweep = preparedSweep(logged, testDyno, 3.4);
    const engine = { ignition: 'spark', boosted: false, ethanolPct: null, limits: {} } as const;
    const late = runLog(logged, sweep, engine, { delayS: 0.4, offset: 0.01 }).channels.get('lambda')!;
    const change = logged.time[late.findIndex((value) => value < 0.9)]!;
    expect(change).toBeCloseTo(5.6, 1);
    expect(runLog(logged, sweep, engine).channels.get('lambda')).toBe(lambda);
  });
});

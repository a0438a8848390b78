import { describe, expect, test } from '@jest/globals';
import type { RunLog } from '../pull/run-log.ts';
import { boostEvents } from './boost.ts';

/** A pull of ten seconds at 100 kPa of boost, from which something is taken away in the middle. */
function pulled(kpaAt: (at: number) => number): RunLog {
  const time = Float64Array.from({ length: 1000 }, (_, row) => row / 100);
  return {
    time,
    engineSpeedRpm: time.map((at) => 2000 + 400 * at),
    channels: new Map([['boost', time.map(kpaAt)]]),
    startS: 0,
    endS: 10,
    engine: { ignition: 'spark', boosted: true, ethanolPct: null, limits: {} },
  };
}
const falling = (shareLost: number, withinS: number) =>
  pulled((at) => 100 * (1 - shareLost * Math.min(1, Math.max(0, (at - 6) / withinS))));
const cutsOf = (log: RunLog) => boostEvents(log).filter(({ id }) => id === 'boost-cut');

describe('a cut of boost', () => {
  test('is two fifths of the plateau gone within a fifth of a second, and told with how much', () => {
    const [cut] = cutsOf(falling(0.43, 0.12));
    expect(cut).toMatchObject({ unit: 'kPa', severity: 'stop' });
    expect(cut!.figure).toBeGreaterThan(40);
    expect(cut!.fromRpm).toBeGreaterThan(4300);
    expect(cut!.toRpm).toBeLessThan(4480);
  });

  test('is none where less is gone, or it goes more slowly', () => {
    expect(cutsOf(falling(0.37, 0.12))).toEqual([]);
    expect(cutsOf(falling(0.43, 0.5))).toEqual([]);
  });

  test('is none while boost comes up, however it shakes', () => {
    expect(cutsOf(pulled((at) => (at < 1 ? 60 * at : at < 1.05 ? 15 : Math.min(100, 60 + 20 * (at - 1)))))).toEqual([]);
  });
});

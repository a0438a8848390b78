import { expect, test } from '@jest/globals';
import { chance, normal } from '../testing/chance.ts';
import { checkHistory, type CheckRun } from './check-history.ts';

const rpm = Float64Array.from({ length: 50 }, (_, index) => 2000 + 100 * index);
let id = 0;
const run = (scale: number, day: number, minute: number, car = 'own car, 4th', from = 0): CheckRun => ({
  id: ++id,
  label: `A${id}`,
  car,
  startedAt: new Date(Date.UTC(2026, 0, 1 + day, 9, minute)),
  engineSpeedRpm: rpm.slice(from),
  powerKw: rpm.slice(from).map((value) => scale * (value / 70)),
});

test('the spread within and between mountings comes back from drawn check runs of cars of any size', () => {
  const scatter = normal(chance(5));
  const runs: CheckRun[] = [];
  for (let day = 0; day < 60; day++) {
    const mount = 0.009 * scatter();
    for (let pull = 0; pull < 3; pull++)
      runs.push(run((day % 2 ? 1 : 3) * (1 + mount + 0.002 * scatter()), day, 10 * pull, day % 2 ? 'small' : 'large'));
  }
  const history = checkHistory(runs);
  expect(history.within!.standardDeviation).toBeGreaterThan(0.0016);
  expect(history.within!.standardDeviation).toBeLessThan(0.0024);
  expect(history.within!.df).toBe(120);
  expect(history.remount!.standardDeviation).toBeGreaterThan(0.007);
  expect(history.remount!.standardDeviation).toBeLessThan(0.0115);
  expect(history.series.map(({ car }) => car).sort()).toEqual(['large', 'small']);
});

test('one run tells no spread, one mounting no remount spread', () => {
  expect(checkHistory([run(1, 0, 0)])).toMatchObject({ series: [{ runs: [{ mounting: 1, awayShare: 0 }] }] });
  expect(checkHistory([run(1, 0, 0)]).within).toBeUndefined();
  expect(checkHistory([run(1, 0, 0), run(1.01, 0, 9)]).remount).toBeUndefined();
});

test('runs that share no range are named, not compared', () => {
  const low = run(1, 0, 0, 'x');
  low.engineSpeedRpm = low.engineSpeedRpm.slice(0, 10);
  low.powerKw = low.powerKw.slice(0, 10);
  const high = run(1, 0, 9, 'x', 30);
  expect(checkHistory([low, high])).toMatchObject({ series: [], apart: [low.id, high.id] });
});

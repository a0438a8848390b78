import { expect, test } from '@jest/globals';
import { generatedRun } from '../testing/generated-run.ts';
import { LivePower } from '../reduction/live-power.ts';
import { testDyno, truePowerKw } from '../testing/test-car.ts';
import { startWindow, placeInWindow } from '../heat/start-window.ts';
import { PullTrigger } from './pull-trigger.ts';

function eventsOf(
  trigger: PullTrigger,
  time: ArrayLike<number>,
  speed: ArrayLike<number>,
  throttle?: (at: number) => number,
) {
  return Array.from({ length: time.length }, (_, row) =>
    trigger.push(time[row]!, speed[row]!, throttle?.(time[row]!)),
  ).filter((event) => event !== undefined);
}

test.each([20, 200, 1000])('a pull at %d Hz begins and ends once, where it does', (rateHz) => {
  const run = generatedRun({ rateHz, speedNoise: 0.01 });
  const events = eventsOf(new PullTrigger(0.7), run.time, run.channels[0]!.values);
  expect(events.map(({ event }) => event)).toEqual(['begins', 'ends']);
  expect(Math.abs(events[0]!.time - 1.5)).toBeLessThan(0.4);
  expect(Math.abs(events[1]!.time - (run.time.at(-1)! - 2))).toBeLessThan(0.4);
});

test('a steady speed, a short stab and part throttle are no pulls', () => {
  const time = Array.from({ length: 2000 }, (_, row) => row / 200);
  expect(
    eventsOf(
      new PullTrigger(0.7),
      time,
      time.map(() => 60),
    ),
  ).toEqual([]);
  expect(
    eventsOf(
      new PullTrigger(0.7),
      time,
      time.map((at) => 60 + 8 * Math.min(0.4, Math.max(0, at - 3))),
    ),
  ).toEqual([]);
  expect(
    eventsOf(
      new PullTrigger(0.7),
      time,
      time.map((at) => 60 + 8 * at),
      () => 35,
    ),
  ).toEqual([]);
});

test('one that waits lets the pull going on end first', () => {
  const run = generatedRun({});
  const from = run.time.findIndex((at) => at > 5);
  const speed = run.channels[0]!.values.subarray(from);
  expect(eventsOf(new PullTrigger(0.7, true), run.time.subarray(from), speed)).toEqual([]);
});

test('live power follows the truth while the drum gains speed', () => {
  const run = generatedRun({ speedNoise: 0.01 });
  const live = new LivePower(testDyno);
  const points = Array.from(run.time, (at, row) =>
    live.push(at, run.channels[1]!.values[row]!, [{ speed: run.channels[0]!.values[row]!, absorber: 0 }]),
  ).filter((point) => point !== undefined && point.rpm > 2400 && point.rpm < 6200);
  expect(points.length).toBeGreaterThan(1000);
  for (const point of points) expect(Math.abs(point!.powerKw / truePowerKw(point!.rpm) - 1)).toBeLessThan(0.06);
});

test('the window to start in spans the baseline’s starts, a little widened', () => {
  const window = startWindow([{ intakeTemperature: 30, oilTemperature: 92 }, { intakeTemperature: 34 }]);
  expect(window).toEqual({ intakeTemperature: { fromC: 28, toC: 36 }, oilTemperature: { fromC: 90, toC: 94 } });
  expect([27, 30, 40].map((value) => placeInWindow(value, window.intakeTemperature!))).toEqual([
    'below',
    'inside',
    'above',
  ]);
  expect(startWindow([])).toEqual({});
});

import { expect, test } from '@jest/globals';
import { ClockDrift } from './clock-drift.ts';

/** Ten minutes of frames at 20 Hz that come late by up to 40 ms. */
function heard(drift: ClockDrift, ppm: number, lastsS: number): void {
  for (let step = 0; step < lastsS * 20; step++) {
    const wallS = step / 20;
    const late = 0.04 * Math.abs(Math.sin(step * 12.9898)) ** 3;
    drift.push(500 + wallS * (1 + ppm / 1e6), wallS + late);
  }
}

test.each([120, 0, -80])('a clock that drifts by %i millionths is found to, through the delays of its way', (ppm) => {
  const drift = new ClockDrift();
  heard(drift, ppm, 600);
  expect(Math.abs(drift.ppm! - ppm)).toBeLessThan(8);
});

test('before half a minute nothing is said, and a jump begins anew', () => {
  const drift = new ClockDrift();
  heard(drift, 50, 20);
  expect(drift.ppm).toBeNull();
  heard(drift, 50, 60);
  expect(drift.ppm).not.toBeNull();
  drift.push(5000, 61);
  drift.push(5000.05, 61.05);
  for (let step = 0; step < 250; step++) drift.push(5001 + step / 20, 62 + step / 20);
  expect(drift.ppm).toBeNull();
});

/** Frames without delay, one each second; the clock is set by so much after a minute. */
function setBy(jumpS: number): ClockDrift {
  const drift = new ClockDrift();
  for (let wallS = 0; wallS < 120; wallS++) drift.push(wallS + (wallS >= 60 ? jumpS : 0), wallS);
  return drift;
}

test('two seconds are a clock that was set, to either side; less is one that runs so', () => {
  // Begun anew, half a minute of the latter half tells an even clock.
  for (const jumpS of [2.1, -2.1]) expect(setBy(jumpS).ppm).toBeCloseTo(0, 6);
  for (const jumpS of [1.9, -1.9]) expect(Math.abs(setBy(jumpS).ppm!)).toBeGreaterThan(10_000);
});

test('over hours the drift is that since the beginning, of no more than sixty kept arrivals', () => {
  const drift = new ClockDrift();
  let deviceS = 0;
  // A thousand seconds a hundred millionths fast, another thousand right.
  for (let wallS = 0; wallS < 2000; wallS++) drift.push((deviceS += wallS < 1000 ? 1.0001 : 1), wallS);
  expect(drift.ppm).toBeGreaterThan(45);
  expect(drift.ppm).toBeLessThan(55);
  expect((drift as unknown as { kept: unknown[] }).kept.length).toBeLessThanOrEqual(60);
});

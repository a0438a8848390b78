import { keptUnits } from '../units/told-units.ts';
import { describe, expect, test } from '@jest/globals';
import { axisStep, ticksOf } from './axis-step.ts';
import { axisText, toldAxis, placing } from './lane-axis.ts';

const travel = {
  engineSpeedRpm: Float64Array.of(2000, 4000, 6000),
  timeS: Float64Array.of(0, 4, 10),
  roadSpeedKmh: Float64Array.of(50, 100, 150),
};

describe('where engine speeds stand on the lanes’ axis', () => {
  test('over engine speed they stand where they are', () => {
    const place = placing('engine-speed', travel, 2500);
    expect(place.x(3000)).toBe(3000);
    expect(place.rpm(3000)).toBe(3000);
  });

  test('time counts from where all lines have begun, and leads back to the same speed', () => {
    const place = placing('time', travel, 3000);
    expect(place.x(3000)).toBe(0);
    expect(place.x(5000)).toBeCloseTo(5, 9);
    for (const rpm of [2100, 3300, 5900]) expect(place.rpm(place.x(rpm))).toBeCloseTo(rpm, 6);
  });

  test('road speed is the roller’s; without one the engine speed stays', () => {
    expect(placing('road-speed', travel, 3000).x(3000)).toBeCloseTo(75, 9);
    const { engineSpeedRpm, timeS } = travel;
    const hub = { engineSpeedRpm, timeS };
    expect(placing('road-speed', hub, 3000).x(3000)).toBe(3000);
  });

  test('the crosshair says its unit', () => {
    expect(axisText(9.468, toldAxis('time', keptUnits))).toBe('9.47 s');
    expect(axisText(112.4, toldAxis('road-speed', keptUnits))).toBe('112 km/h');
    expect(axisText(112.4, toldAxis('road-speed', { ...keptUnits, speed: 'mph' }))).toBe('70 mph');
    expect(axisText(4000, toldAxis('engine-speed', keptUnits))).toBe('4,000 rpm');
  });

  test('figures of a road speed are round in the unit that they are told in, and stand where they belong', () => {
    const miles = toldAxis('road-speed', { ...keptUnits, speed: 'mph' });
    const ticks = ticksOf([100, 260], miles);
    expect(ticks.map(({ figure }) => figure)).toEqual(['80', '100', '120', '140', '160']);
    for (const { place, figure } of ticks) expect(miles.of(place)).toBeCloseTo(Number(figure), 9);
  });
});

test.each([
  [[2000, 7000], 1000],
  [[3000, 4000], 200],
  [[0, 15.6], 2],
  [[60, 145], 20],
] as const)('figures of an axis over %j stand %d apart', (range, step) => {
  expect(axisStep(range)).toBeCloseTo(step, 9);
});

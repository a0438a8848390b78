import { describe, expect, test } from '@jest/globals';
import { calibratedRatio, loadCellZero } from './calibration.ts';

const rows = (names: string[], make: (index: number) => number[], count = 100) => ({
  names,
  rows: Array.from({ length: count }, (_, index) => Float64Array.of(index / 50, ...make(index))),
});

describe('the ratio', () => {
  test('is engine over drum speed at a steady speed', () => {
    const held = rows(['rollerSpeed', 'engineSpeed', 'throttle'], (index) => [60 + 0.05 * Math.sin(index), 2000, 20]);
    expect(calibratedRatio(held, undefined).value).toBeCloseTo((2000 * 2 * Math.PI) / 60 / 60, 2);
  });

  test('without a pickup the typed engine speed counts, over a surface speed the radius', () => {
    const held = rows(['surfaceSpeed'], () => [15]);
    expect(calibratedRatio(held, 0.25, 3000).value).toBeCloseTo(314.159 / 60, 3);
    expect(() => calibratedRatio(held, 0.25)).toThrow(/no pickup/);
  });

  test.each([
    ['an unsteady speed', (index: number) => [60 + 0.1 * index, 2000, 20], /not steady/],
    ['a drum at rest', () => [0.4, 900, 20], /drum stands/],
    ['a pull', () => [60, 2000, 90], /Too much throttle/],
  ])('refuses %s', (_, make, sentence) => {
    expect(() => calibratedRatio(rows(['rollerSpeed', 'engineSpeed', 'throttle'], make), undefined)).toThrow(sentence);
  });

  test('of several drums is that of their mean, and each axle has its own; an axle that stands has none', () => {
    const held = (front: number) =>
      rows(['rollerSpeedFront', 'rollerSpeedRear', 'engineSpeed'], () => [front, 60, 2400]);
    const radS = (2400 * 2 * Math.PI) / 60;
    const { value, axles } = calibratedRatio(held(64), undefined);
    expect(value).toBeCloseTo(radS / 62, 6);
    expect(axles!.front).toBeCloseTo(radS / 64, 6);
    expect(axles!.rear).toBeCloseTo(radS / 60, 6);
    expect(calibratedRatio(held(0), undefined)).toEqual({
      value: expect.closeTo(radS / 30, 6) as unknown,
      axles: null,
    });
  });

  test('refuses when nothing was heard', () => {
    expect(() => calibratedRatio({ names: ['rollerSpeed'], rows: [] }, undefined)).toThrow(/Too little was heard/);
  });
});

describe('the zero of a load cell', () => {
  test('is its mean with the drum at rest, each side by itself', () => {
    const still = rows(['hubSpeedLeft', 'absorberTorqueLeft', 'absorberTorqueRight'], (index) => [
      0.3,
      2 + (index % 2),
      -1,
    ]);
    expect(loadCellZero(still)).toEqual({ absorberTorqueLeft: 2.5, absorberTorqueRight: -1 });
  });

  test('is not taken while the drum turns, nor where there is no cell', () => {
    expect(() => loadCellZero(rows(['rollerSpeed', 'absorberTorque'], () => [20, 3]))).toThrow(/drum turns/);
    expect(() => loadCellZero(rows(['rollerSpeed'], () => [0.2]))).toThrow(/no load cell/);
  });
});

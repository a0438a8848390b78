import { describe, expect, test } from '@jest/globals';
import { chance, normal } from '../testing/chance.ts';
import { coolingCurve, temperatureAt, timeToReady, type CoolingReading } from './cooling-curve.ts';
import { heatState } from './heat-state.ts';
import { startWindow, tellsHeat } from './start-window.ts';

/** Readings each second of a body that comes to rest, with a sensor's noise. */
function cooling(restC: number, spanC: number, tauS: number, lastsS: number, noiseC = 0.1, seed = 1): CoolingReading[] {
  const scatter = normal(chance(seed));
  return Array.from({ length: lastsS }, (_, atS) => ({
    atS,
    valueC: Math.round((restC + spanC * Math.exp(-atS / tauS) + noiseC * scatter()) * 10) / 10,
  }));
}

describe('the cooling curve', () => {
  test.each([
    [32, 14, 180, 240],
    [90, 12, 110, 160],
    [94, 9, 420, 600],
    [60, -20, 150, 240],
  ])('towards %i °C over %i K with τ %i s is found from %i s of readings', (restC, spanC, tauS, lastsS) => {
    for (let seed = 1; seed <= 12; seed++) {
      const curve = coolingCurve(cooling(restC, spanC, tauS, lastsS, 0.1, seed))!;
      expect(Math.abs(curve.restC - restC)).toBeLessThan(0.25 * Math.abs(spanC));
      expect(curve.tauLeastS).toBeLessThanOrEqual(curve.tauS);
      expect(curve.residualC).toBeLessThan(0.2);
      expect(temperatureAt(curve, lastsS)).toBeCloseTo(restC + spanC * Math.exp(-lastsS / tauS), 0);
    }
  });

  test('too little time, too few readings or no movement tell nothing', () => {
    expect(coolingCurve(cooling(30, 15, 200, 15))).toBeUndefined();
    expect(coolingCurve(cooling(30, 15, 200, 60).filter(({ atS }) => atS % 20 === 0))).toBeUndefined();
    expect(coolingCurve(cooling(30, 0, 200, 300, 0.02))).toBeUndefined();
  });

  test('nothing is expected to cool below the air', () => {
    expect(coolingCurve(cooling(22, 40, 400, 90), 22)!.restC).toBeGreaterThanOrEqual(22);
  });
});

describe('the time to ready', () => {
  test('is foretold within a quarter, and the range that is told holds it, nine times in ten', () => {
    let near = 0;
    let within = 0;
    const trials = 60;
    for (let seed = 1; seed <= trials; seed++) {
      const [restC, spanC, tauS] = [30, 16, 120 + 3 * seed];
      const window = { fromC: 28, toC: 36 };
      const truth = tauS * Math.log(spanC / (window.toC - restC));
      const seen = 0.6 * truth;
      const found = timeToReady(
        coolingCurve(cooling(restC, spanC, tauS, Math.round(seen), 0.1, seed), 22),
        restC + spanC * Math.exp(-seen / tauS),
        window,
      );
      if (found.when !== 'in') continue;
      if (Math.abs(found.seconds / (truth - seen) - 1) < 0.25) near++;
      if (truth - seen >= found.leastS - 6 && truth - seen <= found.mostS + 6) within++;
    }
    expect(near).toBeGreaterThan(0.8 * trials);
    expect(within).toBeGreaterThan(0.8 * trials);
  });

  test('inside the window it is now; a rest outside of it is never reached', () => {
    const curve = coolingCurve(cooling(40, 12, 150, 300));
    expect(timeToReady(curve, 33, { fromC: 30, toC: 36 })).toEqual({ when: 'now' });
    expect(timeToReady(curve, 42, { fromC: 30, toC: 36 })).toMatchObject({ when: 'never' });
    expect(timeToReady(undefined, 42, { fromC: 30, toC: 36 })).toEqual({ when: 'unknown' });
  });

  test('a car that is too cold and is being warmed is foretold as well', () => {
    const curve = coolingCurve(cooling(92, -30, 120, 200));
    expect(timeToReady(curve, 86.3, { fromC: 89, toC: 96 })).toMatchObject({ when: 'in' });
  });
});

describe('the heat state of a start', () => {
  const window = startWindow([
    { intakeTemperature: 32, coolantTemperature: 90, exhaustTemperature: 420 },
    { intakeTemperature: 34, coolantTemperature: 91, exhaustTemperature: 500 },
  ]);

  test.each([
    [{ intakeTemperature: 33, coolantTemperature: 90 }, 8, 'ready'],
    [{ intakeTemperature: 41, coolantTemperature: 90 }, 2, 'heat-soaked'],
    [{ intakeTemperature: 24, coolantTemperature: 70 }, 25, 'cold peak'],
    [{ intakeTemperature: 24, coolantTemperature: 70 }, undefined, 'cold peak'],
    [{ intakeTemperature: 27, coolantTemperature: 90 }, 12, 'cool'],
    // A long rest alone is no cold peak: the car may have been kept warm.
    [{ intakeTemperature: 33, coolantTemperature: 91 }, 40, 'ready'],
    [{}, 8, 'unknown'],
  ] as const)('%j after %p min is %s', (starts, restedMin, state) => {
    expect(heatState(starts, window, restedMin)).toBe(state);
  });

  test('what follows the load at once does not count', () => {
    expect(window.exhaustTemperature).toBeUndefined();
    expect(tellsHeat('oilTemperature')).toBe(true);
  });
});

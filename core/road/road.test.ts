import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  accelerationMs2,
  engineRpm,
  shiftSpeedMs,
  speedMs,
  timeBetweenS,
  tractiveForceN,
  type GearRun,
  type WheelPower,
} from './gear-run.ts';
import { airAt, powerInAir } from './other-air.ts';
import { drivelineMassKg, movedMassKg, resistanceN, rollingShareLeft, roadDefaults } from './road-car.ts';

const speeds = Float64Array.from({ length: 121 }, (_, index) => 1000 + 50 * index);
const even = (kw: (rpm: number) => number): WheelPower => ({ engineSpeedRpm: speeds, powerKw: speeds.map(kw) });
/** No drag of any kind and no turning parts: what closed forms know of. */
const free: GearRun = {
  car: { massKg: 1000, dragAreaM2: 0, rollingCoefficient: 0 },
  totalRatio: 5,
  circumferenceM: 1.9,
  densityKgM3: 1.16,
  rollingShare: 0.5,
  sweepRpmPerS: 0,
};
const mass = ({ car, totalRatio }: GearRun) => movedMassKg(car.massKg) + drivelineMassKg(car.massKg, totalRatio);
const real: GearRun = { ...free, car: roadDefaults, sweepRpmPerS: 300 };

describe('time in a gear', () => {
  test('constant power without drag: t = m·(v₂² − v₁²)/(2·P)', () => {
    const [from, to] = [speedMs(2000, free), speedMs(6000, free)];
    const expected = (mass(free) * (to ** 2 - from ** 2)) / (2 * 80_000);
    expect(
      timeBetweenS(
        even(() => 80),
        from,
        to,
        free,
      )!,
    ).toBeCloseTo(expected, 6);
  });

  test('constant force without drag: t = m·(v₂ − v₁)/F', () => {
    const force = 3000;
    const power = even((rpm) => (force * speedMs(rpm, free)) / 1000);
    const [from, to] = [speedMs(2000, free), speedMs(6000, free)];
    expect(tractiveForceN(power, (from + to) / 2, free)).toBeCloseTo(force, 6);
    expect(timeBetweenS(power, from, to, free)!).toBeCloseTo((mass(free) * (to - from)) / force, 6);
  });

  test('against drag of the air alone, by force: t = m/√(F·k)·(artanh(v₂·√(k/F)) − artanh(v₁·√(k/F)))', () => {
    const gear = { ...free, car: { massKg: 1000, dragAreaM2: 0.7, rollingCoefficient: 0 } };
    const [force, k] = [3000, 0.5 * gear.densityKgM3 * 0.7];
    const power = even((rpm) => (force * speedMs(rpm, gear)) / 1000);
    const [from, to] = [speedMs(2000, gear), speedMs(6000, gear)];
    const root = Math.sqrt(k / force);
    const expected = (mass(gear) / Math.sqrt(force * k)) * (Math.atanh(to * root) - Math.atanh(from * root));
    expect(timeBetweenS(power, from, to, gear)!).toBeCloseTo(expected, 6);
  });

  test('ten times the steps change less than a thousandth of a second, for any curve that climbs and falls', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 60, max: 250, noNaN: true }),
        fc.double({ min: 3000, max: 6500, noNaN: true }),
        (peak, at) => {
          const power = even((rpm) => peak * (1 - ((rpm - at) / 6500) ** 2));
          const [from, to] = [speedMs(2200, real), speedMs(6400, real)];
          const [coarse, fine] = [timeBetweenS(power, from, to, real), timeBetweenS(power, from, to, real, 2000)];
          if (coarse === undefined || fine === undefined) expect(coarse).toBe(fine);
          else expect(Math.abs(coarse - fine)).toBeLessThan(1e-3);
        },
      ),
    );
  });

  test('more power is never slower, more mass never quicker', () => {
    const [from, to] = [speedMs(2500, real), speedMs(6000, real)];
    const time = (kw: number, massKg: number) =>
      timeBetweenS(
        even(() => kw),
        from,
        to,
        { ...real, car: { ...real.car, massKg } },
      )!;
    expect(time(90, 1200)).toBeLessThan(time(85, 1200));
    expect(time(90, 1300)).toBeGreaterThan(time(90, 1200));
  });

  test('what a sweep spent on turning the driveline is given back: two rates of one engine take the same time on the road', () => {
    const engine = (rpm: number) => 100 - ((rpm - 5000) / 500) ** 2;
    const read = (rate: number) => {
      const gear = { ...real, sweepRpmPerS: rate };
      const spent = (rpm: number) =>
        (drivelineMassKg(gear.car.massKg, gear.totalRatio) * speedMs(rate, gear) * speedMs(rpm, gear)) / 1000;
      return timeBetweenS(
        even((rpm) => engine(rpm) - spent(rpm)),
        speedMs(3000, gear),
        speedMs(6500, gear),
        gear,
      )!;
    };
    expect(read(200)).toBeCloseTo(read(900), 9);
  });

  test('speeds that were not measured, or that it does not reach, have no time', () => {
    expect(
      timeBetweenS(
        even(() => 80),
        speedMs(500, real),
        speedMs(3000, real),
        real,
      ),
    ).toBeUndefined();
    expect(
      timeBetweenS(
        even(() => 2),
        speedMs(3000, real),
        speedMs(6000, real),
        real,
      ),
    ).toBeUndefined();
    expect(
      accelerationMs2(
        even(() => 80),
        speedMs(500, real),
        real,
      ),
    ).toBeNaN();
  });

  test('engine speed and road speed are one another’s inverse', () => {
    expect(engineRpm(speedMs(4321, real), real)).toBeCloseTo(4321, 9);
  });
});

describe('what holds it back', () => {
  test('grows with the square of the speed over the rolling drag that the dyno has not taken', () => {
    const car = { massKg: 1000, dragAreaM2: 0.6, rollingCoefficient: 0.01 };
    expect(resistanceN(car, 0, 1.2, 1)).toBeCloseTo(98.0665, 9);
    expect(resistanceN(car, 30, 1.2, 0.5)).toBeCloseTo(49.03325 + 324, 9);
    expect(rollingShareLeft('hub')).toBe(1);
    expect(rollingShareLeft('inertia-roller')).toBeLessThan(1);
  });
});

describe('the best shift', () => {
  const next = { ...real, totalRatio: 3.6 };

  test('is where the next gear pushes harder', () => {
    // Falls off hard at the top: the next gear is better before the end.
    const power = even((rpm) => (rpm < 5000 ? 90 : 90 * Math.exp(-(((rpm - 5000) / 900) ** 2))));
    const at = shiftSpeedMs(power, real, next)!;
    expect(engineRpm(at, real)).toBeGreaterThan(5000);
    expect(engineRpm(at, real)).toBeLessThan(6500);
    expect(tractiveForceN(power, at, next)).toBeGreaterThan(tractiveForceN(power, at, real));
  });

  test('is the end where power still climbs, and there is none between gears without a common speed', () => {
    expect(
      engineRpm(
        shiftSpeedMs(
          even((rpm) => rpm / 60),
          real,
          next,
        )!,
        real,
      ),
    ).toBeCloseTo(7000, 3);
    expect(
      shiftSpeedMs(
        even(() => 80),
        real,
        { ...real, totalRatio: 0.2 },
      ),
    ).toBeUndefined();
  });
});

describe('in other air', () => {
  test('is the correction run backwards, marked where the standard does not reach', () => {
    const hill = powerInAir(100, airAt(1600, 30), 'sae-j1349', 1);
    // Domain figure: J1349 gives about 1.27 there.
    expect(100 / hill.kw).toBeCloseTo(1.27, 1);
    expect(hill.valid).toBe(false);
    const half = powerInAir(100, airAt(1600, 30), 'sae-j1349', 0.5);
    expect(half.kw).toBeGreaterThan(hill.kw);
    expect(powerInAir(100, airAt(0, 25), 'sae-j1349', 1)).toMatchObject({ valid: true });
    expect(powerInAir(100, airAt(1600, 30), 'none', 1).kw).toBe(100);
  });
});

import { expect, test } from '@jest/globals';
import { correctedFuelPerCycle } from './fuel-per-cycle.ts';

const over = (of: (rpm: number) => number) => {
  const engineSpeedRpm = Float64Array.from({ length: 31 }, (_, index) => 1500 + 100 * index);
  return { engineSpeedRpm, values: engineSpeedRpm.map(of) };
};
/** A two-litre diesel that gets 60 mg a litre and cycle at 1.2 bar above the air: 132 mg, 4,000 ÷ 120 cycles a second. */
const flow = over((rpm) => (rpm / 4000) * 8.8);

test('fuel for each litre and cycle, at the boost that it is burnt at', () => {
  const known = { displacementL: 2, boosted: true, airHpa: 1000 };
  const absolute = new Map([
    ['fuelFlow', flow],
    ['manifoldPressure', over(() => 220)],
  ]);
  expect(correctedFuelPerCycle(new Map([...absolute, ['fuelFlow', flow]]), known)).toBeCloseTo(60, 0);
  expect(
    correctedFuelPerCycle(
      new Map([
        ['fuelFlow', flow],
        ['boost', over(() => 120)],
      ]),
      known,
    ),
  ).toBeCloseTo(60, 0);
  // At 850 hPa the same manifold is more boost.
  expect(correctedFuelPerCycle(new Map([...absolute, ['fuelFlow', flow]]), { ...known, airHpa: 850 })).toBeCloseTo(
    51,
    0,
  );
  expect(correctedFuelPerCycle(new Map([['fuelFlow', flow]]), { ...known, boosted: false })).toBeCloseTo(132, 0);
});

test('nothing is made up where flow, boost or displacement is not known', () => {
  const known = { displacementL: 2, boosted: true, airHpa: 1000 };
  expect(correctedFuelPerCycle(new Map(), known)).toBeUndefined();
  expect(correctedFuelPerCycle(new Map([['fuelFlow', flow]]), known)).toBeUndefined();
  expect(
    correctedFuelPerCycle(new Map([['fuelFlow', flow]]), { ...known, boosted: false, displacementL: null }),
  ).toBeUndefined();
  const dead = new Map([['fuelFlow', over(() => 0)]]);
  expect(correctedFuelPerCycle(dead, { ...known, boosted: false })).toBeUndefined();
});

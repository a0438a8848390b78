import { expect, test } from '@jest/globals';
import { usualPlan } from '../../contract/instruments/recording.ts';
import { isTable, tableOfPlan } from './table-of-plan.ts';

const steps = { ...usualPlan.steps, speedsRpm: [3000, 2000, 3000], loadsKpa: [70, 45] };
const car = {
  fuelling: {
    axes: { across: { channel: 'engineSpeed', breakpoints: [1000, 2000] }, down: null },
    dealing: { by: 'nearest', tolerance: 0.3 },
    delay: { transportS: 0.2, lagS: 0.1 },
    lambdaTarget: 0.98,
  },
} as const;

test('a row of holds at several speeds and loads is a table of its own, in the vehicle’s way', () => {
  const plan = { ...usualPlan, kind: 'step' as const, steps };
  expect(isTable(plan)).toBe(true);
  const table = tableOfPlan(plan, { car } as never);
  expect(table!.axes.across.breakpoints).toEqual([2000, 3000]);
  expect(table!.axes.down!.breakpoints).toEqual([45, 70]);
  expect(table).toMatchObject({ delay: car.fuelling.delay, dealing: car.fuelling.dealing });
});

test('holds at full throttle or at one speed are none, and part load is the vehicle’s own table', () => {
  expect(isTable({ ...usualPlan, kind: 'step' })).toBe(false);
  expect(isTable({ ...usualPlan, kind: 'step', steps: { ...steps, speedsRpm: [2500] } })).toBe(false);
  expect(isTable(usualPlan)).toBe(false);
  expect(isTable({ ...usualPlan, kind: 'part-load' })).toBe(true);
  expect(tableOfPlan({ ...usualPlan, kind: 'part-load' }, { car } as never)).toBe(car.fuelling);
});

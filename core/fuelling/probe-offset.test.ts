import { expect, test } from '@jest/globals';
import { partLoadDrive } from '../testing/part-load-drive.ts';
import { testDyno } from '../testing/test-car.ts';
import { offsetInProposal, offsetWords } from '../wording/fuelling-words.ts';
import type { FuellingAxes } from './axes.ts';
import { usualFuelling } from './fuelling-table.ts';
import { fuellingOfRuns, type FuelledRun } from './fuelling-of-runs.ts';

const axes: FuellingAxes = {
  across: { channel: 'engineSpeed', breakpoints: [1500, 2500, 3500] },
  down: { channel: 'manifoldPressure', breakpoints: [40, 70] },
};
const errors = [0.02, -0.01, 0.03, 0, 0.04, -0.02];
const ratio = 3.5;
/** The probe reads this much too lean, everywhere. */
const truth = 0.009;
const typed = { ...usualFuelling, delay: { transportS: 0.145, lagS: 0.1 } };

/** A drive on the dyno whose λ a logger beside it reads. @param entered the offset that its settings hold */
function drive(entered: number, beside: boolean): FuelledRun {
  const { log } = partLoadDrive({ axes, errors, seed: 7, holdS: 8 });
  const channel = (name: string, unit: string, values: Float64Array) => ({ name, unit, values });
  const lambda = channel(
    'lambda',
    'λ',
    log.channels.get('lambda')!.map((value) => value + truth),
  );
  const rpm = channel('engineSpeed', 'rpm', log.engineSpeedRpm);
  const speed = channel(
    'rollerSpeed',
    'rad/s',
    log.engineSpeedRpm.map((value) => (value * Math.PI) / 30 / ratio),
  );
  const pressure = channel('manifoldPressure', 'kPa', log.channels.get('manifoldPressure')!);
  const own = [speed, rpm, pressure, ...(beside ? [] : [lambda])];
  const logger = { time: log.time, channels: [rpm, lambda] };
  return {
    id: 1,
    label: 'B1',
    recording: { time: log.time, channels: own },
    dyno: testDyno,
    engineToDrumRatio: ratio,
    beside: beside ? [{ name: 'logger', probe: { delayS: 0, offset: entered }, recording: logger }] : [],
  };
}
const trueCells = (run: FuelledRun) =>
  fuellingOfRuns([run], axes, typed).table!.cells.filter(
    ({ error, halfWidth }, at) => Math.abs(error - errors[at]!) <= halfWidth,
  ).length;

test('an offset that nobody entered is common to all cells, in none of their ±, and said once; entered it is gone', () => {
  const unknown = fuellingOfRuns([drive(0, true)], axes, typed);
  expect(unknown.offsetUnknown).toEqual(['B1']);
  expect(offsetWords(unknown)).toMatch(/^The probe’s offset was not entered: all cells alike .* ±1 % \(assumed\)/);
  expect(offsetInProposal(unknown)).toMatch(/every cell by up to ±1 %\.$/);
  expect(trueCells(drive(0, true))).toBeLessThan(3);
  const entered = fuellingOfRuns([drive(truth, true)], axes, typed);
  expect([entered.offsetUnknown, offsetWords(entered), offsetInProposal(entered)]).toEqual([[], '', '']);
  expect(trueCells(drive(truth, true))).toBeGreaterThanOrEqual(5);
});

test('λ of the dyno’s own channel has no probe whose offset could be entered', () => {
  expect(fuellingOfRuns([drive(truth, false)], axes, typed).offsetUnknown).toEqual(['B1']);
  const both = fuellingOfRuns([drive(truth, true), { ...drive(truth, false), id: 2, label: 'B2' }], axes, typed);
  expect(offsetWords(both)).toMatch(/not entered with B2: /);
});

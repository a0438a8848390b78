import { describe, expect, test } from '@jest/globals';
import { readLogTable } from '../loggers/log-table.ts';
import { guessedRoles, resultCurves } from './result-table.ts';

const curvesOf = (text: string) => {
  const table = readLogTable(text, 2);
  return resultCurves(table, guessedRoles(table));
};
const speeds = [2000, 3000, 4000, 5000];

describe('a dyno’s result table', () => {
  test('one run with power and torque is one curve, by its power', () => {
    const [curve, ...others] = curvesOf(
      `Engine speed [rpm],Power [kW],Torque [Nm]\n${speeds.map((rpm) => `${rpm},${rpm / 50},190.98`).join('\n')}`,
    );
    expect(others).toEqual([]);
    expect(curve!.points).toEqual(speeds.map((rpm) => [rpm, rpm / 50]));
  });

  test('several runs side by side over one speed, with their names, in horsepower and decimal commas', () => {
    const rows = speeds.map(
      (rpm) =>
        `${rpm};${(rpm / 40).toFixed(1).replace('.', ',')};100,0;${(rpm / 35).toFixed(1).replace('.', ',')};110,0`,
    );
    const curves = curvesOf(
      `RPM;Run 1 Power (PS);Run 1 Torque (Nm);Run 2 Power (PS);Run 2 Torque (Nm)\n${rows.join('\n')}`,
    );
    expect(curves.map(({ name }) => name)).toEqual(['Run 1', 'Run 2']);
    expect(curves[0]!.points[2]![1]).toBeCloseTo(100 * 0.73549875, 3);
  });

  test('each run with an engine speed of its own, named in a row above the units', () => {
    const rows = speeds.map((rpm, at) => `${rpm}\t${rpm / 50}\t${rpm + 100 * at}\t${rpm / 48}`);
    const curves = curvesOf(`Before\t\tAfter\t\nrpm\tkW\trpm\tkW\n${rows.join('\n')}`);
    expect(curves.map(({ name }) => name)).toEqual(['Before', 'After']);
    expect(curves[1]!.points.map(([rpm]) => rpm)).toEqual([2000, 3100, 4200, 5300]);
  });

  test('torque alone is made into power', () => {
    const [curve] = curvesOf(`rpm,torque (lb-ft)\n${speeds.map((rpm) => `${rpm},100`).join('\n')}`);
    // 100 lb·ft are 135.58 N·m: at 5,000 rpm 71.0 kW.
    expect(curve!.points[3]![1]).toBeCloseTo(70.99, 1);
  });

  test('holes, several rows of a speed and nonsense cost only themselves', () => {
    const [curve] = curvesOf('rpm,kW\n3000,50\n2000,30\n3000,52\n4000,\n-5,10\n5000,80');
    expect(curve!.points).toEqual([
      [2000, 30],
      [3000, 51],
      [5000, 80],
    ]);
  });

  test('a long table is thinned, its ends kept', () => {
    const rows = Array.from({ length: 3000 }, (_, at) => `${2000 + at},${(at / 40).toFixed(2)}`);
    const [curve] = curvesOf(`rpm,kW\n${rows.join('\n')}`);
    expect(curve!.points.length).toBeLessThanOrEqual(401);
    expect(curve!.points.at(-1)![0]).toBe(4999);
  });

  test.each([
    ['no speed', 'power (kW),torque (Nm)\n1,2\n3,4\n5,6', 'No column is the engine speed'],
    ['no power', 'rpm,temperature\n1000,2\n2000,4\n3000,6', 'is a power or a torque'],
  ])('%s: refused with what is missing', (_, text, words) => {
    expect(() => curvesOf(text)).toThrow(words);
  });
});

import { expect, test } from '@jest/globals';
import type { JobFigures } from '../../../core/gain/job-figures.ts';
import { readingsAt } from './readings.ts';
import type { Shown } from './shown-setups.ts';
import type { CompareView } from './view.ts';

const rpm = Float64Array.of(2000, 3000, 4000);
const line = (values: number[]) => ({ engineSpeedRpm: rpm, values: Float64Array.from(values) });
const shown = [
  { name: 'A', figures: { power: line([20, 40, 60]), torque: line([100, 120, 140]) } },
  { name: 'B', figures: { power: line([21, 42, 63]), torque: line([101, 122, 143]) } },
] as Shown[];
const figures = {
  comparison: { power: { engineSpeedRpm: rpm, gain: Float64Array.of(1, 2, 3) } },
} as unknown as JobFigures;
const view = { test: { letter: 'B' }, against: { letter: 'A' }, powerUnit: 'kW', torqueUnit: 'N·m' } as CompareView;

test('a line a setup and one for the gain, cells apart by tabs, units in the head', () => {
  expect(readingsAt(shown, figures, view, 3500).split('\n')).toEqual([
    'setup\tengine speed [rpm]\tpower [kW]\ttorque [N·m]',
    'A\t3500\t50.0\t130.0',
    'B\t3500\t52.5\t132.5',
    'B − A\t3500\t+2.5\t',
  ]);
});

test('nothing is read beyond a line’s end, and an estimate says what it rests on', () => {
  const lines = readingsAt(shown, { ...figures, estimate: '15 % lost, assumed' }, view, 4500).split('\n');
  expect(lines[0]).toContain('power [kW ≈ at the crank, 15 % lost, assumed]');
  expect(lines.slice(1)).toEqual(['A\t4500\t\t', 'B\t4500\t\t']);
});

import { expect, test } from '@jest/globals';
import { curvesCsv } from './curves-csv.ts';

test('curves of different ranges stand on one grid, with empty cells where there is nothing', () => {
  const text = curvesCsv([
    { name: 'power A', unit: 'kW', engineSpeedRpm: [2000, 2010], values: [30.12346, NaN] },
    { name: 'gain, B less A', unit: 'kW', engineSpeedRpm: [2010, 2020], values: [1, -2] },
  ]);
  expect(text.split('\r\n')).toEqual([
    'engineSpeed [rpm],power A [kW],"gain, B less A [kW]"',
    '2000,30.1235,',
    '2010,,1',
    '2020,,-2',
    '',
  ]);
});

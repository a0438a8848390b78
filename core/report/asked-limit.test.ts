import { expect, test } from '@jest/globals';
import type { LimitChange } from '../figures/runs/limits-of-runs.ts';
import { written } from '../sentence/sentence.ts';
import { unitSets } from '../units/told-units.ts';
import { askedLimit, askedWords } from './asked-limit.ts';

const change = (quantity: LimitChange['quantity'], over: Partial<LimitChange> = {}): LimitChange => ({
  quantity,
  before: 871,
  after: 863,
  difference: -8,
  halfWidth: 5,
  ...over,
});
const changes = [change('engineSpeed'), change('exhaustTemperature'), change('knockRetard', { before: 2, after: 0 })];

test.each([
  ['Exhaust temperature over the pass', 'exhaustTemperature'],
  ['Does it still knock on pump fuel?', 'knockRetard'],
  ['Is the oil temperature safe?', undefined],
  ['How much boost does the small turbo pay for?', undefined],
  ['Does the short exhaust pay above 5,000?', undefined],
  ['', undefined],
])('“%s” asks for %s', (question, asked) => expect(askedLimit(question, changes)?.quantity).toBe(asked));

test('it is told as what was read on both sides, with an interval where there is one', () => {
  expect(written(askedWords(change('exhaustTemperature'), 'delivered'))).toBe(
    'Exhaust temperature at its most: 871 °C as arrived, 863 °C as delivered (−8.0 ± 5.0 K).',
  );
  expect(
    written(
      askedWords(change('oilPressure', { before: 410, after: 390, difference: -20, halfWidth: NaN }), 'last setup'),
    ),
  ).toBe('Oil pressure at its least: 410 kPa as arrived, 390 kPa with the last setup (−20.0 kPa).');
  const us = unitSets.find(({ name }) => name === 'US')!.units;
  expect(written(askedWords(change('exhaustTemperature'), 'delivered'), us)).toMatch(
    /^Exhaust temperature at its most: 1,?600 °F as arrived, 1,?585 °F as delivered \(−14\.4 ± 9\.0 °F\)\.$/,
  );
});

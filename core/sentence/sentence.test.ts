import { describe, expect, test } from '@jest/globals';
import { keptUnits, unitSets } from '../units/told-units.ts';
import { capitalised, difference, joined, quantity, quantityRange, say, written } from './sentence.ts';

const us = unitSets.find(({ name }) => name === 'US')!.units;

describe('a sentence is written in the units of its reader', () => {
  const boost = say`Boost overshoots its target by ${quantity(12.4, 'kPa')} at ${'3,400'} rpm.`;

  test('as everything is kept, where nobody says', () => {
    expect(written(boost)).toBe('Boost overshoots its target by 12 kPa at 3,400 rpm.');
    expect(written('Nothing to convert.')).toBe('Nothing to convert.');
  });

  test('from the figure itself, not from the rounded one', () => {
    expect(written(boost, us)).toBe('Boost overshoots its target by 1.8 psi at 3,400 rpm.');
    expect(written(say`${quantity(86.6, '°C')}`, us)).toBe('188 °F');
  });

  test('a range says its unit once', () => {
    expect(written(say`outside ${quantityRange(15, 35, '°C')}`)).toBe('outside 15 to 35 °C');
    expect(written(say`outside ${quantityRange(15, 35, '°C')}`, us)).toBe('outside 59 to 95 °F');
  });

  test('a mixture by the ratio of its own fuel before that of the job', () => {
    const lean = say`Lean: ${{ value: 0.92, unit: 'λ', stoichiometric: 9.8, named: true }}.`;
    expect(written(lean)).toBe('Lean: λ 0.92.');
    expect(written(lean, { ...us, stoichiometric: 14.7 })).toBe('Lean: AFR 9.0.');
    expect(written(say`limit ${quantity(0.92, 'λ')}`, { ...us, stoichiometric: 14.7 })).toBe('limit 13.5 AFR');
    expect(written(say`limit ${quantity(0.92, 'λ')}`, us)).toBe('limit 0.92');
  });

  test('a difference has its sign and an interval that is never nothing', () => {
    expect(written(difference(3.52, 0.7, 'kW', 1))).toBe('+3.5 ± 0.7 kW');
    expect(written(difference(-3.52, 0.01, 'kW', 1))).toBe('−3.5 ± <0.1 kW');
    expect(written(difference(0.01, NaN, 'kW', 1))).toBe('0.0 kW');
    expect(written(difference(35.2, 7, 'kW', 1), us)).toBe('+47.2 ± 9.4 hp');
  });

  test('on a screen neither ± nor a unit parts from its figure at a line’s end', () => {
    const screen = { ...keptUnits, space: '\u00a0' };
    expect(written(say`gave ${difference(3.5, 0.7, 'kW', 1)} there`, screen)).toBe(
      'gave +3.5\u00a0±\u00a00.7\u00a0kW there',
    );
    expect(written('2.0 ± 0.5 kW', screen)).toBe('2.0\u00a0±\u00a00.5 kW');
    expect(written('± 0.5 kW')).toBe('± 0.5 kW');
  });

  test('sentences within a sentence keep their quantities', () => {
    const both = joined(
      [quantity(30, 'L'), quantity(40, 'L')].map((part) => say`${part} gone`),
      ', or ',
    );
    expect(written(say`Either ${both}.`)).toBe('Either 30 L gone, or 40 L gone.');
    expect(written(say`Either ${both}.`, us)).toBe('Either 7.9 US gal gone, or 10.6 US gal gone.');
    expect(written(joined([], ', '))).toBe('');
  });

  test('an interval that excludes nothing is never written as one that does not', () => {
    expect(written(difference(-0.5, 0.45, 'kW', 1))).toBe('−0.50 ± 0.45 kW');
    expect(written(difference(2.24, 0.66, 'kW', 1))).toBe('+2.2 ± 0.7 kW');
    // 0.671 ± 0.604 hp: there the usual digits do.
    expect(written(difference(0.5, 0.45, 'kW', 1), { ...keptUnits, power: 'hp' })).toBe('+0.7 ± 0.6 hp');
  });

  test('a capital stands at the beginning, but λ stays', () => {
    expect(written(capitalised(say`boost reached ${quantity(130, 'kPa')}`))).toBe('Boost reached 130 kPa');
    expect(written(capitalised(say`${say`oil pressure`} fell`))).toBe('Oil pressure fell');
    expect(capitalised('λ reached 0.95')).toBe('λ reached 0.95');
  });

  test('it can be handed over by a worker or as JSON', () => {
    expect(written(JSON.parse(JSON.stringify(boost)) as typeof boost, us)).toBe(written(boost, us));
    expect(written(structuredClone(boost), keptUnits)).toBe(written(boost));
  });
});

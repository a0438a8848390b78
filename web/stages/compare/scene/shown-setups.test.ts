import { describe, expect, test } from '@jest/globals';
import { comparedAt } from '../testing/two-setups.ts';
import { shownSetups, startOfAll } from '../../../../core/scene/shown-setups.ts';

const shownAt = (address: string) => {
  const { job, view, figures } = comparedAt(address);
  return shownSetups(job, figures, view);
};
const names = (address: string) => shownAt(address).map(({ name }) => name);

describe('which setups are drawn', () => {
  test('those compared and the baseline, the compared one last so that it lies on top', () => {
    expect(names('')).toEqual(['A', 'B']);
    expect(names('?setup=A&against=B')).toEqual(['B', 'A']);
    expect(shownAt('?setup=A&against=B').map(({ isTest }) => isTest)).toEqual([false, true]);
  });

  test('one that was hidden is not, the compared one always is', () => {
    expect(names('?hide=A')).toEqual(['B']);
    expect(names('?hide=A.B')).toEqual(['B']);
  });

  test('some runs of either side stand for their setup, under their own names', () => {
    expect(names('?runs=B1.B3')).toEqual(['A', 'B1 B3']);
    expect(names('?runs=B1&againstRuns=A2.A3')).toEqual(['A2 A3', 'B1']);
    // They are drawn as the comparison made them, the other side in ink.
    const { job, view, figures } = comparedAt('?runs=B1');
    const [against, test] = shownSetups(job, figures, view);
    expect(test!.figures.power.values).toBe(figures.comparison!.power.test);
    expect(against!.figures.power.values).toBe(figures.comparison!.power.baseline);
    expect(against!.colour).toBe('var(--ink)');
  });
});

test('every line stands on the axis by its own way through the speeds', () => {
  for (const { place, figures } of shownAt('?axis=time')) {
    const { engineSpeedRpm } = figures.power;
    const places = [...place.xs(engineSpeedRpm)];
    expect(places.every((at, index) => index === 0 || at > places[index - 1]!)).toBe(true);
    const middle = engineSpeedRpm[engineSpeedRpm.length >> 1]!;
    expect(place.rpm(place.x(middle))).toBeCloseTo(middle, 0);
  }
  // Time counts from the lowest speed that all lines cover.
  const shown = shownAt('?axis=time');
  for (const { place } of shown) expect(place.x(startOfAll(shown))).toBeCloseTo(0, 6);
});

import { describe, expect, test } from '@jest/globals';
import { cruiseFigures } from '../run-kinds/cruise.ts';
import { coldStartFigures } from '../run-kinds/cold-start.ts';
import { transientFigures } from '../run-kinds/transient.ts';
import { cruiseFuel, cruiseRun, startRun, transientRun, type CruiseRecipe } from '../testing/kind-runs.ts';
import { judgeKind, type KindRun } from './kind-judgement.ts';

const cruise = (recipe: CruiseRecipe): KindRun => {
  const { recording, wheels } = cruiseRun(recipe);
  return {
    label: `C${recipe.seed}`,
    figures: cruiseFigures({ own: recording, beside: [] }, wheels, cruiseFuel).figures,
  };
};
const transient = (seed: number, torqueS: number): KindRun => {
  const { recording, wheels } = transientRun({ seed, torqueS });
  return { label: `T${seed}`, figures: transientFigures({ own: recording, beside: [] }, wheels).figures };
};
const start = (seed: number, coolantC: number, crankingS: number): KindRun => ({
  label: `S${seed}`,
  figures: coldStartFigures({ own: startRun({ seed, coolantC, crankingS }), beside: [] }).figures,
});
const of = (judged: ReturnType<typeof judgeKind>, id: string) => judged.figures.find((one) => one.id === id)!;

describe('a saving', () => {
  test('that is none is claimed once in twenty at most', () => {
    let claimed = 0;
    const pairs = 60;
    for (let seed = 1; seed <= pairs; seed++) {
      const judged = judgeKind('cruise', [cruise({ seed })], [cruise({ seed: seed + 500 })], []);
      if (judged.figures.some(({ claim }) => claim !== null)) claimed++;
    }
    expect(claimed / pairs).toBeLessThanOrEqual(0.07);
  });

  test('that is one is claimed, and one that is too small says how many minutes more would show 3 %', () => {
    const large = judgeKind('cruise', [cruise({ seed: 1 })], [cruise({ seed: 2, gramsPerS: 1.08 })], []);
    expect(of(large, 'fuel')).toMatchObject({ claim: 'less', good: true });
    expect(large.caveats.map(({ severity }) => severity)).toEqual(['mind']);
    const wide = judgeKind(
      'cruise',
      [cruise({ seed: 3, wander: 0.06 })],
      [cruise({ seed: 4, wander: 0.06, gramsPerS: 1.17 })],
      [],
    );
    expect(of(wide, 'fuel').claim).toBeNull();
    expect(wide.next).toMatch(/To show 3 % it needs about \d+ min more a side/);
  });

  test('at another wheel power is none, however large', () => {
    const judged = judgeKind('cruise', [cruise({ seed: 5 })], [cruise({ seed: 6, wheelKw: 11, gramsPerS: 1 })], []);
    expect(judged.figures.every(({ claim }) => claim === null)).toBe(true);
    expect(judged.caveats[0]).toMatchObject({
      severity: 'stop',
      text: expect.stringMatching(/Not at equal wheel power: 12\.\d+ against 1[01]\.\d+ kW/),
    });
  });
});

describe('other kinds', () => {
  test('one run a side claims nothing; repeats do', () => {
    const one = judgeKind('transient', [transient(1, 0.2)], [transient(2, 0.5)], []);
    expect(one.figures.every(({ claim }) => claim === null)).toBe(true);
    expect(one.caveats[0]!.text).toMatch(/One run a side/);
    const three = judgeKind(
      'transient',
      [1, 2, 3].map((seed) => transient(seed, 0.2)),
      [4, 5, 6].map((seed) => transient(seed, 0.5)),
      [],
    );
    expect(of(three, 'torque-90')).toMatchObject({ claim: 'more', good: false });
    expect(three.caveats).toEqual([]);
    const same = judgeKind(
      'transient',
      [1, 2, 3].map((seed) => transient(seed, 0.3)),
      [4, 5, 6].map((seed) => transient(seed, 0.3)),
      [],
    );
    expect(same.figures.every(({ claim }) => claim === null)).toBe(true);
  });

  test('starts that were not equally cold are not compared', () => {
    const judged = judgeKind(
      'cold-start',
      [start(1, 10, 2.1), start(2, 11, 2.2)],
      [start(3, 22, 0.8), start(4, 23, 0.9)],
      [],
    );
    expect(judged.figures.every(({ claim }) => claim === null)).toBe(true);
    expect(judged.caveats[0]!.text).toMatch(/Not equally cold/);
    const alike = judgeKind(
      'cold-start',
      [start(1, 10, 2.1), start(2, 11, 2.2)],
      [start(3, 10, 0.8), start(4, 11, 0.9)],
      [],
    );
    expect(of(alike, 'cranking-time')).toMatchObject({ claim: 'less', good: true });
  });
});

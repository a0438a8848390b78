import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { comparisonToJson } from '../exchange/results/comparison-json.ts';
import { judgementToJson } from '../exchange/results/judgement-json.ts';
import { preparedSweep } from '../reduction/prepared-sweep.ts';
import type { SweepDrive } from '../reduction/sweep-drive.ts';
import { generatedRun } from '../testing/generated-run.ts';
import { testDyno, usualTorque } from '../testing/test-car.ts';
import { plainSentence } from '../wording/plain-sentence.ts';
import { unknownEngine } from '../log/pull/run-log.ts';
import type { FiguredRun } from './runs/figured-run.ts';
import type { JobFigures } from './job-figures.ts';
import { resolvedFigures } from './resolved-figures.ts';

/** Pulls at gains of a few percent and a little scatter, made once: a job is drawn from them. */
const factors = [0.99, 0.996, 1, 1.001, 1.004, 1.012, 1.02, 1.03];
const sweeps: SweepDrive[] = factors.map((factor, index) =>
  preparedSweep(
    generatedRun({ seed: 40 + index, stepHz: 500, speedNoise: 0.01, drumTorque: (rpm) => factor * usualTorque(rpm) }),
    testDyno,
  ),
);

/** A drawn job: setups with a parent, a plan, a gear and a day, and runs of each in the order that was drawn. */
const setupOf = fc.record({
  parent: fc.nat(3),
  planned: fc.option(fc.integer({ min: 1, max: 3 }), { nil: undefined }),
  gear: fc.constantFrom('4th', '4th', '4th', '3rd'),
  nextDay: fc.constantFrom(false, false, false, true),
  decision: fc.constantFrom('keep', 'go back', null),
  knocked: fc.constantFrom(false, false, true),
});
const drawn = fc.record({
  setups: fc.array(setupOf, { minLength: 2, maxLength: 4 }),
  runs: fc.array(fc.record({ setup: fc.nat(3), pull: fc.nat(factors.length - 1) }), { minLength: 2, maxLength: 9 }),
  band: fc.boolean(),
  learned: fc.boolean(),
});
type Drawn = typeof drawn extends fc.Arbitrary<infer Job> ? Job : never;

function figuresOf({ setups, runs, band, learned }: Drawn): JobFigures {
  const letters = setups.map((_, index) => 'ABCD'[index]!);
  const figured = runs.map(({ setup, pull }, index): FiguredRun => {
    const place = setup % setups.length;
    const { gear, nextDay, knocked } = setups[place]!;
    const at = Date.UTC(2026, 4, 4, 9, 8 * index) + (nextDay ? 24 * 3600e3 : 0);
    const most = knocked ? 5 : 0;
    return {
      id: index + 1,
      setupId: place + 1,
      counted: true,
      sweep: sweeps[pull]!,
      air: { temperatureC: 21, pressureHpa: 1004, relativeHumidityPct: 45 },
      conditions: { label: `${letters[place]}${index}`, dyno: testDyno, gear, hasAir: true, startedAt: new Date(at) },
      engine: unknownEngine,
      logged: {
        extremes: new Map([['knockRetard', { least: 0, leastRpm: 3000, most, mostRpm: 6000 }]]),
        means: new Map(),
        log: {
          time: new Float64Array(0),
          engineSpeedRpm: new Float64Array(0),
          channels: new Map(),
          startS: 0,
          endS: 0,
          engine: unknownEngine,
        },
        loggers: [],
      },
    };
  });
  const newest = figured[figured.length - 1]!.setupId;
  return resolvedFigures(figured, {
    setups: setups.map(({ parent, planned, decision }, index) => ({
      id: index + 1,
      letter: letters[index]!,
      parentId: index === 0 ? null : (parent % index) + 1,
      decision,
      plan: planned === undefined ? null : { runs: planned },
    })),
    baselineId: 1,
    testId: newest,
    againstId: newest === 1 ? 2 : 1,
    settings: { standard: 'none', share: 1, spanRpm: 200, gridRpm: 50 },
    powerUnit: 'kW',
    bands: band ? [[3000, 5000]] : [],
    beside: 'steps',
    everyPair: true,
    learned: learned ? { spread: { share: 0.003, df: 30, from: 'learned', repeats: 40 } } : undefined,
  });
}

const claims = (claim: string | null) => claim === 'gain' || claim === 'loss';

const car = { parent: 0, planned: undefined, gear: '4th', nextDay: false, decision: 'keep', knocked: false } as const;
const betweenLevels = {
  setups: [car, car, car],
  runs: [
    { setup: 2, pull: 6 },
    { setup: 2, pull: 7 },
    { setup: 2, pull: 6 },
    { setup: 0, pull: 0 },
    { setup: 1, pull: 0 },
  ],
  band: true,
  learned: false,
};

test('in whatever job, no place claims beyond the judgement that it reads, and every number is its own', () => {
  fc.assert(
    fc.property(drawn, (job) => {
      const figures = figuresOf(job);
      const { comparison, pairs = [], setups, attribution, bestId } = figures;
      // Among all pairs of the job no more is said than of the pair alone.
      for (const pair of setups.flatMap(({ onBaseline, onParent }) => [onBaseline, onParent])) {
        if (!pair) continue;
        if (claims(pair.jobClaim)) expect(pair.jobClaim).toBe(pair.claim);
        expect(pair.claim === null).toBe(pair.withheld.length > 0);
        const whole = pairs.find(
          ({ judgement }) => judgement.testId === pair.testId && judgement.againstId === pair.againstId,
        )!;
        if (claims(pair.claim)) expect(whole.judgement.claim).toBe(pair.claim);
        expect(whole.judgement.difference).toEqual(pair.difference);
        expect(whole.judgement.withheld.map(({ id }) => id)).toEqual(pair.withheld.map(({ id }) => id));
      }
      for (const { judgement, sentence, rows, power, withheld } of comparison ? [...pairs, comparison] : pairs) {
        const toned = sentence.filter(({ tone }) => tone === 'gain' || tone === 'loss');
        if (judgement.claim === null) {
          expect(toned).toEqual([]);
          expect(rows.filter(({ verdict }) => verdict === 'gain' || verdict === 'loss')).toEqual([]);
          expect(plainSentence('B', 'A', power, withheld, 'kW')).not.toContain('makes between');
        } else if (claims(judgement.claim)) expect(toned.length).toBeGreaterThan(0);
      }
      // The ladder's steps have the judgement's own interval where they are over its range.
      for (const { setupId, gain } of attribution?.steps ?? []) {
        const pair = setups.find((setup) => setup.setupId === setupId)?.onParent;
        if (gain && pair && pair.fromRpm === attribution!.fromRpm && pair.toRpm === attribution!.toRpm)
          expect(gain).toEqual(pair.difference);
      }
      if (bestId !== undefined) {
        const best = setups.find(({ setupId }) => setupId === bestId)!;
        expect(best.onBaseline?.jobClaim).toBe('gain');
        expect(job.setups[bestId - 1]).toMatchObject({ knocked: false });
        expect(job.setups[bestId - 1]!.decision).not.toBe('go back');
      }
      // What leaves the page says the same.
      if (comparison) {
        const made = { standard: 'none' as const, share: 1, auto: false };
        const [first] = comparisonToJson({ ...figures, comparison }, made).bands;
        if (first && comparison.judgement.claim === null) expect(claims(first.verdict)).toBe(false);
      }
      const printed = judgementToJson(figures, (id) => 'xABCD'[id]!);
      printed.cards.forEach(({ setup, claim, meanKw }) => {
        const pair = setups.find(({ setupId }) => 'xABCD'[setupId] === setup)!.onBaseline!;
        expect(claim === null ? null : claim.replace('-', ' ')).toBe(pair.jobClaim);
        expect(meanKw).toBeCloseTo(pair.difference.difference, 3);
      });
    }),
    // Single runs whose difference lies between what a range may cost alone and beside stretches that cannot be tested.
    { numRuns: 60, examples: [[betweenLevels]] },
  );
});

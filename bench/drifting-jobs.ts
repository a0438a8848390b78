import type { UsualDrift } from '../core/comparison/drift.ts';
import { learnedDrift } from '../core/comparison/learned-drift.ts';
import { repeatSpread } from '../core/run-kinds/repeat-spread.ts';
import { learnedSpread, type Repeats, type SpreadPrior } from '../core/statistics/spread-prior.ts';
import { driftPath, driftShapes, type DriftShape } from '../core/testing/drift-shapes.ts';
import { judgedDay } from '../core/testing/judged-day.ts';
import { simulatedDay } from '../core/testing/simulated-day.ts';
import type { Figure } from './figure.ts';

const count = 600;
/** Of one run to the next, in spreads. */
const perRun = 0.3;
const cars = [0.002, 0.003, 0.004, 0.006, 0.008];
const each = (...letters: string[]) => letters.flatMap((letter) => [letter, letter, letter]);
const designs = {
  'A3 to F3': each('A', 'B', 'C', 'D', 'E', 'F'),
  'A3 to F3, then A': [...each('A', 'B', 'C', 'D', 'E', 'F'), 'A'],
  'A3 B3': each('A', 'B'),
  'A3 B3, then A': [...each('A', 'B'), 'A'],
  'A B A B A B': ['A', 'B', 'A', 'B', 'A', 'B'],
};

/** What a shop of such days has learned from twenty jobs of three runs, baselines returned to in every second one. */
function history(shape: DriftShape, seed: number): { prior?: SpreadPrior; drift: UsualDrift } {
  const repeats = Array.from({ length: 20 }, (_, job): Repeats[] => {
    const order = job % 2 === 0 ? ['A', 'A', 'A'] : ['A', 'A', 'A', 'B', 'B', 'B', 'A'];
    const drift = driftPath(shape, order.length, perRun, seed * 100 + job);
    const day = simulatedDay({ seed: seed * 1000 + job, order, spread: cars[job % cars.length]!, drift });
    const runs = day.flatMap(({ setup, atMs, engineSpeedRpm, values }, place) =>
      setup === 'A' ? [{ atMs, place, engineSpeedRpm, powerKw: values }] : [],
    );
    const spread = repeatSpread(runs);
    return spread ? [spread] : [];
  }).flat();
  const prior = learnedSpread(repeats);
  return { ...(prior ? { prior } : {}), drift: learnedDrift(repeats) };
}

/** Half of the 99 % interval of a share, in percent. */
const within = (share: number, of: number) => 258 * Math.sqrt(Math.max(share * (1 - share), 1 / of) / of);

/** Jobs in which nothing changes, under drifts of many shapes: false cards, a false best, and intervals that hold. */
export function driftingJobs(): Figure[] {
  return Object.entries(designs).flatMap(([name, order]) =>
    [false, true].flatMap((learned) =>
      driftShapes.map((shape): Figure => {
        let [claimed, best, held, pairs] = [0, 0, 0, 0];
        for (let seed = 1; seed <= count; seed++) {
          const day = simulatedDay({
            seed,
            order,
            spread: cars[seed % cars.length]!,
            drift: driftPath(shape, order.length, perRun, seed),
          });
          const judgements = judgedDay(day, { planned: 3, ...(learned ? history(shape, seed % 20) : {}) });
          const called = judgements.filter(({ jobClaim }) => jobClaim === 'gain' || jobClaim === 'loss');
          if (called.length > 0) claimed++;
          if (called.some(({ againstId, jobClaim }) => againstId === 0 && jobClaim === 'gain')) best++;
          pairs += judgements.length;
          held += judgements.filter(({ difference: of }) => Math.abs(of.difference) <= of.halfWidth).length;
        }
        const percent = (value: number, of: number) => `${((100 * value) / of).toFixed(1)} %`;
        return {
          name: `${name}, ${shape}${learned ? ', history of 20 jobs' : ''}: jobs with a false claim`,
          value: (100 * claimed) / count,
          unit: `% ± ${within(claimed / count, count).toFixed(1)} of ${count} (a false best ${percent(best, count)}, intervals true ${percent(held, pairs)})`,
          budget: 5,
        };
      }),
    ),
  );
}

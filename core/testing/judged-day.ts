import { chosenRange } from '../comparison/comparison.ts';
import { claimRule, firstVerdict } from '../comparison/claims.ts';
import { usualDrift, type UsualDrift } from '../comparison/drift.ts';
import { levelOf, ruleFor } from '../comparison/judging-rule.ts';
import { jobClaims, type FamilyPair } from '../judgement/job-claims.ts';
import { judged } from '../judgement/pair-judgement.ts';
import { assumedSpread, type SpreadPrior } from '../statistics/spread-prior.ts';
import type { DayRun } from './simulated-day.ts';

const [fromRpm, toRpm] = [2100, 6800];

/** How a drawn day is judged. */
export interface DayRules {
  /** Runs of each setup that were stated beforehand; every run is looked at where left out. */
  planned?: number | undefined;
  prior?: SpreadPrior;
  drift?: UsualDrift;
}

/** The judgements of a job on its setups, numbered in the order of their first runs: each against the one before it and the first. */
export function judgedDay(day: readonly DayRun[], { planned, prior, drift }: DayRules = {}): FamilyPair[] {
  const letters = [...new Set(day.map(({ setup }) => setup))];
  const placed = day.map((run, place) => ({ place, ...run }));
  const runsOf = (index: number) => placed.filter(({ setup }) => setup === letters[index]);
  const pairs = letters.flatMap((_, testId) =>
    testId === 0 ? [] : [...new Set([0, testId - 1])].map((againstId) => ({ testId, againstId })),
  );
  return jobClaims(
    pairs.flatMap(({ testId, againstId }) => {
      const [test, against] = [runsOf(testId), runsOf(againstId)];
      const judging = ruleFor(test, against, planned === undefined ? {} : { test: { runs: planned } });
      const alike = letters.flatMap((_letter, index) =>
        index === testId || index === againstId || runsOf(index).length < 2 ? [] : [runsOf(index)],
      );
      const around = {
        spread: prior ?? assumedSpread('inertia-roller'),
        drift: drift ?? usualDrift,
        whole: [fromRpm, toRpm] as const,
        level: levelOf(judging),
      };
      const range = chosenRange([test, against, ...alike], fromRpm, toRpm, around, judging);
      if (!range) return [];
      const { verdict, paid } = firstVerdict([range], claimRule(judging, around, test, against));
      return [
        {
          testId,
          againstId,
          ...range,
          judging,
          uncovered: [],
          paid,
          ...judged({ verdict, drift: range.drift }, judging, []),
        },
      ];
    }),
  );
}

import { compareRuns, type Comparison } from '../core/comparison/comparison.ts';
import { usualDrift } from '../core/comparison/drift.ts';
import { ruleFor } from '../core/comparison/judging-rule.ts';
import { scatterOf } from '../core/numerics/mean.ts';
import { assumedSpread, learnedSpread, type SpreadPrior } from '../core/statistics/spread-prior.ts';
import { chance, normal } from '../core/testing/chance.ts';
import { judgedDay } from '../core/testing/judged-day.ts';
import { dayLevelKw, simulatedDay } from '../core/testing/simulated-day.ts';
import type { Figure } from './figure.ts';

const count = 400;
/** Spread of a run's mean of the cars, as a share of power. */
const cars = [0.002, 0.003, 0.004, 0.005, 0.006, 0.008];
const [fromRpm, toRpm] = [2100, 6800];
const thirds: [number, number][] = [
  [2100, 3650],
  [3650, 5200],
  [5200, 6800],
];

/** A way of working: what is looked at, and what was planned of either side. */
interface Habit {
  name: string;
  looks: string[][];
  plan?: { test: number; baseline: number };
}
const many = (letter: string, runs: number) => Array.from({ length: runs }, () => letter);
const everyLook = (order: string[]) =>
  order.map((_, index) => order.slice(0, index + 1)).filter((look) => look.includes('A') && look.includes('B'));
const blocks = [...many('A', 3), ...many('B', 3)];
const three = { test: 3, baseline: 3 };
const habits: readonly Habit[] = [
  { name: 'planned, three each', plan: three, looks: [blocks] },
  { name: 'planned, three each, back and forth', plan: three, looks: [['A', 'B', 'A', 'B', 'A', 'B']] },
  { name: 'planned three, then two more', plan: three, looks: [blocks, [...blocks, 'B'], [...blocks, 'B', 'B']] },
  { name: 'planned three, then a return to A', plan: three, looks: [blocks, [...blocks, 'A']] },
  { name: 'looked after every run, up to five', looks: everyLook([...blocks, 'B', 'B']) },
  { name: 'looked after every run, baseline growing too', looks: everyLook([...blocks, 'A', 'B', 'A', 'B']) },
  { name: 'one run each, not planned', looks: [['A', 'B']] },
  { name: 'planned, one run each', plan: { test: 1, baseline: 1 }, looks: [['A', 'B']] },
  { name: 'planned, one run against three', plan: { test: 1, baseline: 3 }, looks: [[...many('A', 3), 'B']] },
];

interface Day {
  spread: number;
  gain?: number;
  drift?: number;
  /** Spreads of the cars scatter by this share about it, and the shop has a history of 20 jobs of them. */
  learned?: number;
}

/** Earlier jobs of three runs each, on cars whose spreads scatter about 0.4 %. */
function history(seed: number, scatter: number): SpreadPrior {
  const noise = normal(chance(seed * 7919 + 3));
  const jobs = Array.from({ length: 20 }, () => {
    const spread = 0.004 * Math.exp(scatter * noise());
    const values = [spread * noise(), spread * noise(), spread * noise()];
    return { runs: 3, share: Math.sqrt(scatterOf(values) / 2) };
  });
  return learnedSpread(jobs) ?? assumedSpread('inertia-roller');
}

const claims = ({ ranges: [first], clearStretches }: Comparison) =>
  first.verdict === 'gain' || first.verdict === 'loss' || clearStretches.length > 0;

/** What comes of a habit over drawn days of one car: shares in percent. */
function tally({ looks, plan }: Habit, { spread, gain = 0, drift = 0, learned }: Day) {
  const sum = { claimed: 0, found: 0, mean: 0, thirds: [0, 0, 0], band: 0 };
  for (let seed = 1; seed <= count; seed++) {
    const own = learned === undefined ? spread : spread * Math.exp(learned * normal(chance(seed * 101 + 5))());
    const last = looks[looks.length - 1]!;
    const day = simulatedDay({
      seed: seed * 13 + Math.round(spread * 1e5),
      order: last,
      gains: { B: gain },
      spread: own,
      drift,
    });
    const prior = learned === undefined ? assumedSpread('inertia-roller') : history(seed, learned);
    const around = { spread: prior, drift: usualDrift };
    const compared = (look: string[], bands: [number, number][] = []) => {
      const [test, baseline] = ['B', 'A'].map((letter) =>
        day.slice(0, look.length).filter(({ setup }) => setup === letter),
      );
      const plans = plan ? { test: { runs: plan.test }, baseline: { runs: plan.baseline } } : {};
      return compareRuns(test!, baseline!, { ...around, judging: ruleFor(test!, baseline!, plans), bands });
    };
    const seen = looks.map((look) => compared(look));
    if (seen.some(claims)) sum.claimed++;
    if (seen.some(({ ranges: [first] }) => first.verdict === 'gain')) sum.found++;
    const { commonRange, engineSpeedRpm, gain: gains, gainHalfWidth } = seen[seen.length - 1]!;
    if (Math.abs(commonRange.difference - gain * dayLevelKw(fromRpm, toRpm)) <= commonRange.halfWidth) sum.mean++;
    compared(last, thirds).ranges.forEach(({ difference, fromRpm: from, toRpm: to }, index) => {
      if (Math.abs(difference.difference - gain * dayLevelKw(from, to)) <= difference.halfWidth) sum.thirds[index]!++;
    });
    if (gain === 0 && gains.every((kw, index) => Math.abs(kw) <= gainHalfWidth[index]! && engineSpeedRpm.length > 0))
      sum.band++;
  }
  const percent = (value: number) => (100 * value) / count;
  return {
    claimed: percent(sum.claimed),
    found: percent(sum.found),
    mean: percent(sum.mean),
    thirds: sum.thirds.map(percent),
    band: percent(sum.band),
  };
}

const average = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;

/** The table of habits: coverage, false claims, and drift of half the spread a run, without a history and with one. */
export function experimentRates(): Figure[] {
  const figures: Figure[] = [];
  for (const habit of habits) {
    const perCar = cars.map((spread) => tally(habit, { spread }));
    const drifting = average(cars.map((spread) => tally(habit, { spread, drift: -0.5 }).claimed));
    const looksPaid = habit.plan === undefined;
    figures.push(
      {
        name: `${habit.name}: any claim where nothing changed`,
        value: average(perCar.map(({ claimed }) => claimed)),
        unit: `% (by car ${cars.map((spread, index) => `${100 * spread} %: ${perCar[index]!.claimed.toFixed(1)}`).join(', ')})`,
        budget: 5,
      },
      {
        name: `${habit.name}: the same with drift of half the spread a run`,
        value: drifting,
        unit: '%',
        ...(habit.looks[0] === blocks || looksPaid ? { budget: 5 } : {}),
      },
      {
        name: `${habit.name}: the interval holds the true mean, each third of the range`,
        value: average(perCar.map(({ mean }) => mean)),
        unit: `% (thirds ${[0, 1, 2].map((third) => average(perCar.map((car) => car.thirds[third]!)).toFixed(1)).join(', ')}; wanted ${looksPaid ? '95 or more' : '93 to 97'})`,
      },
      {
        name: `${habit.name}: the band holds everywhere`,
        value: average(perCar.map(({ band }) => band)),
        unit: '% (95 or more)',
      },
    );
  }
  const habit = (name: string) => habits.find((candidate) => candidate.name === name)!;
  const [planned, looked, single, againstThree] = [
    'planned, three each',
    'looked after every run, baseline growing too',
    'planned, one run each',
    'planned, one run against three',
  ].map(habit);
  const power = (of: Habit, gain: number, learned?: number) =>
    tally(of, { spread: 0.004, gain, ...(learned === undefined ? {} : { learned }) }).found;
  figures.push(
    {
      name: 'gain of 1.5 % found, planned three each, no history',
      value: power(planned!, 0.015),
      unit: '%',
    },
    {
      name: 'gain of 1.5 % found, looked after every run, no history',
      value: power(looked!, 0.015),
      unit: '%',
    },
    {
      name: 'gain of 1.0 % found, planned three each, with a history',
      value: power(planned!, 0.01, 0.25),
      unit: '%',
    },
    {
      name: 'gain of 1.5 % found, planned one against three, with a history',
      value: power(againstThree!, 0.015, 0.25),
      unit: '%',
    },
    {
      name: 'gain of 2 % found, planned one each, with a history',
      value: power(single!, 0.02, 0.25),
      unit: '%',
    },
    {
      name: 'planned three each, with a history: any claim where nothing changed',
      value: tally(planned!, { spread: 0.004, learned: 0.25 }).claimed,
      unit: '%',
      budget: 5,
    },
    {
      name: 'planned three each, with a history: the same with drift of half the spread a run',
      value: tally(planned!, { spread: 0.004, learned: 0.25, drift: -0.5 }).claimed,
      unit: '%',
      budget: 5,
    },
  );
  return [...figures, ...jobRates()];
}

/** False share of a job's claims: jobs of 2 to 12 setups of which 60 % change nothing, 1 to 6 runs each. */
function jobRates(): Figure[] {
  return [false, true].map((looked): Figure => {
    let falseShare = 0;
    let found = 0;
    let real = 0;
    for (let seed = 1; seed <= count; seed++) {
      const random = chance(seed * 31 + 7);
      const setups = 1 + Math.floor(2 + 11 * random());
      const runsEach = looked ? 1 + Math.floor(6 * random()) : 3;
      const letters = Array.from({ length: setups }, (_, index) => `S${index}`);
      const gains = Object.fromEntries(
        letters.map((letter, index) => [letter, index === 0 || random() < 0.6 ? 0 : 0.01 + 0.02 * random()]),
      );
      const order = letters.flatMap((letter) => many(letter, runsEach));
      const day = simulatedDay({ seed, order, gains, spread: cars[seed % cars.length]! });
      const pairs = judgedDay(day, { planned: looked ? undefined : runsEach });
      const wrong = pairs.filter(({ jobClaim, testId, againstId }) => {
        const truth = gains[letters[testId]!]! - gains[letters[againstId]!]!;
        return (jobClaim === 'gain' && truth <= 0) || (jobClaim === 'loss' && truth >= 0);
      }).length;
      const claimed = pairs.filter(({ jobClaim }) => jobClaim === 'gain' || jobClaim === 'loss').length;
      falseShare += wrong / Math.max(1, claimed);
      for (const { jobClaim, testId, againstId } of pairs) {
        if (againstId !== 0 || gains[letters[testId]!] === 0) continue;
        real++;
        if (jobClaim === 'gain') found++;
      }
    }
    return {
      name: `jobs of 2 to 12 setups, ${looked ? '1 to 6 runs each, every run looked at' : 'three each as planned'}: false share of the job's claims`,
      value: (100 * falseShare) / count,
      unit: `% (gains of 1 to 3 % called on the baseline: ${((100 * found) / real).toFixed(0)} %)`,
      budget: 5,
    };
  });
}

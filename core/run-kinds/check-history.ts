import { rangeOf } from '../curve/covered-range.ts';
import { bandMean } from '../curve/band-mean.ts';
import { byMounting } from '../likeness/mountings.ts';
import { pooledStandardDeviation, type KnownDeviation } from '../statistics/mean-difference.ts';
import { remountDeviation } from '../statistics/remount.ts';
import { meanOf } from '../numerics/mean.ts';

/** A check run: one and the same car on one and the same dyno, to see how well the dyno repeats itself. */
export interface CheckRun {
  id: number;
  label: string;
  /** Vehicle and gear: only like is compared with like. */
  car: string;
  startedAt: Date;
  remounted?: boolean | null | undefined;
  bay?: number | undefined;
  /** rpm, rising; corrected power, kW. */
  engineSpeedRpm: Float64Array;
  powerKw: Float64Array;
}

/** Check runs of one car, each against their mean. */
export interface CheckSeries {
  car: string;
  fromRpm: number;
  toRpm: number;
  meanKw: number;
  runs: { id: number; label: string; startedAt: Date; mounting: number; meanKw: number; awayShare: number }[];
}

export interface CheckHistory {
  series: CheckSeries[];
  /** Back to back, as a share of power. */
  within?: KnownDeviation;
  /** From one mounting to the next, as a share of power. */
  remount?: KnownDeviation;
  /** Check runs that share no range with the others of their car. */
  apart: number[];
}

/**
 * The dyno's own repeatability from its check runs: the spread within a
 * mounting (pooled over all), and from one mounting to the next
 * (core/statistics/remount.ts), both as shares of power, so that cars of any
 * size tell of it.
 */
export function checkHistory(runs: readonly CheckRun[]): CheckHistory {
  const cars = new Map<string, CheckRun[]>();
  for (const run of runs) cars.set(run.car, [...(cars.get(run.car) ?? []), run]);
  const series: CheckSeries[] = [];
  const apart: number[] = [];
  for (const [car, runsOfCar] of cars) {
    const found = seriesOf(car, runsOfCar);
    if (found) series.push(found);
    else apart.push(...runsOfCar.map(({ id }) => id));
  }
  const mountings = series.map(mountingsOf);
  const within = pooledStandardDeviation(mountings.flat());
  const remount = remountDeviation(mountings);
  return { series, apart, ...(within.df > 0 ? { within } : {}), ...(remount ? { remount } : {}) };
}

function seriesOf(car: string, runs: readonly CheckRun[]): CheckSeries | undefined {
  const [fromRpm, toRpm] = rangeOf(runs);
  if (!(toRpm > fromRpm)) return undefined;
  const means = runs.map((run) => bandMean(run.engineSpeedRpm, run.powerKw, fromRpm, toRpm));
  const meanKw = meanOf(means);
  const mountings = byMounting(
    runs.map((run, index) => ({ run, mean: means[index]! })),
    ({ run: { startedAt, remounted, bay } }) => ({ atMs: startedAt.getTime(), remounted, bay }),
  );
  return {
    car,
    fromRpm,
    toRpm,
    meanKw,
    runs: mountings.flatMap((list, index) =>
      list.map(({ run: { id, label, startedAt }, mean }) => ({
        id,
        label,
        startedAt,
        mounting: index + 1,
        meanKw: mean,
        awayShare: mean / meanKw - 1,
      })),
    ),
  };
}

/** Shares of the car's mean, a list a mounting. */
function mountingsOf({ runs, meanKw }: CheckSeries): number[][] {
  const lists: number[][] = [];
  for (const run of runs) (lists[run.mounting - 1] ??= []).push(run.meanKw / meanKw);
  return lists;
}

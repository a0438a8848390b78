import { headroomTable, type Headroom } from '../../limits/headroom-table.ts';
import { headroom, limitQuantities, type Limit, type LimitQuantity } from '../../limits/limit.ts';
import type { Reach } from '../../limits/broken-limits.ts';
import { reachIn } from '../../log/checks/extremes.ts';
import { meanOf } from '../../numerics/mean.ts';
import type { Level } from '../../response/response.ts';
import { meanDifference } from '../../statistics/mean-difference.ts';
import type { Curve } from './corrected-curve.ts';
import type { CountedRun, FiguredRun } from './figured-run.ts';

/** Where a run came nearest to a limit. Power and torque are the curve's; on the crank's scale where it is estimated. */
export function reachOf({ logged }: FiguredRun, curve: Curve, atCrank: boolean) {
  return ({ quantity, value, scale }: Limit): Reach | undefined => {
    const { wheelPeaks, peakTorque, peakPower } = curve;
    const crank = scale === 'crank' && atCrank;
    if (quantity === 'torque') return { reading: crank ? peakTorque.value : wheelPeaks.torqueNm };
    if (quantity === 'power') return { reading: crank ? peakPower.value : wheelPeaks.powerKw };
    return logged && reachIn(logged.extremes)({ quantity, value, scale });
  };
}

/** How near to a limit the runs of two setups came: means of the runs' nearest readings. */
export interface LimitChange {
  quantity: LimitQuantity;
  before: number;
  after: number;
  /** After less before, with half of its 95 % interval by these runs' own spread; NaN where one run stands for a side. */
  difference: number;
  halfWidth: number;
}

/** What the last run of a setup leaves to each limit, and what changed against the runs of another. */
export interface HeadroomNow extends Headroom {
  /** The run that it is read in. */
  label: string;
  /** The last run of the other setup, with what was read in it, limit by limit of the rows; absent for a setup by itself. */
  against?: { label: string; readings: (number | undefined)[] };
  changes: LimitChange[];
}

/**
 * @param test counted runs of the setup, in the order in which they were made
 * @param against those of the other; empty for none
 */
export function headroomNow(
  limits: readonly Limit[],
  test: readonly CountedRun[],
  against: readonly CountedRun[],
  atCrank: boolean,
): HeadroomNow | undefined {
  const last = test.at(-1);
  if (!last || limits.length === 0) return undefined;
  const readingOf = ({ run, figures }: CountedRun, limit: Limit) =>
    reachOf(run, figures.curve, atCrank)(limit)?.reading;
  const table = headroomTable(
    limits,
    (limit) => readingOf(last, limit),
    () => undefined,
    atCrank,
  );
  const other = against.at(-1);
  const changes = table.rows.flatMap(({ limit }): LimitChange[] => {
    const [after, before] = [test, against].map((runs) =>
      runs.flatMap((run) => readingOf(run, limit) ?? []).filter((reading) => !Number.isNaN(reading)),
    );
    if (!after?.length || !before?.length) return [];
    const { difference, halfWidth } = meanDifference(after, before);
    return [{ quantity: limit.quantity, before: meanOf(before), after: meanOf(after), difference, halfWidth }];
  });
  return {
    label: last.figures.label,
    ...table,
    ...(other && {
      against: { label: other.figures.label, readings: table.rows.map(({ limit }) => readingOf(other, limit)) },
    }),
    changes,
  };
}

/**
 * The least that is left to each limit over several runs. A limit of the crank
 * is read from the crank's figures: without them it is not known.
 */
export function headroomOf(
  limits: readonly Limit[],
  runs: readonly CountedRun[],
  atCrank: boolean,
): NonNullable<Level['headroom']> {
  return limits.flatMap((limit) => {
    const { label, unit } = limitQuantities[limit.quantity];
    const left = runs.flatMap(({ run, figures }) => {
      const reached = reachOf(run, figures.curve, atCrank)(limit);
      return (reached && headroom(limit, reached.reading, atCrank ? 0 : undefined)) ?? [];
    });
    return left.length > 0 ? [{ label, unit, left: Math.min(...left) }] : [];
  });
}

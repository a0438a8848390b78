import { sampleAt } from '../numerics/sample-at.ts';
import { covers, type RunCurve } from './run-curve.ts';

/** A band that was asked for and that not every run covers, rpm. */
export interface UncoveredBand {
  fromRpm: number;
  toRpm: number;
  /** Where the runs begin, if that is above the band's beginning. */
  beginsRpm?: number;
  /** Where they end, if that is below its end. */
  endsRpm?: number;
  /** The side that misses it. */
  side: 'test' | 'baseline' | 'both';
}

/** A range of engine speed, rpm. */
export type SpeedRange = readonly [from: number, to: number];

/** The bands that every run covers, and those that some run does not, each in the order that they were asked for. */
export function bandsCovered(
  test: readonly RunCurve[],
  baseline: readonly RunCurve[],
  bands: readonly SpeedRange[],
): { covered: SpeedRange[]; uncovered: UncoveredBand[] } {
  const missing = (runs: readonly RunCurve[], band: SpeedRange) => runs.some((run) => !covers(run, ...band));
  const covered = bands.filter((band) => !missing([...test, ...baseline], band));
  const uncovered = bands
    .filter((band) => !covered.includes(band))
    .map((band): UncoveredBand => {
      const [ofTest, ofBaseline] = [missing(test, band), missing(baseline, band)];
      const side = ofTest && ofBaseline ? 'both' : ofTest ? 'test' : 'baseline';
      return { ...missedBy(rangeOf([...test, ...baseline]), band), side };
    });
  return { covered, uncovered };
}

/** What every run covers, rpm; its end lies below its beginning where they share nothing. */
export function rangeOf(runs: readonly Pick<RunCurve, 'engineSpeedRpm'>[]): SpeedRange {
  const from = Math.max(...runs.map((run) => sampleAt(run.engineSpeedRpm, 0)));
  const to = Math.min(...runs.map((run) => sampleAt(run.engineSpeedRpm, run.engineSpeedRpm.length - 1)));
  return [from, to];
}

/** How a range misses a band; neither end is given where it covers it. */
export function missedBy([begins, ends]: SpeedRange, [fromRpm, toRpm]: SpeedRange): Omit<UncoveredBand, 'side'> {
  return {
    fromRpm,
    toRpm,
    ...(begins > fromRpm && { beginsRpm: begins }),
    ...(ends < toRpm && { endsRpm: ends }),
  };
}

import { rangeOf, type SpeedRange } from '../curve/covered-range.ts';
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

/** Which of the bands asked for every run covers. */
interface CoveredBands {
  covered: SpeedRange[];
  uncovered: UncoveredBand[];
  /** Bands were asked for, and none of them is covered: nothing is claimed then. */
  missed: boolean;
}

/** A band where it lies within what is covered, else all of that. */
export const bandOrAll = (band: SpeedRange | undefined, covered: SpeedRange): SpeedRange =>
  band && band[0] >= covered[0] && band[1] <= covered[1] ? band : covered;

/** The bands that every run covers, and those that some run does not, each in the order that they were asked for. */
export function bandsCovered(
  test: readonly RunCurve[],
  baseline: readonly RunCurve[],
  bands: readonly SpeedRange[],
): CoveredBands {
  const missing = (runs: readonly RunCurve[], band: SpeedRange) => runs.some((run) => !covers(run, ...band));
  const covered = bands.filter((band) => !missing([...test, ...baseline], band));
  const uncovered = bands
    .filter((band) => !covered.includes(band))
    .map((band): UncoveredBand => {
      const [ofTest, ofBaseline] = [missing(test, band), missing(baseline, band)];
      const side = ofTest && ofBaseline ? 'both' : ofTest ? 'test' : 'baseline';
      return { ...missedBy(rangeOf([...test, ...baseline]), band), side };
    });
  return { covered, uncovered, missed: covered.length === 0 && uncovered.length > 0 };
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

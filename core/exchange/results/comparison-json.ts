import { sampleAt } from '../../numerics/sample-at.ts';
import { phrasesText } from '../../wording/gain-sentence.ts';
import { written } from '../../sentence/sentence.ts';
import type { StandardId } from '../../air/correction.ts';
import type { ComparisonFigures } from '../../figures/pairs/comparison-figures.ts';
import type { RunFigures } from '../../figures/runs/figured-run.ts';
import type { JobFigures } from '../../figures/job-figures.ts';
import type { Verdict } from '../../comparison/verdict.ts';
import { spanJson, kw, round } from './curve-json.ts';
import { engineTorqueNm } from '../../curve/engine-torque.ts';

/** As a file writes a verdict. */
const words = {
  gain: 'gain',
  loss: 'loss',
  'within repeatability': 'within-repeatability',
  'drift suspected': 'drift-suspected',
  'spread assumed': 'spread-assumed',
  'clear alone': 'clear-alone',
  'plan not full': 'plan-not-full',
  'band not covered': 'band-not-covered',
  unknown: 'unknown',
} as const satisfies Record<Verdict, string>;

/**
 * A comparison as plain JSON; kW to 0.1 W. Peaks are the means of the runs' own
 * ones, their speeds those of the mean curve's. Intervals are 95 %; that of the
 * gain holds at all speeds at once; null where there is no spread. The form is
 * the contract's `comparisonJson`.
 *
 * @param figures that hold a comparison
 * @param made the settings that they were made with
 * @param nameOf how a run is called: its label, or its file's name
 */
export function comparisonToJson(
  figures: JobFigures & { comparison: ComparisonFigures },
  made: { standard: StandardId; share: number; auto: boolean },
  nameOf: (run: RunFigures) => string = ({ label }) => label,
) {
  const { power, torque, sentence, unlike, withheld, compared, channels } = figures.comparison;
  const { engineSpeedRpm, gain, gainHalfWidth, peaks } = power;
  const { judging } = figures.comparison.judgement;
  const [first] = power.ranges;
  return {
    commonRange: { fromRpm: power.fromRpm, toRpm: power.toRpm },
    gain: {
      engineSpeedRpm: Array.from(engineSpeedRpm),
      powerKw: Array.from(gain, kw),
      lowKw: Array.from(gain, (value, index) => kw(value - sampleAt(gainHalfWidth, index))),
      highKw: Array.from(gain, (value, index) => kw(value + sampleAt(gainHalfWidth, index))),
      torqueNm: Array.from(gain, (value, index) => round(engineTorqueNm(value, sampleAt(engineSpeedRpm, index)), 3)),
    },
    bands: power.ranges.map(({ fromRpm, toRpm, difference, verdict }) => ({
      fromRpm,
      toRpm,
      meanKw: kw(difference.difference),
      lowKw: kw(difference.difference - difference.halfWidth),
      highKw: kw(difference.difference + difference.halfWidth),
      percent: round((100 * difference.difference) / difference.baseline, 3),
      verdict: withheld ? ('withheld' as const) : words[verdict],
    })),
    notCovered: power.uncovered.map(({ fromRpm, toRpm, beginsRpm = null, endsRpm = null }) => ({
      fromRpm,
      toRpm,
      beginsRpm,
      endsRpm,
    })),
    spans: withheld
      ? []
      : power.clearStretches.map(({ fromRpm, toRpm, mean, halfWidth, verdict }) => ({
          fromRpm,
          toRpm,
          meanKw: kw(mean),
          lowKw: kw(mean - halfWidth),
          highKw: kw(mean + halfWidth),
          verdict,
        })),
    sameSpeedMax: { kw: kw(power.largest.gain), rpm: power.largest.rpm },
    peaks: {
      baseline: {
        kw: kw(peaks.difference.baseline),
        rpm: round(peaks.baseline.rpm, 1),
        atEdge: peaks.baseline.atEdge !== false,
      },
      test: { kw: kw(peaks.difference.test), rpm: round(peaks.test.rpm, 1), atEdge: peaks.test.atEdge !== false },
      gainKw: kw(peaks.difference.difference),
      torque: {
        baseline: { nm: round(torque.peaks.difference.baseline, 3), rpm: round(torque.peaks.baseline.rpm, 1) },
        test: { nm: round(torque.peaks.difference.test, 3), rpm: round(torque.peaks.test.rpm, 1) },
      },
    },
    earliness: {
      baselinePeakKw: kw(power.earliness.baselinePeak),
      reachesRpm: orNull(power.earliness.reachesRpm),
      staysToRpm: orNull(power.earliness.staysToRpm),
    },
    rule: judging.kind,
    look: judging.kind === 'every-look' ? judging.look : null,
    spreadKw: kw(first.difference.standardDeviation),
    spreadFrom: first.difference.from,
    leastSignificantKw: kw(first.difference.leastSignificant),
    smallestDetectableKw: kw(first.difference.smallestDetectable),
    likeForLike: unlike.map(({ id, severity, message, matters, remedy = null }) => ({
      id,
      severity,
      message: written(message),
      matters: written(matters),
      remedy,
    })),
    channels: channels.map(({ channel, unit, fromRpm, toRpm, mean, greatest }) => ({
      channel,
      unit,
      fromRpm,
      toRpm,
      baseline: figure(mean.baseline),
      test: figure(mean.test),
      difference: figure(mean.difference),
      low: Number.isNaN(mean.halfWidth) ? null : figure(mean.difference - mean.halfWidth),
      high: Number.isNaN(mean.halfWidth) ? null : figure(mean.difference + mean.halfWidth),
      largest: { rpm: greatest.rpm, difference: figure(greatest.difference.difference) },
    })),
    sentence: phrasesText(sentence),
    standard: made.standard,
    share: made.share,
    crankEstimate: figures.estimate ?? null,
    smoothing: { spanRpm: spanJson(figures.spanRpm), auto: made.auto },
    runs: (['baseline', 'test'] as const).flatMap((side) =>
      figures.runs
        .filter(({ id }) => compared[side].includes(id))
        .map((run) => ({
          name: nameOf(run),
          side,
          factor: round(run.curve.correction.factor, 6),
          checks: run.curve.checks.map(({ id, severity, message }) => ({ id, severity, message: written(message) })),
        })),
    ),
  };
}

/** Six digits of a channel's figure, whatever its size. */
function figure(value: number): number {
  return Number(value.toPrecision(6));
}

function orNull(value: number | undefined): number | null {
  return value === undefined ? null : round(value, 1);
}

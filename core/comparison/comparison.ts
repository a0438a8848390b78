import { sampleAt } from '../numerics/sample-at.ts';
import { bandMean } from '../curve/band-mean.ts';
import { peakOf, type Peak } from '../curve/peak.ts';
import { greatestAt, interpolate } from '../numerics/interpolation.ts';
import { Refusal } from '../refusal.ts';
import { meanDifference, spreadsDiffer, type MeanDifference } from '../statistics/mean-difference.ts';
import { claimRule, claimsOf, standsInDrift, type ChosenRange, type Claims } from './claims.ts';
import { driftOf, ordersOf, type Drift } from './drift.ts';
import { levelOf, oneLook, type JudgingRule } from './judging-rule.ts';
import { allowanceFor, priorAt, shareOfWhole, type Surroundings } from './surroundings.ts';
import { earlinessOf, type Earliness } from './earliness.ts';
import { gainBand, type GainBand } from './gain-band.ts';
import { bandsCovered, type UncoveredBand } from './coverage.ts';
import { rangeOf, type SpeedRange } from '../curve/covered-range.ts';
import { covers, type ComparedRuns, type RunCurve } from './run-curve.ts';
import type { ClearStretch } from './clear-stretches.ts';
import type { Verdict } from './verdict.ts';
import { meanOf } from '../numerics/mean.ts';

/** A range that was chosen before its gain was seen, and what may be said of it. */
export interface JudgedRange extends ChosenRange {
  verdict: Verdict;
}

/** The ranges that were asked for, or the range that all runs share. */
export type JudgedRanges = readonly [JudgedRange, ...JudgedRange[]];

export interface Comparison {
  /** The range that every run of both sides covers, rpm. */
  fromRpm: number;
  toRpm: number;
  engineSpeedRpm: Float64Array;
  test: Float64Array;
  baseline: Float64Array;
  gain: Float64Array;
  /** Half width of the 95 % band of the gain that holds at all speeds at once; NaN without a spread. */
  gainHalfWidth: Float64Array;
  /** Half width of the 95 % interval at each speed by itself, for a speed that was chosen beforehand; NaN likewise. */
  pointHalfWidth: Float64Array;
  /** 95 % of further single baseline runs lie within the baseline's mean ± this; NaN likewise. */
  repeatability: Float64Array;
  band: GainBand;
  commonRange: MeanDifference;
  /** The bands asked for, or the common range where none was: what the verdicts are on. */
  ranges: JudgedRanges;
  /** The bands asked for that some run does not cover. */
  uncovered: UncoveredBand[];
  /** Clear stretches found in the data over which a gain or loss is clear of scatter. */
  clearStretches: ClearStretch[];
  driftSuspected: boolean;
  peaks: { test: Peak; baseline: Peak; difference: MeanDifference };
  /** The largest difference at one speed, gain or loss. */
  largest: { rpm: number; gain: number };
  earliness: Earliness;
}

export interface ComparisonOptions extends Surroundings {
  /** The counted runs of the job's other setups, each a list, for the pooled spread. */
  alike?: readonly (readonly RunCurve[])[];
  /** Bands that matter, rpm; nothing is claimed where the runs cover none of them. */
  bands?: readonly SpeedRange[];
  /** Which looks there were; a single one where left out. */
  judging?: JudgingRule | undefined;
}

/**
 * Compares the counted runs of a setup with those of a baseline: per-run
 * figures first, then their means, intervals and verdicts; docs/methods.md
 * says how each is made and when it is wrong.
 *
 * @throws Refusal when a side has no run, or the runs share no range
 */
export function compareRuns(
  test: readonly RunCurve[],
  baseline: readonly RunCurve[],
  options: ComparisonOptions = {},
): Comparison {
  if (test.length === 0) throw new Refusal('The setup has no counted run yet: record one to compare it.');
  if (baseline.length === 0) throw new Refusal('The baseline has no counted run: record one, or bring one back.');
  const shared = sharedRange([...test, ...baseline]);
  if (!shared) throw sharesNoRange();
  const [fromRpm, toRpm] = shared;
  const groups: ComparedRuns = [test, baseline, ...(options.alike ?? [])];
  const judging = options.judging ?? oneLook(test, baseline);
  const around: Surroundings = { ...options, whole: shared, level: levelOf(judging) };
  const range = (from: number, to: number) => chosenRange(groups, from, to, around, judging);
  const common = range(fromRpm, toRpm);
  const { covered, uncovered, missed } = bandsCovered(test, baseline, options.bands ?? []);
  const bands = covered.flatMap(([from, to]) => range(from, to) ?? []);
  const ownSpreads = spreadsDiffer(bandMeans(test, fromRpm, toRpm), bandMeans(baseline, fromRpm, toRpm));
  // A peak is one speed, not the mean of the range.
  const peaks = differencePerRun(groups, (run) => peakOf(run.engineSpeedRpm, run.values).value, around, 0);
  if (!common || !peaks) throw sharesNoRange();
  // A learned spread that these runs contradict is not used for their band either.
  const contradicted = common.difference.from === 'pooled' && options.spread?.from === 'learned';
  const bandAround = contradicted ? { ...around, spread: undefined } : around;
  const band = gainBand(test, baseline, options.alike ?? [], ownSpreads, bandAround);
  if (!band) throw sharesNoRange();
  const [first = common, ...others] = bands;
  const rule = claimRule(judging, around, test, baseline);
  const {
    verdicts,
    driftSuspected,
    clearStretches: clear,
  } = missed ? bandMissed : claimsOf([first, ...others], band, rule);
  const clearStretches = clear.filter(({ fromRpm, toRpm, mean }) => {
    const { difference, drift } = bandWithDrift(groups, fromRpm, toRpm, around);
    const { standardDeviation } = difference ?? common.difference;
    return !drift || standsInDrift(drift, { asMeasured: mean, standardDeviation }, rule);
  });
  const largest = greatestAt(band.gain.map(Math.abs));
  return {
    fromRpm,
    toRpm,
    engineSpeedRpm: band.engineSpeedRpm,
    test: band.test,
    baseline: band.baseline,
    gain: band.gain,
    gainHalfWidth: band.standardError.map((error) => band.criticalT * error),
    pointHalfWidth: band.standardError.map((error) => band.pointwiseT * error),
    repeatability: band.repeatability,
    band,
    commonRange: common.difference,
    ranges: [
      { ...first, verdict: verdicts[0]! },
      ...others.map((range, index) => ({ ...range, verdict: verdicts[index + 1]! })),
    ],
    uncovered,
    clearStretches,
    driftSuspected,
    peaks: {
      test: peakOf(band.engineSpeedRpm, band.test),
      baseline: peakOf(band.engineSpeedRpm, band.baseline),
      difference: peaks,
    },
    largest: { rpm: sampleAt(band.engineSpeedRpm, largest), gain: sampleAt(band.gain, largest) },
    // Where the baseline still climbs at the end of the shared range, its peak lies outside of it.
    earliness: earlinessOf(band.engineSpeedRpm, band.test, band.baseline),
  };
}

const sharesNoRange = () =>
  new Refusal('The runs share no range of engine speed, so nothing can be compared: record one over the same range.');

/** Nothing is claimed of the range that is left where the band that matters is not covered. */
const bandMissed: Claims = { verdicts: ['band not covered'], driftSuspected: false, clearStretches: [] };

function sharedRange(runs: readonly RunCurve[]): SpeedRange | undefined {
  const [from, to] = rangeOf(runs);
  return to > from ? [from, to] : undefined;
}

function bandMeans(runs: readonly RunCurve[], fromRpm: number, toRpm: number): number[] {
  return runs.map((run) => bandMean(run.engineSpeedRpm, run.values, fromRpm, toRpm));
}

/** A range with all that a judgement on it rests on; undefined where a run does not cover it. */
export function chosenRange(
  groups: ComparedRuns,
  fromRpm: number,
  toRpm: number,
  around: Surroundings,
  judging: JudgingRule,
): ChosenRange | undefined {
  const { difference, drift } = bandWithDrift(groups, fromRpm, toRpm, around);
  if (!difference) return undefined;
  const full = judging.kind === 'planned' && judging.further > 0 ? judging.atCompletion : undefined;
  const [, , ...alike] = groups;
  // What the full plan showed; whether drift can have made it is judged with all the runs, a return among them.
  const undrifted = { ...around, drift: undefined };
  const then = full && bandDifference([full.test, full.baseline, ...alike], fromRpm, toRpm, undrifted);
  return { fromRpm, toRpm, difference, pAtCompletion: then?.pValue, drift };
}

/** The difference over a band, and what run order says of it, made once for both. */
function bandWithDrift(groups: ComparedRuns, fromRpm: number, toRpm: number, around: Surroundings) {
  const figure = bandFigure(fromRpm, toRpm);
  const drift = driftOfFigure(groups, figure);
  const difference = differencePerRun(groups, figure, around, shareOfWhole(around, fromRpm, toRpm), drift);
  return { difference, drift };
}

/**
 * Difference of the means of a figure that each run has by itself.
 * @param groups test runs, baseline runs, then those of setups alike
 * @param figure NaN for a run that has none
 * @param seen what run order says of the figure, where that is known already
 * @returns undefined when a run of either side has none
 */
export function differencePerRun(
  groups: ComparedRuns,
  figure: (run: RunCurve) => number,
  around: Surroundings = {},
  widthShare = 1,
  seen = around.drift && driftOfFigure(groups, figure),
): MeanDifference | undefined {
  const [test, baseline, ...alike] = groups;
  const [ofTest, ofBaseline] = [test.map(figure), baseline.map(figure)];
  if ([...ofTest, ...ofBaseline].some((value) => Number.isNaN(value))) return undefined;
  // The size of both together, so that the interval is the same when the sides are exchanged.
  const size = Math.abs(meanOf(ofTest) + meanOf(ofBaseline)) / 2;
  const { spread, remount, level } = around;
  const found = meanDifference(ofTest, ofBaseline, {
    alike: alike.map((runs) => runs.map(figure).filter((value) => !Number.isNaN(value))),
    prior: spread && priorAt(spread, size, widthShare, around.leastDeviation),
    remount: remount && { standardDeviation: remount.standardDeviation * size, df: remount.df },
    drift: allowanceFor(around, test, baseline, seen),
    ...(level === undefined ? {} : { level }),
  });
  return found.halfWidth > sayable * size ? unsayable(found) : found;
}

/** An interval wider than this share of the reading tells nobody anything. */
const sayable = 0.2;

/** The difference with nothing said of how sure it is. */
function unsayable(difference: MeanDifference): MeanDifference {
  const unknown = { halfWidth: NaN, pValue: NaN, plainPValue: NaN, standardError: NaN };
  return { ...difference, ...unknown, leastSignificant: NaN, smallestDetectable: NaN };
}

/**
 * Difference of the means over a band, from each run's own band mean.
 * @param groups test runs, baseline runs, then those of setups alike
 * @returns undefined when a run of either side does not cover the band
 */
export function bandDifference(
  groups: ComparedRuns,
  fromRpm: number,
  toRpm: number,
  around: Surroundings = {},
): MeanDifference | undefined {
  return differencePerRun(groups, bandFigure(fromRpm, toRpm), around, shareOfWhole(around, fromRpm, toRpm));
}

/** The mean of a run over a band; NaN where it does not cover it. */
const bandFigure = (fromRpm: number, toRpm: number) => (run: RunCurve) =>
  covers(run, fromRpm, toRpm) ? bandMean(run.engineSpeedRpm, run.values, fromRpm, toRpm) : NaN;

/** Difference at one engine speed; undefined when a run of either side does not reach it. */
export function differenceAt(groups: ComparedRuns, rpm: number, around: Surroundings = {}): MeanDifference | undefined {
  return differencePerRun(
    groups,
    (run) => (covers(run, rpm, rpm) ? interpolate(run.engineSpeedRpm, run.values, rpm) : NaN),
    around,
    0,
  );
}

/** Runs farther apart than this are of different sessions: they share no drift, ms. */
const sessionMs = 12 * 3600e3;

/** Drift of a figure from run to run, where the runs' order is known and of one session. */
function driftOfFigure(groups: ComparedRuns, figure: (run: RunCurve) => number): Drift | undefined {
  const [testRuns, baselineRuns, ...alikeRuns] = groups;
  const times = [...testRuns, ...baselineRuns].flatMap((run) => run.atMs ?? []);
  if (times.length < testRuns.length + baselineRuns.length) return undefined;
  const [earliest, latest] = [Math.min(...times), Math.max(...times)];
  if (latest - earliest > sessionMs || latest === earliest) return undefined;
  const inSession = (runs: readonly RunCurve[]) =>
    runs.filter(({ atMs }) => atMs !== undefined && atMs > latest - sessionMs && atMs < earliest + sessionMs);
  const [test, baseline] = [inSession(testRuns), inSession(baselineRuns)];
  const returns = {
    test: alikeRuns.filter(isReturnTo(testRuns, baselineRuns)),
    baseline: alikeRuns.filter(isReturnTo(baselineRuns, testRuns)),
  };
  const others = alikeRuns.filter((runs) => !returns.test.includes(runs) && !returns.baseline.includes(runs));
  const again = { test: inSession(returns.test.flat()), baseline: inSession(returns.baseline.flat()) };
  const alike = others.map(inSession);
  const orderOf = ordersOf([test, baseline, again.test, again.baseline, ...alike].flat());
  const ordered = (runs: readonly RunCurve[]) =>
    runs.flatMap((run) => {
      const [order, value] = [orderOf(run), figure(run)];
      return order === undefined || Number.isNaN(value) ? [] : [{ order, value }];
    });
  return driftOf(ordered(test), ordered(baseline), alike.map(ordered), {
    test: ordered(again.test),
    baseline: ordered(again.baseline),
  });
}

/** Whether a setup's runs are those of a return to one side, and not to the other. */
function isReturnTo([side]: readonly RunCurve[], [other]: readonly RunCurve[]) {
  return ([run]: readonly RunCurve[]) =>
    run?.state !== undefined && run.state === side?.state && run.state !== other?.state;
}

import type { ComparisonJson } from '../contract/comparison.ts';
import type { AirFile } from '../contract/files.ts';
import { comparisonToJson } from '../core/exchange/comparison-json.ts';
import { compareRuns } from '../core/gain/comparison.ts';
import { measuredConditions, runCurve, type CountedRun } from '../core/gain/figured-run.ts';
import { gainSentence } from '../core/gain/sentence.ts';
import { unlikeRespects } from '../core/likeness/like-for-like.ts';
import { curveOf, preparedSweep, resolvedSpan, usualGridRpm } from '../core/reduction/reduce.ts';
import { crankAssumption, readCrankLoss } from '../core/driveline/crank.ts';
import { Refusal } from '../core/refusal.ts';
import { spanLimits } from '../core/smoothing/span.ts';
import {
  about,
  airBeside,
  airOf,
  dynoOf,
  ignitionOf,
  positive,
  recordingFile,
  shareOf,
  smoothingOf,
  standardNamed,
} from './input.ts';
import { sortedWords, wordOf, type Words } from './words.ts';

export const compareUsage = `suvok compare --baseline A1.csv A2.csv A3.csv --test B1.csv B2.csv B3.csv --dyno DYNO.json
             [--air AIR.json] [--band 3000-5600]... [--ratio N] [--standard ID] [--share PERCENT]
             [--smoothing RPM|auto|0] [--grid RPM] [--engine petrol|diesel] [--crank PERCENT|PERCENT+KW]
    What the test runs gain over the baseline runs, where, with 95 % intervals, and whether it is more than scatter.
    --dyno and --air once for all runs, or once per run, baseline first; without --air each run takes RUN.air.json
    beside RUN.csv. Name bands before looking at the gain in them. The order of runs is not known here: their drift
    is not looked at. With --crank power and torque are estimated for the crank with that loss on the way.`;

const single = ['standard', 'share', 'smoothing', 'grid', 'ratio', 'engine', 'crank'];
const several = ['baseline', 'test', 'dyno', 'air', 'band'];

/**
 * `suvok compare`: two sets of recordings to their gain and its verdict.
 * @throws Refusal with a sentence for every kind of bad input
 */
export function compareCommand(words: readonly string[]): ComparisonJson {
  const sorted = sortedWords(words, single, several);
  if (sorted.before.length > 0) {
    throw new Refusal(`"${sorted.before[0]}" belongs to no side: name the runs after --baseline and after --test.`);
  }
  const files = { baseline: sorted.options.get('baseline') ?? [], test: sorted.options.get('test') ?? [] };
  if (files.baseline.length === 0) throw new Refusal('Name the baseline runs after --baseline.');
  if (files.test.length === 0) throw new Refusal('Name the runs to compare after --test.');
  const bands = (sorted.options.get('band') ?? []).map(bandOf);
  const named = [
    ...files.baseline.map((file) => ({ file, side: 'baseline' as const })),
    ...files.test.map((file) => ({ file, side: 'test' as const })),
  ];
  const settings = {
    standard: standardNamed(wordOf(sorted, 'standard')),
    share: shareOf(wordOf(sorted, 'share')),
    crank: crankOf(wordOf(sorted, 'crank')),
    gridRpm: wordOf(sorted, 'grid') === undefined ? usualGridRpm : positive('grid', wordOf(sorted, 'grid')!),
  };
  const smoothing = smoothingOf(wordOf(sorted, 'smoothing'));
  const ignition = ignitionOf(wordOf(sorted, 'engine'));
  const ratio = wordOf(sorted, 'ratio');
  const given = ratio === undefined ? undefined : positive('ratio', ratio);
  const dynos = perRun(sorted, 'dyno', named.length).map((path) => dynoOf(path));
  const airs = airsOf(sorted, named);
  const prepared = named.map(({ file, side }, index) => {
    const sweep = about(file, () => preparedSweep(recordingFile(file), dynos[index]!, given));
    return { file, side, air: airs[index], dyno: dynos[index]!, sweep };
  });
  // As in a job: auto is resolved on the baseline and shared.
  const spanRpm = resolvedSpan(
    smoothing,
    prepared.filter(({ side }) => side === 'baseline').map(({ sweep }) => sweep),
  );
  const figured = prepared.map(({ file, side, air, dyno, sweep }, id): CountedRun & { side: string; file: string } => {
    const conditions = { label: labelOf(file), dyno, hasAir: air !== undefined };
    const curve = about(file, () => curveOf(sweep, air, { ...settings, spanRpm }, { ignition }));
    return {
      file,
      side,
      run: { id, setupId: side === 'test' ? 1 : 0, counted: true, sweep, air, conditions },
      figures: { id, setupId: side === 'test' ? 1 : 0, label: labelOf(file), counted: true, curve },
    };
  });
  const side = (which: string) => figured.filter((run) => run.side === which);
  const curves = (which: string, quantity: 'powerKw' | 'torqueNm') => side(which).map((run) => runCurve(run, quantity));
  const power = compareRuns(curves('test', 'powerKw'), curves('baseline', 'powerKw'), { bands });
  const left = bands.find(([from, to]) => !power.ranges.some((one) => one.fromRpm === from && one.toRpm === to));
  if (left) {
    throw new Refusal(
      `The runs do not all cover ${left[0]} to ${left[1]} rpm; they share ${power.fromRpm} to ${power.toRpm} rpm.`,
    );
  }
  const torque = compareRuns(curves('test', 'torqueNm'), curves('baseline', 'torqueNm'), { bands });
  const unlike = unlikeRespects({
    test: side('test').map(measuredConditions),
    baseline: side('baseline').map(measuredConditions),
  });
  const withheld = unlike.some((finding) => finding.severity === 'stop');
  const sentence = gainSentence({
    test: 'The test',
    baseline: 'the baseline',
    ranges: power.ranges,
    spans: power.spans,
    unit: 'kW',
    withheld,
    estimate: settings.crank && crankAssumption(settings.crank),
  });
  const [least, most] = spanLimits(spanRpm);
  return {
    ...comparisonToJson(power, torque, sentence, unlike, withheld),
    standard: settings.standard,
    share: settings.share,
    crankEstimate: settings.crank ? crankAssumption(settings.crank) : null,
    smoothing: { spanRpm: least === most ? least : [least, most], auto: smoothing === 'auto' },
    runs: figured.map(({ file, side: of, figures }) => ({
      file,
      side: of as 'baseline' | 'test',
      factor: Number(figures.curve.correction.factor.toFixed(6)),
      checks: figures.curve.checks.map(({ id, severity, message }) => ({ id, severity, message })),
    })),
  };
}

const crankOf = (text: string | undefined) => (text === undefined ? undefined : readCrankLoss(text));

function bandOf(text: string): readonly [number, number] {
  const found = /^(\d+(?:\.\d+)?)-(\d+(?:\.\d+)?)$/.exec(text);
  const [from, to] = [Number(found?.[1]), Number(found?.[2])];
  if (!found || !(to > from)) throw new Refusal(`--band takes two speeds such as 3000-5600, not "${text}".`);
  return [from, to];
}

/** The words of an option for each run: one for all, or one each. */
function perRun(words: Words, name: string, runs: number): (string | undefined)[] {
  const given = words.options.get(name) ?? [];
  if (given.length <= 1) return Array.from({ length: runs }, () => given[0]);
  if (given.length === runs) return given;
  throw new Refusal(
    `--${name} is given ${given.length} times for ${runs} runs: give it once for all, or once per run.`,
  );
}

function airsOf(words: Words, named: readonly { file: string }[]): (AirFile | undefined)[] {
  if (!words.options.has('air')) return named.map(({ file }) => airBeside(file));
  return perRun(words, 'air', named.length).map((path) => airOf(path));
}

function labelOf(file: string): string {
  return file.replace(/^.*[\\/]/, '').replace(/\.csv$/i, '');
}

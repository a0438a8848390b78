import type { ComparisonJson } from '../contract/files/comparison-json.ts';
import type { AirFile } from '../contract/files/machine-and-air.ts';
import { readCrankLoss } from '../core/dyno/crank.ts';
import { comparisonToJson } from '../core/exchange/results/comparison-json.ts';
import { usualGridRpm } from '../core/figures/runs/corrected-curve.ts';
import type { RunRecord } from '../core/figures/request/job-record.ts';
import { makeJobFigures } from '../core/figures/make-job-figures.ts';
import { readingOf } from '../core/figures/runs/reading.ts';
import { Refusal } from '../core/refusal.ts';
import {
  airBeside,
  airOf,
  dynoOf,
  positive,
  recordingFile,
  refuseUnusable,
  runOfFile,
  shareOf,
  smoothingOf,
} from './input.ts';
import { assumedSpreadWords, correctingOf } from './assumed.ts';
import { sortedWords, wordOf, type Words } from './words.ts';

export const compareUsage = `suvok compare --baseline A1.csv A2.csv A3.csv --test B1.csv B2.csv B3.csv --dyno DYNO.json
             [--air AIR.json] [--band 3000-5600]... [--ratio N] [--standard ID] [--share PERCENT]
             [--look N] [--smoothing RPM|auto|0] [--grid RPM] [--engine petrol|diesel|electric] [--crank PERCENT|PERCENT+KW]
    What the test runs gain over the baseline runs, where, with 95 % intervals, and whether it is more than scatter.
    --dyno and --air once for all runs, or once per run, baseline first; without --air each run takes RUN.air.json
    beside RUN.csv. Name bands before looking at the gain in them. The order of runs is not known here: their drift
    is not looked at. They count as looked at once, as planned; with --look N as the Nth look, and every look is
    paid for. With --crank power and torque are estimated for the crank with that loss on the way.`;

const single = ['look', 'standard', 'share', 'smoothing', 'grid', 'ratio', 'engine', 'crank'];
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
    ...files.baseline.map((file) => ({ file, side: baselineSide })),
    ...files.test.map((file) => ({ file, side: testSide })),
  ];
  const grid = wordOf(sorted, 'grid');
  const settings = {
    share: shareOf(wordOf(sorted, 'share')),
    crank: crankWord(wordOf(sorted, 'crank')),
    powerUnit: 'kW' as const,
    gridRpm: grid === undefined ? usualGridRpm : positive('grid', grid),
  };
  const smoothing = smoothingOf(wordOf(sorted, 'smoothing'));
  const told = wordOf(sorted, 'look');
  const look = told === undefined ? ('one' as const) : wholeLook(told);
  const ratio = wordOf(sorted, 'ratio');
  const given = ratio === undefined ? null : positive('ratio', ratio);
  const dynos = perRun(sorted, 'dyno', named.length).map((path) => dynoOf(path));
  const sideAirs = airsOf(sorted, named);
  const runs = named.map(({ file, side }, index): RunRecord => ({
    ...runOfFile(index + 1, labelOf(file), { dyno: dynos[index]!, air: sideAirs[index], engineToDrumRatio: given }),
    setupId: side,
  }));
  const { standard, ignition, assumed } = correctingOf(
    sorted,
    runs.every(({ air }) => air !== null),
  );
  const readings = new Map(runs.map((run, index) => [run.id, readingOf(run, recordingFile(named[index]!.file))]));
  const figures = makeJobFigures(
    {
      job: { vehicle: '', ignition: ignition ?? null, setups, runs, baseline: null },
      view: {
        ...settings,
        standard,
        smoothing,
        bands,
        baselineId: baselineSide,
        testId: testSide,
        againstId: baselineSide,
        look,
      },
    },
    readings,
  );
  refuseUnusable(figures.unusable, (id) => named[id - 1]!.file);
  const { comparison, noComparison } = figures;
  if (!comparison) throw new Refusal(noComparison ?? 'The runs cannot be compared.');
  const { power } = comparison;
  const left = bands.find(([from, to]) => !power.ranges.some((range) => range.fromRpm === from && range.toRpm === to));
  if (left) {
    throw new Refusal(
      `The runs do not all cover ${left[0]} to ${left[1]} rpm; they share ${power.fromRpm} to ${power.toRpm} rpm.`,
    );
  }
  return {
    ...comparisonToJson(
      { ...figures, comparison },
      { ...settings, standard, auto: smoothing === 'auto' },
      ({ id }) => named[id - 1]!.file,
    ),
    assumed: [
      ...assumed,
      ...assumedSpreadWords(figures.spread),
      'One day, one mounting and no drift: when the runs were made is not known here.',
    ],
  };
}

/** The two sides as a job's setups: sentences call them by these names. */
const [baselineSide, testSide] = [1, 2];
const setups = [
  { id: baselineSide, letter: 'the baseline' },
  { id: testSide, letter: 'The test', parentId: baselineSide },
];

/** The word itself; the loss that it stands for is read where figures are made. @throws Refusal where it is none */
function crankWord(word: string | undefined): string | undefined {
  if (word !== undefined) readCrankLoss(word);
  return word;
}

/** @throws Refusal where it is no whole number from 1 */
function wholeLook(text: string): number {
  const look = positive('look', text);
  if (!Number.isInteger(look)) throw new Refusal(`--look takes a whole number, not "${text}".`);
  return look;
}

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

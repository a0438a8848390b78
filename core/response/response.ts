import { difference, say, type Quantity, type Sentence } from '../sentence/sentence.ts';
import { bandMean } from '../curve/band-mean.ts';
import { bandOrAll } from '../comparison/coverage.ts';
import type { RunCurve } from '../comparison/run-curve.ts';
import { rangeOf } from '../curve/covered-range.ts';
import { meanDifference, type MeanDifference } from '../statistics/mean-difference.ts';
import { brokenWords } from '../limits/broken-words.ts';
import type { BrokenLimit } from '../limits/broken-limits.ts';
import { levelWords } from './level-words.ts';
import { slopeAt, valueAt, type Quadratic } from './parabola.ts';
import { quadraticFit } from './quadratic.ts';
import { meanOf } from '../numerics/mean.ts';
import { differenceUnit } from '../units/told-units.ts';

/** The counted runs at one level of an item. */
export interface Level {
  /** In the item's unit, against the first setup or as such. */
  x: number;
  /** Setups at this level. */
  letters: string;
  runs: readonly RunCurve[];
  /** The letter of each run's setup; the one of the level where left out. */
  runsOf?: readonly string[];
  /** Place among the levels in the order in which they were tried; that of x where left out. */
  order?: number;
  /** Limits that its runs went beyond. */
  broken?: readonly BrokenLimit[];
  /** How near its runs came to each limit of the job. */
  headroom?: readonly { label: string; unit: string; left: number }[];
}

/** Where power is best over the levels. */
export interface Optimum {
  x: number;
  /** 95 % interval of the level of greatest power (Fieller), cut at the levels tried; open sides say so. */
  fromX: number;
  toX: number;
  openBelow: boolean;
  openAbove: boolean;
  value: number;
}

/** How the mean over a range answers to one item. */
export interface RangeResponse {
  fromRpm: number;
  toRpm: number;
  fit: Quadratic;
  /** Undefined where the parabola has no top. */
  optimum?: Optimum;
  /** Best within the levels tried, whether or not it is a top. */
  best: { x: number; value: number };
  /** The gentlest level (nearest to where it began) that keeps 99.5 % of the best. */
  gentlest: { x: number; value: number };
}

/** A level as it is shown. */
export interface ToldLevel {
  x: number;
  letters: string;
  runs: number;
  mean: number;
  values: number[];
  /** The letter of each value's setup. */
  runsOf: readonly string[];
  broken: readonly BrokenLimit[];
  /** Against the level before it in the table; absent for the first. */
  step?: MeanDifference;
}

export interface Response {
  levels: ToldLevel[];
  whole: RangeResponse;
  /** By bins of engine speed. */
  bins: RangeResponse[];
  /** The level tried last against the one tried before it: gain in all, and for each unit of the item. */
  lastStep: MeanDifference & { fromX: number; toX: number; perUnit: number; perUnitHalfWidth: number };
  /** The levels were tried one after the other without a return: a drift bends such a curve, so no optimum is told. */
  inOrder: boolean;
  advice: Sentence;
}

export interface NoResponse {
  levels: ToldLevel[];
  why: string;
}

/** The difference of two levels over a range, rpm; undefined where they are no pair. */
export type StepBetween = (fromX: number, toX: number, fromRpm: number, toRpm: number) => MeanDifference | undefined;

/** A setting within this share of the best is as good. */
const goodShare = 0.995;
const binRpm = 500;
const gridSteps = 400;

/**
 * Runs against one numeric item: a parabola for the range that matters and for
 * each bin of engine speed, the optimum with its interval, the gentlest
 * setting within half a percent of the best, and what the last step gave.
 * Source: Box and Wilson, J. R. Stat. Soc. B 13 (1951) 1; interval of the
 * optimum by Fieller, J. R. Stat. Soc. B 16 (1954) 175.
 *
 * @param levels in any order; those without runs are left out
 * @param range rpm; what all runs cover where left out
 * @param unit of the item, for the advice
 * @param between the difference of two levels where they are a pair that is judged elsewhere
 */
export function responseTo(
  levels: readonly Level[],
  range: readonly [number, number] | undefined,
  { label, unit }: { label: string; unit: string },
  between?: StepBetween,
): Response | NoResponse {
  const used = levels.filter(({ runs }) => runs.length > 0).sort((a, b) => a.x - b.x);
  const all = used.flatMap(({ runs }) => runs);
  const covered = rangeOf(all);
  const [fromRpm, toRpm] = bandOrAll(range, covered);
  const meanOver = (run: RunCurve, from: number, to: number) => bandMean(run.engineSpeedRpm, run.values, from, to);
  const plain = used.map(({ x, letters, runs, runsOf = runs.map(() => letters), broken = [] }): ToldLevel => {
    const values = runs.map((run) => meanOver(run, fromRpm, toRpm));
    return { x, letters, runs: runs.length, mean: meanOf(values), values, runsOf, broken };
  });
  const stepOf = (from: ToldLevel, to: ToldLevel) =>
    between?.(from.x, to.x, fromRpm, toRpm) ??
    meanDifference(to.values, from.values, {
      alike: plain.filter((level) => level !== from && level !== to).map(({ values }) => values),
    });
  const told = plain.map((level, at) => (at === 0 ? level : { ...level, step: stepOf(plain[at - 1]!, level) }));
  if (used.length < 3) {
    return {
      levels: told,
      why: `${used.length === 0 ? 'No level' : used.length === 1 ? 'One level' : 'Two levels'} of ${label}: three are needed for a curve. Run another setting.`,
    };
  }
  if (!(toRpm > fromRpm)) return { levels: told, why: 'The runs share no range of engine speed.' };
  const [first] = [...used].sort((a, b) => (a.order ?? a.x) - (b.order ?? b.x));
  const startX = first?.x ?? 0;
  const inOrder = triedInOrder(used);
  const over = (from: number, to: number): RangeResponse | undefined => {
    const x = used.flatMap((level) => level.runs.map(() => level.x));
    const y = used.flatMap((level) => level.runs.map((run) => meanOver(run, from, to)));
    const fit = quadraticFit(x, y);
    return fit && rangeResponse(fit, x, startX, from, to, inOrder);
  };
  const whole = over(fromRpm, toRpm);
  if (!whole) return { levels: told, why: 'One run a level leaves no spread to judge the curve by: repeat a level.' };
  const bins: RangeResponse[] = [];
  for (let from = Math.ceil(covered[0] / binRpm) * binRpm; from + binRpm <= covered[1]; from += binRpm)
    bins.push(...[over(from, from + binRpm)].filter((bin) => bin !== undefined));
  // In the order in which they were tried: after a sweep downwards the lowest level is the last.
  const tried = used
    .map(({ order }, index) => ({ order: order ?? index, level: told[index]! }))
    .sort((a, b) => a.order - b.order);
  const [before, last] = tried.slice(-2).map(({ level }) => level) as [ToldLevel, ToldLevel];
  const step = stepOf(before, last);
  const width = last.x - before.x;
  const lastStep = {
    ...step,
    fromX: before.x,
    toX: last.x,
    perUnit: step.difference / width,
    perUnitHalfWidth: step.halfWidth / width,
  };
  return {
    levels: told,
    whole,
    bins,
    lastStep,
    inOrder,
    advice: adviceOn(
      whole,
      { told, last, before, nearest: nearestLimit(used, last, before), startX: inOrder ? startX : undefined },
      lastStep,
      unit,
    ),
  };
}

/** @param startX the level that it began at */
function rangeResponse(
  fit: Quadratic,
  x: readonly number[],
  startX: number,
  fromRpm: number,
  toRpm: number,
  inOrder: boolean,
): RangeResponse {
  const [least, most] = [Math.min(...x), Math.max(...x)];
  const grid = Array.from({ length: gridSteps + 1 }, (_, index) => least + ((most - least) * index) / gridSteps);
  const best = grid
    .map((at) => ({ x: at, value: valueAt(fit, at).value }))
    .reduce((a, b) => (b.value > a.value ? b : a));
  // Gentlest: from the level that it began at towards the best.
  const start = grid.reduce((a, b) => (Math.abs(b - startX) < Math.abs(a - startX) ? b : a));
  const towards = grid.filter((at) => (at - start) * (at - best.x) <= 0 || at === best.x);
  const good = towards.filter((at) => valueAt(fit, at).value >= goodShare * best.value);
  const gentlest = good.reduce((a, b) => (Math.abs(b - start) < Math.abs(a - start) ? b : a), best.x);
  const optimum = inOrder ? undefined : optimumOf(fit, grid);
  return {
    fromRpm,
    toRpm,
    fit,
    best,
    gentlest: { x: gentlest, value: valueAt(fit, gentlest).value },
    ...(optimum ? { optimum } : {}),
  };
}

/** Levels at which a slope of nothing cannot be ruled out hold the top. */
function optimumOf(fit: Quadratic, grid: readonly number[]): Optimum | undefined {
  const [, linear, curved] = fit.coefficients;
  if (!(curved < 0)) return undefined;
  const x = fit.middle - linear / (2 * curved);
  const [least, most] = [grid[0]!, grid[grid.length - 1]!];
  if (x < least || x > most) return undefined;
  const possible = grid.filter((at) => {
    const { value, halfWidth } = slopeAt(fit, at);
    return Math.abs(value) <= halfWidth;
  });
  const [fromX, toX] = possible.length > 0 ? [possible[0]!, possible[possible.length - 1]!] : [x, x];
  return { x, fromX, toX, openBelow: fromX === least, openAbove: toX === most, value: valueAt(fit, x).value };
}

/**
 * Whether levels were tried in their order, up or down, each in one go: a drift
 * from run to run then looks like the item. Runs without a time say nothing.
 */
function triedInOrder(levels: readonly Level[]): boolean {
  const runs = levels.flatMap(({ x, runs: of }) => of.map(({ atMs }) => ({ x, atMs })));
  const timed = runs
    .flatMap(({ x, atMs }) => (atMs === undefined ? [] : [{ x, atMs }]))
    .sort((a, b) => a.atMs - b.atMs);
  if (timed.length < runs.length) return false;
  const steps = timed.slice(1).map(({ x }, at) => x - timed[at]!.x);
  return steps.every((step) => step >= 0) || steps.every((step) => step <= 0);
}

/** What is known of the levels when advice is given. */
interface Tried {
  told: readonly ToldLevel[];
  last: ToldLevel;
  before: ToldLevel;
  /** A limit that another step like the last would cross. */
  nearest: { label: string; unit: string; left: number } | undefined;
  /** The level to return to, where the levels were tried in order. */
  startX: number | undefined;
}

/** The limit that another step like the last would cross, by the way that its reading went in the last one. */
function nearestLimit(levels: readonly Level[], last: ToldLevel, before: ToldLevel): Tried['nearest'] {
  const at = (told: ToldLevel) => levels.find(({ x }) => x === told.x)?.headroom ?? [];
  return at(last).find(({ label, left }) => {
    const earlier = at(before).find((row) => row.label === label);
    return earlier !== undefined && left - (earlier.left - left) < 0;
  });
}

/** What to do next, in one sentence with its reasons. A limit or knock comes before everything else. */
function adviceOn(
  { optimum, best, gentlest }: RangeResponse,
  { told: levels, last: lastLevel, before, nearest, startX }: Tried,
  last: Response['lastStep'],
  unit: string,
): Sentence {
  const at = (x: number) => levelWords(x, unit);
  const step = say`the last step, from ${at(last.fromX)} to ${at(last.toX)}, gave ${difference(last.difference, last.halfWidth, 'kW', 1)}`;
  const [broken] = lastLevel.broken;
  if (broken) {
    const safe = [...levels].filter((level) => level.broken.length === 0);
    const back = before.broken.length === 0 ? before : safe[safe.length - 1];
    return say`At ${at(lastLevel.x)} ${brokenWords(broken)}: ${back ? say`go back to ${at(back.x)}, whatever the power says` : 'no level tried keeps every limit'}; ${step}.`;
  }
  if (startX !== undefined)
    return say`Where the best lies is not told: the levels were tried in their order without a return, and a drift from run to run bends such a curve. Run ${at(startX)} once more: it settles it; ${step}.${nearest ? say` Another step would cross a limit: ${nearest.label.toLowerCase()} has ${leftOf(nearest)} left.` : ''}`;
  if (optimum && !(optimum.openBelow && optimum.openAbove)) {
    const unsafe = levels.find(
      (level) => level.broken.length > 0 && Math.abs(level.x - optimum.x) <= Math.abs(last.toX - last.fromX) / 2,
    );
    if (unsafe?.broken[0])
      return say`The best would lie at ${at(optimum.x)}, but at ${at(unsafe.x)} ${brokenWords(unsafe.broken[0])}: stay away from it; ${step}.`;
    const held = Math.abs(gentlest.x - optimum.x) > 0.05 * Math.abs(levels[levels.length - 1]!.x - levels[0]!.x);
    return say`Best at ${at(optimum.x)} (${optimum.openBelow ? 'below' : ''}${at(optimum.fromX)} to ${at(optimum.toX)}${optimum.openAbove ? ' or beyond' : ''}); ${step}. ${
      held ? say`${at(gentlest.x)} keeps 99.5 % of it: stay there.` : 'Nothing gentler keeps 99.5 % of it.'
    }`;
  }
  // The way that was gone: up, or down.
  const upward = last.toX > last.fromX;
  const end = upward ? levels[levels.length - 1]!.x : levels[0]!.x;
  const rising = Math.abs(best.x - end) < 1e-9;
  const clear = !Number.isNaN(last.halfWidth) && last.difference > last.halfWidth;
  if (rising && clear && nearest)
    return say`Still rising at ${at(end)}: ${step}. But another step would cross a limit: ${nearest.label.toLowerCase()} has ${leftOf(nearest)} left. Stop here.`;
  if (rising && clear)
    return say`Still rising at ${at(end)}: ${step}. The best lies beyond what was tried, if the limits allow another step.`;
  if (rising)
    return say`No top is seen up to ${at(end)}: ${step}, which is within the scatter. ${at(gentlest.x)} keeps 99.5 % of the best; go no further without a reason.`;
  return say`The best lies at ${at(best.x)}, where the levels ${upward ? 'begin' : 'end at the top'}: ${step}. Go back, or try the other way.`;
}

/** What is left to a limit; a difference of temperatures, where it is one. */
function leftOf({ left, unit }: { left: number; unit: string }): Quantity {
  return { value: left, unit: differenceUnit(unit), digits: 1 };
}

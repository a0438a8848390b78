import { quantity, say, type Sentence } from '../sentence/sentence.ts';
import type { RunConditions } from '../likeness/run-conditions.ts';
import { meanOf } from '../numerics/mean.ts';
import { twoSidedProbability } from '../statistics/student-t.ts';
import { pooledStandardDeviation, posterior } from '../statistics/mean-difference.ts';
import type { SpreadPrior } from '../statistics/spread-prior.ts';

/** One counted run of a setup with its mean power over the range of the comparison. */
export interface RepeatedMean {
  id: number;
  label: string;
  meanKw: number;
  conditions: RunConditions;
}

/** A run that lies apart from its setup's others. */
export interface DeviatingRepeat {
  id: number;
  label: string;
  /** Against the mean of the others, as a share of it. */
  awayShare: number;
  /** What is known to be different about it, in words. */
  differs: Sentence[];
}

/** Chance at which a run counts as lying apart, all runs of the setup together. */
const apartBelow = 0.01;
/** Temperatures at the start that differ by this much are told, K. */
const toldK = 4;

/**
 * The repeat that lies apart from the others of its setup, if one does: its
 * mean against that of the others, by their spread and the usual one (t of a
 * further value), the chance shared by the runs. Naming it is all: whether it
 * is set aside, and why, is for a person to say.
 *
 * @param runs of one setup in the order in which they were made
 */
export function deviatingRepeat(runs: readonly RepeatedMean[], spread: SpreadPrior): DeviatingRepeat | undefined {
  if (runs.length < 3) return undefined;
  let farthest: { run: RepeatedMean; index: number; p: number; away: number; level: number } | undefined;
  runs.forEach((run, index) => {
    const others = runs.filter((other) => other !== run).map(({ meanKw }) => meanKw);
    const level = meanOf(others);
    const usual = { standardDeviation: (spread.upperShare ?? spread.share) * level, df: spread.df };
    const { standardDeviation, df } = posterior(pooledStandardDeviation([others]), usual);
    const away = run.meanKw - level;
    const p = twoSidedProbability(away / (standardDeviation * Math.sqrt(1 + 1 / others.length)), df);
    if (!farthest || p < farthest.p) farthest = { run, index, p, away, level };
  });
  if (!farthest || farthest.p > apartBelow / runs.length) return undefined;
  const { run, index, away, level } = farthest;
  return { id: run.id, label: run.label, awayShare: away / level, differs: differencesOf(run, index, runs) };
}

function differencesOf({ conditions }: RepeatedMean, index: number, runs: readonly RepeatedMean[]): Sentence[] {
  const others = runs.filter((_, place) => place !== index).map((run) => run.conditions);
  const found: Sentence[] = [];
  for (const [channel, value] of Object.entries(conditions.startTemperatures ?? {})) {
    const usual = others.flatMap(({ startTemperatures }) => startTemperatures?.[channel] ?? []);
    const apart = usual.length > 0 ? value - meanOf(usual) : 0;
    if (Math.abs(apart) >= toldK)
      found.push(
        say`${channel.replace(/Temperature$/, '')} ${quantity(Math.abs(apart), 'K')} ${apart > 0 ? 'hotter' : 'colder'} at the start`,
      );
  }
  if ((conditions.slips ?? []).length > 0) found.push('it slipped');
  if (conditions.gear !== undefined && others.some(({ gear }) => gear !== undefined && gear !== conditions.gear))
    found.push(`gear ${conditions.gear}`);
  if (!conditions.hasAir && others.some(({ hasAir }) => hasAir)) found.push('its air is not known');
  if (index === 0) found.push('it was the first');
  return found;
}

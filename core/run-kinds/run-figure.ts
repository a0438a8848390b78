import type { Finding } from '../checks/check.ts';

/** A figure of a run that is no sweep. */
export interface RunFigure {
  /** The same for the same thing in every run. */
  id: string;
  label: string;
  unit: string;
  digits: number;
  /** NaN where the run does not have it. */
  value: number;
  /** Half width of its 95 % interval within the run; NaN where one run tells none. */
  halfWidth: number;
  /** The step that it can change by at least: log interval, step of the reading, of a search or a count; 0 where nothing is stepped. */
  resolution: number;
  /** Which way is wanted; null where neither is. */
  better: 'less' | 'more' | null;
}

/** What a run of a kind of its own shows, and what stands out in it. */
export interface RunFigures {
  figures: RunFigure[];
  found: Finding[];
}

export const figure = (
  id: string,
  label: string,
  [unit, digits]: readonly [unit: string, digits: number],
  { mean, halfWidth, resolution = 0 }: ReadOnce,
  better: RunFigure['better'] = null,
): RunFigure => ({ id, label, unit, digits, value: mean, halfWidth, resolution, better });

/** What one run gives, and how finely. */
export interface ReadOnce {
  mean: number;
  halfWidth: number;
  resolution?: number;
}

/** A value that one run gives once: its interval comes from repeats alone. */
export const once = (value: number, resolution = 0): ReadOnce => ({ mean: value, halfWidth: NaN, resolution });

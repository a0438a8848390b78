import type { Severity } from '../checks/check.ts';
import { formatShare } from '../units/spoken.ts';
import type { Drift } from '../comparison/drift.ts';

/** What is known at the moment when the next run is chosen. */
export interface SoFar {
  letter: string;
  /** Letter of the setup that it was changed from, or is compared with; undefined for the first. */
  parentLetter?: string | undefined;
  /** Counted runs of this setup, and how many were planned. */
  runs: number;
  planned: number;
  /** Standard deviation of a run's mean power, as a share of it, and how well it is known. */
  spreadShare: number | undefined;
  df: number;
  drift?: Drift | undefined;
  /** True once the earlier setup was run again after this one. */
  bracketed: boolean;
}

export interface Advice {
  id: 'next' | 'repeatability' | 'bracket' | 'drift';
  severity: Severity;
  text: string;
}

/** A drift less probable than this by chance counts as one. */
const driftBelow = 0.1;

/** What the runs so far say of the next ones, in the order in which it matters. */
export function nextRunsAdvice(so: SoFar): Advice[] {
  const found: Advice[] = [];
  const drift = so.runs > 1 && so.drift && so.drift.pValue < driftBelow ? so.drift : undefined;
  if (drift) {
    const { perRun } = drift;
    found.push({
      id: 'drift',
      severity: 'mind',
      text: `Power ${perRun < 0 ? 'falls' : 'rises'} by about ${Math.abs(perRun).toFixed(1)} kW from run to run.`,
    });
  }
  if (so.parentLetter && so.runs >= so.planned && !so.bracketed) {
    found.push({
      id: 'bracket',
      severity: drift ? 'mind' : 'note',
      text: drift
        ? `Go back to ${so.parentLetter} for a run now: without it drift and change cannot be told apart.`
        : `A run of ${so.parentLetter} after the last of ${so.letter} would tell a drift from the change.`,
    });
  }
  if (so.spreadShare !== undefined && so.df > 0)
    found.push({
      id: 'repeatability',
      severity: 'note',
      text: `Spread from run to run ${formatShare(so.spreadShare)} of power.`,
    });
  return found;
}

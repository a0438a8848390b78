import type { RunPlan } from '../../contract/instruments/recording.ts';
import { discontinuityRemarks } from '../devices/discontinuity.ts';
import type { FollowedLoggers } from './followed-loggers.ts';
import type { Discontinuity, EndRecord } from '../spool/records.ts';

/** A run longer than this is ended, s; a row of holds, and driving a table, may take longer. */
export const longestRunS = {
  power: 180,
  conditioning: 180,
  check: 180,
  'coast-down': 300,
  step: 3600,
  'part-load': 3600,
  idle: 400,
  'cold-start': 700,
  transient: 180,
  cruise: 2400,
  'road-check': 3600,
} as const;
/** A run in which frames are missing for longer than this is no whole one, s. */
const longestHoleS = 0.5;

/** A run while it is recorded. */
export interface RunInProgress {
  key: string;
  /** The row of the dyno's session that it begins with. */
  from: number;
  startedS: number;
  /** The newest row when it was noticed, and the newest now. */
  noticedS: number;
  latestS: number;
  /** When it was announced, or noticed, and when its newest row came, of the process's clock. */
  askedMs: number;
  latestMs: number;
  /** Once the lift has been seen: when to stop. */
  endS: number | undefined;
  /** The pull was going on when the instrument was heard first. */
  headless: boolean;
  /** Where frames were missing for too long, s of the instrument's clock. */
  hole: { fromS: number; toS: number } | undefined;
  remarks: string[];
  /** Told together at its end: a lossy instrument has thousands. */
  discontinuities: Discontinuity[];
  kind: RunPlan['kind'];
  loggers: FollowedLoggers;
}

/** What a run has not seen yet when it begins, or is taken up again. */
export const nothingYet = (): Pick<RunInProgress, 'endS' | 'hole' | 'remarks' | 'discontinuities'> => ({
  endS: undefined,
  hole: undefined,
  remarks: [],
  discontinuities: [],
});

/** Frames are missing in a run, or its clock went back. */
export function broken(run: RunInProgress, found: Discontinuity): void {
  run.discontinuities.push(found);
  if ('missing' in found && found.atS - run.latestS > longestHoleS) run.hole ??= { fromS: run.latestS, toS: found.atS };
}

const headlessRemark =
  'The pull was under way already when the instrument was heard: its beginning is missing, so it is no whole run.';

/** How a run has ended: one of which a part is missing is no whole one, whatever ended it. */
export function endOf(run: RunInProgress, as: EndRecord['as']): Omit<EndRecord, 'to'> {
  const { key, headless, hole } = run;
  return {
    key,
    as: headless || hole ? 'interrupted' : as,
    remarks: [
      ...discontinuityRemarks(run.discontinuities),
      ...run.remarks,
      ...(headless ? [headlessRemark] : []),
      ...(hole
        ? [`Nothing was read from ${hole.fromS.toFixed(2)} to ${hole.toS.toFixed(2)} s, so it is no whole run.`]
        : []),
    ],
  };
}

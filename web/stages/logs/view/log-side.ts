import type { LogMean } from '../../../../core/log/view/mean-log.ts';

/** A run's log, or the mean of a setup's, as the lanes draw it. */
export interface LogSide {
  /** B2, or B for the mean of its runs. */
  label: string;
  colour: string;
  log: LogMean;
}

import type { PauseReason } from '../day/day-facts.ts';
import { pauseWords } from '../day/waiting-jobs.ts';

/** What is known of a job when its next step is named. */
export interface JobProgress {
  state: 'open' | 'paused' | 'closed';
  pausedFor: PauseReason | null;
  pausedWhy: string;
  question: string;
  /** Counted power runs of the first setup, and of the newest. */
  baselineRuns: number;
  newestLetter: string;
  newestRuns: number;
  newestDecided: boolean;
  setups: number;
  failedInspection: number;
  delivered: boolean;
  /** Runs were sent to a remote tuner, and no file came back since. */
  withTuner: boolean;
}

/** So many runs make a baseline. */
const baselineWanted = 3;

/** What a job is waiting for, in a few words: the next step of the work. */
export function waitingFor(job: JobProgress): string {
  if (job.state === 'closed') return job.delivered ? 'delivered' : 'closed';
  if (job.state === 'paused') return pauseWords(job.pausedFor ?? 'other', job.pausedWhy);
  if (job.withTuner) return 'a file from the tuner';
  if (job.failedInspection > 0 && job.baselineRuns === 0)
    return `a repair: ${job.failedInspection} failed in the inspection`;
  if (job.question === '') return 'its question';
  if (job.baselineRuns < baselineWanted && job.setups === 1) {
    return job.baselineRuns === 0 ? 'its baseline' : `baseline, ${job.baselineRuns} of ${baselineWanted} runs`;
  }
  if (job.setups === 1) return 'a first change';
  if (job.newestRuns === 0) return `runs of ${job.newestLetter}`;
  if (!job.newestDecided) return `a decision on ${job.newestLetter}`;
  return 'the next change, or delivery';
}

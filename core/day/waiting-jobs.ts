import { msOf, type DayBay, type DayFacts, type DayJob, type PauseReason } from './day-facts.ts';

/** A job that waits for something or somebody. */
export interface WaitingJob {
  job: DayJob;
  reason: PauseReason;
  /** For what, in words. */
  what: string;
  sinceMs: number;
  /** When it is expected to go on; null where nobody said. */
  expectedMs: number | null;
  isOverdue: boolean;
}

const reasonWords: Record<PauseReason, string> = {
  part: 'a part',
  repair: 'a repair',
  file: 'a file from the tuner',
  overnight: 'its cold start, stands overnight',
  owner: 'the owner’s word',
  collection: 'being collected',
  other: 'being resumed',
};

/** What a pause is for, in words: the reason, and what somebody wrote of it. */
export function pauseWords(reason: PauseReason, why: string): string {
  if (why === '') return reasonWords[reason];
  return reason === 'other' ? why : `${reasonWords[reason]} (${why})`;
}

/** Every job that waits, who has waited longest first: paused, with a remote tuner, or failed in its inspection. */
export function waitingJobs({ jobs }: Pick<DayFacts, 'jobs'>, bays: readonly DayBay[], nowMs: number): WaitingJob[] {
  const waiting = jobs.flatMap((job): WaitingJob[] => {
    const told = (reason: PauseReason, what: string, since: string | null, expected: string | null = null) => {
      const expectedMs = expected === null ? null : msOf(expected);
      return [
        {
          job,
          reason,
          what,
          sinceMs: since === null ? nowMs : msOf(since),
          expectedMs,
          isOverdue: expectedMs !== null && expectedMs < nowMs,
        },
      ];
    };
    if (job.state === 'paused') {
      const reason = job.pausedFor ?? 'other';
      return told(reason, pauseWords(reason, job.pausedWhy), job.pausedAt, job.expectedAt);
    }
    if (job.state !== 'open') return [];
    if (job.sentAt !== null) return told('file', reasonWords.file, job.sentAt);
    const onDyno = bays.some(({ jobId }) => jobId === job.id);
    if (job.failed.length > 0 && !onDyno) return told('repair', `a repair: ${job.failed.join(', ')}`, job.failedAt);
    return [];
  });
  return waiting.sort((one, other) => one.sinceMs - other.sinceMs);
}

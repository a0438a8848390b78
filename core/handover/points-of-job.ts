import { inspectionItems } from '../inspection/inspection-items.ts';
import { putBackItems } from '../inspection/put-back.ts';
import { closingPoints, type ClosingJob, type Point } from './open-points.ts';

type RecordedJob = Omit<ClosingJob, 'putBack'> & Parameters<typeof putBackItems>[0];

/** What is looked at when a job is closed, as its file stands. The road check is a point of its own. */
export function pointsOfJob(job: RecordedJob): Point[] {
  const isFailed = (key: string) => job.inspections.some((entry) => entry.key === key && entry.outcome === 'fail');
  const failed = inspectionItems(job).filter(({ key, part }) => part !== 'hand-over' && isFailed(key));
  return closingPoints(
    { ...job, putBack: putBackItems(job) },
    failed.map(({ text }) => text),
  );
}

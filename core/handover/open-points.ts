import { joined, say, type Sentence } from '../sentence/sentence.ts';
import { inspectionItems, putBackItems } from '../inspection/inspection-items.ts';

/** What is looked at of a job before it is handed over. */
export interface HandedJob {
  deliveredSetupId: number | null;
  untested: string;
  setups: readonly { id: number; letter: string; parentId: number | null; decision: string | null }[];
  runs: readonly {
    setupId: number | null;
    label: string | null;
    kind: string;
    state: string;
    endedAt?: string | null;
  }[];
  tuneFiles: readonly { setupId: number }[];
  putBack: readonly { text: string; done: boolean }[];
}

export const pointIds = [
  'delivered',
  'verified',
  'decided',
  'file',
  'putBack',
  'inspection',
  'untested',
  'road',
  'report',
] as const;
export type PointId = (typeof pointIds)[number];

/** One thing that a hand-over needs: done, or open and why. */
export interface Point {
  id: PointId;
  done: boolean;
  /** What is there, or what is missing, in a line. */
  says: Sentence;
}

/**
 * What a delivered setup needs that the report tells as well: it is named, it ran last, everything that ran is decided
 * on, its file is stored, everything is put back, and what nobody tried is written down.
 * @param deliveredId of the setup that is delivered, or stands in for it; null where nothing ran
 */
export function deliveryPoints(job: HandedJob, deliveredId: number | null): Point[] {
  const { setups, runs } = job;
  const letter = setups.find(({ id }) => id === deliveredId)?.letter ?? '?';
  const latest = runs.filter(({ kind, state }) => kind === 'power' && state !== 'recording').at(-1);
  const verified = latest !== undefined && latest.setupId === deliveredId;
  const unclear = setups.filter(
    ({ parentId, decision, id }) => parentId !== null && decision === null && runs.some((run) => run.setupId === id),
  );
  const open = job.putBack.filter(({ done }) => !done);
  const stored = job.tuneFiles.some(({ setupId }) => setupId === deliveredId);
  const named = job.deliveredSetupId !== null;
  return [
    point(
      'delivered',
      named,
      say`Delivered with ${letter}.`,
      deliveredId === null
        ? 'No setup is named as delivered.'
        : say`No setup is named as delivered: ${letter} stands in.`,
    ),
    point(
      'verified',
      verified,
      say`The last run, ${latest?.label ?? ''}, is of ${letter}.`,
      latest
        ? say`The last run is ${latest.label ?? 'another'}: ${letter} was not verified after it.`
        : 'No power run was made.',
    ),
    point(
      'decided',
      unclear.length === 0,
      'Every change is decided on.',
      say`Nothing is decided on ${unclear.map((setup) => setup.letter).join(', ')}.`,
    ),
    point('file', stored, 'The tune file is stored.', 'No tune file is stored with what is delivered.'),
    point(
      'putBack',
      open.length === 0,
      'Everything is put back.',
      say`Not ticked as put back: ${joined(
        open.map(({ text }) => text),
        '; ',
      )}.`,
    ),
    point(
      'untested',
      job.untested !== '',
      'What was not tested is written down.',
      'Nothing is written of what was not tested.',
    ),
  ];
}

/** What a job's file says beside it at its end. */
export interface ClosingJob extends HandedJob {
  inspections: readonly { key: string; outcome: string; note: string }[];
  reportVersions: readonly { number: number; createdAt: string }[];
}

/**
 * Everything that is looked at when a job is closed, in the order of the hand-over. None of it holds a job up: what is
 * open then is recorded with the closing.
 * @param failed texts of what failed in the inspection
 */
export function closingPoints(job: ClosingJob, failed: readonly string[]): Point[] {
  const lastRun = job.runs.flatMap(({ endedAt }) => endedAt ?? []).reduce((last, at) => (at > last ? at : last), '');
  const report = job.reportVersions
    .filter(({ createdAt }) => Date.parse(createdAt) >= (Date.parse(lastRun) || 0))
    .at(-1);
  const road = job.inspections.find(({ key }) => key === 'road-check');
  const points = [
    ...deliveryPoints(job, job.deliveredSetupId),
    point(
      'inspection',
      failed.length === 0,
      'Nothing failed in the inspection.',
      say`Failed in the inspection: ${joined(failed, '; ')}.`,
    ),
    point(
      'road',
      road?.outcome === 'ok',
      'The road check is done.',
      road?.outcome === 'fail'
        ? say`The road check failed${road.note ? `: ${road.note}` : ''}.`
        : 'The road check is not ticked.',
    ),
    point(
      'report',
      report !== undefined,
      say`Report version ${String(report?.number ?? 0)} is kept.`,
      'No report was kept since the last run.',
    ),
  ];
  return pointIds.flatMap((id) => points.filter((one) => one.id === id));
}

const point = (id: PointId, done: boolean, yes: Sentence, no: Sentence): Point => ({ id, done, says: done ? yes : no });

type RecordedJob = Omit<ClosingJob, 'putBack'> & Parameters<typeof putBackItems>[0];

/** The points of closing a job, by what is on file. The road check is a point of its own. */
export function pointsOfJob(job: RecordedJob): Point[] {
  const isFailed = (key: string) => job.inspections.some((entry) => entry.key === key && entry.outcome === 'fail');
  const failed = inspectionItems(job).filter(({ key, part }) => part !== 'hand-over' && isFailed(key));
  return closingPoints(
    { ...job, putBack: putBackItems(job) },
    failed.map(({ text }) => text),
  );
}

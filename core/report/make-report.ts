import type { StandardId } from '../air/correction.ts';
import { curveColumns } from '../exchange/results/curve-columns.ts';
import type { CurveColumn } from '../exchange/results/curves-csv.ts';
import type { Learned } from '../figures/request/figures-request.ts';
import type { JobFigures } from '../figures/job-figures.ts';
import { makeJobFigures } from '../figures/make-job-figures.ts';
import type { Reading } from '../figures/runs/reading.ts';
import { baselineRuns } from '../job/baseline.ts';
import type { PairJudgement } from '../judgement/pair-judgement.ts';
import type { Units } from '../units/told-units.ts';
import { formatSpan } from '../wording/figures.ts';
import { composeReport } from './compose-report.ts';
import type { Draft } from './drafted.ts';
import { laterName, reportedJob, type ReportSource, type ReportedJob } from './reported-job.ts';
import { reportShown } from './report-scene.ts';
import { reportRequest, reportSides } from './report-request.ts';
import { reportReader, writtenReport, type WrittenReport } from './written-report.ts';

/** A job as it is stored, as far as a report is made of it. */
export type ReportableJob = Parameters<typeof reportRequest>[0] &
  Parameters<typeof reportedJob>[0] &
  Parameters<typeof reportReader>[0];

interface RestingSide {
  setupId: number;
  letter: string;
  runs: { id: number; label: string }[];
}

/** What the figures of a report rest on. */
export interface RestsOn {
  standard: string;
  smoothing: string;
  arrived: RestingSide;
  delivered: RestingSide;
  judgement: PairJudgement | null;
  /** The spread of repeats that intervals were made with: a shop learns more of it with every job. */
  spread: { share: number; df: number; from: string };
  bands: { name: string; fromRpm: number; toRpm: number }[];
}

export interface ReportWishes {
  learned: Learned | undefined;
  standard: StandardId;
  units: Units;
  draft: Draft;
}

/**
 * A whole report, from what is stored: the same on the server as on the page,
 * which both feed it.
 * @param readings by run, of `neededRuns` of the report's request
 */
export function makeReport(
  job: ReportableJob,
  readings: ReadonlyMap<number, Reading>,
  { learned, standard, units, draft }: ReportWishes,
): { written: WrittenReport; restsOn: RestsOn; columns: CurveColumn[] } {
  const figures = makeJobFigures(reportRequest(job, learned, { standard, powerUnit: units.power }), readings);
  const source = reportSource(job, figures, standard);
  return {
    written: writtenReport(composeReport(source), draft, source, reportReader(job, units, draft.language)),
    restsOn: restsOn(source),
    columns: reportColumns(source, units),
  };
}

/** Power, torque and gain of what arrived and what is delivered, as columns of a file. */
export function reportColumns({ job, figures }: ReportSource, units: Units): CurveColumn[] {
  return curveColumns(figures, reportShown(job, figures, units), `${laterName(job)} less arrived`, units);
}

/** What a report is composed from, once its figures are made. */
export function reportSource(job: ReportableJob, figures: JobFigures, standard: StandardId): ReportSource {
  return { job: reportedJob(job), figures, view: { standard, share: 1, auto: true } };
}

/** What the figures of a report rest on: runs, view and judgement. */
export function restsOn({ job, figures, view }: ReportSource): RestsOn {
  const { arrivedId, deliveredId } = reportSides(job);
  return {
    standard: view.standard,
    smoothing: figures.spanRpm === 0 ? 'none' : formatSpan(figures.spanRpm),
    arrived: side(job, arrivedId),
    delivered: side(job, deliveredId),
    judgement: figures.comparison?.judgement ?? null,
    spread: { share: figures.spread.share, df: figures.spread.df, from: figures.spread.from },
    bands: job.bands.map(({ name, fromRpm, toRpm }) => ({ name, fromRpm, toRpm })),
  };
}

function side(job: ReportedJob, setupId: number): RestingSide {
  const letter = job.setups.find(({ id }) => id === setupId)?.letter ?? '';
  const runs = baselineRuns(job.runs, setupId, job.baseline);
  return { setupId, letter, runs: runs.map(({ id, label }) => ({ id, label: label ?? '' })) };
}

import { parentPort } from 'node:worker_threads';
import { recordingsFromBytes } from '../../core/exchange/recordings/recording-bytes.ts';
import { besideRun } from '../../core/exchange/recordings/runs-recorded.ts';
import type { FiguresRequest } from '../../core/figures/request/figures-request.ts';
import { jobHeadline, type JobHeadline } from '../../core/figures/job-headline.ts';
import { makeJobFigures } from '../../core/figures/make-job-figures.ts';
import { testFigures, type TestFigures } from '../../core/figures/runs/kinds-of-job.ts';
import { readingOf, type Reading } from '../../core/figures/runs/reading.ts';
import type { FuellingAxes } from '../../core/fuelling/axes.ts';
import { fuellingOfRuns, type FuellingOfRuns } from '../../core/fuelling/fuelling-of-runs.ts';
import type { FuellingSettings } from '../../core/fuelling/fuelling-table.ts';
import { makeReport, type ReportableJob, type ReportWishes } from '../../core/report/make-report.ts';
import type { WrittenReport } from '../../core/report/written-report.ts';
import { Refusal } from '../../core/refusal.ts';
import type { Run } from '../../contract/job/records.ts';
import { consentPdf, type SignedPage } from './consent-pdf.tsx';
import { reportPdf, type PdfWishes } from './report-pdf.tsx';

/** What is asked of the thread, in this order: runs as they come, then the report; or a PDF of one that is there. To forget is not answered. */
export type ReportAsked =
  | { runs: readonly Run[]; recordings: ArrayBuffer }
  | { fuelled: readonly Run[]; recordings: ArrayBuffer; axes: FuellingAxes | null; settings: FuellingSettings }
  | { tested: Parameters<typeof testFigures>[0]; sides: Parameters<typeof testFigures>[2] }
  | { headlined: FiguresRequest; forecasts: Parameters<typeof jobHeadline>[2] }
  | { job: ReportableJob; wishes: ReportWishes }
  | { report: WrittenReport; pdf: PdfWishes }
  | { signed: SignedPage }
  | { forget: true };

export type ReportAnswer =
  | { read: number }
  | { made: ReturnType<typeof makeReport> }
  | { fuelling: FuellingOfRuns }
  | { tests: TestFigures }
  | { headline: JobHeadline }
  | { pdf: Uint8Array; pages: number }
  | { refusal: string }
  | { failure: string };

/** Makes reports apart from the server: reading 60 runs takes seconds, and so do the pages. */
const port = parentPort;
const readings = new Map<number, Reading>();
const say = (answer: ReportAnswer) => port?.postMessage(answer);

port?.on('message', (asked: ReportAsked) => void answer(asked));

async function answer(asked: ReportAsked): Promise<void> {
  try {
    if ('forget' in asked) readings.clear();
    else if ('runs' in asked) say({ read: read(asked.runs, asked.recordings) });
    else if ('fuelled' in asked) say({ fuelling: fuelling(asked) });
    else if ('tested' in asked) say({ tests: testFigures(asked.tested, readings, asked.sides) });
    else if ('headlined' in asked)
      say({
        headline: jobHeadline(makeJobFigures(asked.headlined, readings), asked.headlined.job.setups, asked.forecasts),
      });
    else if ('job' in asked) say({ made: makeReport(asked.job, readings, asked.wishes) });
    else if ('signed' in asked) say({ pdf: await consentPdf(asked.signed), pages: 1 });
    else say(await reportPdf(asked.report, asked.pdf));
  } catch (error) {
    say(error instanceof Refusal ? { refusal: error.message } : { failure: (error as Error).stack ?? String(error) });
  }
}

/** @returns how many runs have been read by now */
function read(runs: readonly Run[], bytes: ArrayBuffer): number {
  const recordings = recordingsFromBytes(bytes);
  for (const run of runs) {
    const recording = recordings.get(run.key);
    const beside = besideRun(run, recordings);
    if (recording && beside) readings.set(run.id, readingOf(run, recording, beside));
  }
  return readings.size;
}

function fuelling({ fuelled, recordings, axes, settings }: Extract<ReportAsked, { fuelled: unknown }>): FuellingOfRuns {
  const read = recordingsFromBytes(recordings);
  const runs = fuelled.flatMap((run) => {
    const [recording, beside] = [read.get(run.key), besideRun(run, read)];
    const { id, label, dyno, engineToDrumRatio } = run;
    return recording && beside
      ? [{ id, label: label ?? '', dyno, engineToDrumRatio: engineToDrumRatio ?? undefined, recording, beside }]
      : [];
  });
  return fuellingOfRuns(runs, axes, settings);
}

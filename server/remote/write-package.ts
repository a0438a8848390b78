import type { Job, Run } from '../../contract/job/records.ts';
import type { ReportView } from '../../contract/report/report.ts';
import type { WorkLine } from '../../contract/values/answers.ts';
import { curvesCsv } from '../../core/exchange/results/curves-csv.ts';
import { fileNameOf } from '../../core/exchange/results/file-name.ts';
import { plainReport } from '../../core/report/plain-text.ts';
import { Refusal } from '../../core/refusal.ts';
import type { Database } from '../../store/database/database.ts';
import { tuneFileContent } from '../../store/jobs/files.ts';
import { recordingOf } from '../../store/runs/samples.ts';
import { CsvThread } from '../bundles/csv-thread.ts';
import { recordingParts } from '../bundles/recording-parts.ts';
import { textPart, writeZip, type Part } from '../bundles/write-zip.ts';
import type { DynoHistory } from '../dyno-history.ts';
import { jobReport } from '../reports/job-report.ts';
import type { ReportThread } from '../reports/report-thread.ts';
import { curvesView, remotePage, type PageView } from './remote-page.ts';
import { runView } from './run-view.ts';

/**
 * Writes what a remote tuner needs as one .zip: a page that opens without Suvok, the runs and their logs as CSV, the
 * curves, what the report says, and the tune file that the last of the runs was made with. Owner, plate and contact
 * stay here.
 * @returns the runs in it, oldest first
 * @throws Refusal where there is nothing to send, or it was cancelled
 */
export async function writePackage(
  { database, dynos }: { database: Database; dynos: DynoHistory },
  job: Job,
  { runIds, ...view }: ReportView & { runIds: readonly number[] },
  file: string,
  thread: ReportThread,
  told: { tell(line: WorkLine): void; signal: AbortSignal },
): Promise<{ sent: Run[] }> {
  const runs = job.runs.filter(({ id, state }) => runIds.includes(id) && state !== 'recording');
  if (runs.length === 0) throw new Refusal('None of these runs has ended: there is nothing to send.');
  // Its page speaks English, whatever the owner's report does.
  const report = job.report && { ...job.report, language: 'en' as const };
  const nobody = { ...job, owner: '', plate: '', report };
  const { written, columns } = await jobReport(nobody, view, { database, dynos }, thread, told);
  const views: PageView[] = columns.length > 0 ? [curvesView(columns)] : [];
  for (const run of runs) views.push(runView(nameOf(run, job), await recordingsOf(database, run)));
  const csv = new CsvThread();
  const parts: Part[] = [
    textPart('open-me.html', remotePage(written, views, columns)),
    textPart('report.txt', plainReport(written)),
    ...(columns.length > 0 ? [textPart('curves.csv', curvesCsv(columns))] : []),
    ...(await tunePart(database, job, runs)),
    ...runs.flatMap((run) => recordingParts(database, csv, run)),
  ];
  await writeZip(file, parts, (done) => told.tell({ doing: 'writing', done }), told.signal).finally(
    () => void csv.close(),
  );
  return { sent: runs };
}

function nameOf({ label, id, setupId }: Run, { setups }: Job): string {
  const change = setups.find((setup) => setup.id === setupId)?.change;
  return `${label ?? `run ${id}`}${change ? `, ${change}` : ''}`;
}

function recordingsOf(database: Database, run: Run) {
  const sources = [0, ...run.logs.map(({ source }) => source)];
  return Promise.all(sources.map((source) => recordingOf(database, run, source)));
}

/** The file that the last of the runs was made with, under its own name. */
async function tunePart(database: Database, { tuneFiles }: Job, runs: readonly Run[]): Promise<Part[]> {
  const last = tuneFiles.filter(({ setupId }) => setupId === runs.at(-1)?.setupId).at(-1);
  const found = last && (await tuneFileContent(database, last.id));
  if (!found) return [];
  const [, stem = '', ending = ''] = /^(.*?)(\.[A-Za-z0-9]{1,8})?$/.exec(found.name) ?? [];
  return [{ path: `tune-file/${fileNameOf(stem) || 'tune'}${ending}`, compress: true, pieces: () => [found.content] }];
}

import type { Job } from '../../contract/job/records.ts';
import type { WorkLine } from '../../contract/values/answers.ts';
import type { ReportView } from '../../contract/report/report.ts';
import { lastOnDyno } from '../../core/job/last-on-dyno.ts';
import { standardIds, type StandardId } from '../../core/air/correction.ts';
import { learnedFrom } from '../../core/figures/request/learned.ts';
import { neededRuns } from '../../core/figures/make-job-figures.ts';
import type { makeReport } from '../../core/report/make-report.ts';
import { untouched } from '../../core/report/drafted.ts';
import { reportRequest } from '../../core/report/report-request.ts';
import { Refusal } from '../../core/refusal.ts';
import type { Database } from '../../store/database/database.ts';
import type { DynoHistory } from '../dyno-history.ts';
import { readRuns } from './read-runs.ts';
import type { ReportThread } from './report-thread.ts';

/**
 * A job's report with all figures made anew from its recordings, as its draft stands.
 * @throws Refusal where there is nothing to report, or it was cancelled
 */
export async function jobReport(
  job: Job,
  view: ReportView,
  { database, dynos }: { database: Database; dynos: DynoHistory },
  thread: ReportThread,
  told: { tell(line: WorkLine): void },
): Promise<ReturnType<typeof makeReport>> {
  const standard = standardNamed(view.standard);
  const ended = job.runs.filter(({ state }) => state !== 'recording');
  if (ended.length === 0) throw new Refusal('There is nothing to report yet: this job has no run that has ended.');
  const device = lastOnDyno(job.runs)?.device;
  const learned = device ? learnedFrom(await dynos.of(device, job.id)) : undefined;
  const units = job.report?.units ?? view.units;
  const needed = neededRuns(reportRequest(job, learned, { standard, powerUnit: units.power }));
  await readRuns(thread, database, needed, (done) => told.tell({ doing: 'reading', done }));
  told.tell({ doing: 'comparing', done: 0 });
  const wishes = { learned, standard, units, draft: { ...untouched, ...job.report } };
  return (await thread.ask('made', { job, wishes })).made;
}

/** @throws Refusal where there is no such standard */
function standardNamed(name: string): StandardId {
  const found = standardIds.find((id) => id === name);
  if (!found) throw new Refusal(`There is no standard "${name}": ${standardIds.join(', ')} are.`);
  return found;
}

import { useRef, useState } from 'react';
import { Link } from 'react-router';
import type { Job } from '../../../contract/records.ts';
import type { ReportDraft } from '../../../contract/report.ts';
import { composeReport } from '../../../core/report/compose-report.ts';
import { untouched } from '../../../core/report/drafted.ts';
import { reportReader, writtenReport } from '../../../core/report/written-report.ts';
import { WithJob } from '../../app/with-job.tsx';
import { api } from '../../state/api.ts';
import { useChange } from '../../state/queries.ts';
import { useUnits } from '../../units/use-own-units.tsx';
import { DraftPane } from './draft-pane.tsx';
import { ReportSheet } from './report-sheet.tsx';
import classes from './report-stage.module.css';
import { useReportSource } from './use-report-source.ts';

/** The stage that closes the order of work: a finished report, and what may be changed of it. */
export function ReportStage() {
  return <WithJob>{(job) => <ReportOf key={job.id} job={job} />}</WithJob>;
}

function ReportOf({ job }: { job: Job }) {
  const own = useUnits();
  // What was changed here and is on its way stands until the last of it is stored: the next change begins from it.
  const [mine, setMine] = useState<{ report: Job['report'] }>();
  const sent = useRef<Promise<unknown>>(Promise.resolve());
  const change = useChange((report: Job['report']) => {
    const next = sent.current.catch(() => undefined).then(() => api.changeJob(job.id, { report }));
    sent.current = next;
    return next;
  });
  const keep = (report: Job['report']) => {
    setMine({ report });
    change.mutate(report, { onSettled: () => setMine(undefined) });
  };
  const kept = mine ? mine.report : job.report;
  const units = kept?.units ?? own;
  const { source, error } = useReportSource(job, units.power);
  const hasRuns = job.runs.some(({ state }) => state !== 'recording');
  if (!hasRuns)
    return (
      <main className={classes.message}>
        <h2>Nothing to report yet</h2>
        <p>
          A report is made from runs. Record a baseline on{' '}
          <Link to="../record" relative="path">
            Record
          </Link>
          , or import a recording from the setups column of Compare.
        </p>
      </main>
    );
  if (error)
    return (
      <main className={classes.message} role="alert">
        <p>The report could not be made: {error.message}</p>
      </main>
    );
  if (!source) return <main className={classes.message} aria-busy aria-label="Report" />;
  const report = composeReport(source);
  const draft: ReportDraft = { ...untouched, order: [], hidden: [], units: null, ...kept };
  return (
    <div className={classes.stage}>
      <main className={classes.desk} aria-label="Report">
        <ReportSheet report={writtenReport(report, draft, source, reportReader(job, units))} />
      </main>
      <DraftPane report={report} draft={draft} own={own} onChange={keep} />
    </div>
  );
}

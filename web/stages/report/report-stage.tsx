import { CloseJobButton } from '../../handover/close-job.tsx';
import { useCallback, useMemo, useRef, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { Job } from '../../../contract/job/records.ts';
import type { ReportDraft } from '../../../contract/report/report.ts';
import { composeReport } from '../../../core/report/compose-report.ts';
import { untouched } from '../../../core/report/drafted.ts';
import { reportReader, writtenReport } from '../../../core/report/written-report.ts';
import { WithJob } from '../../app/with-job.tsx';
import { SharedLinks } from '../../links/shared-links.tsx';
import { api } from '../../state/api.ts';
import { useChange } from '../../state/use-change.ts';
import { useStandard } from '../../job/use-standard.ts';
import { useUnits } from '../../units/use-own-units.tsx';
import { DraftPane } from './draft-pane.tsx';
import { KeptReport } from './kept-report.tsx';
import { ReportFile } from './report-file.tsx';
import { ReportSheet } from '../../report/report-sheet.tsx';
import classes from './report-stage.module.css';
import { useReportSource } from './use-report-source.ts';
import { Versions } from './versions.tsx';

/** The stage that closes the order of work: a finished report, what may be changed of it, and those that were kept. */
export function ReportStage() {
  return <WithJob>{(job) => <AskedReport key={job.id} job={job} />}</WithJob>;
}

/** The version that the address names, else the draft. */
function AskedReport({ job }: { job: Job }) {
  const [query] = useSearchParams();
  const asked = query.get('version');
  if (asked === null) return <ReportOf job={job} />;
  const version = job.reportVersions.find(({ number }) => String(number) === asked);
  if (version) return <KeptReport key={version.id} job={job} version={version} />;
  return (
    <main className={classes.message} role="alert">
      <h2>There is no version {asked.slice(0, 20)} of this report</h2>
      <p>
        It was taken away, or never kept. <Link to="?">Show the draft</Link>
      </p>
    </main>
  );
}

/**
 * The job's draft. A change that is still being sent stands in it until it is stored, so that the next change begins
 * from it.
 */
function useDraft(job: Job) {
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
  const stored = useCallback(() => sent.current, []);
  return { kept: mine ? mine.report : job.report, keep, stored };
}

function ReportOf({ job }: { job: Job }) {
  const own = useUnits();
  const standard = useStandard(job);
  const { kept, keep, stored } = useDraft(job);
  const units = kept?.units ?? own;
  const { source, error } = useReportSource(job, units.power);
  const made = useMemo(() => {
    if (!source) return undefined;
    const report = composeReport(source);
    const draft: ReportDraft = {
      ...untouched,
      order: [],
      hidden: [],
      figures: null,
      titles: {},
      notes: {},
      units: null,
      language: 'en',
      ...kept,
    };
    return { report, draft, written: writtenReport(report, draft, source, reportReader(job, units, draft.language)) };
  }, [source, kept, units, job]);
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
  if (!source || !made) return <main className={classes.message} aria-busy aria-label="Report" />;
  const { report, draft, written } = made;
  const view = { standard, units };
  return (
    <div className={classes.stage}>
      <main className={classes.desk} aria-label="Report" tabIndex={0}>
        <ReportSheet report={written} />
      </main>
      <DraftPane
        report={report}
        draft={draft}
        own={own}
        onChange={keep}
        files={
          <ReportFile
            report={written}
            pdf={{ path: `/jobs/${job.id}/report/pdf`, view }}
            stored={stored}
            curves={{ source, units, job }}
          />
        }
        versions={
          <>
            <Versions job={job} view={view} shown={undefined} stored={stored} />
            <SharedLinks job={job} view={view} />
            <CloseJobButton job={job} />
          </>
        }
      />
    </div>
  );
}

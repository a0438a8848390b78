import { keys } from '../../state/query-keys.ts';
import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { Link } from 'react-router';
import dayjs from 'dayjs';
import type { Job } from '../../../contract/job/records.ts';
import type { ReportVersion } from '../../../contract/report/report.ts';
import { standardIds, standards } from '../../../core/air/correction.ts';
import { changedSince, type ChangedSince } from '../../../core/report/changed-since.ts';
import { composeReport } from '../../../core/report/compose-report.ts';
import { untouched } from '../../../core/report/drafted.ts';
import { restsOn } from '../../../core/report/make-report.ts';
import { reportReader, versioned, writtenReport, type WrittenReport } from '../../../core/report/written-report.ts';
import { listed } from '../../../core/units/spoken.ts';
import { SharedLinks } from '../../links/shared-links.tsx';
import { api } from '../../state/api.ts';
import { ReportFile } from './report-file.tsx';
import { ReportSheet } from '../../report/report-sheet.tsx';
import classes from './report-stage.module.css';
import { useReportSource } from './use-report-source.ts';
import { Versions } from './versions.tsx';

interface KeptReportProps {
  job: Job;
  version: ReportVersion;
}

/** A report as it was on a day, and what would be written otherwise now. */
export function KeptReport({ job, version }: KeptReportProps) {
  const { data: whole, error } = useQuery({
    queryKey: keys.reportVersion(version.id),
    queryFn: () => api.reportVersion(version.id),
    staleTime: Infinity,
  });
  const standard = standardIds.find((id) => id === version.view.standard);
  const { source } = useReportSource(job, version.view.units.power, standard);
  const since = useMemo(() => {
    if (!whole || !source) return undefined;
    const draft = { ...untouched, ...whole.draft };
    const now = writtenReport(
      composeReport(source),
      draft,
      source,
      reportReader(job, version.view.units, draft.language),
    );
    const then = { written: asWritten(whole.written), restsOn: whole.restsOn };
    return changedSince(then, { written: now, restsOn: restsOn(source) });
  }, [whole, source, job, version]);
  if (error)
    return (
      <main className={classes.message} role="alert">
        <p>The kept report could not be shown: {error.message}</p>
      </main>
    );
  if (!whole) return <main className={classes.message} aria-busy aria-label="Report" />;
  const kept = versioned(asWritten(whole.written), version.number, whole.draft?.language);
  return (
    <div className={classes.stage}>
      <main className={classes.desk} aria-label="Report">
        <ReportSheet report={kept} />
      </main>
      <aside className={classes.pane} aria-label="Kept report">
        <ReportFile
          report={kept}
          pdf={{ path: `/report-versions/${version.id}/pdf`, view: {} }}
          stored={() => Promise.resolve()}
        />
        <section>
          <h2 className="heading">
            Version {version.number}, kept {dayjs(version.createdAt).format('D MMMM YYYY, HH:mm')}
          </h2>
          {version.note && <p className={classes.rests}>{version.note}</p>}
          <p className={classes.rests}>{restsWords(version)}</p>
          <p className={classes.rests} role="status">
            {since ? sinceWords(since) : 'Comparing it with today’s figures …'}
          </p>
          <Link to="?">Show the draft</Link>
        </section>
        <Versions job={job} view={version.view} shown={version.number} stored={() => Promise.resolve()} />
        <SharedLinks job={job} view={version.view} />
      </aside>
    </div>
  );
}

/** What the store holds is what core wrote. */
const asWritten = (written: { head: { about: string; when: string }; blocks: readonly object[] }) =>
  written as WrittenReport;

function restsWords({ restsOn: { arrived, delivered, smoothing, standard } }: ReportVersion): string {
  const id = standardIds.find((one) => one === standard);
  const runs = (side: { letter: string; runs: readonly { label: string }[] }) =>
    `${side.letter} (${side.runs.map(({ label }) => label).join(', ')})`;
  return `It rests on ${[...new Set([runs(delivered), runs(arrived)])].join(' against ')}; ${id ? standards[id].name : standard}, smoothing ${smoothing}.`;
}

function sinceWords({ blocks, runs, spread }: ChangedSince): string {
  if (blocks.length === 0) return 'Nothing has changed since: today it would say the same.';
  const sides = runs.map(
    ({ side, then, now }) => `Runs ${side}: ${then.join(', ') || 'none'} then, ${now.join(', ') || 'none'} now. `,
  );
  const learned = spread ? 'The shop knows the spread of repeats otherwise now, so intervals are others. ' : '';
  return `${sides.join('')}${learned}Today it would say otherwise: ${listed(blocks)}. This version stays as it is.`;
}

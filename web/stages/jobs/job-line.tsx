import dayjs from 'dayjs';
import relativeTime from 'dayjs/plugin/relativeTime.js';
import { Link } from 'react-router';
import type { JobSummary } from '../../../contract/job/records.ts';
import { difference } from '../../../core/sentence/sentence.ts';
import { GainStrip } from '../../setups/gain-strip.tsx';
import { useBayOfJob } from '../../state/bays.ts';
import { useLive } from '../../state/live.ts';
import { SeverityMark } from '../../ui/severity.tsx';
import { useOwnUnits } from '../../units/use-own-units.tsx';
import classes from './jobs-page.module.css';

dayjs.extend(relativeTime);

/** One job of the list in a line: car and owner, question, what it gave, what it waits for, when it was last touched. */
export function JobLine({ job }: { job: JobSummary }) {
  const bay = useBayOfJob(job.id);
  const several = useLive(({ bays }) => bays.length > 1);
  const stage = job.state === 'open' && job.runs > 0 ? 'compare' : 'brief';
  const counts = `${job.setups} setup${job.setups === 1 ? '' : 's'}, ${job.runs} run${job.runs === 1 ? '' : 's'}`;
  return (
    <li>
      <Link
        to={`/jobs/${job.id}/${stage}`}
        className={classes.job}
        data-closed={job.state === 'closed' || undefined}
        title={`${job.question || 'No question noted'}. ${counts}`}
      >
        <span className={classes.vehicle}>
          <b>{job.vehicle}</b>
          <small>{[job.owner, job.plate].filter(Boolean).join(' · ')}</small>
        </span>
        <span className={classes.question}>{job.question || 'No question noted'}</span>
        <Outcome job={job} />
        <span className={classes.waiting}>
          {bay
            ? several
              ? `on ${bay.name}, next: ${job.waiting}`
              : `next: ${job.waiting}`
            : job.state === 'closed'
              ? job.waiting
              : `waits for ${job.waiting}`}
        </span>
        <span className={classes.when} title={job.lastRunAt ?? job.createdAt}>
          {job.lastRunAt ? dayjs(job.lastRunAt).fromNow() : `booked ${dayjs(job.createdAt).fromNow()}`}
        </span>
      </Link>
    </li>
  );
}

/** What it came to, as its figures say: coloured only where that is shown. */
function Outcome({ job: { headline } }: { job: JobSummary }) {
  const { write } = useOwnUnits();
  if (!headline) return <span className={classes.outcome} />;
  const { gain, strip, broke, tests, notCovered } = headline;
  const called = gain?.claim !== null && gain?.claim !== undefined;
  return (
    <span className={classes.outcome}>
      {strip.rpm.length > 1 && (
        <span className={classes.strip}>
          <GainStrip rpm={Float64Array.from(strip.rpm)} gainKw={Float64Array.from(strip.kw)} called={called} />
        </span>
      )}
      {gain && (
        <span
          className={`number ${gain.claim ?? ''}`}
          title={`${headline.letter} against what arrived, mean over the first band that the runs cover`}
        >
          {write(difference(gain.kw, gain.halfWidthKw ?? NaN, 'kW', 1)).trim()}
        </span>
      )}
      {notCovered && <small className={classes.tests}>{notCovered}</small>}
      {!gain && !notCovered && tests && <small className={classes.tests}>{tests}</small>}
      {broke && (
        <small className={classes.broke} title={`${broke} went beyond a limit`}>
          <SeverityMark severity="stop" /> {broke}
        </small>
      )}
    </span>
  );
}

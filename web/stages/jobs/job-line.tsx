import dayjs from 'dayjs';
import relativeTime from 'dayjs/plugin/relativeTime.js';
import { Link } from 'react-router';
import type { JobSummary } from '../../../contract/records.ts';
import { useBayOfJob } from '../../state/bays.ts';
import { useLive } from '../../state/live.ts';
import classes from './jobs-page.module.css';

dayjs.extend(relativeTime);

/** One job of the list: the car, its question, what it is waiting for, when it was last touched. */
export function JobLine({ job }: { job: JobSummary }) {
  const bay = useBayOfJob(job.id);
  const several = useLive(({ bays }) => bays.length > 1);
  const stage = job.state === 'open' && job.runs > 0 ? 'compare' : 'brief';
  return (
    <li>
      <Link to={`/jobs/${job.id}/${stage}`} className={classes.job} data-closed={job.state === 'closed' || undefined}>
        <span className={classes.vehicle}>
          {job.vehicle}
          {bay && <i>{several ? `on the dyno of ${bay.name}` : 'on the dyno'}</i>}
        </span>
        <span className={classes.question}>{job.question || 'No question noted'}</span>
        <span className={classes.owner}>
          {job.owner}
          {job.plate && <small>{job.plate}</small>}
        </span>
        <span className={classes.waiting}>{job.state === 'closed' ? job.waiting : `waits for ${job.waiting}`}</span>
        <span className={classes.count}>
          {job.setups} setup{job.setups === 1 ? '' : 's'} · {job.runs} run{job.runs === 1 ? '' : 's'}
        </span>
        <span className={classes.when} title={job.lastRunAt ?? job.createdAt}>
          {job.lastRunAt ? `last run ${dayjs(job.lastRunAt).fromNow()}` : `booked ${dayjs(job.createdAt).fromNow()}`}
        </span>
      </Link>
    </li>
  );
}

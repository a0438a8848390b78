import type { Job } from '../../../contract/records.ts';
import { TunerTurn } from '../../bundles/tuner-turn.tsx';
import { JobConsents } from '../../consents/job-consents.tsx';
import { JobCosts } from '../../costs/job-costs.tsx';
import { WithJob } from '../../app/with-job.tsx';
import { Bands } from './bands.tsx';
import classes from '../../ui/columns.module.css';
import { CarSummary } from './car-summary.tsx';
import { FuelLedger } from './fuel-ledger.tsx';
import { InspectionList } from './inspection-list.tsx';
import { JobState } from './job-state.tsx';
import { Limits } from './limits.tsx';
import { Photos } from './photos.tsx';
import { Question } from './question.tsx';
import { Suspicions } from './suspicions.tsx';
import { Timeline } from './timeline.tsx';

/** The stage where a job's question, bounds and condition are written down, before and between runs. */
export function BriefStage() {
  return <WithJob>{(job) => <Brief key={job.id} job={job} />}</WithJob>;
}

function Brief({ job }: { job: Job }) {
  return (
    <main className={classes.stage} aria-label="Brief">
      <h1 className="seen-by-readers">Brief, {job.vehicle}</h1>
      <div className={classes.column}>
        <JobState job={job} />
        <Question job={job} />
        <Bands job={job} />
        <CarSummary job={job} />
      </div>
      <div className={classes.column}>
        <Limits job={job} />
        <InspectionList job={job} />
      </div>
      <div className={classes.column}>
        <Timeline job={job} />
        {job.tunerPackages.length > 0 && (
          <section>
            <h2 className="heading">Remote tuner</h2>
            <TunerTurn job={job} />
          </section>
        )}
        <FuelLedger job={job} />
        <Suspicions job={job} />
        <JobConsents job={job} />
        <JobCosts job={job} />
        <Photos job={job} />
      </div>
    </main>
  );
}

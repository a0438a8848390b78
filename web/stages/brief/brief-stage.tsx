import { SegmentedControl } from '@mantine/core';
import dayjs from 'dayjs';
import { Link, useSearchParams } from 'react-router';
import { burnsFuel } from '../../../core/engine/engine-kind.ts';
import { inspectionItems } from '../../../core/inspection/inspection-items.ts';
import { useKeys } from '../../keys/use-keys.ts';
import { useVehicle } from '../../state/queries.ts';
import own from './brief-stage.module.css';
import type { Job } from '../../../contract/job/records.ts';
import { TunerTurn } from '../../bundles/tuner-turn.tsx';
import { JobConsents } from '../../consents/job-consents.tsx';
import { JobCosts } from '../../costs/job-costs.tsx';
import { WithJob } from '../../app/with-job.tsx';
import { Bands } from './bands.tsx';
import classes from '../../ui/columns.module.css';
import { CarSummary } from './car-summary.tsx';
import { FuelLedger } from './fuel-ledger.tsx';
import { InspectionList } from './inspection-list.tsx';
import { BestRun } from './best-run.tsx';
import { BriefHead } from './brief-head.tsx';
import { Targets } from './targets.tsx';
import type { TargetFigures } from '../../../core/targets/target.ts';
import { useJobFigures } from '../../job/use-job-figures.ts';
import { JobState } from './job-state.tsx';
import { Limits } from './limits.tsx';
import { Photos } from './photos.tsx';
import { AskedQuestion, Question } from './question.tsx';
import { Suspicions } from './suspicions.tsx';
import { Timeline } from './timeline.tsx';

/** The stage where a job's question, bounds and condition are written down, before and between runs. */
export function BriefStage() {
  return <WithJob>{(job) => <Brief key={job.id} job={job} />}</WithJob>;
}

const views = ['plan', 'safety', 'history'] as const;

function Brief({ job }: { job: Job }) {
  const [address, setAddress] = useSearchParams();
  const view = views.find((one) => one === address.get('show')) ?? 'plan';
  const choose = (show: string) => setAddress(show === 'plan' ? {} : { show }, { replace: true });
  useKeys([
    { keys: ['1'], shown: '1', says: 'Show the plan', run: () => choose('plan') },
    { keys: ['2'], shown: '2', says: 'Show safety: inspection and consents', run: () => choose('safety') },
    { keys: ['3'], shown: '3', says: 'Show the history', run: () => choose('history') },
  ]);
  // Only the plan tells of them.
  const figures = useJobFigures(job, {}, view === 'plan');
  return (
    <main className={own.brief} aria-label="Brief">
      <h1 className="seen-by-readers">Brief, {job.vehicle}</h1>
      <header className={own.head}>
        <div className={own.question}>
          <AskedQuestion job={job} />
          <CarSummary job={job} />
        </div>
        <JobState job={job} />
        <SegmentedControl
          aria-label="What is shown of the brief"
          value={view}
          onChange={choose}
          data={[
            { value: 'plan', label: 'Plan' },
            { value: 'safety', label: safetyLabel(job) },
            { value: 'history', label: 'History' },
          ]}
        />
      </header>
      {view === 'plan' && <BriefHead job={job} figures={figures} />}
      {job.state === 'closed' && (
        <p className={own.closed}>The job is closed: its file is read only until it is reopened.</p>
      )}
      <fieldset className={own.all} disabled={job.state === 'closed'} aria-label={view}>
        <div className={classes.stage}>
          {view === 'plan' && <Plan job={job} targets={figures?.targets} />}
          {view === 'safety' && <Safety job={job} />}
          {view === 'history' && <History job={job} />}
        </div>
      </fieldset>
    </main>
  );
}

/** With how much of it nobody has looked at, and what failed. */
function safetyLabel(job: Job): string {
  const failed = job.inspections.filter(({ outcome }) => outcome === 'fail').length;
  if (failed > 0) return `Safety, ${failed} failed`;
  const looked = new Set(job.inspections.flatMap(({ key, outcome }) => (outcome === 'open' ? [] : [key])));
  const open = inspectionItems(job).filter(
    ({ key, part }) => (part === 'car' || part === 'mounting') && !looked.has(key),
  ).length;
  return open > 0 ? `Safety, ${open} open` : 'Safety';
}

/** The question, what is wanted of it, what bounds it, and what it burns. */
function Plan({ job, targets }: { job: Job; targets: readonly TargetFigures[] | undefined }) {
  return (
    <>
      <div className={classes.column}>
        <Question job={job} />
      </div>
      <div className={classes.column}>
        <Targets job={job} figures={targets} />
        <Bands job={job} />
      </div>
      <div className={classes.column}>
        <Limits job={job} />
        {(burnsFuel(job.car.ignition) || job.fuelEntries.length > 0) && <FuelLedger job={job} />}
        <Tuner job={job} />
      </div>
    </>
  );
}

/** What is looked at before a run and put back after it, and what the owner signed. */
function Safety({ job }: { job: Job }) {
  return (
    <>
      <div className={classes.column}>
        <InspectionList job={job} parts={['car']} />
      </div>
      <div className={classes.column}>
        <InspectionList job={job} parts={['mounting', 'put back']} />
      </div>
      <div className={classes.column}>
        <JobConsents job={job} />
        <InspectionList job={job} parts={['hand-over']} />
      </div>
    </>
  );
}

/** What happened, what is suspected, what it came to, and earlier visits. */
function History({ job }: { job: Job }) {
  return (
    <>
      <div className={classes.column}>
        <Timeline job={job} />
      </div>
      <div className={classes.column}>
        <BestRun job={job} />
        <Suspicions job={job} />
        <Photos job={job} />
        <EarlierVisits job={job} />
      </div>
      <div className={classes.column}>
        <JobCosts job={job} />
        <Tuner job={job} />
      </div>
    </>
  );
}

function Tuner({ job }: { job: Job }) {
  if (job.tunerPackages.length === 0) return null;
  return (
    <section>
      <h2 className="heading">Remote tuner</h2>
      <TunerTurn job={job} />
    </section>
  );
}

/** Other jobs of the same car, and what is fitted to it. */
function EarlierVisits({ job }: { job: Job }) {
  const { data: vehicle } = useVehicle(job.vehicleId);
  const others = vehicle?.jobs.filter(({ id }) => id !== job.id) ?? [];
  return (
    <section>
      <h2 className="heading">The car before</h2>
      {others.length === 0 && <p className="soft">It was not here before.</p>}
      <ul className={own.visits}>
        {others.map(({ id, question, createdAt, lastRunAt }) => (
          <li key={id}>
            <Link to={`/jobs/${id}/brief`}>{question || 'No question noted'}</Link>
            <small>{dayjs(lastRunAt ?? createdAt).format('D MMM YYYY')}</small>
          </li>
        ))}
      </ul>
      {vehicle && vehicle.parts.length > 0 && (
        <p className="soft">
          Fitted: {vehicle.parts.map(({ name, knowledge }) => `${name} (${knowledge})`).join(', ')}
        </p>
      )}
    </section>
  );
}

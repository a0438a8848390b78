import { jobConsents } from '../../../../core/consents/asked-consents.ts';
import { useConsentTemplates } from '../../../consents/job-consents.tsx';
import { Link } from 'react-router';
import type { Job, Setup } from '../../../../contract/job/records.ts';
import { Cautions } from '../../../live/cautions.tsx';
import { usePreferences } from '../../../state/preferences.ts';
import { inspectionItems } from '../../../../core/inspection/inspection-items.ts';
import { FindingLine, FindingList } from '../../../ui/severity.tsx';
import classes from './before-run.module.css';
import { HeatNow } from './heat-now.tsx';
import { LimitsNow } from '../../../live/limits-now.tsx';
import { RepeatPlan, RunAdvice } from './repeat-plan.tsx';
import type { HeatToReady } from '../../../heat/use-cooling.ts';
import type { JobFigures } from '../../../../core/figures/job-figures.ts';

interface BeforeRunProps {
  job: Job;
  setup: Setup;
  baseline: Setup;
  figures: JobFigures | undefined;
  heat: HeatToReady;
  recording: boolean;
}

/** Beside the lanes: the cautions, once; before a run its plan and the heat, during one the limits. */
export function BeforeRun({ recording, ...between }: BeforeRunProps) {
  const cautionsRead = usePreferences((state) => state.cautionsRead);
  if (recording) return <LimitsNow />;
  return cautionsRead ? <BetweenRuns {...between} /> : <Cautions />;
}

function BetweenRuns({ job, setup, baseline, figures, heat }: Omit<BeforeRunProps, 'recording'>) {
  return (
    <>
      <FailedItems job={job} />
      <UnsignedConsents job={job} />
      <RepeatPlan job={job} setup={setup} heat={heat} />
      <HeatNow heat={heat} />
      <RunAdvice job={job} setup={setup} baseline={baseline} figures={figures} />
    </>
  );
}

/** What nobody has signed blocks nothing, and stays in sight until the first run. */
function UnsignedConsents({ job }: { job: Job }) {
  const { data: templates = [] } = useConsentTemplates();
  const missing = jobConsents(job, templates).filter(({ isMissing }) => isMissing);
  if (missing.length === 0 || job.runs.length > 0) return null;
  return (
    <FindingList>
      <FindingLine severity="mind">
        Not signed: {missing.map(({ template }) => template.title).join(', ')}.{' '}
        <Link to={`/jobs/${job.id}/brief?show=safety`}>Sign in Brief</Link>
      </FindingLine>
    </FindingList>
  );
}

/** What failed in the inspection blocks nothing, and stays in sight. */
function FailedItems({ job }: { job: Job }) {
  const failed = job.inspections.filter(({ outcome }) => outcome === 'fail');
  if (failed.length === 0) return null;
  const texts = inspectionItems(job);
  return (
    <section className={classes.failed}>
      <h2 className="heading">Failed in the inspection</h2>
      <FindingList>
        {failed.map(({ id, key, note }) => (
          <FindingLine key={id} severity="stop">
            {texts.find((item) => item.key === key)?.text ?? key}
            {note && `: ${note}`}
          </FindingLine>
        ))}
      </FindingList>
    </section>
  );
}

import { Button } from '@mantine/core';
import type { Job, Setup } from '../../../../contract/records.ts';
import { usePreferences } from '../../../state/preferences.ts';
import { itemsOf } from '../../../job/inspection-items.ts';
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
      <RepeatPlan job={job} setup={setup} heat={heat} />
      <HeatNow heat={heat} />
      <RunAdvice job={job} setup={setup} baseline={baseline} figures={figures} />
    </>
  );
}

function Cautions() {
  return (
    <section className={classes.cautions}>
      <h2>Before the first run</h2>
      <p>
        Dyno runs can kill. People clear of rollers, straps and the line of the tyres; straps or hub bolts checked now,
        and again after warm-up, slip or hop.
      </p>
      <p>
        Extraction on and carbon-monoxide alarm working; fire extinguisher at hand; ears protected; tyres rated for the
        speed, whole and free of debris; mind fans, shafts and hot parts. Agree on the signal to stop.
      </p>
      <p>
        Suvok records and advises. It protects no one and is no emergency stop. The makers’ procedures, licensed
        practice and local law come first.
      </p>
      <Button variant="default" size="md" onClick={() => usePreferences.setState({ cautionsRead: true })}>
        Read and understood
      </Button>
    </section>
  );
}

/** What failed in the inspection blocks nothing, and stays in sight. */
function FailedItems({ job }: { job: Job }) {
  const failed = job.inspections.filter(({ outcome }) => outcome === 'fail');
  if (failed.length === 0) return null;
  const texts = itemsOf(job);
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

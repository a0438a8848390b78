import { Button } from '@mantine/core';
import type { Job, Setup } from '../../../contract/records.ts';
import type { JobFigures } from '../../../core/gain/job-figures.ts';
import { usePreferences } from '../../state/preferences.ts';
import { itemsOf } from '../brief/inspection-items.ts';
import { FindingLine, FindingList } from '../../ui/severity.tsx';
import classes from './before-run.module.css';
import { HeatNow } from './heat-now.tsx';
import { LimitsNow } from './limits-now.tsx';
import { RepeatPlan, RunAdvice } from './repeat-plan.tsx';
import type { LiveLimits } from './use-watched-limits.ts';

interface BeforeRunProps {
  job: Job;
  setup: Setup;
  baseline: Setup;
  figures: JobFigures | undefined;
  recording: boolean;
  limits: LiveLimits['limits'];
}

/** Beside the lanes: the cautions, once; before a run its plan and the heat, during one the limits. */
export function BeforeRun({ job, setup, baseline, figures, recording, limits }: BeforeRunProps) {
  const cautionsRead = usePreferences((state) => state.cautionsRead);
  if (recording) return <LimitsNow limits={limits} />;
  if (!cautionsRead) return <Cautions />;
  return (
    <>
      <FailedItems job={job} />
      <RepeatPlan job={job} setup={setup} baseline={baseline} />
      <HeatNow job={job} baseline={baseline} />
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

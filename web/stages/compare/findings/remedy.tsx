import { Button } from '@mantine/core';
import type { ChangeView } from '../view/view.ts';
import type { JobFigures } from '../../../../core/figures/job-figures.ts';
import type { Job, Run } from '../../../../contract/job/records.ts';
import type { Unlikeness } from '../../../../core/likeness/run-conditions.ts';
import { written } from '../../../../core/sentence/sentence.ts';
import { useSetAside } from '../../../setups/use-set-aside.tsx';
import type { CompareView } from '../view/view-address.ts';

interface RemedyProps {
  job: Job;
  finding: Unlikeness;
  figures: JobFigures;
  view: CompareView;
  change: ChangeView;
}

/** What can be done here about a comparison that is not like for like, as a press. */
export function Remedy({ job, finding, figures, view, change }: RemedyProps) {
  const { id, labels = [] } = finding;
  const power = figures.comparison?.power;
  if (id === 'other-range' && power) {
    const band: [number, number] = [Math.ceil(power.fromRpm), Math.floor(power.toRpm)];
    const [only] = view.bands;
    if (view.bands.length === 1 && only?.fromRpm === band[0] && only.toRpm === band[1]) return null;
    return <Press text="Limit to the common range" onPress={() => change({ band: band.join('-') }, false)} />;
  }
  const short = id === 'short-run' && job.runs.find(({ label }) => label === labels[0]);
  if (short) return <SetShortAside run={short} reason={written(finding.message)} />;
  if (id === 'heat-state') {
    const ready = figures.runs.filter(
      (run) =>
        run.counted &&
        run.setupId === view.test.id &&
        !run.curve.checks.some((check) => check.id === 'start-temperature'),
    );
    const against = figures.runs.filter((run) => run.counted && run.setupId === view.against.id);
    const all = figures.runs.filter((run) => run.counted && run.setupId === view.test.id);
    if (ready.length === 0 || ready.length === all.length || view.runs) return null;
    const labels = (runs: typeof ready) => runs.map(({ label }) => label).join('.');
    return (
      <Press
        text={`Use ready-state runs only (${ready.map(({ label }) => label).join(', ')})`}
        onPress={() => change({ runs: labels(ready), againstRuns: labels(against) }, false)}
      />
    );
  }
  return null;
}

function SetShortAside({ run, reason }: { run: Run; reason: string }) {
  const setAside = useSetAside(run);
  return <Press text={`Set ${run.label} aside`} onPress={() => void setAside(reason)} />;
}

function Press({ text, onPress }: { text: string; onPress: () => void }) {
  return (
    <Button size="compact-md" variant="default" mt={6} onClick={onPress}>
      {text}
    </Button>
  );
}

import { Button } from '@mantine/core';
import type { ChangeView } from '../view/view.ts';
import type { JobFigures } from '../../../../core/figures/job-figures.ts';
import type { CompareView } from '../view/view-address.ts';

interface RemedyProps {
  id: string;
  figures: JobFigures;
  view: CompareView;
  change: ChangeView;
}

/** What can be done here about a comparison that is not like for like, as a press. */
export function Remedy({ id, figures, view, change }: RemedyProps) {
  const power = figures.comparison?.power;
  if (id === 'other-range' && power) {
    const band: [number, number] = [Math.ceil(power.fromRpm), Math.floor(power.toRpm)];
    const [only] = view.bands;
    if (view.bands.length === 1 && only?.fromRpm === band[0] && only.toRpm === band[1]) return null;
    return <Press text="Limit to the common range" onPress={() => change({ band: band.join('-') }, false)} />;
  }
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

function Press({ text, onPress }: { text: string; onPress: () => void }) {
  return (
    <Button size="compact-md" variant="default" mt={6} onClick={onPress}>
      {text}
    </Button>
  );
}

import { useHotkeys } from '@mantine/hooks';
import type { Job } from '../../../../contract/records.ts';
import { plainSentence } from '../../../../core/wording/plain-sentence.ts';
import { lineOf } from '../../../../core/setup/difference.ts';
import { setupColour } from '../../../setups/setup-colour.ts';
import { CompareLanes } from '../lanes/compare-lanes.tsx';
import classes from './presentation.module.css';
import type { SceneContent } from '../scene/scene.ts';
import type { ChangeView } from '../view/view.ts';
import type { JobFigures } from '../../../../core/figures/job-figures.ts';
import type { CompareView } from '../view/view-address.ts';

interface PresentationProps {
  job: Job;
  figures: JobFigures;
  /** The lanes, where there are any. */
  scene: SceneContent | undefined;
  view: CompareView;
  change: ChangeView;
}

/** For showing the owner: the lanes and one sentence in plain words, from arrived to delivered by the arrow keys. */
export function Presentation({ job, figures, scene, view, change }: PresentationProps) {
  const ran = job.setups.filter((setup) => figures.setups.some((figuresOf) => figuresOf.setupId === setup.id));
  const goal = job.setups.find((setup) => setup.id === job.deliveredSetupId) ?? ran.at(-1);
  const line = goal ? lineOf(job.setups, goal.id).filter((setup) => ran.includes(setup)) : ran;
  const at = Math.max(
    0,
    line.findIndex((setup) => setup.id === view.test.id),
  );
  const first = line[0];
  const go = (by: number) => {
    const next = line[Math.min(line.length - 1, Math.max(0, at + by))];
    if (next && first)
      change({
        setup: next.letter,
        against: first.letter,
        baseline: first.letter,
        from: undefined,
        runs: undefined,
        againstRuns: undefined,
      });
  };
  const leave = () => {
    if (document.fullscreenElement) void document.exitFullscreen();
    change({ present: undefined });
  };
  useHotkeys([
    ['ArrowRight', () => go(1)],
    ['ArrowLeft', () => go(-1)],
    ['Escape', leave],
  ]);
  const { comparison } = figures;
  const place =
    at === 0
      ? 'As it arrived'
      : view.test.id === job.deliveredSetupId
        ? 'As delivered'
        : `Step ${at} of ${line.length - 1}`;
  const sentence =
    at === 0 || !comparison
      ? `${view.test.letter} is the car as it came: what every step is measured against.`
      : plainSentence(view.test.letter, view.against.letter, comparison.power, comparison.withheld, view.powerUnit);
  return (
    <div className={classes.page} role="dialog" aria-label="Presentation">
      <header className={classes.head}>
        <i style={{ background: setupColour(view.test.letter, at === 0) }}>{view.test.letter}</i>
        <div>
          <small>
            {job.vehicle} · {place}
          </small>
          <h1>{view.test.change}</h1>
        </div>
        <nav aria-label="Steps">
          <button onClick={() => go(-1)} disabled={at === 0} aria-label="The step before">
            ←
          </button>
          <button onClick={() => go(1)} disabled={at >= line.length - 1} aria-label="The next step">
            →
          </button>
          <button onClick={leave}>Leave</button>
        </nav>
      </header>
      <p className={classes.sentence} data-testid="plain-sentence" aria-live="polite">
        {sentence}
        {figures.estimate !== undefined && ` Estimated for the crank: ${figures.estimate}.`}
      </p>
      <div className={classes.lanes}>
        {scene && <CompareLanes scene={scene} bands={job.bands} view={view} change={change} presenting />}
      </div>
    </div>
  );
}

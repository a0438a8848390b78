import { useOwnUnits } from '../../../units/use-own-units.tsx';
import { useHotkeys } from '@mantine/hooks';
import type { Job } from '../../../../contract/job/records.ts';
import { plainSentence } from '../../../../core/wording/plain-sentence.ts';
import { lineOf } from '../../../../core/setup/difference.ts';
import { FindingLine, FindingList } from '../../../ui/severity.tsx';
import { setupColour } from '../../../../core/scene/setup-look.ts';
import { CompareLanes } from '../lanes/compare-lanes.tsx';
import classes from './presentation.module.css';
import type { SceneContent } from '../../../../core/scene/scene.ts';
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

/** What stands against a figure is told in so many lines; the gravest come first. */
const mostCaveats = 3;

/** For showing the owner: the lanes and one sentence in plain words, from arrived to delivered by the arrow keys. */
export function Presentation({ job, figures, scene, view, change }: PresentationProps) {
  const ran = job.setups.filter((setup) => figures.setups.some((figuresOf) => figuresOf.setupId === setup.id));
  const goal = job.setups.find((setup) => setup.id === job.deliveredSetupId) ?? ran.at(-1);
  const line = goal ? lineOf(job.setups, goal.id).filter((setup) => ran.includes(setup)) : ran;
  const at = line.findIndex((setup) => setup.id === view.test.id);
  const isOff = at < 0;
  const first = line[0];
  const go = (by: number) => {
    // From a setup that is not on the way from arrived to delivered, the keys lead back to its end.
    const next = isOff ? line.at(-1) : line[Math.min(line.length - 1, Math.max(0, at + by))];
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
  const { write } = useOwnUnits();
  const place = isOff
    ? `Not on the way to ${goal?.letter ?? 'the last setup'}`
    : at === 0
      ? 'As it arrived'
      : view.test.id === job.deliveredSetupId
        ? 'As delivered'
        : `Step ${at} of ${line.length - 1}`;
  const sentence =
    at === 0
      ? `${view.test.letter} is the car as it came: what every step is measured against.`
      : comparison
        ? plainSentence(view.test.letter, view.against.letter, comparison.power, comparison.withheld, view.units.power)
        : `${view.test.letter} cannot be compared: ${figures.noComparison ?? 'its figures are being made'}`;
  const caveats = at === 0 ? [] : (comparison?.caveats ?? []).slice(0, mostCaveats);
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
          <button onClick={() => go(1)} disabled={!isOff && at >= line.length - 1} aria-label="The next step">
            →
          </button>
          <button onClick={leave}>Leave</button>
        </nav>
      </header>
      <p className={classes.sentence} data-testid="plain-sentence" aria-live="polite">
        {sentence}
        {figures.estimate !== undefined && ` Estimated for the crank: ${figures.estimate}.`}
      </p>
      {caveats.length > 0 && (
        <div className={classes.caveats}>
          <FindingList>
            {caveats.map(({ severity, text }) => (
              <FindingLine key={write(text)} severity={severity}>
                {write(text)}
              </FindingLine>
            ))}
          </FindingList>
        </div>
      )}
      <div className={classes.lanes}>
        {scene && <CompareLanes scene={scene} job={job} view={view} change={change} presenting />}
      </div>
    </div>
  );
}

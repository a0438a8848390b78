import { sampleAt } from '../numerics/sample-at.ts';
import type { SetupFigures } from '../figures/pairs/setup-figures.ts';
import { setupColour, setupDash } from './setup-look.ts';
import { placing, type Placing } from './lane-axis.ts';
import { isHidden, isWanted } from './scene-view.ts';
import type { ComparisonFigures } from '../figures/pairs/comparison-figures.ts';
import type { JobFigures } from '../figures/job-figures.ts';
import type { DrawnSetup, SceneView } from './scene-view.ts';

/** A setup as the lanes draw it. */
export interface Shown {
  setup: DrawnSetup;
  /** As the gutter calls it. */
  name: string;
  figures: Pick<SetupFigures, 'power' | 'torque' | 'travel'>;
  colour: string;
  dash: number[];
  isTest: boolean;
  /** Where its mean's engine speeds stand on the lanes' axis. */
  place: Placing;
}

type Unplaced = Omit<Shown, 'place'>;

/**
 * The setups compared, the baseline and what was asked for beside them, less
 * what was hidden; the test last, so that it lies on top.
 */
export function shownSetups(job: { setups: readonly DrawnSetup[] }, figures: JobFigures, view: SceneView): Shown[] {
  const only = (view.runs ?? view.againstRuns) && figures.comparison;
  const all = only ? shownRuns(figures, only, view) : wholeSetups(job, figures, view);
  const shown = all.filter(({ setup }) => !isHidden(setup, view));
  const zeroRpm = startOfAll(shown);
  return shown.map((line) => ({ ...line, place: placing(view.axis, line.figures.travel, zeroRpm) }));
}

/** The lowest engine speed that all lines cover: time counts from there. */
export function startOfAll(shown: readonly Pick<Shown, 'figures'>[]): number {
  return Math.max(...shown.map(({ figures }) => sampleAt(figures.power.engineSpeedRpm, 0)));
}

function wholeSetups(job: { setups: readonly DrawnSetup[] }, figures: JobFigures, view: SceneView): Unplaced[] {
  return [...job.setups, ...(view.elsewhere ? [view.against] : [])]
    .filter((setup) => isWanted(setup, view))
    .flatMap((setup) => {
      const setupFigures = figures.setups.find((candidate) => candidate.setupId === setup.id);
      return setupFigures ? [unplaced(setup, setup.letter, setupFigures, view)] : [];
    })
    .concat(figures.borrowed ? [unplaced(view.against, view.against.letter, figures.borrowed, view)] : [])
    .sort((a, b) => Number(a.isTest) - Number(b.isTest));
}

function unplaced(setup: DrawnSetup, name: string, figures: Unplaced['figures'], view: SceneView): Unplaced {
  const elsewhere = view.elsewhere && setup.id === view.against.id;
  return {
    setup,
    name,
    figures,
    colour: elsewhere ? 'var(--ink)' : setupColour(setup.letter, setup.id === view.baseline.id),
    dash: elsewhere ? elsewhereDash : setupDash(setup.letter),
    isTest: setup.id === view.test.id,
  };
}

/** Ink, for it is what is compared with; dashed, for it is not of this job. */
const elsewhereDash = [10, 5];

/** Only some runs of either setup: their means as the comparison made them. */
function shownRuns({ setups }: JobFigures, { power, torque }: ComparisonFigures, view: SceneView): Unplaced[] {
  const side = (which: 'test' | 'baseline', setup: DrawnSetup): Unplaced['figures'] => ({
    power: { engineSpeedRpm: power.engineSpeedRpm, values: power[which] },
    torque: { engineSpeedRpm: torque.engineSpeedRpm, values: torque[which] },
    ...only('travel', setups.find(({ setupId }) => setupId === setup.id)?.travel),
  });
  const name = (setup: DrawnSetup, runs: readonly string[] | undefined) => runs?.join(' ') ?? setup.letter;
  return [
    {
      ...unplaced(view.against, name(view.against, view.againstRuns), side('baseline', view.against), view),
      colour: 'var(--ink)',
      isTest: false,
    },
    {
      ...unplaced(view.test, name(view.test, view.runs), side('test', view.test), view),
      colour: setupColour(view.test.letter, false),
      isTest: true,
    },
  ];
}

function only<Key extends string, Value>(key: Key, value: Value | undefined): { [K in Key]?: Value } {
  return value === undefined ? {} : ({ [key]: value } as { [K in Key]?: Value });
}

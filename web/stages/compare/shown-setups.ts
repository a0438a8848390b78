import type { Job, Setup } from '../../../contract/records.ts';
import type { ComparisonFigures } from '../../../core/gain/job-comparison.ts';
import type { JobFigures } from '../../../core/gain/job-figures.ts';
import type { SetupFigures } from '../../../core/gain/setup-figures.ts';
import type { LaneLine } from '../../charts/lane.tsx';
import { setupColour } from '../../setups/setup-colour.ts';
import type { CompareView } from './view.ts';

/** A setup as the lanes draw it. */
export interface Shown {
  setup: Setup;
  /** As the gutter calls it. */
  name: string;
  figures: Pick<SetupFigures, 'power' | 'torque'>;
  colour: string;
  isTest: boolean;
}

/** The setup compared, the one it is compared with, and the baseline; the test last, so that it lies on top. */
export function shownSetups(job: Job, figures: JobFigures, view: CompareView): Shown[] {
  if ((view.runs ?? view.againstRuns) && figures.comparison) return shownRuns(figures.comparison, view);
  return job.setups
    .filter((setup) => [view.test.id, view.against.id, view.baseline.id].includes(setup.id))
    .flatMap((setup) => {
      const one = figures.setups.find((candidate) => candidate.setupId === setup.id);
      const isTest = setup.id === view.test.id;
      return one
        ? [
            {
              setup,
              name: setup.letter,
              figures: one,
              colour: setupColour(setup.letter, setup.id === view.baseline.id),
              isTest,
            },
          ]
        : [];
    })
    .sort((a, b) => Number(a.isTest) - Number(b.isTest));
}

/** Only some runs of either setup: their means as the comparison made them. */
function shownRuns({ power, torque }: ComparisonFigures, view: CompareView): Shown[] {
  const side = (which: 'test' | 'baseline') => ({
    power: { engineSpeedRpm: power.engineSpeedRpm, values: power[which] },
    torque: { engineSpeedRpm: torque.engineSpeedRpm, values: torque[which] },
  });
  const name = (setup: Setup, runs: readonly string[] | undefined) => runs?.join(' ') ?? setup.letter;
  return [
    {
      setup: view.against,
      name: name(view.against, view.againstRuns),
      figures: side('baseline'),
      colour: 'var(--ink)',
      isTest: false,
    },
    {
      setup: view.test,
      name: name(view.test, view.runs),
      figures: side('test'),
      colour: setupColour(view.test.letter, false),
      isTest: true,
    },
  ];
}

/** Whole 500s around the speeds of all setups shown, rpm. */
export function speedRange(speeds: Float64Array[]): readonly [number, number] {
  const least = Math.min(...speeds.map((values) => values[0]!));
  const most = Math.max(...speeds.map((values) => values[values.length - 1]!));
  return [Math.floor((least - 50) / 500) * 500, Math.ceil((most + 50) / 500) * 500];
}

/** What a lane is drawn from; stays the same while the crosshair moves. */
export interface LaneDrawn {
  range: readonly [number, number];
  view: CompareView;
  shown: Shown[];
  figures: JobFigures;
}

/** What every lane of the stage is given. */
export interface LaneCommon extends LaneDrawn {
  atRpm: number | undefined;
}

/** The band as a lane shades it. */
export const bandOf = (view: CompareView) => (view.band ? { fromRpm: view.band[0], toRpm: view.band[1] } : undefined);

/** Least and greatest value of a lane's lines within the speeds shown. */
export function extent(lines: readonly LaneLine[], range?: readonly [number, number]): [number, number] {
  let least = Infinity;
  let most = -Infinity;
  for (const { rpm, values } of lines) {
    for (let index = 0; index < values.length; index++) {
      if (range && (rpm[index]! < range[0] || rpm[index]! > range[1])) continue;
      least = Math.min(least, values[index]!);
      most = Math.max(most, values[index]!);
    }
  }
  return least <= most ? [least, most] : [0, 1];
}

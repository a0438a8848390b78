import { makeJobFigures } from '../figures/make-job-figures.ts';
import { readingOf, type Reading } from '../figures/runs/reading.ts';
import type { FiguresView } from '../figures/request/figures-request.ts';
import { reportSides } from '../report/report-request.ts';
import type { ReportSource, ReportedJob, ReportedRun } from '../report/reported-job.ts';
import { chance } from './chance.ts';
import { generatedRun } from './generated-run.ts';
import { exampleRuns, reportedExample } from './reported-example.ts';
import { usualTorque } from './test-car.ts';

/** Pulls by how much more they make than the usual one; the last ones end early, or begin late. */
const pulls: readonly (readonly [factor: number, cut: 'top' | 'bottom' | undefined])[] = [
  [0.985, undefined],
  [0.994, undefined],
  [1, undefined],
  [1.003, undefined],
  [1.008, undefined],
  [1.03, undefined],
  [1.06, undefined],
  [1.1, undefined],
  [1, 'top'],
  [1.05, 'top'],
  [1.02, 'bottom'],
];

let made: Reading[] | undefined;
/** What the pulls hold, made once: a job's runs are drawn from them. */
function readings(): Reading[] {
  made ??= pulls.map(([factor, cut], index) =>
    readingOf(
      exampleRuns[0]!,
      generatedRun({
        seed: 400 + index,
        stepHz: 500,
        speedNoise: 0.008,
        drumTorque: (rpm) => factor * usualTorque(rpm),
        ...(cut === 'top' && { recordedToRpm: 5200 }),
        ...(cut === 'bottom' && { fromRpm: 3300 }),
      }),
    ),
  );
  return made;
}

/**
 * A job as a shop's day brings it, drawn by the seed: two to four setups with
 * one to four runs each in any order, some hot, cut short or on another dyno, a
 * diesel now and then, bands that runs cover or do not, a decision or none, and
 * on some days a rise from run to run.
 */
export function drawnJob(seed: number): ReportSource {
  const random = chance(seed * 131 + 17);
  const of = <T>(...choices: readonly T[]): T => choices[Math.floor(random() * choices.length)]!;
  const count = of(2, 2, 3, 4);
  const letters = ['A', 'B', 'C', 'D'].slice(0, count);
  const dirty = of('clean', 'hot', 'cut', 'two dynos', 'rising', 'another day', 'diesel', 'no air');
  const levels = letters.map(() => of(2, 2, 3, 4, 5, 6, 7));
  const order = letters.flatMap((_, setup) => Array.from({ length: of(1, 2, 3, 3, 4) }, () => setup));
  if (of(true, false)) order.sort(() => random() - 0.5);
  const numbers = new Map<number, number>();
  const source = readings();
  const kept = new Map<number, Reading>();
  const runs = order.map((setup, place): ReportedRun => {
    const id = place + 1;
    const number = (numbers.get(setup) ?? 0) + 1;
    numbers.set(setup, number);
    const rising = dirty === 'rising' ? Math.floor(place / 3) : 0;
    const short = dirty === 'cut' && random() < 0.3;
    const pull = short ? of(8, 9, 10) : Math.max(0, Math.min(7, levels[setup]! + of(-1, 0, 0, 0, 1) + rising));
    kept.set(id, source[pull]!);
    const nextDay = dirty === 'another day' && setup > 0 ? 24 * 3600e3 : 0;
    return {
      ...exampleRuns[0]!,
      id,
      setupId: setup + 1,
      label: `${letters[setup]}${number}`,
      startedAt: new Date(Date.UTC(2026, 4, 4, 9, 8 * place) + nextDay).toISOString(),
      device: dirty === 'two dynos' && setup === 1 ? 'second' : 'first',
      air: dirty === 'no air' && random() < 0.2 ? null : exampleRuns[0]!.air,
      startTemperatures: { oilTemperature: dirty === 'hot' && setup > 0 ? 118 : 88 + 2 * random() },
    };
  });
  const ignition = dirty === 'diesel' ? 'compression' : 'spark';
  const bands = of(
    [],
    [{ name: 'top', fromRpm: 4500, toRpm: 5100 }],
    [
      { name: 'pull-in', fromRpm: 2600, toRpm: 3600 },
      { name: 'top', fromRpm: 4500, toRpm: 6000 },
    ],
  );
  const standard = ignition === 'compression' ? 'iso-1585-ci' : 'sae-j1349';
  const job: ReportedJob = {
    ...reportedExample,
    runs,
    setups: letters.map((letter, index) => ({
      id: index + 1,
      letter,
      parentId: index === 0 ? null : of(1, index),
      change: index === 0 ? 'As arrived' : `Change ${letter}`,
      items: [],
      decision: index === 0 ? null : of('keep', 'go back', null),
    })),
    deliveredSetupId: of(null, count),
    bestRunId: null,
    bands,
    targets: [
      { id: 1, quantity: 'peak power', fromRpm: null, toRpm: null, value: of(55, 58, 62), scale: 'wheels', standard },
    ],
    tuneFiles: [],
    question: '',
  };
  const { arrivedId, deliveredId } = reportSides(job);
  const view: FiguresView = {
    standard,
    share: 1,
    smoothing: 300,
    baselineId: 1,
    againstId: arrivedId,
    testId: deliveredId,
    everyPair: true,
    beside: 'steps',
    gridRpm: 100,
    powerUnit: 'kW',
  };
  const figures = makeJobFigures(
    {
      job: {
        vehicle: job.vehicle,
        ignition,
        setups: job.setups,
        runs,
        baseline: null,
        limits: of([], [{ quantity: 'torque' as const, value: 117, scale: 'wheels' as const }]),
        bands,
        targets: job.targets,
      },
      view,
      learned: of(undefined, { spread: { share: 0.003, df: 20, from: 'learned' as const, repeats: 30 } }),
    },
    kept,
  );
  return { job, figures, view: { standard, share: 1, auto: false } };
}

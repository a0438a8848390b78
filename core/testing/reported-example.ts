import type { FiguresView } from '../figures/request/figures-request.ts';
import { makeJobFigures } from '../figures/make-job-figures.ts';
import { readingOf, type Reading } from '../figures/runs/reading.ts';
import { reportSides } from '../report/report-request.ts';
import type { ReportSource, ReportedJob, ReportedRun } from '../report/reported-job.ts';
import { generatedRun } from './generated-run.ts';
import { testDyno, usualTorque } from './test-car.ts';

/** Three runs of A, three of B that make 3 % more, one of C that makes nothing. */
const factors = [0.998, 1, 1.002, 1.028, 1.03, 1.032, 1.03];
const letters = ['A', 'A', 'A', 'B', 'B', 'B', 'C'];
export const exampleRuns = factors.map((_, index): ReportedRun => ({
  id: index + 1,
  setupId: letters[index]!.charCodeAt(0) - 64,
  label: `${letters[index]!}${index < 3 ? index + 1 : index < 6 ? index - 2 : 1}`,
  kind: 'power',
  state: 'sealed',
  setAsideReason: null,
  startedAt: new Date(Date.UTC(2026, 4, 14, 9, 8 * index)).toISOString(),
  endedAt: new Date(Date.UTC(2026, 4, 14, 9, 8 * index + 1)).toISOString(),
  dyno: testDyno,
  gear: '4th',
  engineToDrumRatio: null,
  air: { temperatureC: 21 + index / 4, pressureHpa: 1000, relativeHumidityPct: 40 },
  airTakenAt: null,
  fuel: { name: '98 octane', litres: 30, ethanolPct: 5, from: 'stated', moving: false },
  startTemperatures: {},
}));
const setup = (
  id: number,
  letter: string,
  parentId: number | null,
  change: string,
  decision: 'keep' | 'go back' | null,
) => ({ id, letter, parentId, change, items: [], decision });
export const reportedExample: ReportedJob = {
  id: 12,
  vehicle: 'Tarrow Six',
  plate: 'TS 66',
  owner: 'A. Sorrel',
  car: {
    induction: null,
    tyres: '195/60 R15',
    finalDrive: 3.9,
    gears: [
      { gear: '3rd', ratio: 1.36 },
      { gear: '4th', ratio: 1.03 },
    ],
    massKg: 940,
    dragAreaM2: null,
    rollingCoefficient: null,
    factoryKw: 98,
  },
  claimedValue: 140,
  claimedUnit: 'hp',
  claimedScale: 'wheels',
  claimedSource: 'the seller',
  question: 'Does it pay above 5,000?',
  untested: 'Cold start\nwet key setting',
  setups: [
    setup(1, 'A', null, 'As arrived', null),
    setup(2, 'B', 1, 'Short intake', 'keep'),
    setup(3, 'C', 2, 'Plug gap 0.7 mm', 'go back'),
  ],
  runs: exampleRuns,
  baseline: null,
  deliveredSetupId: 2,
  bestRunId: 6,
  bands: [{ name: 'climb', fromRpm: 4500, toRpm: 6400 }],
  targets: [
    { id: 1, quantity: 'peak power', fromRpm: null, toRpm: null, value: 60, scale: 'wheels', standard: 'sae-j1349' },
    { id: 2, quantity: 'mean torque', fromRpm: 4500, toRpm: 6400, value: 150, scale: 'crank', standard: 'sae-j1349' },
  ],
  photos: [{ id: 7, caption: 'Plugs after C1' }],
  tuneFiles: [{ setupId: 2, name: 'tarrow-r3.bin', sha256: '9f2c41aa00112233445566778899aabb' }],
  charges: [{ what: 'Loaded roller', per: 'dyno hour', quantity: 2.25, amount: 90, currency: '€' }],
  putBack: [
    { text: 'Rev limiter where it belongs', done: true },
    { text: 'Probes taken out', done: false },
  ],
};

let readings: Map<number, Reading> | undefined;
/** What its report is composed from: of all runs, or of those that are seen. */
export function reportSourceOf(
  over: Partial<ReportedJob> = {},
  seen: (run: ReportedRun) => boolean = () => true,
): ReportSource {
  readings ??= new Map(
    exampleRuns.map((run, index) => [
      run.id,
      readingOf(
        run,
        generatedRun({ seed: run.id, speedNoise: 0.006, drumTorque: (rpm) => factors[index]! * usualTorque(rpm) }),
      ),
    ]),
  );
  const told = { ...reportedExample, runs: exampleRuns.filter(seen), ...over };
  const { arrivedId, deliveredId } = reportSides(told);
  const view: FiguresView = {
    standard: 'sae-j1349',
    share: 1,
    smoothing: 300,
    baselineId: arrivedId,
    againstId: arrivedId,
    testId: deliveredId,
    bands: told.bands.map(({ fromRpm, toRpm }) => [fromRpm, toRpm] as const),
    everyPair: true,
    powerUnit: 'kW',
  };
  const limits = [
    { quantity: 'engineSpeed' as const, value: 7200, scale: null },
    { quantity: 'torque' as const, value: 120, scale: 'wheels' as const },
  ];
  const figures = makeJobFigures(
    {
      job: {
        vehicle: told.vehicle,
        ignition: 'spark',
        setups: told.setups,
        runs: told.runs,
        baseline: null,
        limits,
        bands: told.bands,
        targets: told.targets,
      },
      view,
    },
    readings,
  );
  return { job: told, figures, view: { standard: 'sae-j1349', share: 1, auto: true } };
}

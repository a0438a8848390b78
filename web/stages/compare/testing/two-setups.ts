import { keptUnits } from '../../../../core/units/told-units.ts';
import type { Job, Run, Setup } from '../../../../contract/job/records.ts';
import type { FiguresView } from '../../../../core/figures/request/figures-request.ts';
import type { JobFigures } from '../../../../core/figures/job-figures.ts';
import type { RunRecord } from '../../../../core/figures/request/job-record.ts';
import { makeJobFigures } from '../../../../core/figures/make-job-figures.ts';
import { readingOf, type Reading } from '../../../../core/figures/runs/reading.ts';
import { generatedRun } from '../../../../core/testing/generated-run.ts';
import { testDyno, usualTorque } from '../../../../core/testing/test-car.ts';
import { viewIn, type CompareView } from '../view/view-address.ts';

/** A job with three runs of A and three of B, which makes 3 % more: for tests of what Compare shows. */
const factors = [0.998, 1, 1.002, 1.028, 1.03, 1.032];

const runs: RunRecord[] = factors.map((_, index) => ({
  id: index + 1,
  setupId: index < 3 ? 1 : 2,
  label: index < 3 ? `A${index + 1}` : `B${index - 2}`,
  kind: 'power',
  state: 'sealed',
  setAsideReason: null,
  startedAt: new Date(Date.UTC(2026, 4, 4, 9, 8 * index)).toISOString(),
  dyno: testDyno,
  gear: '4th',
  engineToDrumRatio: null,
  air: { temperatureC: 25, pressureHpa: 1000, relativeHumidityPct: 40 },
  airTakenAt: null,
  fuel: null,
  startTemperatures: {},
}));
const setups = [
  { id: 1, jobId: 1, letter: 'A', parentId: null, change: 'As arrived', items: [] },
  { id: 2, jobId: 1, letter: 'B', parentId: 1, change: 'ignition +1°', items: [] },
] as unknown as Setup[];

/** As far as Compare's view models look at it. */
export const comparedJob = {
  id: 1,
  vehicle: 'Tarrow Six',
  setups,
  runs: runs as Run[],
  bands: [],
  baseline: null,
  earlierBaselines: [],
} as unknown as Job;

let readings: Map<number, Reading> | undefined;

function madeReadings(): Map<number, Reading> {
  readings ??= new Map(
    runs.map((run, index) => {
      const drumTorque = (rpm: number) => factors[index]! * usualTorque(rpm);
      return [run.id, readingOf(run, generatedRun({ seed: run.id, speedNoise: 0.006, drumTorque }))];
    }),
  );
  return readings;
}

/** What Compare shows at an address: its view and the figures for it. */
export function comparedAt(address: string): { job: Job; view: CompareView; figures: JobFigures } {
  const preferences = { standard: 'sae-j1349', units: keptUnits } as const;
  const view = viewIn(new URLSearchParams(address), comparedJob, preferences);
  const asked: FiguresView = {
    standard: view.standard,
    share: view.share,
    smoothing: 300,
    crank: view.crank,
    baselineId: view.baseline.id,
    testId: view.test.id,
    againstId: view.against.id,
    bands: view.bands.map(({ fromRpm, toRpm }) => [fromRpm, toRpm] as const),
    atRpm: view.atRpm,
    powerUnit: view.units.power,
  };
  const record = { vehicle: comparedJob.vehicle, ignition: 'spark' as const, setups, runs, baseline: null };
  return { job: comparedJob, view, figures: makeJobFigures({ job: record, view: asked }, madeReadings()) };
}

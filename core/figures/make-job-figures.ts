import { usualGridRpm } from './runs/corrected-curve.ts';
import { baselineRuns, baselineSetup, countsInFigures, type FrozenBaseline } from '../job/baseline.ts';
import { ranSetups } from '../job/counted.ts';
import { usualAgainst, usualTest } from '../job/sides.ts';
import { resolvedSpan } from '../reduction/auto-span.ts';
import type { LoggerFit } from '../log/view/logged-pull.ts';
import { correctedFuelPerCycle } from '../fuel/fuel-per-cycle.ts';
import type { SweepDrive } from '../reduction/sweep-drive.ts';
import { Refusal } from '../refusal.ts';
import type { Span } from '../smoothing/span.ts';
import { coastDownNamed, crankLossFor } from './runs/crank-loss.ts';
import { engineOfRun } from './runs/engine-of-run.ts';
import type { FiguredRun, UnusableRun } from './runs/figured-run.ts';
import type { FiguresRequest, FiguresView } from './request/figures-request.ts';
import type { JobFigures } from './job-figures.ts';
import type { GuestRecord, JobRecord, RunRecord, SetupRecord } from './request/job-record.ts';
import { runsOfOwnKinds, testFigures } from './runs/kinds-of-job.ts';
import { hasCurve, type Reading } from './runs/reading.ts';
import { resolvedFigures } from './resolved-figures.ts';

/** Runs whose recordings a request rests on: their readings must be handed to `makeJobFigures`. */
export function neededRuns<Run extends RunRecord>(request: {
  job: { runs: readonly Run[] };
  guest?: { runs: readonly Run[] } | undefined;
  view: Pick<FiguresView, 'crank' | 'tests'>;
}): Run[] {
  const coast = coastDownNamed(request.view.crank, request.job.runs);
  const tests = request.view.tests ? runsOfOwnKinds(request.job.runs) : [];
  return [...request.job.runs, ...(request.guest?.runs ?? [])].filter(hasCurve).concat(coast ?? [], tests);
}

/**
 * All figures of a job: the one way from what is stored to what is shown. The
 * page, the server and the command line hand in the job's record, what its
 * recordings hold, how it is looked at and what the shop has learned; they
 * hold no rule of their own.
 *
 * @param readings by run id, of at least `neededRuns`; a run without one is left out
 */
export function makeJobFigures(request: FiguresRequest, readings: ReadonlyMap<number, Reading>): JobFigures {
  const { job, guest, view, learned } = request;
  const sides = sidesOf(request);
  // A frozen list of runs stands for the baseline's setup alone.
  const frozen = job.baseline?.setupId === sides.baselineId ? job.baseline : null;
  const runs: FiguredRun[] = [];
  const unusable: UnusableRun[] = [];
  // A guest's runs are held against this job's limits, for its curves are laid beside this job's curves.
  const take = (
    run: RunRecord,
    of: Pick<
      GuestRecord,
      'baseline' | 'ignition' | 'boosted' | 'turbocharged' | 'displacementL' | 'fuelRegulation' | 'tyres' | 'vehicle'
    > & {
      origin?: string;
    },
    placeOf: (run: RunRecord) => number | undefined,
  ) => {
    const reading = readings.get(run.id);
    if (reading?.kind === 'sweep' && run.setupId !== null)
      runs.push({
        ...figuredRun(
          { ...run, startTemperatures: startTemperaturesBy(run, reading.logged.loggers) },
          run.setupId,
          reading,
          of,
        ),
        place: placeOf(run),
        logged: reading.logged,
        engine: engineOfRun({ ...of, limits: job.limits }, run),
      });
    if (reading?.kind === 'unusable') unusable.push({ id: run.id, label: run.label ?? '', ...reading.unusable });
  };
  for (const run of job.runs.filter(hasCurve)) take(run, { ...job, baseline: frozen }, placesOf(job.runs));
  if (guest) for (const run of guest.runs.filter(hasCurve)) take(run, guest, () => undefined);
  const crank = crankOf(view.crank, job.runs, readings);
  const { standard, share, gridRpm = usualGridRpm } = view;
  const spanRpm = spanOf(view.smoothing, spanRuns(job, sides.baselineId, frozen), readings, runs);
  const figures = resolvedFigures(runs, {
    ...view,
    bands: view.bands ?? job.bands?.map(({ fromRpm, toRpm }) => [fromRpm, toRpm] as const),
    ...sides,
    setups: guest ? [...job.setups, guest.setup] : job.setups,
    settings: { standard, share, gridRpm, spanRpm, crank: crank.loss },
    learned: frozen?.spread ? { ...learned, spread: { ...frozen.spread, from: 'learned' } } : learned,
    plan: job.plan ?? undefined,
    limits: job.limits ?? [],
    targets: job.targets,
    wantedShare: job.wantedShare,
  });
  return {
    ...figures,
    ...(crank.why ? { noEstimate: crank.why } : {}),
    unusable: [...unusable, ...figures.unusable],
    ...(view.tests && { tests: testFigures(job, readings, figures.sides) }),
  };
}

/** The place of each run in the order of its job; of none where the time of one is not known. */
function placesOf(runs: readonly RunRecord[]): (run: RunRecord) => number | undefined {
  const timeOf = ({ startedAt }: RunRecord) => (startedAt === null ? NaN : new Date(startedAt).getTime());
  const times = runs.map(timeOf).sort((a, b) => a - b);
  return times.some(Number.isNaN) ? () => undefined : (run) => times.indexOf(timeOf(run));
}

/** The setups that are looked at: those asked for, else the job's usual ones; a guest takes the other side. */
export function sidesOf({ job, guest, view }: SidesRequest): JobFigures['sides'] {
  const { setups } = job;
  const named = (id: number | undefined): SetupRecord | undefined => setups.find((setup) => setup.id === id);
  const ran = ranSetups(setups, job.runs);
  const baseline = baselineSetup(setups, job.baseline, view.baselineId);
  const test = named(view.testId) ?? usualTest(ran, baseline);
  const against = guest?.setup ?? named(view.againstId) ?? usualAgainst(setups, test, ran);
  return { baselineId: baseline.id, testId: test.id, againstId: against.id };
}

/** What tells the sides of a comparison. */
interface SidesRequest {
  job: Pick<JobRecord, 'setups' | 'runs' | 'baseline'>;
  guest?: FiguresRequest['guest'];
  view: Pick<FiguresRequest['view'], 'baselineId' | 'testId' | 'againstId'>;
}

/** The runs that auto smoothing takes its span from: those of the baseline, so that every run compared shares it. */
export function spanRuns<Run extends RunRecord>(
  job: { runs: readonly Run[] },
  baselineId: number,
  frozen: FrozenBaseline | null,
): Run[] {
  return baselineRuns(job.runs, baselineId, frozen).filter(hasCurve);
}

function spanOf(
  smoothing: Span | 'auto',
  from: readonly RunRecord[],
  readings: ReadonlyMap<number, Reading>,
  runs: readonly FiguredRun[],
): Span {
  const sweeps = sweepsOf(from, readings);
  // Where the baseline has no usable run, the first usable run of all serves.
  const used = sweeps.length > 0 ? sweeps : runs.slice(0, 1).map(({ sweep }) => sweep);
  return used.length > 0 ? resolvedSpan(smoothing, used) : 0;
}

/** The sweeps of those runs that have one. */
export function sweepsOf(runs: readonly RunRecord[], readings: ReadonlyMap<number, Reading>): SweepDrive[] {
  return runs.flatMap(({ id }): SweepDrive[] => {
    const reading = readings.get(id);
    return reading?.kind === 'sweep' ? [reading.sweep] : [];
  });
}

function crankOf(
  word: string | undefined,
  runs: readonly RunRecord[],
  readings: ReadonlyMap<number, Reading>,
): { loss?: ReturnType<typeof crankLossFor>; why?: string } {
  if (word === undefined) return {};
  try {
    return { loss: crankLossFor(word, runs, readings) };
  } catch (error) {
    if (error instanceof Refusal) return { why: error.message };
    throw error;
  }
}

/** A run with its circumstances, as like for like and the checks of the air ask for them. */
function figuredRun(
  run: RunRecord,
  setupId: number,
  { sweep, logged }: Pick<Extract<Reading, { kind: 'sweep' }>, 'sweep' | 'logged'>,
  {
    baseline,
    ignition,
    vehicle,
    tyres,
    turbocharged,
    boosted = false,
    displacementL,
    origin,
  }: Pick<JobRecord, 'baseline' | 'ignition' | 'vehicle' | 'tyres' | 'turbocharged' | 'boosted' | 'displacementL'> & {
    origin?: string;
  },
): Omit<FiguredRun, 'engine' | 'logged'> {
  const startedAt = run.startedAt === null ? undefined : new Date(run.startedAt);
  const ageS = startedAt && run.airTakenAt ? (startedAt.getTime() - Date.parse(run.airTakenAt)) / 1000 : undefined;
  return {
    id: run.id,
    setupId,
    counted: countsInFigures(run, baseline),
    sweep,
    air: run.air ?? undefined,
    circumstances: {
      ageS,
      ignition: ignition ?? undefined,
      turbocharged,
      correctedFuelMgPerLitreCycle: run.air
        ? correctedFuelPerCycle(logged.means, {
            displacementL,
            boosted: boosted || turbocharged === undefined,
            airHpa: run.air.pressureHpa,
          })
        : undefined,
    },
    conditions: {
      label: run.label ?? '',
      vehicle,
      origin,
      dyno: run.dyno,
      instrument: run.device || undefined,
      bay: run.bay ?? undefined,
      gear: run.gear ?? undefined,
      // On rollers the car stands on its tyres; on a hub dyno its tyres carry no power.
      tyres: run.dyno.kind === 'hub' ? undefined : (run.tyres ?? tyres) || undefined,
      tyrePressureKpa: run.dyno.kind === 'hub' ? undefined : (run.tyrePressureKpa ?? undefined),
      fuel: run.fuel?.name || undefined,
      fan: run.fan || undefined,
      bonnet: run.bonnet || undefined,
      loadMode: run.loadMode ?? loadModeOf(run),
      remounted: run.remounted,
      ethanolPct: run.fuel?.ethanolPct ?? undefined,
      fuelMoving: run.fuel?.moving,
      hasAir: run.air !== null,
      airAgeS: ageS,
      startTemperatures: run.startTemperatures,
      startedAt,
    },
  };
}

/** How the absorber was driven, as dyno and plan tell it; undefined where neither does. */
function loadModeOf({ dyno, plan }: RunRecord): string | undefined {
  if (dyno.kind === 'inertia-roller') return 'inertia';
  if (plan?.steps) return 'holds';
  return plan?.rampRpmPerS ? 'ramp' : undefined;
}

/** Start temperatures without those that only a logger gave whose clock did not fit: it may be another car's. */
function startTemperaturesBy(
  { startTemperatures, channels = [], logs = [] }: RunRecord,
  loggers: readonly LoggerFit[],
): RunRecord['startTemperatures'] {
  const refused = logs.filter((_, at) => loggers[at]?.refused !== undefined);
  if (refused.length === 0) return startTemperatures;
  const kept = new Set(
    [...channels, ...logs.filter((log) => !refused.includes(log)).flatMap((log) => log.channels)].map(
      ({ name }) => name,
    ),
  );
  const theirs = new Set(refused.flatMap((log) => log.channels.map(({ name }) => name)));
  return Object.fromEntries(Object.entries(startTemperatures).filter(([name]) => kept.has(name) || !theirs.has(name)));
}

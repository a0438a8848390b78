import { expose } from 'comlink';
import type { Job, Run } from '../../contract/records.ts';
import { readCrankLoss, type CrankLoss } from '../../core/driveline/crank.ts';
import { airFromColumns } from '../../core/exchange/air-columns.ts';
import { readRecordingCsv } from '../../core/exchange/read-csv.ts';
import type { FiguredRun, UnusableRun } from '../../core/gain/figured-run.ts';
import type { FiguresRequest } from '../../core/gain/job-comparison.ts';
import { jobFigures, type JobFigures } from '../../core/gain/job-figures.ts';
import { logEvents } from '../../core/log/events.ts';
import { runLog } from '../../core/log/from-recording.ts';
import type { LineUp } from '../../core/log/line-up.ts';
import type { LoggedEngine, LogEvent } from '../../core/log/run-log.ts';
import { limitChannel, type LimitQuantity } from '../../core/limits/limit.ts';
import { extremesOf } from '../../core/log/extremes.ts';
import { overSpeed, overTime, type LogSeries } from '../../core/log/series.ts';
import { withLogger } from '../../core/log/with-logger.ts';
import { isCounted } from '../../core/job/counted.ts';
import { coastDown, type CoastDown } from '../../core/losses/coast-down.ts';
import { lossTable, type LossPoint } from '../../core/losses/loss-table.ts';
import { valuesOf } from '../../core/recording/recording.ts';
import { curveOf, preparedSweep, resolvedSpan, usualGridRpm, type ViewSettings } from '../../core/reduction/reduce.ts';
import type { SweepDrive } from '../../core/reduction/sweep-drive.ts';
import type { Span } from '../../core/smoothing/span.ts';
import { Refusal } from '../../core/refusal.ts';
import { steadyHolds, usualStepSettings, type SteadyHold } from '../../core/steps/steady-holds.ts';
import { recordingFromBytes } from './recording-bytes.ts';

export interface WorkerRequest extends Omit<FiguresRequest, 'settings' | 'setups'> {
  job: Pick<Job, 'setups' | 'runs' | 'baseline' | 'vehicle'> & { ignition: Job['car']['ignition'] };
  guest?: GuestJob | undefined;
  settings: Omit<ViewSettings, 'spanRpm' | 'crank'>;
  smoothing: Span | 'auto';
  /** Figures are estimated for the crank: with an assumed loss such as `15`, or with that of a coast-down, by its label. */
  crank?: string | undefined;
}

/** A setup of another job that is laid beside, with what must be known of its runs. */
export interface GuestJob {
  setup: FiguresRequest['setups'][number];
  runs: Run[];
  baseline: Job['baseline'];
  ignition: Job['car']['ignition'];
  vehicle: string;
  /** Where it comes from, in words. */
  origin: string;
}

/** What a file holds, before anything is sent. */
export type Preview =
  | { samples: number; durationS: number; channels: string[]; hasPickup: boolean; hasAir: boolean; remarks: string[] }
  | { refusal: string };

/** Kinds of runs that a power curve is made of. */
const curved: readonly Run['kind'][] = ['power', 'conditioning', 'check'];

/** Sweeps made ready, by run: recordings never change once a run has ended. The oldest give way to new ones. */
const sweeps = new Map<number, Promise<SweepDrive>>();
const mostSweeps = 400;

const anyView: ViewSettings = { standard: 'none', share: 1, spanRpm: 300, gridRpm: usualGridRpm };

/** A run's log as the Logs stage shows it. */
export interface LogView {
  events: LogEvent[];
  startS: number;
  endS: number;
  channels: { name: string; unit: string; speed: LogSeries; time: LogSeries }[];
  /** Least and greatest reading in the pull of each channel that a limit is set for. */
  extremes: Record<string, { least: number; most: number }>;
  /** How each logger beside the dyno was laid on its clock, or why not. */
  loggers: { name: string; fit?: LineUp; refused?: string }[];
}

/** What runs other than sweeps measured. */
export type Measured =
  { kind: 'step'; holds: SteadyHold[] } | { kind: 'coast-down'; coast: CoastDown; losses: LossPoint[] };

/** Samples did not come: no fault of the run's, and worth another try. */
class NotFetched extends Error {
  constructor() {
    super('the samples did not come from the server. What was recorded is kept; check that Suvok is running');
  }
}

async function recordingOf(run: Run, source?: number): Promise<ArrayBuffer> {
  const path = `/api/runs/${run.id}/recording${source === undefined ? '' : `?source=${source}`}`;
  const response = await fetch(path).catch(() => undefined);
  if (!response?.ok) throw new NotFetched();
  return response.arrayBuffer();
}

async function sweepOf(run: Run): Promise<SweepDrive> {
  return preparedSweep(recordingFromBytes(await recordingOf(run)), run.dyno, run.engineToDrumRatio ?? undefined);
}

function cachedSweep(run: Run): Promise<SweepDrive> {
  const cached = sweeps.get(run.id) ?? sweepOf(run);
  // Asked for again it is the newest.
  sweeps.delete(run.id);
  sweeps.set(run.id, cached);
  if (sweeps.size > mostSweeps) sweeps.delete(sweeps.keys().next().value!);
  cached.catch(() => sweeps.delete(run.id));
  return cached;
}

/** The loss that an estimate rests on, or why there is none: a coast-down may be gone, or have measured nothing. */
async function crankLossOf(text: string, runs: readonly Run[]): Promise<{ loss?: CrankLoss; why?: string }> {
  try {
    return { loss: /^\d/.test(text) ? readCrankLoss(text) : await coastLossOf(text, runs) };
  } catch (error) {
    if (error instanceof Refusal) return { why: error.message };
    throw error;
  }
}

/** @throws Refusal when there is no such coast-down, or it measured nothing */
async function coastLossOf(label: string, runs: readonly Run[]): Promise<CrankLoss> {
  const run = runs.find((one) => one.label === label && one.kind === 'coast-down');
  if (!run) throw new Refusal(`This job has no coast-down ${label}.`);
  const { aNm, bNmPerRadS, cNmPerRadS2 } = coastDown(recordingFromBytes(await recordingOf(run)), run.dyno);
  // The machine's own losses are in every figure at the wheels already.
  const own = run.dyno.parasitic;
  return {
    from: 'coast-down',
    label,
    driveline: {
      aNm: aNm.value - own.aNm,
      bNmPerRadS: bNmPerRadS.value - own.bNmPerRadS,
      cNmPerRadS2: cNmPerRadS2.value - own.cNmPerRadS2,
    },
  };
}

const worker = {
  /** All figures of a job; runs that no curve can be made of are listed instead. */
  async figures({ job, guest, smoothing, settings, crank, ...request }: WorkerRequest): Promise<JobFigures> {
    const unusable: UnusableRun[] = [];
    const runs: FiguredRun[] = [];
    // A frozen list holds for the setup that it is the baseline of.
    const own = { ...job, baseline: job.baseline?.setupId === request.baselineId ? job.baseline : null };
    const all = [
      ...job.runs.map((run) => [run, own] as const),
      ...(guest?.runs ?? []).map((run) => [run, guest!] as const),
    ];
    await Promise.all(
      all
        .filter(([run]) => run.state !== 'recording' && curved.includes(run.kind))
        .map(async ([run, of], index) => {
          try {
            runs[index] = figuredRun(run, await cachedSweep(run), of);
          } catch (error) {
            if (error instanceof NotFetched) throw error;
            unusable.push({ id: run.id, label: run.label ?? '', why: (error as Error).message });
          }
        }),
    );
    const usable = runs.filter(Boolean);
    const baseline = usable.filter((run) => run.setupId === request.baselineId && run.counted);
    const resolvedFrom = baseline.length > 0 ? baseline : usable.slice(0, 1);
    const spanRpm =
      resolvedFrom.length > 0
        ? resolvedSpan(
            smoothing,
            resolvedFrom.map((run) => run.sweep),
          )
        : 0;
    const estimate = crank === undefined ? {} : await crankLossOf(crank, job.runs);
    const figures = jobFigures(usable, {
      ...request,
      setups: guest ? [...job.setups, guest.setup] : job.setups,
      settings: { ...settings, spanRpm, crank: estimate.loss },
    });
    if (estimate.why) figures.noEstimate = estimate.why;
    return { ...figures, unusable: [...unusable, ...figures.unusable] };
  },

  /** Makes runs ready that figures will be asked of soon; what fails is said when they are. */
  async prepare(runs: readonly Run[]): Promise<void> {
    for (const run of runs) {
      if (!curved.includes(run.kind)) continue;
      // One curve looks at everything in the run that does not depend on the view.
      await cachedSweep(run)
        .then((sweep) => curveOf(sweep, undefined, anyView))
        .catch(() => undefined);
    }
  },

  /** What a run's log shows, and its channels over engine speed and time. */
  async log(run: Run, engine: LoggedEngine): Promise<LogView> {
    const recording = recordingFromBytes(await recordingOf(run));
    const sweep = await cachedSweep(run);
    let log = runLog(recording, sweep, engine);
    const units = new Map(recording.channels.map(({ name, unit }) => [name, unit]));
    const loggers: LogView['loggers'] = [];
    for (const { source, name, probe, channels } of run.logs) {
      try {
        const beside = withLogger(log, sweep, recordingFromBytes(await recordingOf(run, source)), probe);
        log = beside.log;
        loggers.push({ name, fit: beside.fit });
        for (const channel of channels) if (!units.has(channel.name)) units.set(channel.name, channel.unit);
      } catch (error) {
        loggers.push({ name, refused: (error as Error).message });
      }
    }
    const limited = Object.keys(engine.limits).map((quantity) => limitChannel(quantity as LimitQuantity)).filter((name) => units.has(name)); // prettier-ignore
    return {
      events: logEvents(log),
      startS: log.startS,
      endS: log.endS,
      channels: Array.from(units, ([name, unit]) => ({
        name,
        unit,
        speed: overSpeed(log, name),
        time: overTime(log, name),
      })),
      extremes: Object.fromEntries(limited.map((name) => [name, extremesOf(log, name)])),
      loggers,
    };
  },

  /** What a run of holds or a coast-down measured. @throws Refusal with the reason */
  async measured(run: Run): Promise<Measured> {
    const recording = recordingFromBytes(await recordingOf(run));
    const ratio = run.engineToDrumRatio ?? undefined;
    if (run.kind === 'coast-down') {
      const coast = coastDown(recording, run.dyno);
      return { kind: 'coast-down', coast, losses: lossTable(coast) };
    }
    const steps = run.plan?.steps;
    const settings = steps
      ? { steadyShare: steps.tolerance, leastS: Math.min(usualStepSettings.leastS, steps.dwellS / 2) }
      : usualStepSettings;
    return { kind: 'step', holds: steadyHolds(recording, run.dyno, ratio, settings) };
  },

  preview(text: string): Preview {
    try {
      const { recording, remarks } = readRecordingCsv(text);
      return {
        samples: recording.time.length,
        durationS: recording.time.at(-1)! - recording.time[0]!,
        channels: recording.channels.map((channel) => channel.name),
        hasPickup: valuesOf(recording, 'engineSpeed') !== undefined,
        hasAir: airFromColumns(recording) !== undefined,
        remarks,
      };
    } catch (error) {
      if (error instanceof Refusal) return { refusal: error.message };
      throw error;
    }
  },
};

/** A frozen baseline counts the runs on its list, and no others, until it is replaced. */
function counts(run: Run, frozen: Job['baseline']): boolean {
  if (frozen && run.setupId === frozen.setupId) return frozen.runIds.includes(run.id);
  return isCounted(run);
}

/** What is known of a run's job. */
type OfJob = Pick<GuestJob, 'baseline' | 'ignition' | 'vehicle'> & { origin?: string };

function figuredRun(run: Run, sweep: SweepDrive, { baseline, ignition, vehicle, origin }: OfJob): FiguredRun {
  const ageS = run.airTakenAt ? (Date.parse(run.startedAt) - Date.parse(run.airTakenAt)) / 1000 : undefined;
  return {
    id: run.id,
    setupId: run.setupId!,
    counted: counts(run, baseline),
    sweep,
    air: run.air ?? undefined,
    circumstances: { ageS, ignition: ignition ?? undefined },
    conditions: {
      label: run.label ?? '',
      vehicle,
      origin,
      dyno: run.dyno,
      gear: run.gear ?? undefined,
      ethanolPct: run.fuel?.ethanolPct ?? undefined,
      fuelMoving: run.fuel?.moving,
      hasAir: run.air !== null,
      airAgeS: ageS,
      startTemperatures: run.startTemperatures,
      startedAt: new Date(run.startedAt),
    },
  };
}

export type FiguresWorker = typeof worker;
expose(worker);

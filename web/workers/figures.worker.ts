import { expose } from 'comlink';
import type { Job, Run } from '../../contract/records.ts';
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
import { resolvedSpan, type ViewSettings } from '../../core/reduction/reduce.ts';
import type { SweepDrive } from '../../core/reduction/sweep-drive.ts';
import type { Span } from '../../core/smoothing/span.ts';
import { Refusal } from '../../core/refusal.ts';
import { steadyHolds, usualStepSettings, type SteadyHold } from '../../core/steps/steady-holds.ts';
import { crankLossOf } from './crank-loss.ts';
import { recordingFromBytes } from './recording-bytes.ts';
import { cachedSweep, hasCurve, NotFetched, prepareRuns, recordingOf } from './run-sweeps.ts';

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
        .filter(([run]) => hasCurve(run))
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

  prepare: prepareRuns,

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

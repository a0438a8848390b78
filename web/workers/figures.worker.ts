import { expose } from 'comlink';
import {
  cachedReading,
  cachedReadings,
  fetchedBeside,
  fetchedRecording,
  fetchRuns,
  othersHaveHadTheirTurn,
  prepareRuns,
  readInTurn,
} from './run-readings.ts';
import type { Job, Run } from '../../contract/job/records.ts';
import { airFromColumns } from '../../core/exchange/recordings/air-columns.ts';
import { RecordingReader, type ReadRecording } from '../../core/exchange/recordings/read-csv.ts';
import type { LoggedEngine } from '../../core/log/pull/run-log.ts';
import { meanLog, type LogMean } from '../../core/log/view/mean-log.ts';
import type { FuellingAxes } from '../../core/fuelling/axes.ts';
import { fuellingOfRuns, type FuelledRun, type FuellingOfRuns } from '../../core/fuelling/fuelling-of-runs.ts';
import type { FuellingSettings } from '../../core/fuelling/fuelling-table.ts';
import { eventsOf } from '../../core/log/view/logged-pull.ts';
import { viewOfPull, viewOfWhole, type LogView } from '../../core/log/view/log-view.ts';
import { channelChanges, type ChannelChange } from '../../core/comparison/channel-changes.ts';
import { hasCurve } from '../../core/figures/runs/reading.ts';
import { findInLog, openLog, partOfLog } from './logger-file.ts';
import { startTemperaturesOf } from '../../core/recording/start-temperatures.ts';
import { outcomeOf, type KindOutcome } from '../../core/figures/runs/kinds-of-job.ts';
import type { BurntFuel } from '../../core/run-kinds/cruise.ts';
import type { CoastDown } from '../../core/run-kinds/coast-down.ts';
import { isFromRoad } from '../../core/run-kinds/kind-of-file.ts';
import { lossTable, type LossPoint } from '../../core/run-kinds/loss-table.ts';
import { valuesOf } from '../../core/recording/recording.ts';
import { Refusal } from '../../core/refusal.ts';
import { steadyHolds, usualStepSettings, type SteadyHold } from '../../core/run-kinds/steady-holds.ts';
import type { FiguresRequest } from '../../core/figures/request/figures-request.ts';
import type { JobFigures } from '../../core/figures/job-figures.ts';
import { resolvedSpan } from '../../core/reduction/auto-span.ts';
import { neededRuns, makeJobFigures, sidesOf, spanRuns, sweepsOf } from '../../core/figures/make-job-figures.ts';
import type { GuestRecord, JobRecord } from '../../core/figures/request/job-record.ts';

/** A request as the page makes it: core's, with whole runs, so that the worker can fetch them. */
export interface WorkerRequest extends FiguresRequest {
  job: Omit<JobRecord, 'runs'> & { runs: readonly Run[] };
  guest?: (Omit<GuestRecord, 'runs'> & { runs: readonly Run[] }) | undefined;
}

/** What a file holds, before anything is sent. */
export type Preview =
  | {
      samples: number;
      durationS: number;
      channels: string[];
      hasPickup: boolean;
      fromRoad: boolean;
      hasAir: boolean;
      remarks: string[];
    }
  | { refusal: string };

/** What runs other than sweeps measured. */
export type Measured =
  | { kind: 'step'; holds: SteadyHold[] }
  | { kind: 'coast-down'; coast: CoastDown; losses: LossPoint[] };

/**
 * Fetches a job's runs and makes them ready: those of the sides that are
 * usually looked at before all others, for they are waited for.
 */
async function begin(job: BegunJob): Promise<void> {
  const ended = job.runs.filter(({ state }) => state !== 'recording');
  const { baselineId, testId, againstId } = sidesOf({ job: { ...job, runs: ended }, view: {} });
  const isFirst = ({ setupId }: Run) => [baselineId, testId, againstId].includes(setupId ?? NaN);
  const first = ended.filter(isFirst);
  const others = ended.filter((run) => !isFirst(run));
  const reading = readInTurn(first);
  // On their way while the first are being read.
  fetchRuns(others);
  const sweeps = sweepsOf(spanRuns(job, baselineId, job.baseline), await reading);
  // Logs that are waited for come first: they need no span.
  await othersHaveHadTheirTurn();
  // Kept for whoever asks for figures: auto smoothing rests on the baseline's runs alone.
  if (sweeps.length > 0) resolvedSpan('auto', sweeps);
  await readInTurn(others);
}

type BegunJob = Pick<Job, 'setups' | 'runs' | 'baseline'>;

/** The same for the job of a number, before the page itself has it. What fails is said when figures are asked for. */
async function beginAt(jobId: string): Promise<void> {
  const response = await fetch(`/api/jobs/${jobId}`).catch(() => undefined);
  const job = response?.ok ? ((await response.json().catch(() => undefined)) as Job | undefined) : undefined;
  if (job) await begin(job);
}

/** What a run's log shows, and its channels over engine speed, road speed and time. */
async function logOf(run: Run, engine: LoggedEngine): Promise<LogView> {
  const [recording, beside] = await Promise.all([fetchedRecording(run), fetchedBeside(run)]);
  const reading = hasCurve(run) ? await cachedReading(run) : undefined;
  if (reading?.kind === 'sweep') return viewOfPull(recording, reading.sweep, reading.logged, engine, beside);
  const why =
    reading?.kind === 'unusable' ? reading.unusable.why : 'This run is no pull: nothing in its log is judged.';
  return viewOfWhole(recording, run.dyno, run.engineToDrumRatio ?? undefined, engine, beside, why);
}

const worker = {
  /** All figures of a job; runs that no curve can be made of are listed instead. @throws NotFetched */
  async figures(request: WorkerRequest): Promise<JobFigures> {
    const readings = await cachedReadings(neededRuns(request));
    return ownMistakesSaid(() => makeJobFigures(request, readings));
  },

  begin,
  prepare: prepareRuns,

  log: logOf,

  /** The mean of several runs' logs; of one, its own. */
  async logMean(runs: readonly (readonly [Run, LoggedEngine])[]): Promise<LogMean> {
    return meanLog(await Promise.all(runs.map(([run, engine]) => logOf(run, engine))));
  },

  /** Where the fuel pressure of runs begins to sag, and by how much; undefined where it does not, or nothing tells. */
  async fuelSags(
    runs: readonly (readonly [Run, LoggedEngine])[],
  ): Promise<({ fromRpm: number; sagKpa: number } | undefined)[]> {
    const readings = await cachedReadings(runs.map(([run]) => run).filter(hasCurve));
    return runs.map(([run, engine]) => {
      const reading = readings.get(run.id);
      if (reading?.kind !== 'sweep') return undefined;
      const sag = eventsOf(reading.logged, engine).find(({ id }) => id === 'fuel-pressure-sag');
      return sag && { fromRpm: sag.fromRpm, sagKpa: sag.figure };
    });
  },

  /** How far each channel of a run is from the baseline's, in its own spread, the farthest first. */
  async channelChanges(
    run: Run,
    baseline: readonly Run[],
    alike: readonly (readonly Run[])[],
  ): Promise<ChannelChange[]> {
    const readings = await cachedReadings([run, ...baseline, ...alike.flat()].filter(hasCurve));
    const means = (runs: readonly Run[]) =>
      runs.flatMap(({ id }) => {
        const reading = readings.get(id);
        return reading?.kind === 'sweep' ? [reading.logged.means] : [];
      });
    return channelChanges([means([run]), means(baseline), ...alike.map(means)]);
  },

  openLog,
  findInLog,
  partOfLog: (...asked: Parameters<typeof partOfLog>) => Promise.resolve(partOfLog(...asked)),

  /** What a run's own channels read at its start, °C. */
  async startTemperatures(run: Run): Promise<Record<string, number>> {
    return startTemperaturesOf(await fetchedRecording(run));
  },

  /** The fuelling errors that runs of one setup show together. @param axes null: laid out over what was driven */
  async fuelling(runs: readonly Run[], axes: FuellingAxes | null, settings: FuellingSettings): Promise<FuellingOfRuns> {
    const fuelled = runs.map(async (run): Promise<FuelledRun> => {
      const [recording, beside] = await Promise.all([fetchedRecording(run), fetchedBeside(run)]);
      const { id, label, dyno, engineToDrumRatio } = run;
      return { id, label: label ?? '', dyno, engineToDrumRatio: engineToDrumRatio ?? undefined, recording, beside };
    });
    return fuellingOfRuns(await Promise.all(fuelled), axes, settings);
  },

  /** The figures of a run of a kind of its own, or why it has none. */
  async ofKind(run: Run, fuel: BurntFuel): Promise<KindOutcome> {
    return outcomeOf(await cachedReading(run), fuel);
  },

  /** What a run of holds or a coast-down measured. @throws Refusal with the reason */
  async measured(run: Run): Promise<Measured> {
    if (run.kind === 'coast-down') {
      const reading = await cachedReading(run);
      if (reading.kind !== 'coast-down')
        throw new Refusal(reading.kind === 'unusable' ? reading.unusable.why : 'This run is no coast-down.');
      return { kind: 'coast-down', coast: reading.coast, losses: lossTable(reading.coast) };
    }
    const recording = await fetchedRecording(run);
    const ratio = run.engineToDrumRatio ?? undefined;
    const steps = run.plan?.steps;
    const settings = steps
      ? { steadyShare: steps.tolerance, leastS: Math.min(usualStepSettings.leastS, steps.dwellS / 2) }
      : usualStepSettings;
    return { kind: 'step', holds: steadyHolds(recording, run.dyno, ratio, settings) };
  },

  async preview(file: File): Promise<Preview> {
    try {
      const { recording, remarks } = await readFile(file);
      return {
        samples: recording.time.length,
        durationS: recording.time[recording.time.length - 1]! - recording.time[0]!,
        channels: recording.channels.map((channel) => channel.name),
        hasPickup: valuesOf(recording, 'engineSpeed') !== undefined,
        fromRoad: isFromRoad(recording),
        hasAir: airFromColumns(recording) !== undefined,
        remarks,
      };
    } catch (error) {
      if (error instanceof Refusal) return { refusal: error.message };
      throw error;
    }
  },
};

/** Tells a mistake of the program from a refusal: what a reader is to do differs. */
function ownMistakesSaid<T>(work: () => T): T {
  try {
    return work();
  } catch (error) {
    if (error instanceof Refusal) throw error;
    console.error(error);
    throw new Error(
      `Suvok itself made a mistake (${String(error)}). The recordings are not at fault and nothing is lost; reload the page, and please report this`,
      { cause: error },
    );
  }
}

export type FiguresWorker = typeof worker;
expose(worker);
// Whoever started it may have named a job.
if (self.name) void beginAt(self.name);

/** A recording's file, piece by piece: it may be larger than a page may hold twice. */
async function readFile(file: File): Promise<ReadRecording> {
  const reader = new RecordingReader();
  const pieces = file.stream().pipeThrough(new TextDecoderStream()).getReader();
  for (let piece = await pieces.read(); !piece.done; piece = await pieces.read()) reader.push(piece.value);
  return reader.end();
}

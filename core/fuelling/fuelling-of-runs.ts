import { sampleAt } from '../numerics/sample-at.ts';
import { logOfWhole, type RecordedRun } from '../log/view/whole-recording.ts';
import { unknownEngine, type RunLog } from '../log/pull/run-log.ts';
import { Refusal } from '../refusal.ts';
import type { FuellingAxes, PartLoadLog } from './axes.ts';
import {
  fuellingReadings,
  joinedFuelling,
  type FuellingReadings,
  type FuellingSettings,
  type FuellingTable,
} from './fuelling-table.ts';
import { usualAxes } from './usual-axes.ts';

/** A run with all that recorded it. */
export interface FuelledRun extends RecordedRun {
  id: number;
  label: string;
}

/** The fuelling that runs of one state of the table show together, and those that show none. */
export interface FuellingOfRuns {
  axes: FuellingAxes;
  /** Absent where no run could be used. */
  table?: FuellingTable;
  /** Of each run that was used: how many of the table's readings are its own, in their order. */
  used: { id: number; label: string; readings: number }[];
  refused: { id: number; label: string; why: string }[];
  /** The runs that were used whose λ nobody freed of its probe's offset: it is common to all cells, and in no cell's interval. */
  offsetUnknown: string[];
}

/** A probe whose offset nobody entered may be this far off everywhere alike, as a share of λ; assumed. */
export const usualOffsetShare = 0.01;

/** λ is looked at this often at most, Hz: a probe is slower. */
const mostRateHz = 50;

/**
 * Fuelling errors of runs together.
 * @param axes null: laid out over what the first usable run drove through
 */
export function fuellingOfRuns(
  runs: readonly FuelledRun[],
  axes: FuellingAxes | null,
  settings: FuellingSettings,
): FuellingOfRuns {
  const parts: FuellingReadings[] = [];
  const used: FuellingOfRuns['used'] = [];
  const refused: FuellingOfRuns['refused'] = [];
  const offsetUnknown: string[] = [];
  let laidOver = axes;
  for (const run of runs) {
    try {
      const log = partLoadLog(run);
      laidOver ??= usualAxes(log);
      const told = fuellingReadings(log, laidOver, settings);
      parts.push(told);
      if (!offsetKnown(run)) offsetUnknown.push(run.label);
      used.push({ id: run.id, label: run.label, readings: told.readings.length });
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      refused.push({ id: run.id, label: run.label, why: error.message });
    }
  }
  const table = joinedFuelling(parts);
  return { axes: laidOver ?? emptyAxes, ...(table && { table }), used, refused, offsetUnknown };
}

/** Whether the λ that is taken came from a logger whose probe's offset was entered; the dyno's own channel comes first. */
function offsetKnown({ recording, beside }: FuelledRun): boolean {
  const hasLambda = (of: FuelledRun['recording']) => of.channels.some(({ name }) => name === 'lambda');
  if (hasLambda(recording)) return false;
  return (beside.find((logger) => hasLambda(logger.recording))?.probe.offset ?? 0) !== 0;
}

/** Of a vehicle whose table nobody laid out, before anything was driven. */
export const emptyAxes: FuellingAxes = {
  across: { channel: 'engineSpeed', breakpoints: [1000, 2000, 3000, 4000, 5000, 6000] },
  down: { channel: 'manifoldPressure', breakpoints: [40, 60, 80, 100] },
};

/** λ as it was read, and the rest of the log beside it; the delay of the probe is looked for here, not taken off before. */
function partLoadLog(run: FuelledRun): PartLoadLog {
  const atEngine = run.beside.map((logger) => ({ ...logger, probe: { ...logger.probe, delayS: 0 } }));
  const whole = logOfWhole({ ...run, beside: atEngine }, unknownEngine);
  if (whole.log.engineSpeedRpm.every(Number.isNaN)) throw new Refusal('No engine speed was recorded with this run.');
  if (!whole.log.channels.has('lambda')) {
    const why = whole.loggers.find(({ refused }) => refused)?.refused;
    throw new Refusal(why ?? 'No λ was logged with this run.');
  }
  return thinned(whole.log);
}

function thinned({ time, engineSpeedRpm, channels }: RunLog): PartLoadLog {
  const rate = (time.length - 1) / (sampleAt(time, time.length - 1) - sampleAt(time, 0));
  const every = Math.max(1, Math.round(rate / mostRateHz));
  if (every === 1) return { time, engineSpeedRpm, channels };
  const kept = (values: Float64Array) => values.filter((_, index) => index % every === 0);
  return {
    time: kept(time),
    engineSpeedRpm: kept(engineSpeedRpm),
    channels: new Map(Array.from(channels, ([name, values]) => [name, kept(values)])),
  };
}

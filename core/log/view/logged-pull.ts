import { sampleAt } from '../../numerics/sample-at.ts';
import { firstNotBelow } from '../../numerics/interpolation.ts';
import { everyNth } from '../../numerics/picked.ts';
import type { Recording } from '../../recording/recording.ts';
import { Refusal } from '../../refusal.ts';
import { channelMeans, type ChannelMeans } from './channel-means.ts';
import { logExtremes, type Extremes } from '../checks/extremes.ts';
import { runLog, type DriveAndSpan, type ProbePlace } from '../pull/from-recording.ts';
import type { LineUp } from '../logger-file/line-up.ts';
import { logEvents } from '../checks/events.ts';
import { stepOf, type LogEvent, type LoggedEngine, type RunLog } from '../pull/run-log.ts';
import { withLogger } from '../logger-file/with-logger.ts';

/** What a logger recorded beside a run, on its own clock. */
export interface LoggerBeside {
  name: string;
  probe: ProbePlace;
  recording: Recording;
}

/** How a logger beside the dyno was laid on its clock, or why not. */
export interface LoggerFit {
  name: string;
  fit?: LineUp;
  refused?: string;
}

/** A run's log with all that recorded it, the channels' units, and how each logger fits. */
export interface WholeLog {
  log: RunLog;
  /** By channel. */
  units: ReadonlyMap<string, string>;
  loggers: LoggerFit[];
}

/** The log of a run from its own recording and those of the loggers beside it; one that does not fit gives no channel. */
export function wholeLog(
  recording: Recording,
  sweep: DriveAndSpan,
  engine: LoggedEngine,
  beside: readonly LoggerBeside[],
): WholeLog {
  let log = runLog(recording, sweep, engine);
  const units = new Map(recording.channels.map(({ name, unit }) => [name, unit]));
  const loggers: LoggerFit[] = [];
  for (const { name, probe, recording: logged } of beside) {
    try {
      const joined = withLogger(log, sweep, logged, probe);
      log = joined.log;
      loggers.push({ name, fit: joined.fit });
      for (const channel of logged.channels) if (!units.has(channel.name)) units.set(channel.name, channel.unit);
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      loggers.push({ name, refused: error.message });
    }
  }
  return { log, units, loggers };
}

/** What the channels of a run show in its pull, whoever the engine is and whatever its limits. */
export interface LoggedPull {
  /** The pull and a second around it, at 100 Hz at most: what events are looked for in. Its engine is nobody's. */
  log: RunLog;
  /** Least and greatest reading, by channel. */
  extremes: ReadonlyMap<string, Extremes>;
  /** Over engine speed, by channel. */
  means: ReadonlyMap<string, ChannelMeans>;
  loggers: readonly LoggerFit[];
}

const mostRateHz = 100;
const aroundS = 1;

export function loggedPull({ log, units, loggers }: WholeLog): LoggedPull {
  const kept = thinned(log);
  return { log: kept, extremes: logExtremes(kept), means: channelMeans(kept, units), loggers };
}

/** Every so many-th sample, as it was read: means would hide a sensor that stands still. */
function thinned(log: RunLog): RunLog {
  const [from, to] = [log.startS - aroundS, log.endS + aroundS];
  const every = Math.max(1, Math.floor(1 / (mostRateHz * Math.max(1e-6, stepOf(log))) + 0.01));
  const first = firstNotBelow(log.time, from);
  let end = first;
  while (end < log.time.length && sampleAt(log.time, end) <= to) end++;
  const of = (values: Float64Array) => everyNth(values.subarray(first, end), every);
  return {
    ...log,
    time: of(log.time),
    engineSpeedRpm: of(log.engineSpeedRpm),
    channels: new Map(Array.from(log.channels, ([name, values]) => [name, of(values)])),
  };
}

/** Events by what is asked of the engine, made once a pull. */
const known = new WeakMap<LoggedPull, { engine: string; events: LogEvent[] }>();

/** Everything that a pull's log shows of such an engine with such limits, the gravest first. */
export function eventsOf(pull: LoggedPull, engine: LoggedEngine): LogEvent[] {
  const asked = JSON.stringify(engine);
  const found = known.get(pull);
  if (found?.engine === asked) return found.events;
  const events = logEvents({ ...pull.log, engine }, pull.extremes);
  known.set(pull, { engine: asked, events });
  return events;
}

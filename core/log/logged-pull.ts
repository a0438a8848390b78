import type { Recording } from '../recording/recording.ts';
import { Refusal } from '../refusal.ts';
import type { SweepDrive } from '../reduction/sweep-drive.ts';
import { channelMeans, type ChannelMeans } from './channel-means.ts';
import { logExtremes, type Extremes } from './extremes.ts';
import { runLog, type ProbePlace } from './from-recording.ts';
import type { LineUp } from './line-up.ts';
import type { LoggedEngine, RunLog } from './run-log.ts';
import { withLogger } from './with-logger.ts';

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
  sweep: SweepDrive,
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
  /** Least and greatest reading, by channel. */
  extremes: ReadonlyMap<string, Extremes>;
  /** Over engine speed, by channel. */
  means: ReadonlyMap<string, ChannelMeans>;
}

export function loggedPull({ log, units }: WholeLog): LoggedPull {
  return { extremes: logExtremes(log), means: channelMeans(log, units) };
}

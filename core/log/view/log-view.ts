import { sampleAt } from '../../numerics/sample-at.ts';
import { max, min } from 'd3-array';
import { interpolate } from '../../numerics/interpolation.ts';
import type { Recording } from '../../recording/recording.ts';
import type { Drive } from '../../reduction/drive.ts';
import type { DynoProfile } from '../../dyno/dyno-profile.ts';
import type { SweepDrive } from '../../reduction/sweep-drive.ts';
import { convert } from '../../units/units.ts';
import { boostFigures, type BoostFigures } from './boost-figures.ts';
import { channelOf } from '../pull/run-log.ts';
import type { Extremes } from '../checks/extremes.ts';
import {
  eventsOf,
  wholeLog,
  type LoggedPull,
  type LoggerBeside,
  type LoggerFit,
  type WholeLog,
} from './logged-pull.ts';
import { notLogged } from '../pull/not-logged.ts';
import { logOfWhole } from './whole-recording.ts';
import { regulationOf } from '../checks/fuel-pressure.ts';
import type { FuelRegulation, LogEvent, LoggedEngine, RunLog } from '../pull/run-log.ts';
import { noSeries, overPlaces, overSpeed, overTime, type LogSeries } from '../pull/series.ts';

/** A run's log ready to be drawn. */
export interface LogView {
  events: ShownEvent[];
  /** What could not be judged, in words. */
  notLogged: string[];
  startS: number;
  endS: number;
  channels: LoggedChannel[];
  /** Least and greatest reading in the pull of what limits are held against, by channel or quantity. */
  extremes: Record<string, { least: number; most: number }>;
  /** How each logger beside the dyno was laid on its clock, or why not. */
  loggers: readonly LoggerFit[];
  /** What the fuel pressure is held against; null where nobody can tell. */
  fuelRegulation: FuelRegulation | null;
  boost?: BoostFigures | undefined;
  /** Of a run without a pull: why nothing in it is judged, and it is shown over time alone. */
  unjudged?: string;
}

export interface LoggedChannel {
  name: string;
  unit: string;
  /** Over engine speed and road speed (of rollers), within the pull; both empty where there is no pull. */
  speed: LogSeries;
  road?: LogSeries;
  /** Over the recording's own time, from a little before the pull to a little after. */
  time: LogSeries;
  /** In the pull; limits are held against them. NaN where nothing was read. */
  least: number;
  most: number;
}

/** An event with its place on every axis. */
export interface ShownEvent extends LogEvent {
  roadKmh?: readonly [number, number];
}

/** What a sweep's log shows. */
export function viewOfPull(
  recording: Recording,
  sweep: SweepDrive,
  logged: LoggedPull,
  engine: LoggedEngine,
  beside: readonly LoggerBeside[],
): LogView {
  const whole = wholeLog(recording, sweep, engine, beside);
  const pull = { ...logged.log, engine };
  const road = roadOf(whole.log, sweep.drive, sweep.dyno);
  return {
    events: eventsOf(logged, engine).map((event) => ({
      ...event,
      ...(road && {
        roadKmh: [
          interpolate(whole.log.time, road, event.fromS),
          interpolate(whole.log.time, road, event.toS),
        ] as const,
      }),
    })),
    notLogged: notLogged(Array.from(whole.log.channels.keys()), engine),
    startS: whole.log.startS,
    endS: whole.log.endS,
    channels: channelsOf(whole, road, logged.extremes),
    extremes: Object.fromEntries(logged.extremes),
    loggers: logged.loggers,
    fuelRegulation: regulationOf(pull),
    boost: boostFigures(pull),
  };
}

/**
 * The log of a run that is no sweep, or that none was found in: all of it over time, nothing judged.
 * @param why nothing is judged, as a sentence
 */
export function viewOfWhole(
  recording: Recording,
  dyno: DynoProfile,
  engineToDrumRatio: number | undefined,
  engine: LoggedEngine,
  beside: readonly LoggerBeside[],
  why: string,
): LogView {
  const [startS, endS] = [sampleAt(recording.time, 0), sampleAt(recording.time, recording.time.length - 1)];
  const whole = logOfWhole({ recording, dyno, engineToDrumRatio, beside }, engine);
  return {
    events: [],
    notLogged: [],
    startS,
    endS,
    channels: channelsOf(whole, undefined, new Map()).map((channel) => ({ ...channel, speed: noSeries })),
    extremes: {},
    loggers: whole.loggers,
    fuelRegulation: null,
    unjudged: why,
  };
}

/** Road speed at each sample, km/h; undefined for a hub. */
function roadOf({ time }: RunLog, { time: at, speed }: Drive, { radiusM }: DynoProfile): Float64Array | undefined {
  if (radiusM === undefined) return undefined;
  return time.map((t) => convert(interpolate(at, speed, t) * radiusM, 'm/s', 'km/h'));
}

function channelsOf(
  { log, units }: WholeLog,
  road: Float64Array | undefined,
  extremes: ReadonlyMap<string, Extremes>,
): LoggedChannel[] {
  // Engine speed gets a lane over time even where it was computed from the drum's.
  const named = units.has('engineSpeed') ? units : new Map([...units, ['engineSpeed', 'rpm']]);
  return Array.from(named).flatMap(([name, unit]) => {
    const values = channelOf(log, name);
    if (!values) return [];
    const [speed, time] = [overSpeed(log, values), overTime(log, values)];
    if (time.x.length < 2) return [];
    const judged = extremes.get(name);
    const drawn = speed.values.length > 1 ? speed.values : time.values;
    return [
      {
        name,
        unit,
        speed,
        ...(road && { road: overPlaces(log, road, values, 0.5) }),
        time,
        least: judged?.least ?? min(drawn) ?? NaN,
        most: judged?.most ?? max(drawn) ?? NaN,
      },
    ];
  });
}

import { burnsFuel } from '../../engine/engine-kind.ts';
import { byGravity } from '../../checks/check.ts';
import { brokenLimits } from '../../limits/broken-limits.ts';
import { knownLimits } from '../../limits/limit.ts';
import { boostEvents } from './boost.ts';
import { logExtremes, reachIn, type Extremes } from './extremes.ts';
import { fuelPressureSag } from './fuel-pressure.ts';
import { injectorDuty } from './injector-duty.ts';
import { ethanolContent, learnedOctane } from './fuel-quality.ts';
import { fuelTrim } from './fuel-trim.ts';
import { railPressure } from './rail-pressure.ts';
import { limitsCrossed } from './limits-crossed.ts';
import { knock } from './knock.ts';
import { logEnds } from './log-ends.ts';
import { mixture } from './mixture.ts';
import { oilPressure } from './oil-pressure.ts';
import type { JudgedLog, LogEvent, RunLog } from '../pull/run-log.ts';
import { lowBattery, relearning, sensorCeiling, sensorDead } from './sensors.ts';

/** What tells of burning, of its fuel and air, and of what an engine needs beside. */
const ofEngines = [
  knock,
  mixture,
  fuelPressureSag,
  railPressure,
  injectorDuty,
  fuelTrim,
  ethanolContent,
  learnedOctane,
  oilPressure,
  boostEvents,
  sensorCeiling,
  sensorDead,
  relearning,
];
const ofAll = [lowBattery, logEnds];

/**
 * Everything that the log of a run shows, the gravest first. Channels that are not there say nothing.
 * @param extremes of the log, where they are known already
 */
export function logEvents(log: RunLog, extremes = logExtremes(log)): LogEvent[] {
  const judged = judgedLog(log, extremes);
  const checks = burnsFuel(log.engine.ignition) ? [...ofEngines, ...ofAll] : ofAll;
  const checked = checks.flatMap((check) => check(judged));
  // A limit that a check has told already is not told twice.
  const told = new Set(checked.map(({ limit }) => limit));
  const found = [...checked, ...limitsCrossed(judged).filter(({ limit }) => !told.has(limit))];
  // A dead or stuck sensor is not judged by what it reads; what it does read may still lie beyond a limit.
  const blind = new Set(found.filter(({ id }) => id.startsWith('sensor-')).map(({ channels }) => channels[0]));
  return found
    .filter(({ id, channels, limit }) => id.startsWith('sensor-') || limit !== undefined || !blind.has(channels[0]))
    .sort((a, b) => byGravity(a, b) || a.fromS - b.fromS);
}

/** The log with the limits that it went beyond: the job's, and the usual ones of such an engine. */
function judgedLog(log: RunLog, extremes: ReadonlyMap<string, Extremes>): JudgedLog {
  const written = Object.entries(log.engine.limits).flatMap(([quantity, value]) =>
    value === undefined ? [] : [{ quantity, value, scale: null }],
  );
  const found = brokenLimits(knownLimits(written), reachIn(extremes), log.engine);
  return { ...log, broken: new Map(found.map((broken) => [broken.quantity, broken])) };
}

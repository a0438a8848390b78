import { byGravity } from '../checks/check.ts';
import { boostEvents } from './boost.ts';
import { fuelPressureSag, injectorDuty } from './fuel-supply.ts';
import { limitsCrossed } from './limits-crossed.ts';
import { knock } from './knock.ts';
import { mixture } from './mixture.ts';
import { oilPressure } from './oil-pressure.ts';
import type { LogEvent, RunLog } from './run-log.ts';
import { lowBattery, relearning, sensorCeiling, sensorDead } from './sensors.ts';

/** Everything that the log of a run shows, the gravest first. Channels that are not there say nothing. */
export function logEvents(log: RunLog): LogEvent[] {
  const checked =
    [knock, mixture, fuelPressureSag, injectorDuty, oilPressure, boostEvents, sensorCeiling, sensorDead, lowBattery, relearning] // prettier-ignore
      .flatMap((check) => check(log));
  // A limit that a check has told already is not told twice.
  const told = new Set(checked.filter(({ severity }) => severity === 'stop').map(({ channels }) => channels[0]));
  const found = [...checked, ...limitsCrossed(log).filter(({ channels }) => !told.has(channels[0]))];
  // A dead or stuck sensor is not judged by what it reads.
  const blind = new Set(found.filter(({ id }) => id.startsWith('sensor-')).map(({ channels }) => channels[0]));
  return found
    .filter(({ id, channels }) => id.startsWith('sensor-') || !blind.has(channels[0]))
    .sort((a, b) => byGravity(a, b) || a.fromS - b.fromS);
}

import type { NewRun } from '../../contract/bays/recorded-run.ts';
import type { RunPlan } from '../../contract/instruments/recording.ts';
import type { Device } from '../devices/device.ts';
import type { FollowedLoggers } from './followed-loggers.ts';
import type { LoggerTap } from './logger-tap.ts';
import { startTemperatures } from './start-temperatures.ts';

/** What a run takes along from the bay as it begins. */
export type Conditions = Pick<NewRun, 'bay' | 'setup' | 'database' | 'gear' | 'air' | 'airTakenAt'> & {
  plan: RunPlan;
  loggers: readonly LoggerTap[];
  /** Why no run can begin now, as a sentence; null when one can. */
  mayBegin: () => string | null;
  /** As calibrated for this car; the instrument's own word otherwise. */
  engineToDrumRatio: number | null;
  axleRatios: { front: number; rear: number } | null;
};

/**
 * A run as it is written down when it begins.
 * @param rows of the dyno that belong to it so far
 */
export function runThatBegins(
  key: string,
  device: Device,
  dyno: NewRun['dyno'],
  rows: readonly Float64Array[],
  conditions: Conditions & Pick<NewRun, 'recordedBy'>,
  followed: FollowedLoggers,
): NewRun {
  const { hello, intake } = device;
  const startedS = rows[0]![0]!;
  const lastedS = rows[rows.length - 1]![0]! - startedS;
  const startedMs = hello.startedAt ? Date.parse(hello.startedAt) + startedS * 1000 : Date.now() - lastedS * 1000;
  const { plan, bay, setup, database, gear, air, airTakenAt, recordedBy } = conditions;
  return {
    bay,
    setup,
    database,
    gear,
    air,
    airTakenAt,
    recordedBy,
    key,
    kind: plan.kind,
    device: hello.device,
    source: hello.name ?? hello.device,
    plan: {
      fromRpm: plan.fromRpm,
      toRpm: plan.toRpm,
      rampRpmPerS: plan.rampRpmPerS,
      steps: plan.kind === 'step' ? plan.steps : null,
    },
    logs: followed.records(),
    startedAt: new Date(startedMs).toISOString(),
    dyno: conditions.axleRatios ? { ...dyno, axleRatios: conditions.axleRatios } : dyno,
    engineToDrumRatio: conditions.engineToDrumRatio ?? hello.engineToDrumRatio ?? null,
    startTemperatures: startTemperatures(device, rows[0]!, followed.taps, lastedS),
    channels: intake.channels,
  };
}

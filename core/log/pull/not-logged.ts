import type { EngineKind } from '../../engine/engine-kind.ts';
import type { LoggedEngine } from './run-log.ts';

/** What should be logged of an engine to judge its pull: a diesel has no ignition to take back, and its mixture is that of its smoke. */
const wanted = {
  spark: [
    ['lambda', 'λ'],
    ['knockRetard', 'knock'],
    ['fuelPressure', 'fuel pressure'],
    ['batteryVoltage', 'the battery'],
  ],
  compression: [
    ['railPressure', 'rail pressure'],
    ['exhaustTemperature', 'exhaust temperature'],
    ['batteryVoltage', 'the battery'],
  ],
  electric: [],
} as const satisfies Record<EngineKind, readonly (readonly [string, string])[]>;

/** What could not be judged because nothing logged it, in words; a spark engine is taken where nobody said. */
export function notLogged(channels: readonly string[], { ignition }: Pick<LoggedEngine, 'ignition'>): string[] {
  return wanted[ignition ?? 'spark'].flatMap(([name, words]) => (channels.includes(name) ? [] : [words]));
}

import type { DeviceState } from '../../contract/bays/live.ts';
import { wholeDrums } from '../../core/dyno/drums.ts';
import { rpmPerRadS } from '../../core/units/units.ts';
import { useLive } from './live.ts';

/** The dyno whose samples arrive, of all that are connected. */
export function useDyno(): DeviceState | undefined {
  return useLive((state) => state.bay?.devices.find((device) => device.device === state.dynoDevice));
}

/** What a sample row says of the drum and the engine; NaN where it says nothing. */
export interface Motion {
  drumRadS: number;
  surfaceMetresPerSecond: number;
  engineRpm: number;
}

type Machine = Pick<DeviceState, 'dyno' | 'engineToDrumRatio'>;

/** Reads motion out of rows with these columns, from whichever channels the machine has. */
export function motionReader(columns: readonly string[], machine: Machine): (row: Float64Array) => Motion {
  const turningAt = Math.max(columns.indexOf('rollerSpeed'), columns.indexOf('hubSpeed'));
  // A set that is not whole is refused before its rows come.
  const drumsAt = machine.dyno
    ? wholeDrums(columns, machine.dyno.kind)?.map(({ speed }) => columns.indexOf(speed))
    : undefined;
  const surfaceAt = columns.indexOf('surfaceSpeed');
  const pickupAt = columns.indexOf('engineSpeed');
  const radiusM = machine.dyno?.radiusM ?? NaN;
  return (row) => {
    const drumRadS =
      turningAt >= 0
        ? row[turningAt]!
        : drumsAt
          ? drumsAt.reduce((sum, at) => sum + row[at]!, 0) / drumsAt.length
          : surfaceAt >= 0
            ? row[surfaceAt]! / radiusM
            : NaN;
    return {
      drumRadS,
      surfaceMetresPerSecond: surfaceAt >= 0 ? row[surfaceAt]! : drumRadS * radiusM,
      engineRpm: pickupAt >= 0 ? row[pickupAt]! : drumRadS * (machine.engineToDrumRatio ?? NaN) * rpmPerRadS,
    };
  };
}

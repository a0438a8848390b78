import type { Peak } from '../curve/peak.ts';
import type { SweepSpan } from '../reduction/sweep.ts';
import type { Finding } from './check.ts';

/** Found when the recording ends before the driver lifted: the top of the run is missing. */
export function cutRun(sweep: SweepSpan, endRpm: number): Finding | undefined {
  if (sweep.liftSeen) return undefined;
  const shown = Math.round(endRpm / 10) * 10;
  return {
    id: 'cut-run',
    severity: 'note',
    fromRpm: shown,
    toRpm: shown,
    figure: shown,
    unit: 'rpm',
    message: `The recording ends at ${shown} rpm before the lift; nothing is known above it.`,
  };
}

/** Found when power is highest where the sweep ends: the true peak may lie above. */
export function stillClimbing(peak: Peak): Finding | undefined {
  if (peak.atEdge !== 'end') return undefined;
  const shown = Math.round(peak.rpm / 10) * 10;
  return {
    id: 'still-climbing',
    severity: 'note',
    fromRpm: shown,
    toRpm: shown,
    figure: shown,
    unit: 'rpm',
    message: `Power is still climbing where the run ends at ${shown} rpm; its peak may lie above.`,
  };
}

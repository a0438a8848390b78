import { spokenRpm } from '../units/spoken.ts';
import { interpolate } from '../numerics/interpolation.ts';
import type { SweepDrive } from '../reduction/sweep-drive.ts';
import { tens, type Finding } from './check.ts';

/** Found when nothing was sampled for a while inside the sweep. */
export function sampleGap({ drive, sweep, mapTime, mapRpm }: SweepDrive): Finding | undefined {
  const inside = drive.clock.gaps.filter(({ atS, lastsS }) => atS + lastsS > sweep.startS && atS < sweep.endS);
  if (inside.length === 0) return undefined;
  const longest = inside.reduce((most, gap) => (gap.lastsS > most.lastsS ? gap : most));
  const fromRpm = tens(interpolate(mapTime, mapRpm, longest.atS));
  const toRpm = tens(interpolate(mapTime, mapRpm, longest.atS + longest.lastsS));
  const more = inside.length > 1 ? ` and ${inside.length - 1} more` : '';
  return {
    id: 'sample-gap',
    severity: 'mind',
    fromRpm,
    toRpm,
    figure: longest.lastsS,
    unit: 's',
    message: `No samples for ${longest.lastsS.toFixed(2)} s from ${spokenRpm(fromRpm)} to ${spokenRpm(toRpm)} rpm${more}: the curve there rests on its neighbours.`,
  };
}

/** Found when the instrument's clock stepped inside the sweep: accelerations across it are not to be trusted. */
export function clockJump({ drive, sweep, mapTime, mapRpm }: SweepDrive): Finding | undefined {
  const inside = drive.clock.jumps.filter(({ atS }) => atS >= sweep.startS && atS <= sweep.endS);
  if (inside.length === 0) return undefined;
  const { atS, byS } = inside.reduce((most, jump) => (Math.abs(jump.byS) > Math.abs(most.byS) ? jump : most));
  const at = tens(interpolate(mapTime, mapRpm, atS));
  return {
    id: 'clock-jump',
    severity: 'stop',
    fromRpm: at,
    toRpm: at,
    figure: byS,
    unit: 's',
    message:
      byS > 0
        ? `The instrument's clock jumped forward by ${byS.toFixed(2)} s at ${spokenRpm(at)} rpm: nothing was missed, but time there is false. Repeat the run.`
        : `The instrument's clock stepped back, or samples were lost unseen, at ${spokenRpm(at)} rpm (${(-byS).toFixed(2)} s): the curve is broken there. Repeat the run.`,
  };
}

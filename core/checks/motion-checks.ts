import type { SweepDrive } from '../reduction/sweep-drive.ts';
import { axleSlip } from './axle-slip.ts';
import type { Finding } from './check.ts';
import { cutRun } from './cut-run.ts';
import { limp } from './limp.ts';
import { partOfTheRise } from './part-of-the-rise.ts';
import { rough } from './rough.ts';
import { clockJump, sampleGap } from './sampling-checks.ts';
import { drivelineSlip, hop, tyreSlip } from './slip-checks.ts';
import { axleTrace, slipTrace } from './slip.ts';
import { fuelCut, limiter, partThrottle } from './throttle-checks.ts';

/** What the speeds of a sweep show, whatever the settings of its curve. */
export function motionChecks(run: SweepDrive): Finding[] {
  const trace = slipTrace(run);
  const axles = axleTrace(run);
  const hopping = trace && hop(trace);
  const found = [
    clockJump(run),
    sampleGap(run),
    cutRun(run.sweep, run.endRpm),
    partOfTheRise(run),
    limiter(run),
    limp(run),
    fuelCut(run),
    partThrottle(run),
    hopping,
    trace && tyreSlip(trace, run.dyno.kind, hopping?.zones),
    trace && drivelineSlip(trace, run.dyno.kind),
    axles && axleSlip(axles, run.dyno.kind),
    rough(run),
  ];
  return found.filter((finding) => finding !== undefined);
}

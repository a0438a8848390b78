import { sampleAt } from '../numerics/sample-at.ts';
import { medianOf } from '../numerics/quantile.ts';
import type { SweepDrive } from '../reduction/sweep-drive.ts';
import { firstNotBelow } from '../numerics/interpolation.ts';
import { localFit } from '../smoothing/local-polynomial.ts';
import type { Finding } from './check.ts';

// Set by bench/checks.ts: no false alarm on healthy pulls, most hits on faulty ones.
/** Torque is looked at over these times, against a cubic over the long one, s. */
const shortS = 0.1;
const middleS = 0.3;
const longS = 1.2;
/** From one place at which it is looked at to the next, s. */
const everyS = 0.15;
/** Torque that comes and goes by more than this share of itself is rough. */
const roughShare = 0.01;

/**
 * Found when torque comes and goes quickly all along the pull: a misfire, a
 * sticking valve, a coil breaking down. Noise of a reading shows in short
 * looks far more than in longer ones (its variance falls with the third power
 * of the time); torque that truly varies does not, and what is left of the
 * longer look after the noise is taken out is the figure: a median over the
 * pull, so that one dip of the curve is no roughness.
 */
export function rough(run: SweepDrive): Finding | undefined {
  const { drive, first, last } = run;
  const { time, impulse } = drive;
  const short: number[] = [];
  const middle: number[] = [];
  const torque: number[] = [];
  for (let atS = sampleAt(time, first) + longS / 2; atS < sampleAt(time, last) - longS / 2; atS += everyS) {
    // A cut of torque is told by itself.
    if (run.sweep.edges.some(({ at }) => Math.abs(sampleAt(time, at) - atS) < longS / 2 + shortS)) continue;
    const around = (spanS: number, degree: number) =>
      localFit(
        time,
        impulse,
        Math.max(first, firstNotBelow(time, atS - spanS / 2)),
        Math.min(last, firstNotBelow(time, atS + spanS / 2) - 1),
        atS,
        degree,
      );
    const long = around(longS, 3);
    const [shortFit, middleFit] = [around(shortS, 1), around(middleS, 1)];
    if (!long || !shortFit || !middleFit) continue;
    short.push((shortFit.slope - long.slope) ** 2);
    middle.push((middleFit.slope - long.slope) ** 2);
    torque.push(long.slope);
  }
  if (middle.length < 12) return undefined;
  // Half of all squared normal values lie below 0.455 of their variance.
  const [shortVariance, middleVariance] = [medianOf(short) / 0.455, medianOf(middle) / 0.455];
  const noiseInMiddle = shortVariance / (middleS / shortS) ** 3;
  const share = Math.sqrt(Math.max(0, middleVariance - noiseInMiddle)) / medianOf(torque);
  if (!(share > roughShare) || middleVariance < 2 * noiseInMiddle) return undefined;
  const percent = Math.round(1000 * share) / 10;
  return {
    id: 'rough',
    severity: 'mind',
    figure: percent,
    unit: '%',
    message: `Torque comes and goes by ${percent.toFixed(1)} % all along the pull: the engine runs rough. Look at ignition and fuelling before tuning on.`,
  };
}

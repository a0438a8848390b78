import { sampleAt } from '../numerics/sample-at.ts';
import type { Recording } from '../recording/recording.ts';
import { firstNotBelow, greatestAt } from '../numerics/interpolation.ts';
import { driveOf } from '../reduction/drive.ts';
import { drumInertiaKgM2, drumsIn } from '../dyno/drums.ts';
import type { DynoProfile } from '../dyno/dyno-profile.ts';
import { Refusal } from '../refusal.ts';
import { slopes } from '../smoothing/moving-fit.ts';
import { leastSquares, type LinearFit } from '../statistics/least-squares.ts';
import { studentT } from '../statistics/student-t.ts';

/** A coefficient and its 95 % interval. */
export interface Estimate {
  value: number;
  low: number;
  high: number;
}

/** Loss torque a + b·ω + c·ω² as a coast-down shows it; N·m, ω in rad/s of the drum. */
export interface CoastDown {
  aNm: Estimate;
  bNmPerRadS: Estimate;
  cNmPerRadS2: Estimate;
  /** The coast that was used. */
  fromRadS: number;
  toRadS: number;
  startS: number;
  endS: number;
  samples: number;
  /** What had to be turned, kg·m². */
  inertiaKgM2: number;
  /** Standard deviation of the speed reading about the fit, rad/s. */
  residualRadS: number;
  fit: LinearFit;
}

/** Kept clear of the top and of the end, s; the clutch needs a moment. */
const marginS = 0.3;
/** A coast must last so long, s, and lose this share of its top speed. */
const leastS = 2;
const leastFall = 0.15;
/** Below this share of the top speed the drum is not looked at any more. */
const slowShare = 0.08;
/** Acceleration is looked at over this time, s. */
const spanS = 0.5;

/**
 * Losses from a coast: clutch out or neutral at top speed, so that
 * I·dω/dt = −(T_abs + a + b·ω + c·ω²). Integrated over time this is linear in
 * a, b and c, with the drum's speed itself on the left: no derivative of noise.
 *
 *   I·(ω(0) − ω(t)) − ∫T_abs = a·t + b·∫ω + c·∫ω²
 *
 * Intervals count the residuals' correlation. First principles; the inertia is
 * taken as known, its own uncertainty goes whole into all three coefficients.
 * Unloaded drag misses losses that grow with load: a crank estimate made from
 * it is a lower bound.
 *
 * @param drivelineInertiaKgM2 what turns with the drum beside it, referred to the drum's speed; 0 for the machine alone
 * @throws Refusal when the recording holds no coast
 */
export function coastDown(recording: Recording, dyno: DynoProfile, drivelineInertiaKgM2 = 0): CoastDown {
  const places = drumsIn(
    recording.channels.map(({ name }) => name),
    dyno.kind,
  )?.map(({ place }) => place) ?? [undefined];
  // What turns beside them is shared among several drums: they turn alike.
  const each = places.map((place) => drumInertiaKgM2(dyno, place) + drivelineInertiaKgM2 / places.length);
  const inertiaKgM2 = each.reduce((sum, one) => sum + one, 0);
  const drumInertia = Object.fromEntries(places.flatMap((place, at) => (place ? [[place, each[at]!]] : [])));
  const free = {
    ...dyno,
    inertiaKgM2,
    drumInertiaKgM2: drumInertia,
    parasitic: { aNm: 0, bNmPerRadS: 0, cNmPerRadS2: 0 },
  };
  // The ratio is of no use here: losses belong to the drum's speed.
  const drive = driveOf(recording, free, 1);
  const { time, speed, impulse } = drive;
  const [first, last] = coastIn(time, speed);
  const count = last - first + 1;
  const columns = [
    new Float64Array(count).fill(1),
    new Float64Array(count),
    new Float64Array(count),
    new Float64Array(count),
  ];
  const lost = new Float64Array(count);
  for (let index = 0; index < count; index++) {
    const at = first + index;
    lost[index] = sampleAt(impulse, first) - sampleAt(impulse, at);
    if (index === 0) continue;
    const half = 0.5 * (sampleAt(time, at) - sampleAt(time, at - 1));
    columns[1]![index] = sampleAt(columns[1]!, index - 1) + 2 * half;
    columns[2]![index] = sampleAt(columns[2]!, index - 1) + half * (sampleAt(speed, at) + sampleAt(speed, at - 1));
    columns[3]![index] =
      sampleAt(columns[3]!, index - 1) + half * (sampleAt(speed, at) ** 2 + sampleAt(speed, at - 1) ** 2);
  }
  const fit = leastSquares(columns, lost, time.subarray(first, last + 1));
  if (!fit) throw new Refusal('The coast is too short or too even for a fit of losses: let it run down further.');
  const estimate = (index: number): Estimate => {
    const value = fit.coefficients[index]!;
    const half = studentT(0.95, fit.df) * Math.sqrt(fit.covariance[index]![index]!);
    return { value, low: value - half, high: value + half };
  };
  return {
    aNm: estimate(1),
    bNmPerRadS: estimate(2),
    cNmPerRadS2: estimate(3),
    fromRadS: sampleAt(speed, first),
    toRadS: sampleAt(speed, last),
    startS: sampleAt(time, first),
    endS: sampleAt(time, last),
    samples: count,
    inertiaKgM2,
    residualRadS: fit.residual / inertiaKgM2,
    fit,
  };
}

/** Loss torque at a drum speed with its 95 % interval, N·m: narrower than its coefficients' suggest, for they go together. */
export function lossAt({ fit }: CoastDown, speedRadS: number): Estimate {
  const row = [0, 1, speedRadS, speedRadS ** 2];
  let value = 0;
  let variance = 0;
  row.forEach((x, i) => {
    value += x * fit.coefficients[i]!;
    row.forEach((y, j) => (variance += x * y * fit.covariance[i]![j]!));
  });
  const half = studentT(0.95, fit.df) * Math.sqrt(Math.max(0, variance));
  return { value, low: value - half, high: value + half };
}

/** First and last sample of the coast: the fall from the highest speed, as long as it goes on. */
function coastIn(time: Float64Array, speed: Float64Array): readonly [number, number] {
  const { value, slope } = slopes(time, speed, spanS);
  const top = greatestAt(value);
  const topSpeed = sampleAt(value, top);
  let last = top;
  let risingSinceS = NaN;
  for (let index = top; index < time.length; index++) {
    if (sampleAt(value, index) < slowShare * topSpeed) break;
    if (sampleAt(slope, index) < 0) {
      last = index;
      risingSinceS = NaN;
    } else {
      if (Number.isNaN(risingSinceS)) risingSinceS = sampleAt(time, index);
      if (sampleAt(time, index) - risingSinceS > spanS && sampleAt(time, index) - sampleAt(time, top) > marginS) break;
    }
  }
  const first = firstNotBelow(time, sampleAt(time, top) + marginS);
  const end = firstNotBelow(time, sampleAt(time, last) - marginS / 2) - 1;
  if (
    end - first < 20 ||
    sampleAt(time, end) - sampleAt(time, first) < leastS ||
    sampleAt(speed, end) > (1 - leastFall) * sampleAt(speed, first)
  ) {
    throw new Refusal(
      'No coast was found: after its highest speed the drum should run down freely for some seconds. Record until it has lost most of its speed.',
    );
  }
  return [first, end];
}

/** A temperature read some seconds after work ended. */
export interface CoolingReading {
  atS: number;
  valueC: number;
}

/** A temperature on its way to rest: T(t) = rest + span·e^(−t/τ), as the readings so far show it. */
export interface CoolingCurve {
  restC: number;
  spanC: number;
  tauS: number;
  /** Time constants that fit nearly as well, s: what the readings leave open. */
  tauLeastS: number;
  tauMostS: number;
  /** Standard deviation of the readings about the curve, K. */
  residualC: number;
  /** When the last reading was taken, s. */
  untilS: number;
}

/** Fewer readings, less time or less movement than this tell nothing. */
const leastReadings = 12;
const leastS = 25;
const leastMovedC = 0.6;
/** Time constants looked at, s: metal and oil under a bonnet lie between. */
const [shortestS, longestS, tried] = [15, 3000, 90];
/** A sum of squares within this share of the least fits nearly as well. */
const nearly = 0.15;
/** Readings no better than this are taken for no better, K. */
const resolutionC = 0.05;

/**
 * Fits the exponential by which a warm body comes to rest in moving air
 * (Newton's law of cooling): for each time constant the rest is a linear fit.
 * The rest is bounded by what the car comes to: not below the air.
 *
 * @param readings in the order of time
 * @param floorC nothing cools below this, °C
 * @returns undefined while the readings tell nothing yet
 */
export function coolingCurve(readings: readonly CoolingReading[], floorC = -Infinity): CoolingCurve | undefined {
  const first = readings[0];
  const last = readings.at(-1);
  if (!first || !last || readings.length < leastReadings || last.atS - first.atS < leastS) return undefined;
  const values = readings.map(({ valueC }) => valueC);
  if (Math.max(...values) - Math.min(...values) < leastMovedC) return undefined;
  const fits = Array.from({ length: tried }, (_, index) => {
    const tauS = shortestS * (longestS / shortestS) ** (index / (tried - 1));
    return { tauS, ...linear(readings, tauS, floorC) };
  });
  const best = fits.reduce((least, other) => (other.square < least.square ? other : least));
  const noise = readings.length * resolutionC ** 2;
  const good = fits.filter(({ square }) => square <= (1 + nearly) * best.square + nearly * noise);
  return {
    restC: best.restC,
    spanC: best.spanC,
    tauS: best.tauS,
    tauLeastS: good[0]!.tauS,
    tauMostS: good[good.length - 1]!.tauS,
    residualC: Math.sqrt(best.square / readings.length),
    untilS: last.atS,
  };
}

/** Rest and span by least squares for one time constant. */
function linear(
  readings: readonly CoolingReading[],
  tauS: number,
  floorC: number,
): { restC: number; spanC: number; square: number } {
  const shares = readings.map(({ atS }) => Math.exp(-atS / tauS));
  const count = readings.length;
  const meanShare = shares.reduce((sum, value) => sum + value, 0) / count;
  const meanC = readings.reduce((sum, { valueC }) => sum + valueC, 0) / count;
  let cross = 0;
  let square = 0;
  shares.forEach((share, index) => {
    cross += (share - meanShare) * (readings[index]!.valueC - meanC);
    square += (share - meanShare) ** 2;
  });
  let spanC = square > 0 ? cross / square : 0;
  let restC = meanC - spanC * meanShare;
  if (restC < floorC) {
    restC = floorC;
    const ownShare = shares.reduce((sum, share) => sum + share * share, 0);
    spanC = shares.reduce((sum, share, index) => sum + share * (readings[index]!.valueC - floorC), 0) / ownShare;
  }
  const left = shares.reduce((sum, share, index) => sum + (readings[index]!.valueC - restC - spanC * share) ** 2, 0);
  return { restC, spanC, square: left };
}

/** The temperature that a curve comes to at a time, °C. */
export function temperatureAt({ restC, spanC, tauS }: CoolingCurve, atS: number): number {
  return restC + spanC * Math.exp(-atS / tauS);
}

/** How long until a window is reached: now, in so many seconds, never as it stands, or not to be told yet. */
export type TimeToReady =
  | { when: 'now' }
  | { when: 'in'; seconds: number; leastS: number; mostS: number }
  | { when: 'never'; restC: number }
  | { when: 'unknown' };

/** An estimate that may be wrong by more than this factor either way is not given. */
const toldWithin = 2.5;

/**
 * When a temperature will be back in its window, from the curve observed so far.
 * @param nowC what it reads now
 * @param window °C
 */
export function timeToReady(
  curve: CoolingCurve | undefined,
  nowC: number,
  window: { fromC: number; toC: number },
): TimeToReady {
  if (nowC >= window.fromC && nowC <= window.toC) return { when: 'now' };
  if (!curve) return { when: 'unknown' };
  const goalC = nowC > window.toC ? window.toC : window.fromC;
  const away = nowC - curve.restC;
  const left = goalC - curve.restC;
  // It must be moving towards the window, and come to rest beyond its edge.
  const share = left / away;
  if (!(share > 0.02) || share >= 1) return { when: 'never', restC: curve.restC };
  const after = (tauS: number) => -tauS * Math.log(share);
  const [seconds, leastS, mostS] = [after(curve.tauS), after(curve.tauLeastS), after(curve.tauMostS)];
  if (mostS > toldWithin * Math.max(seconds, 20) || seconds > toldWithin * Math.max(leastS, 20))
    return { when: 'unknown' };
  return { when: 'in', seconds, leastS, mostS };
}

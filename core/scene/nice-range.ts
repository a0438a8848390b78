/** A value axis: its ends on round figures and the step between its lines. */
export interface ValueRange {
  least: number;
  most: number;
  step: number;
}

/**
 * Round ends and step around values.
 * @param atLeast the span that the axis never falls below, so that noise does not fill a lane
 */
export function niceRange(least: number, most: number, lines: number, atLeast = 0): ValueRange {
  if (!Number.isFinite(least) || !Number.isFinite(most)) return { least: 0, most: 1, step: 1 };
  const middle = (least + most) / 2;
  const width = Math.max(most - least, atLeast, 1e-9);
  const rough = width / lines;
  const power = 10 ** Math.floor(Math.log10(rough));
  const step = [1, 2, 5].map((factor) => factor * power).find((candidate) => candidate >= rough) ?? 10 * power;
  const low = Math.min(least, middle - width / 2);
  const high = Math.max(most, middle + width / 2);
  return { least: Math.floor(low / step + 1e-9) * step, most: Math.ceil(high / step - 1e-9) * step, step };
}

/** An axis never shows less than this of a unit, so that noise does not fill a lane. */
const leastSpan: Record<string, number> = {
  '%': 10,
  '°': 2,
  '°BTDC': 4,
  '°C': 6,
  '°F': 10,
  kPa: 20,
  bar: 0.2,
  psi: 3,
  inHg: 0.2,
  '–': 0.06,
  '': 0.06,
  AFR: 0.9,
  V: 1,
  ms: 1,
};

/** The value axis of logged readings in a unit. */
export function readingRange(series: readonly Float64Array[], unit: string): ValueRange {
  const [least, most] = extremesOf(series);
  return niceRange(least, most, 3, leastSpan[unit] ?? Math.max(1, 0.05 * Math.abs(most)));
}

/** Free above and below the lines, as a share of what they span. */
const marginShare = 0.08;

/** The same for a low lane: its ends stand close about the readings, and only the figures on it are round. */
export function closeRange(series: readonly Float64Array[], unit: string): ValueRange {
  const [least, most] = extremesOf(series);
  const { step } = niceRange(least, most, 2, leastSpan[unit] ?? Math.max(1, 0.05 * Math.abs(most)));
  if (!(least <= most)) return { least: 0, most: 1, step: 1 };
  const span = Math.max(most - least, leastSpan[unit] ?? Math.max(1, 0.05 * Math.abs(most)));
  const [middle, half] = [(least + most) / 2, (0.5 + marginShare) * span];
  return { least: middle - half, most: middle + half, step };
}

function extremesOf(series: readonly Float64Array[]): [least: number, most: number] {
  let [least, most] = [Infinity, -Infinity];
  for (const values of series) {
    for (const value of values) {
      least = Math.min(least, value);
      most = Math.max(most, value);
    }
  }
  return [least, most];
}

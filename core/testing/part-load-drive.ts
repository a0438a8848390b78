import type { FuellingAxes, PartLoadLog } from '../fuelling/axes.ts';
import { dealerOf, noShares } from '../fuelling/axes.ts';
import { chance, normal, wandering } from './chance.ts';

/** A drive over part load with a known table of errors; physics of its own. */
export interface PartLoadDrive {
  log: PartLoadLog;
  /** Mean transport over the drive's median flow and the probe's lag, s. */
  delayS: number;
}

export interface DriveRecipe {
  axes: FuellingAxes;
  /** Errors at the corners, as shares, in rows. */
  errors: readonly number[];
  seed: number;
  rateHz?: number;
  /** A hold at each of these, in turn; all cells when absent. */
  points?: readonly { rpm: number; kpa: number }[];
  holdS?: number;
  /** Transport at 1,000 rpm and 100 kPa, s. */
  volumeS?: number;
  lagS?: number;
  /** White noise of λ, and one that wanders. */
  noise?: number;
  wander?: number;
  trims?: boolean;
  /** Lean spike by a kPa a second of a rising load. */
  wallFilm?: number;
  lambdaTarget?: (rpm: number, kpa: number) => number;
}

const between = (from: number, to: number, share: number) => from + (to - from) * Math.max(0, Math.min(1, share));

/** Holds one after the other with quick passages between them, as a driver on a loaded dyno drives a table. */
export function partLoadDrive(recipe: DriveRecipe): PartLoadDrive {
  const {
    axes,
    errors,
    seed,
    rateHz = 50,
    holdS = 4,
    volumeS = 0.25,
    lagS = 0.1,
    noise = 0.004,
    wander = 0.005,
    trims = false,
    wallFilm = 0.0008,
  } = recipe;
  const targetOf = recipe.lambdaTarget ?? (() => 1);
  const random = chance(seed);
  const gauss = normal(random);
  const [rpmWander, kpaWander, lambdaWander] = [
    wandering(random, 12, 0.8),
    wandering(random, 0.6, 0.6),
    wandering(random, wander, 0.25),
  ];
  const points =
    recipe.points ??
    axes.down!.breakpoints.flatMap((kpa, row) => {
      const line = axes.across.breakpoints.map((rpm) => ({ rpm, kpa }));
      return row % 2 ? line.reverse() : line;
    });
  const passageS = 0.9;
  const stepS = 1 / rateHz;
  const count = Math.round(points.length * (holdS + passageS) * rateHz);
  const make = () => new Float64Array(count);
  const [time, rpm, kpa, lambda, target, short, long, throttle] = [
    make(),
    make(),
    make(),
    make(),
    make(),
    make(),
    make(),
    make(),
  ];
  const atEngine = make();
  const deal = dealerOf(axes, { by: 'corners' });
  const shares = noShares();
  let film = 0;
  let shortTrim = 0;
  let lagged = NaN;
  const flows: number[] = [];
  for (let index = 0; index < count; index++) {
    const at = index * stepS;
    const leg = Math.min(points.length - 1, Math.floor(at / (holdS + passageS)));
    const [from, to] = [points[Math.max(0, leg - 1)]!, points[leg]!];
    const share = (at - leg * (holdS + passageS)) / passageS;
    time[index] = at;
    rpm[index] = between(from.rpm, to.rpm, share) + rpmWander(stepS);
    kpa[index] = between(from.kpa, to.kpa, share) + kpaWander(stepS);
    throttle[index] = 10 + 0.7 * between(from.kpa, to.kpa, share);
    target[index] = targetOf(rpm[index]!, kpa[index]!);
    const rate = index > 0 ? (kpa[index]! - kpa[index - 1]!) / stepS : 0;
    film += (1 - Math.exp(-stepS / 0.18)) * (rate - film);
    deal(
      Math.max(axes.across.breakpoints[0]!, Math.min(axes.across.breakpoints.at(-1)!, rpm[index]!)),
      Math.max(axes.down!.breakpoints[0]!, Math.min(axes.down!.breakpoints.at(-1)!, kpa[index]!)),
      shares,
    );
    let error = 0;
    for (let place = 0; place < shares.count; place++) error += shares.shares[place]! * errors[shares.cells[place]!]!;
    short[index] = 100 * shortTrim;
    long[index] = trims ? 2 : 0;
    atEngine[index] = (target[index]! * (1 + error)) / ((1 + shortTrim) * (1 + long[index]! / 100)) + wallFilm * film;
    const flow = (rpm[index]! / 1000) * (kpa[index]! / 100);
    flows.push(flow);
    const left = index - (volumeS / flow) * rateHz;
    const low = Math.max(0, Math.floor(left));
    const arriving =
      left <= 0 ? atEngine[0]! : atEngine[low]! + (left - low) * (atEngine[Math.min(index, low + 1)]! - atEngine[low]!);
    lagged = Number.isNaN(lagged) ? arriving : lagged + (1 - Math.exp(-stepS / lagS)) * (arriving - lagged);
    const real = lagged + lambdaWander(stepS);
    if (trims) shortTrim = Math.max(-0.15, Math.min(0.15, shortTrim + 0.25 * (real / target[index]! - 1) * stepS));
    lambda[index] = real + noise * gauss();
  }
  const median = flows.sort((a, b) => a - b)[count >> 1]!;
  const channels = new Map<string, Float64Array>([
    ['manifoldPressure', kpa],
    ['lambda', lambda],
    ['lambdaTarget', target],
    ['throttle', throttle],
    ...(trims
      ? ([
          ['fuelTrimShort', short],
          ['fuelTrimLong', long],
        ] as const)
      : []),
  ]);
  return { log: { time, engineSpeedRpm: rpm, channels }, delayS: volumeS / median + lagS };
}

/** A smooth table of errors with a fault or two in it, as shares. */
export function drawnErrors(axes: FuellingAxes, seed: number): number[] {
  const random = chance(seed);
  const gauss = normal(random);
  const columns = axes.across.breakpoints.length;
  const rows = axes.down?.breakpoints.length ?? 1;
  const [tiltX, tiltY, level] = [0.03 * gauss(), 0.03 * gauss(), 0.02 * gauss()];
  const bumps = Array.from({ length: 3 }, () => ({
    x: random() * columns,
    y: random() * rows,
    height: 0.05 * gauss(),
    width: 1 + random(),
  }));
  return Array.from({ length: columns * rows }, (_, cell) => {
    const [column, row] = [cell % columns, Math.floor(cell / columns)];
    const bumped = bumps.reduce(
      (sum, { x, y, height, width }) =>
        sum + height * Math.exp(-(((column - x) / width) ** 2) - ((row - y) / width) ** 2),
      0,
    );
    return level + tiltX * (column / columns - 0.5) + tiltY * (row / rows - 0.5) + bumped + 0.006 * gauss();
  });
}

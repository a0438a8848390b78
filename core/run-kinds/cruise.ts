import type { Finding } from '../checks/check.ts';
import { meanOf } from '../numerics/mean.ts';
import { medianOf } from '../numerics/quantile.ts';
import { standardDeviationOf } from '../statistics/mean-difference.ts';
import { studentT } from '../statistics/student-t.ts';
import { Refusal } from '../refusal.ts';
import { between, loggedTogether, type KindSource } from './kind-source.ts';
import { figure, type RunFigure, type RunFigures } from './run-figure.ts';

/** Wheel power over time, kW, and road speed, km/h, where there is one. */
export interface WheelPower {
  time: Float64Array;
  powerKw: Float64Array;
  roadKmh: Float64Array | undefined;
}

/** The beginning is left out until the wheels' power has settled, at least so long, s; what is left of a cruise must last for the second. */
const settlingS = 5;
const leastS = 45;
/** Settled: means over so many seconds stay this near to that of the cruise's later half, as a share. */
const lookedAtS = 4;
const settledShare = 0.06;
/** Blocks are so long, s: what drifts within a minute is in their spread. */
const blockS = 15;
/** Litres an hour for each g/s, by the fuel's density in kg/L. */
const litresPerHour = (gramsPerS: number, densityKgL: number) => (gramsPerS * 3.6) / densityKgL;
// Set by bench/run-kinds.ts.
/** λ this far below its target at a cruise burns more than it need, as a share. */
const richShare = 0.04;

/** What is known of the fuel that it burns. */
export interface BurntFuel {
  stoichiometric: number;
  densityKgL: number;
}

/**
 * A cruise at one speed and one load: fuel flow, wheel power, road speed, pedal
 * and λ as means of blocks of a quarter minute, so that their intervals count
 * drift; fuel for each kilowatt-hour at the wheels and, with a road speed, for
 * 100 km. Fuel flow is the logged one, or air ÷ (λ × stoichiometric ratio), which is
 * said.
 *
 * @throws Refusal where it is too short, or nothing tells the fuel
 */
export function cruiseFigures(source: KindSource, wheels: WheelPower, fuel: BurntFuel): RunFigures {
  const cruise = steadyPart(wheels);
  const blockMeans = (time: Float64Array, values: Float64Array) => blocksOf(time, values, cruise);
  const power = blockMeans(wheels.time, wheels.powerKw);
  if (power.length * blockS < leastS) throw new Refusal(`A cruise tells something from ${leastS} s on that are held steady: hold speed and load for longer.`); // prettier-ignore
  const flow = fuelFlow(source, fuel, blockMeans);
  const litres = flow.blocks.map((gramsPerS) => litresPerHour(gramsPerS, fuel.densityKgL));
  const meanKw = meanOf(power);
  const road = wheels.roadKmh && blockMeans(wheels.time, wheels.roadKmh);
  const perEnergy = litres.map((value) => (1000 * fuel.densityKgL * value) / meanKw);
  const figures: RunFigure[] = [
    figure('fuel', flow.label, ['L/h', 3], meanOfBlocks(litres), 'less'),
    ...(meanKw > 0
      ? [figure('fuel-per-energy', 'Fuel for energy at the wheels', ['g/kWh', 0], meanOfBlocks(perEnergy), 'less')]
      : []),
    ...(road && meanOf(road) > 5 ? [figure('fuel-per-distance', 'Fuel for distance', ['L/100 km', 3], meanOfBlocks(litres.map((value) => (100 * value) / meanOf(road))), 'less')] : []), // prettier-ignore
    figure('minutes', 'Time', ['min', 1], { mean: (power.length * blockS) / 60, halfWidth: NaN }),
    figure('wheel-power', 'Wheel power', ['kW', 2], meanOfBlocks(power)),
    ...(road ? [figure('road-speed', 'Road speed', ['km/h', 1], meanOfBlocks(road))] : []),
    ...loggedMean(source, blockMeans, 'throttle', 'Pedal', ['%', 1]),
    ...loggedMean(source, blockMeans, 'lambda', 'λ', ['λ', 3]),
    ...loggedMean(source, blockMeans, 'intakeTemperature', 'Intake', ['°C', 1]),
    ...loggedMean(source, blockMeans, 'coolantTemperature', 'Coolant', ['°C', 1]),
  ];
  const found: Finding[] = [];
  const rich = richAt(source, blockMeans);
  if (rich !== undefined && rich > richShare)
    found.push({ id: 'cruise-rich', severity: 'mind', figure: 100 * rich, unit: '%', message: `λ lies ${(100 * rich).toFixed(0)} % below its target at this cruise: about as much more fuel than needed. Look at the fuel table there, fuel pressure and the probe.` }); // prettier-ignore
  return { figures, found };
}

/** A stretch of a run, s from its beginning: the clocks of its instruments begin together. */
interface Stretch {
  fromS: number;
  toS: number;
}

/** From where the power has settled to where it is let go. */
function steadyPart({ time, powerKw }: WheelPower): Stretch {
  const first = time[0]!;
  const lastS = time[time.length - 1]! - first;
  const usual = medianOf(between(time, powerKw, first + lastS / 2, Infinity));
  const near = (fromS: number) =>
    Math.abs(meanOf(between(time, powerKw, first + fromS, first + fromS + lookedAtS)) / usual - 1) <= settledShare;
  let fromS = settlingS;
  let toS = lastS;
  while (fromS < lastS / 2 && !near(fromS)) fromS += 1;
  while (toS - lookedAtS > lastS / 2 && !near(toS - lookedAtS)) toS -= 1;
  return { fromS, toS };
}

type BlockMeans = (time: Float64Array, values: Float64Array) => number[];

/** Means of whole blocks of a stretch. */
function blocksOf(time: Float64Array, values: Float64Array, { fromS, toS }: Stretch): number[] {
  const firstS = time[0]! + fromS;
  const count = Math.floor((Math.min(toS, time[time.length - 1]! - time[0]!) - fromS) / blockS + 0.02);
  return Array.from({ length: Math.max(0, count) }, (_, at) => meanOf(between(time, values, firstS + at * blockS, firstS + (at + 1) * blockS))); // prettier-ignore
}

/**
 * Mean of blocks with its interval. Blocks that follow one another go together
 * where something drifts: their number is taken down by the correlation of neighbours.
 */
export function meanOfBlocks(blocks: readonly number[]): { mean: number; halfWidth: number } {
  const mean = meanOf(blocks);
  if (blocks.length < 3) return { mean, halfWidth: NaN };
  const sd = standardDeviationOf(blocks);
  let together = 0;
  for (let at = 1; at < blocks.length; at++) together += (blocks[at]! - mean) * (blocks[at - 1]! - mean);
  const shown = sd > 0 ? together / ((blocks.length - 1) * sd ** 2) : 0;
  // A short row of blocks shows less correlation than there is, by about 1 ÷ their number.
  const correlation = Math.max(0, Math.min(0.8, shown + 1 / blocks.length));
  const effective = Math.max(3, (blocks.length * (1 - correlation)) / (1 + correlation));
  return { mean, halfWidth: (studentT(0.95, effective - 1) * sd) / Math.sqrt(effective) };
}

function fuelFlow(
  source: KindSource,
  { stoichiometric }: BurntFuel,
  blockMeans: BlockMeans,
): { label: string; blocks: number[] } {
  const metered = loggedTogether(source, 'fuelFlow');
  if (metered) return { label: 'Fuel', blocks: blockMeans(metered.time, metered.fuelFlow) };
  const told = loggedTogether(source, 'airMassFlow', 'lambda');
  if (!told) throw new Refusal('Neither fuel flow nor air mass flow with λ was logged, so no fuel use can be told.');
  const { time, airMassFlow: air, lambda } = told;
  return { label: 'Fuel, estimate from air and λ', blocks: blockMeans(time, air.map((gramsPerS, at) => gramsPerS / (lambda[at]! * stoichiometric))) }; // prettier-ignore
}

function loggedMean<Name extends string>(
  source: KindSource,
  blockMeans: BlockMeans,
  name: Name,
  label: string,
  as: readonly [string, number],
): RunFigure[] {
  const logged = loggedTogether(source, name);
  const blocks = logged ? blockMeans(logged.time, logged[name]) : [];
  return blocks.length > 0 ? [figure(name, label, as, meanOfBlocks(blocks))] : [];
}

function richAt(source: KindSource, blockMeans: BlockMeans): number | undefined {
  const logged = loggedTogether(source, 'lambda', 'lambdaTarget');
  if (!logged) return undefined;
  const { time, lambda: read, lambdaTarget: target } = logged;
  const blocks = blockMeans(
    time, read.map((value, at) => 1 - value / target[at]!)); // prettier-ignore
  return blocks.length > 0 ? meanOf(blocks) : undefined;
}

import { sampleAt } from '../numerics/sample-at.ts';
import type { Finding } from '../checks/check.ts';
import { meanOf } from '../numerics/mean.ts';
import { standardDeviationOf } from '../statistics/mean-difference.ts';
import { studentT } from '../statistics/student-t.ts';
import { Refusal } from '../refusal.ts';
import { loggedTogether, longestSteady, between, type KindSource, type Stretch } from './kind-source.ts';
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
/** Steady: means over so many seconds stay this near to the middle one, as a share, in power and in engine speed. */
const lookedAtS = 2;
const steadyShares = { power: 0.06, speed: 0.015 } as const;
/** Time before the end that is left out: the foot may have moved already, s. */
const endingS = 2;
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
  const stretch = steadyStretch(wheels.time, wheels.powerKw, steadyShares.power);
  const power = blocksOf(wheels.time, wheels.powerKw, stretch);
  if (power.length * blockS < leastS)
    throw new Refusal(
      `A cruise tells something from ${leastS} s on that are held steady: hold speed and load for longer.`,
    );
  const flow = fuelFlow(source, fuel);
  const litres = flow.blocks.map((gramsPerS) => litresPerHour(gramsPerS, fuel.densityKgL));
  const meanKw = meanOf(power);
  const road = wheels.roadKmh && blocksOf(wheels.time, wheels.roadKmh, stretch);
  const perEnergy = litres.map((value) => (1000 * fuel.densityKgL * value) / meanKw);
  const figures: RunFigure[] = [
    figure('fuel', flow.label, ['L/h', 3], meanOfBlocks(litres), 'less'),
    ...(meanKw > 0
      ? [figure('fuel-per-energy', 'Fuel for energy at the wheels', ['g/kWh', 0], meanOfBlocks(perEnergy), 'less')]
      : []),
    ...(road && meanOf(road) > 5
      ? [
          figure(
            'fuel-per-distance',
            'Fuel for distance',
            ['L/100 km', 3],
            meanOfBlocks(litres.map((value) => (100 * value) / meanOf(road))),
            'less',
          ),
        ]
      : []),
    figure('minutes', 'Time', ['min', 1], { mean: (power.length * blockS) / 60, halfWidth: NaN }),
    figure('wheel-power', 'Wheel power', ['kW', 2], meanOfBlocks(power)),
    ...(road ? [figure('road-speed', 'Road speed', ['km/h', 1], meanOfBlocks(road))] : []),
    ...loggedMean(source, 'throttle', 'Pedal', ['%', 1]),
    ...loggedMean(source, 'lambda', 'λ', ['λ', 3]),
    ...loggedMean(source, 'intakeTemperature', 'Intake', ['°C', 1]),
    ...loggedMean(source, 'coolantTemperature', 'Coolant', ['°C', 1]),
  ];
  const found: Finding[] = [];
  const rich = richAt(source);
  if (rich !== undefined && rich > richShare)
    found.push({
      id: 'cruise-rich',
      severity: 'mind',
      figure: 100 * rich,
      unit: '%',
      message: `λ lies ${(100 * rich).toFixed(0)} % below its target at this cruise: about as much more fuel than needed. Look at the fuel table there, fuel pressure and the probe.`,
    });
  return { figures, found };
}

/** The cruise itself, without its beginning and its end. */
function steadyStretch(time: Float64Array, values: Float64Array, share: number): Stretch {
  const { fromS, toS } = longestSteady(time, values, share, lookedAtS);
  return { fromS: fromS + settlingS, toS: toS - endingS };
}

/** Means of whole blocks of a stretch. */
function blocksOf(time: Float64Array, values: Float64Array, { fromS, toS }: Stretch): number[] {
  const count = Math.max(0, Math.floor((toS - fromS) / blockS));
  return Array.from({ length: count }, (_, at) =>
    meanOf(between(time, values, fromS + at * blockS, fromS + (at + 1) * blockS)),
  );
}

/** Block means of a logged channel; each instrument has a clock of its own, so its cruise is found by its own engine speed. */
function loggedBlocks(
  source: KindSource,
  make: (logged: Float64Array[]) => Float64Array,
  ...names: readonly string[]
): number[] | undefined {
  const withSpeed = loggedTogether<string>(source, 'engineSpeed', ...names);
  const logged = withSpeed ?? loggedTogether<string>(source, ...names);
  if (!logged) return undefined;
  const { time } = logged;
  const values = make(names.map((name) => logged[name] ?? new Float64Array(time.length)));
  const speed = withSpeed?.engineSpeed;
  const stretch = speed
    ? steadyStretch(time, speed, steadyShares.speed)
    : { fromS: sampleAt(time, 0) + settlingS, toS: sampleAt(time, time.length - 1) - endingS };
  return blocksOf(time, values, stretch);
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

function fuelFlow(source: KindSource, { stoichiometric }: BurntFuel): { label: string; blocks: number[] } {
  const metered = loggedBlocks(source, ([flow = new Float64Array()]) => flow, 'fuelFlow');
  if (metered) return { label: 'Fuel', blocks: metered };
  const told = loggedBlocks(
    source,
    ([air = new Float64Array(), lambda = new Float64Array()]) =>
      air.map((gramsPerS, at) => gramsPerS / (sampleAt(lambda, at) * stoichiometric)),
    'airMassFlow',
    'lambda',
  );
  if (!told) throw new Refusal('Neither fuel flow nor air mass flow with λ was logged, so no fuel use can be told.');
  return { label: 'Fuel, estimate from air and λ', blocks: told };
}

function loggedMean(source: KindSource, name: string, label: string, as: readonly [string, number]): RunFigure[] {
  const blocks = loggedBlocks(source, ([values = new Float64Array()]) => values, name) ?? [];
  return blocks.length > 0 ? [figure(name, label, as, meanOfBlocks(blocks))] : [];
}

function richAt(source: KindSource): number | undefined {
  const blocks =
    loggedBlocks(
      source,
      ([read = new Float64Array(), target = new Float64Array()]) =>
        read.map((value, at) => 1 - value / sampleAt(target, at)),
      'lambda',
      'lambdaTarget',
    ) ?? [];
  return blocks.length > 0 ? meanOf(blocks) : undefined;
}

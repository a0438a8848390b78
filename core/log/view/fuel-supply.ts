import { burnsFuel } from '../../engine/engine-kind.ts';
import { sampleAt } from '../../numerics/sample-at.ts';
import { quantity, say, type Sentence } from '../../sentence/sentence.ts';
import { diesel, ethanol, petrol, stoichiometricOf, volumeFactor } from '../../fuel/blend.ts';
import { interpolate } from '../../numerics/interpolation.ts';
import type { LoggedChannel } from './log-view.ts';
import type { FuelRegulation, LoggedEngine } from '../pull/run-log.ts';
import type { LogSeries } from '../pull/series.ts';

/** What injectors and pump give as their makers rate them; null where nobody said. */
export interface FuelHardware {
  injectors: number | null;
  /** Each, cm³/min, at a pressure across it, kPa. */
  injectorFlowCcMin: number | null;
  injectorRatedKpa: number | null;
  /** L/h, at a gauge pressure, kPa. */
  pumpFlowLh: number | null;
  pumpRatedKpa: number | null;
}

/** A flow that is needed of something, and what that gives. */
export interface FuelShare {
  givesLh: number;
  /** Needed ÷ given. */
  share: number;
  /** Engine speed from which on it cannot give what is needed, rpm; undefined where it can throughout. */
  endsRpm?: number;
  /** What the figure rests on, in words. */
  rests: Sentence;
}

/** Fuel that a pull needed against what its injectors and pump give. */
export interface FuelSupply {
  /** Where most was needed. */
  atRpm: number;
  neededLh: number;
  /** How it was come by, and what was assumed, in words. */
  rests: Sentence;
  /** Made of what was logged, and not of a usual consumption. */
  measured: boolean;
  /** Rail pressure there, gauge and across the injectors, kPa; what it should be, where that can be told. */
  railKpa?: number;
  acrossKpa?: number;
  expectedKpa?: number;
  injectors?: FuelShare;
  pump?: FuelShare;
  /** Another step of boost of a given size, kPa: an estimate by the absolute pressure in the manifold. */
  next?: { stepKpa: number; neededLh: number; injectors?: number; pump?: number };
}

interface Asked {
  channels: readonly LoggedChannel[];
  engine: LoggedEngine;
  /** What the fuel pressure regulator holds, as the log's view tells. */
  regulation: FuelRegulation | null;
  hardware: FuelHardware;
  /** Power at the wheels over engine speed, uncorrected, kW: used where no air flow was logged. */
  power?: { engineSpeedRpm: Float64Array; powerKw: Float64Array } | undefined;
  /** How much boost the next step would add, kPa. */
  stepKpa?: number | undefined;
}

/** Fuel that an engine burns at full load, g a kWh at the wheels; usual figures of road engines with some 15 % lost on the way. */
const usualConsumption = { compression: 255, plain: 330, boosted: 350 } as const;
/** λ at full load where none was logged. */
const usualLambda = { compression: 1.3, plain: 0.88, boosted: 0.82 } as const;
const seaLevelKpa = 100;

/**
 * Flow needed = air ÷ (λ × stoichiometric ratio), or power × specific
 * consumption where no air flow was logged; injectors give n × q·√(Δp ÷ Δp of
 * their rating) held open, a pump what it is rated for. First principles; an
 * estimate, with what it rests on in words.
 *
 * @returns undefined where neither air flow nor power is known
 */
export function fuelSupply({ channels, engine, regulation, hardware, power, stepKpa }: Asked): FuelSupply | undefined {
  const over = (name: string) => channels.find((channel) => channel.name === name)?.speed;
  const needed = neededFlow(over, engine, power);
  if (!needed) return undefined;
  const top = needed.series.values.reduce((best, value, index, all) => (value > sampleAt(all, best) ? index : best), 0);
  const [atRpm, neededLh] = [sampleAt(needed.series.x, top), sampleAt(needed.series.values, top)];
  const manifold = over('boost') ?? over('manifoldPressure');
  const rail = over('fuelPressure');
  const read = (series: LogSeries | undefined, rpm: number) =>
    series && series.x.length > 1 ? interpolate(series.x, series.values, rpm) : undefined;
  const acrossAt = (rpm: number) => {
    const pressure = read(rail, rpm);
    return pressure === undefined
      ? undefined
      : pressure - (read(over('boost'), rpm) ?? gauge(read(over('manifoldPressure'), rpm)));
  };
  const injectors = injectorShare(hardware, needed.series, acrossAt);
  const pump = pumpShare(hardware, needed.series, read(rail, atRpm));
  const railKpa = read(rail, atRpm);
  const expectedKpa = rail && expectedAt(rail, manifold, regulation, over('fuelPressureTarget'), atRpm);
  const boost = read(over('boost'), atRpm);
  const grown = boost !== undefined && stepKpa ? (seaLevelKpa + boost + stepKpa) / (seaLevelKpa + boost) : undefined;
  return {
    atRpm: Math.round(atRpm / 10) * 10,
    neededLh,
    rests: needed.rests,
    measured: needed.measured,
    ...(railKpa !== undefined && { railKpa, acrossKpa: acrossAt(atRpm) ?? railKpa }),
    ...(expectedKpa !== undefined && { expectedKpa }),
    ...(injectors && { injectors: injectors(top) }),
    ...(pump && { pump: pump(top) }),
    ...(grown !== undefined && stepKpa
      ? {
          next: {
            stepKpa,
            neededLh: grown * neededLh,
            ...(injectors && { injectors: grown * injectors(top).share }),
            ...(pump && { pump: grown * pump(top).share }),
          },
        }
      : {}),
  };
}

/** The rail is told above the air, a manifold's pressure from nothing: without it the manifold is taken to be at the air's. */
const gauge = (absoluteKpa: number | undefined) => (absoluteKpa === undefined ? 0 : absoluteKpa - seaLevelKpa);

function neededFlow(
  over: (name: string) => LogSeries | undefined,
  engine: LoggedEngine,
  power: Asked['power'],
): { series: LogSeries; rests: string; measured: boolean } | undefined {
  if (!burnsFuel(engine.ignition)) return undefined;
  const kind = engine.ignition === 'compression' ? 'compression' : engine.boosted ? 'boosted' : 'plain';
  const { ratio, fuel } = stoichiometricOf(engine.ignition, engine.ethanolPct);
  const density = densityOf(engine);
  const air = over('airMassFlow');
  if (air && air.x.length > 1) {
    const lambda = [over('lambda'), over('lambdaTarget')].find((series) => series && series.x.length > 1);
    const lambdaAt = (rpm: number) => (lambda ? interpolate(lambda.x, lambda.values, rpm) : usualLambda[kind]);
    return {
      series: {
        x: air.x,
        values: air.values.map((grams, index) => (grams / (lambdaAt(sampleAt(air.x, index)) * ratio) / density) * 3.6),
      },
      rests: `air flow ÷ (${lambda ? 'λ' : `λ ${usualLambda[kind]}, assumed,`} × ${ratio.toFixed(1)}, ${fuel})`,
      measured: lambda !== undefined,
    };
  }
  if (!power || power.powerKw.length < 2) return undefined;
  // More of a blend is needed for the same work, by its air–fuel ratio.
  const grams = usualConsumption[kind];
  const blend = engine.ignition === 'compression' ? 1 : volumeFactor(engine.ethanolPct ?? 0);
  const perKw = ((grams / 1000) * blend) / (engine.ignition === 'compression' ? diesel.densityKgL : petrol.densityKgL);
  return {
    series: { x: power.engineSpeedRpm, values: power.powerKw.map((kw) => kw * perKw) },
    rests: `power × ${grams} g/kWh at the wheels, assumed${blend > 1.005 ? `, × ${blend.toFixed(2)} for ${fuel}` : ''}`,
    measured: false,
  };
}

function densityOf({ ignition, ethanolPct }: LoggedEngine): number {
  if (ignition === 'compression') return diesel.densityKgL;
  const share = (ethanolPct ?? 0) / 100;
  return share * ethanol.densityKgL + (1 - share) * petrol.densityKgL;
}

/** Injectors held open against the flow at each speed; undefined where they or the pressure are not known. */
function injectorShare(
  { injectors, injectorFlowCcMin, injectorRatedKpa }: FuelHardware,
  { x, values }: LogSeries,
  acrossAt: (rpm: number) => number | undefined,
): ((index: number) => FuelShare) | undefined {
  if (injectors === null || injectorFlowCcMin === null) return undefined;
  const rated = (injectors * injectorFlowCcMin * 60) / 1000;
  const givesAt = (rpm: number) => {
    const across = acrossAt(rpm);
    return across === undefined || injectorRatedKpa === null
      ? rated
      : rated * Math.sqrt(Math.max(0, across) / injectorRatedKpa);
  };
  const ends = Array.from(x.keys()).find((index) => sampleAt(values, index) > givesAt(sampleAt(x, index)));
  return (index) => {
    const across = acrossAt(sampleAt(x, index));
    const gives = givesAt(sampleAt(x, index));
    return {
      givesLh: gives,
      share: sampleAt(values, index) / gives,
      ...(ends !== undefined && { endsRpm: Math.round(sampleAt(x, ends) / 10) * 10 }),
      rests:
        across === undefined || injectorRatedKpa === null
          ? 'as rated: the pressure across them is not known'
          : say`held open at ${quantity(across, 'kPa')} across them`,
    };
  };
}

function pumpShare(
  { pumpFlowLh, pumpRatedKpa }: FuelHardware,
  { x, values }: LogSeries,
  railKpa: number | undefined,
): ((index: number) => FuelShare) | undefined {
  if (pumpFlowLh === null) return undefined;
  const ends = Array.from(x.keys()).find((index) => sampleAt(values, index) > pumpFlowLh);
  const higher = railKpa !== undefined && pumpRatedKpa !== null && railKpa > 1.05 * pumpRatedKpa;
  return (index) => ({
    givesLh: pumpFlowLh,
    share: sampleAt(values, index) / pumpFlowLh,
    ...(ends !== undefined && { endsRpm: Math.round(sampleAt(x, ends) / 10) * 10 }),
    rests: higher
      ? say`as rated at ${quantity(pumpRatedKpa, 'kPa')}: at ${quantity(railKpa, 'kPa')} it gives less`
      : 'as rated',
  });
}

/** What the rail should read at a speed: what its regulator held in the first eighth of the pull, carried on. */
function expectedAt(
  rail: LogSeries,
  manifold: LogSeries | undefined,
  regulation: FuelRegulation | null,
  target: LogSeries | undefined,
  rpm: number,
): number | undefined {
  if (target && target.x.length > 1) return interpolate(target.x, target.values, rpm);
  if (rail.x.length < 8 || regulation === null || regulation === 'target') return undefined;
  const early = rail.x.subarray(0, Math.max(2, rail.x.length >> 3));
  const against = (at: number) =>
    regulation === 'manifold' && manifold ? interpolate(manifold.x, manifold.values, at) : 0;
  const held = Array.from(early, (at, index) => sampleAt(rail.values, index) - against(at)).sort((a, b) => a - b);
  return held[held.length >> 1]! + against(rpm);
}

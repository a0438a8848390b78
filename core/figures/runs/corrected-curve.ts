import { sampleAt } from '../../numerics/sample-at.ts';
import { correctionOf, type Correction, type DieselEngine, type StandardId } from '../../air/correction.ts';
import type { Air } from '../../air/air.ts';
import {
  airMissing,
  airOutsideStandard,
  airStale,
  dieselAssumed,
  pressureLooksSeaLevel,
  standardUnsuited,
  type AirCircumstances,
} from '../../checks/air-checks.ts';
import type { Finding } from '../../checks/check.ts';
import { stillClimbing } from '../../checks/cut-run.ts';
import { motionChecks } from '../../checks/motion-checks.ts';
import { gridBetween } from '../../curve/grid.ts';
import { crankKw, type CrankLoss } from '../../dyno/crank.ts';
import { peakOf, type Peak } from '../../curve/peak.ts';
import { interpolate } from '../../numerics/interpolation.ts';
import { Refusal } from '../../refusal.ts';
import { convert } from '../../units/units.ts';
import type { DrumPlace, DynoProfile } from '../../dyno/dyno-profile.ts';
import { takenOffPeakKw } from '../../reduction/raw-points.ts';
import type { SweepDrive } from '../../reduction/sweep-drive.ts';
import { drumSpeedAt, drumPowersAt, torqueAt } from '../../reduction/torque-fit.ts';
import { spanAt, type Span } from '../../smoothing/span.ts';
import { engineTorqueNm } from '../../curve/engine-torque.ts';

/** The settings that a curve follows; never baked into what is stored. */
export interface CurveSettings {
  standard: StandardId;
  /** 0 to 1: share of the correction that is applied. */
  share: number;
  /** Span of engine speed that a point of the curve is fitted over, rpm; 0 for none. */
  spanRpm: Span;
  /** Step of the engine-speed grid, rpm. */
  gridRpm: number;
  /** Power and torque are estimated for the crank; at the wheels where left out. */
  crank?: CrankLoss | undefined;
}

export const usualGridRpm = 25;

/** A run's power and torque over engine speed. All arrays of one length. */
export interface Curve {
  engineSpeedRpm: Float64Array;
  /** Corrected power at the roller or hub; where the view asks for it, estimated for the crank. */
  powerKw: Float64Array;
  uncorrectedPowerKw: Float64Array;
  /** Corrected, engine-referred: power ÷ engine angular speed. */
  torqueNm: Float64Array;
  correction: Correction;
  /** Where several drums or hubs are recorded: each by itself, corrected. Their sum is `powerKw`. */
  drums: readonly { place: DrumPlace; powerKw: Float64Array }[] | undefined;
  spanRpm: Span;
  engineSpeedFrom: 'pickup' | 'ratio';
  sweep: { startS: number; endS: number; startRpm: number; endRpm: number };
  /** Time since the first point, s, and road speed, km/h, at each engine speed; the latter of rollers of known radius. */
  timeS: Float64Array;
  roadSpeedKmh: Float64Array | undefined;
  peakPower: Peak;
  peakTorque: Peak;
  /** The same at the wheels, kW and N·m, whatever the view asks for. */
  wheelPeaks: { powerKw: number; torqueNm: number };
  /** What smoothing took off the power peak, kW, corrected. */
  takenOffPeakKw: number;
  checks: Finding[];
}

/** A curve's power, kW, and torque, N·m, under another standard or on another scale than it was made for; without air nothing is corrected. */
export function curveUnder(
  curve: Pick<Curve, 'engineSpeedRpm' | 'uncorrectedPowerKw'>,
  { sweep, air, circumstances }: { sweep: SweepDrive; air: Air | undefined; circumstances?: AirCircumstances },
  { standard, share, crank }: Pick<CurveSettings, 'standard' | 'share' | 'crank'>,
): Pick<Curve, 'engineSpeedRpm' | 'powerKw' | 'torqueNm'> {
  const { engineSpeedRpm, uncorrectedPowerKw } = curve;
  const { factor } = correctionOf(standard, air, share, engineIn(circumstances));
  const wheelKw = uncorrectedPowerKw.map((value) => value * factor);
  const powerKw = crank ? atCrank(wheelKw, crank, drumSpeeds(sweep, engineSpeedRpm)) : wheelKw;
  return { engineSpeedRpm, powerKw, torqueNm: torqueFrom(powerKw, engineSpeedRpm) };
}

/** What a correction asks of an engine; a turbo is taken to be there where nobody said. */
const engineIn = ({ turbocharged = true, correctedFuelMgPerLitreCycle }: AirCircumstances = {}): DieselEngine => ({
  turbocharged,
  ...(correctedFuelMgPerLitreCycle !== undefined && { correctedFuelMgPerLitreCycle }),
});

const drumSpeeds = (run: SweepDrive, engineSpeedRpm: Float64Array) =>
  engineSpeedRpm.map((rpm) => drumSpeedAt(run, rpm));

const atCrank = (wheelKw: Float64Array, crank: CrankLoss, drumSpeed: Float64Array) =>
  wheelKw.map((value, index) => crankKw(value, crank, sampleAt(drumSpeed, index)));

const torqueFrom = (powerKw: Float64Array, engineSpeedRpm: Float64Array) =>
  powerKw.map((value, index) => engineTorqueNm(value, sampleAt(engineSpeedRpm, index)));

/** Each drum's own fit says its share; the shares are of the one sum, so that the parts always add up to it. */
function drumPowers(run: SweepDrive, span: Span, engineSpeedRpm: Float64Array, powerKw: Float64Array): Curve['drums'] {
  const drums = run.drums?.map(({ place }) => ({ place, powerKw: new Float64Array(engineSpeedRpm.length) }));
  engineSpeedRpm.forEach((rpm, index) => {
    if (!drums) return;
    const each = drumPowersAt(run, rpm, spanAt(span, rpm));
    const sum = each.reduce((total, value) => total + value, 0);
    drums.forEach((drum, at) => (drum.powerKw[index] = sampleAt(powerKw, index) * (each[at]! / sum)));
  });
  return drums;
}

/**
 * The curve of one sweep at the given settings.
 * @throws Refusal when the sweep is too short to hold two grid points
 */
export function curveOf(
  run: SweepDrive,
  air: Air | undefined,
  settings: CurveSettings,
  circumstances: AirCircumstances = {},
): Curve {
  const { powerKw: uncorrectedPowerKw, engineSpeedRpm } = uncorrectedPower(run, settings);
  if (engineSpeedRpm.length < 2) {
    throw new Refusal(
      `The sweep runs only from ${Math.round(run.startRpm)} to ${Math.round(run.endRpm)} rpm: too short for a curve.`,
    );
  }
  const correction = correctionOf(settings.standard, air, settings.share, engineIn(circumstances));
  const { crank } = settings;
  const drumSpeed = drumSpeeds(run, engineSpeedRpm);
  const wheelKw = uncorrectedPowerKw.map((value) => value * correction.factor);
  const powerKw = crank ? atCrank(wheelKw, crank, drumSpeed) : wheelKw;
  const torqueOf = (power: Float64Array) => torqueFrom(power, engineSpeedRpm);
  const torqueNm = torqueOf(powerKw);
  const timeAt = (rpm: number) => interpolate(run.mapRpm, run.mapTime, rpm);
  const peakPower = peakOf(engineSpeedRpm, powerKw);
  const found = [
    airMissing(air, settings.standard),
    airOutsideStandard(correction),
    air && airStale(circumstances.ageS, settings.standard),
    standardUnsuited(settings.standard, circumstances.ignition),
    dieselAssumed(correction, air, settings.share, circumstances),
    pressureLooksSeaLevel(air, circumstances.altitudeM ?? run.dyno.altitudeM),
    stillClimbing(peakPower),
  ];
  return {
    engineSpeedRpm,
    powerKw,
    uncorrectedPowerKw,
    torqueNm,
    correction,
    drums: drumPowers(run, settings.spanRpm, engineSpeedRpm, powerKw),
    spanRpm: settings.spanRpm,
    engineSpeedFrom: run.drive.engineSpeedFrom,
    sweep: { startS: run.sweep.startS, endS: run.sweep.endS, startRpm: run.startRpm, endRpm: run.endRpm },
    peakPower,
    peakTorque: peakOf(engineSpeedRpm, torqueNm),
    wheelPeaks: {
      powerKw: crank ? peakOf(engineSpeedRpm, wheelKw).value : peakPower.value,
      torqueNm: peakOf(engineSpeedRpm, torqueOf(wheelKw)).value,
    },
    timeS: engineSpeedRpm.map((rpm) => timeAt(rpm) - timeAt(sampleAt(engineSpeedRpm, 0))),
    roadSpeedKmh: roadSpeed(run.dyno, drumSpeed),
    takenOffPeakKw: correction.factor * takenOffPeakKw(run, peakPower.rpm, spanAt(settings.spanRpm, peakPower.rpm)),
    checks: [...checksOf(run), ...found.filter((finding) => finding !== undefined)],
  };
}

/** Surface speed of the roller; a hub has no road under it. */
function roadSpeed({ radiusM }: DynoProfile, drumSpeed: Float64Array): Float64Array | undefined {
  return radiusM === undefined ? undefined : drumSpeed.map((radS) => convert(radS * radiusM, 'm/s', 'km/h'));
}

/** What a sweep's motion shows does not depend on the view; it is looked at once. */
const motionFindings = new WeakMap<SweepDrive, Finding[]>();

function checksOf(run: SweepDrive): Finding[] {
  const found = motionFindings.get(run) ?? motionChecks(run);
  motionFindings.set(run, found);
  return found;
}

function uncorrectedPower(run: SweepDrive, settings: CurveSettings) {
  const grid = gridBetween(run.startRpm, run.endRpm, settings.gridRpm);
  const rpm: number[] = [];
  const powerKw: number[] = [];
  for (const at of grid) {
    const torqueNm = torqueAt(run, at, spanAt(settings.spanRpm, at));
    if (Number.isNaN(torqueNm)) continue;
    rpm.push(at);
    powerKw.push((torqueNm * drumSpeedAt(run, at)) / 1000);
  }
  return { engineSpeedRpm: Float64Array.from(rpm), powerKw: Float64Array.from(powerKw) };
}

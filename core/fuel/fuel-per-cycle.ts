import { interpolate } from '../numerics/interpolation.ts';
import { meanOf } from '../numerics/mean.ts';
import { sampleAt } from '../numerics/sample-at.ts';

/** A logged channel over engine speed in one pull. */
interface Logged {
  engineSpeedRpm: Float64Array;
  values: Float64Array;
}

/** Around the speed of the greatest flow, as a share of it. */
const aroundShare = 0.1;

/**
 * Corrected fuel of a four-stroke engine, mg per litre and cycle, where its pull burns most: q ÷ r, q = fuel flow ÷
 * (displacement × cycles a second), r = absolute boost pressure ÷ that of the air.
 * Source: ISO 1585, engine factor of compression ignition.
 *
 * @param logged means over engine speed: `fuelFlow` in g/s; `manifoldPressure`, absolute, or `boost`, above the air, in kPa
 * @param boosted a charged engine whose pressure nobody logged tells nothing; one that breathes by itself has r = 1
 * @returns undefined where flow, pressure or displacement is not known
 */
export function correctedFuelPerCycle(
  logged: ReadonlyMap<string, Logged>,
  { displacementL, boosted, airHpa }: { displacementL: number | null | undefined; boosted: boolean; airHpa: number },
): number | undefined {
  const flow = logged.get('fuelFlow');
  if (!flow || !displacementL) return undefined;
  const most = flow.values.reduce((top, value, index) => (value > sampleAt(flow.values, top) ? index : top), 0);
  const at = sampleAt(flow.engineSpeedRpm, most);
  const ratio = boosted ? pressureRatio(logged, airHpa / 10) : () => 1;
  const found: number[] = [];
  flow.engineSpeedRpm.forEach((rpm, index) => {
    if (Math.abs(rpm - at) > aroundShare * at) return;
    const each = (1000 * sampleAt(flow.values, index)) / (displacementL * (rpm / 120)) / ratio(rpm);
    if (Number.isFinite(each)) found.push(each);
  });
  const mean = meanOf(found);
  return mean > 0 ? mean : undefined;
}

/** Absolute boost pressure ÷ that of the air; NaN where nobody logged it. */
function pressureRatio(logged: ReadonlyMap<string, Logged>, airKpa: number): (rpm: number) => number {
  const [manifold, boost] = [logged.get('manifoldPressure'), logged.get('boost')];
  const at = ({ engineSpeedRpm, values }: Logged, rpm: number) => interpolate(engineSpeedRpm, values, rpm);
  if (manifold) return (rpm) => at(manifold, rpm) / airKpa;
  return boost ? (rpm) => 1 + at(boost, rpm) / airKpa : () => NaN;
}

import type { DynoKind } from '../dyno/dyno-profile.ts';
import { listed, spokenRpm } from '../units/spoken.ts';
import { holdsAny, worstOf, type Finding } from './check.ts';
import { unexplainedZones } from './slip-checks.ts';
import type { SlipTrace } from './slip.ts';

// Set by bench/checks.ts: no false alarm on healthy pulls, most hits on faulty ones.
/** The axles of one car share their torque unevenly, so their tyres creep by different shares; bolted hubs do not creep. */
const healthyBetweenAxles = 0.02;
const healthyOnHubs = 0.008;
/** What is left when creep in proportion to torque is taken out counts from here. */
const unexplainedOnRollers = 0.012;
const unexplainedOnHubs = 0.006;

/**
 * Found when the drums of one axle fall behind those of the other over a
 * stretch of the pull by more than they did at light torque, and more than
 * creep explains: the tyres of that axle slip, or the coupling to it does.
 */
export function axleSlip(trace: SlipTrace, kind: DynoKind): Finding | undefined {
  const [healthy, beyond] =
    kind === 'hub' ? [healthyOnHubs, unexplainedOnHubs] : [healthyBetweenAxles, unexplainedOnRollers];
  const turned = (values: Float64Array) => values.map((value) => 1 / (1 + value) - 1);
  const found = [
    { axle: 'rear', zones: unexplainedZones(trace, healthy, beyond) },
    { axle: 'front', zones: unexplainedZones({ ...trace, excess: turned(trace.excess) }, healthy, beyond) },
  ].flatMap(({ axle, zones }) => (holdsAny(zones) ? [{ axle, zones, worst: worstOf(zones) }] : []));
  const [worst] = found.sort((a, b) => b.worst.figure - a.worst.figure);
  if (!worst) return undefined;
  const { axle, zones } = worst;
  const other = axle === 'front' ? 'rear' : 'front';
  const said = listed(
    zones.map(
      ({ fromRpm, toRpm, figure }) =>
        `up to ${figure.toFixed(1)} % behind the ${other} ones from ${spokenRpm(fromRpm)} to ${spokenRpm(toRpm)} rpm`,
    ),
  );
  const what = kind === 'hub' ? 'hubs' : 'drums';
  return {
    id: 'axle-slip',
    severity: kind === 'hub' ? 'mind' : 'stop',
    ...worst.worst,
    zones,
    unit: '%',
    message:
      `The ${axle} ${what} fall ${said}: ` +
      (kind === 'hub'
        ? `the coupling to the ${axle} axle slips. Power there is less than the engine's.`
        : `the ${axle} tyres slip, or the coupling to that axle does; the figures there are not the engine's. Check straps and tyres before the next run.`),
  };
}

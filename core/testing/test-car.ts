import type { DynoProfile } from '../dyno/dyno-profile.ts';

// Taken out once: Jest looks a global up anew at every use, and a pull is stepped thousands of times.
const { PI, sin } = Math;

export const testDyno: DynoProfile = {
  kind: 'inertia-roller',
  inertiaKgM2: 50,
  radiusM: 0.25,
  parasitic: { aNm: 5, bNmPerRadS: 0.05, cNmPerRadS2: 0.0005 },
};

/** Torque at the drum over engine speed, N·m. */
export const usualTorque = (rpm: number) => 420 + 90 * sin((rpm - 2000) / 1600);

/** The true power at the drum, kW, for an engine speed of a run of the usual car without creep. */
export function truePowerKw(rpm: number, ratio = 3.4, drumTorque = usualTorque): number {
  return (drumTorque(rpm) * ((rpm * 2 * PI) / 60 / ratio)) / 1000;
}

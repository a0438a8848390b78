import { lossTorque, type DynoProfile } from '../dyno/dyno-profile.ts';

/**
 * The angular impulse that has entered a drum since the recording began,
 * N·m·s: G(t) = I·ω + ∫(T_abs + T_loss(ω)) dt, so that its slope is the torque
 * delivered. A wandering absorber moves the drum the other way, and in G the
 * two cancel: what is left is the instruments' noise alone. First principles.
 *
 * A first-order load cell with time constant τ reads y with τ·y′ + y = T, so
 * ∫T dt = ∫y dt + τ·y: its lag is taken back exactly, without a derivative.
 *
 * @param time s, rising, length n
 * @param speed drum or hub speed, rad/s, length n
 * @param absorber load cell's reading, N·m, length n; undefined where the machine has none
 * @returns N·m·s, length n, by the trapezium rule
 */
export function impulse(
  time: Float64Array,
  speed: Float64Array,
  absorber: Float64Array | undefined,
  dyno: Pick<DynoProfile, 'inertiaKgM2' | 'parasitic' | 'loadCellLagS'>,
): Float64Array {
  const count = time.length;
  const result = new Float64Array(count);
  const lag = dyno.loadCellLagS ?? 0;
  let taken = 0;
  let before = 0;
  for (let index = 0; index < count; index++) {
    const braking = (absorber ? absorber[index]! : 0) + lossTorque(dyno.parasitic, speed[index]!);
    if (index > 0) taken += 0.5 * (before + braking) * (time[index]! - time[index - 1]!);
    before = braking;
    result[index] = dyno.inertiaKgM2 * speed[index]! + taken + (absorber ? lag * absorber[index]! : 0);
  }
  return result;
}

import { slopes } from '../smoothing/moving-fit.ts';
import type { DynoProfile } from '../dyno/dyno-profile.ts';
import { impulse } from './impulse.ts';

/** One hub's speed (rad/s) and the angular impulse that entered it (N·m·s). */
export interface HubSide {
  speed: Float64Array;
  impulse: Float64Array;
}

// Set by bench/accuracy.ts: the error against known truths, mean and worst.
/** The share of a side's speed in the mean is averaged over this time, s: wheels slip slowly, encoders jitter. */
const shareSpanS = 0.8;

/**
 * Two hubs as one drum: P = Σ Tᵢ·ωᵢ, never summed torque times mean speed.
 * The torque referred to the mean speed ω̄ is Σ Tᵢ·ωᵢ/ω̄, so the impulse
 * referred to it grows by Σ (ωᵢ/ω̄)·dGᵢ.
 *
 * @param dyno its inertia and losses are those of each hub by itself; `rightInertiaKgM2` where the right one differs
 */
export function hubPair(
  time: Float64Array,
  left: { speed: Float64Array; absorber: Float64Array | undefined },
  right: { speed: Float64Array; absorber: Float64Array | undefined },
  dyno: DynoProfile,
): { speed: Float64Array; impulse: Float64Array; sides: [HubSide, HubSide] } {
  const speed = left.speed.map((value, index) => 0.5 * (value + right.speed[index]!));
  const rightHub = { ...dyno, inertiaKgM2: dyno.rightInertiaKgM2 ?? dyno.inertiaKgM2 };
  const sides: [HubSide, HubSide] = [
    { speed: left.speed, impulse: impulse(time, left.speed, left.absorber, dyno) },
    { speed: right.speed, impulse: impulse(time, right.speed, right.absorber, rightHub) },
  ];
  const shares = sides.map((side) => {
    const raw = side.speed.map((value, index) => (speed[index]! > 1 ? value / speed[index]! : 1));
    return slopes(time, raw, shareSpanS).value;
  });
  const joined = new Float64Array(time.length);
  joined[0] = sides[0].impulse[0]! + sides[1].impulse[0]!;
  for (let index = 1; index < time.length; index++) {
    let grown = 0;
    for (let side = 0; side < 2; side++) {
      const share = shares[side]![index]!;
      grown += (Number.isNaN(share) ? 1 : share) * (sides[side]!.impulse[index]! - sides[side]!.impulse[index - 1]!);
    }
    joined[index] = joined[index - 1]! + grown;
  }
  return { speed, impulse: joined, sides };
}

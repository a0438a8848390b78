import type { DrumPlace, DynoProfile } from '../dyno/dyno-profile.ts';
import { drumInertiaKgM2 } from '../dyno/drums.ts';
import { slopes } from '../smoothing/moving-fit.ts';
import { impulse } from './impulse.ts';

/** One drum or hub of several: its speed (rad/s) and the angular impulse that entered it (N·m·s). */
export interface DrumMotion {
  place: DrumPlace;
  speed: Float64Array;
  impulse: Float64Array;
}

/** What is read of one drum. */
export interface DrumReading {
  place: DrumPlace;
  speed: Float64Array;
  absorber: Float64Array | undefined;
}

// Set by bench/accuracy.ts: the error against known truths, mean and worst.
/** The share of a drum's speed in the mean is averaged over this time, s: wheels slip slowly, encoders jitter. */
const shareSpanS = 0.8;

/**
 * Several drums as one: P = Σ Tᵢ·ωᵢ, never summed torque times mean speed. The
 * torque referred to the mean speed ω̄ is Σ Tᵢ·ωᵢ/ω̄, so the impulse referred
 * to it grows by Σ (ωᵢ/ω̄)·dGᵢ. A drum that stands takes no power and halves
 * the mean; the sum stays what it is.
 *
 * @param dyno its losses are those of each drum by itself, and its inertia where a drum has none of its own
 */
export function joinedDrums(
  time: Float64Array,
  readings: readonly DrumReading[],
  dyno: DynoProfile,
): { speed: Float64Array; impulse: Float64Array; drums: DrumMotion[] } {
  const speed = new Float64Array(time.length);
  for (const reading of readings)
    reading.speed.forEach((value, index) => (speed[index] = speed[index]! + value / readings.length));
  const drums = readings.map(({ place, speed: own, absorber }): DrumMotion => {
    const inertiaKgM2 = drumInertiaKgM2(dyno, place);
    return { place, speed: own, impulse: impulse(time, own, absorber, { ...dyno, inertiaKgM2 }) };
  });
  const shares = drums.map((drum) => {
    const raw = drum.speed.map((value, index) => (speed[index]! > 1 ? value / speed[index]! : 1));
    return slopes(time, raw, shareSpanS).value;
  });
  const joined = new Float64Array(time.length);
  joined[0] = drums.reduce((sum, drum) => sum + drum.impulse[0]!, 0);
  for (let index = 1; index < time.length; index++) {
    let grown = 0;
    drums.forEach((drum, which) => {
      const share = shares[which]![index]!;
      grown += (Number.isNaN(share) ? 1 : share) * (drum.impulse[index]! - drum.impulse[index - 1]!);
    });
    joined[index] = joined[index - 1]! + grown;
  }
  return { speed, impulse: joined, drums };
}

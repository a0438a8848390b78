import type { Sentence } from '../sentence/sentence.ts';
import type { Finding } from '../checks/check.ts';
import type { Drift } from '../comparison/drift.ts';
import type { DynoProfile } from '../dyno/dyno-profile.ts';

/**
 * What a comparison wants to know of a run beside its curve. A field that is not known is left out and not compared.
 */
export interface RunConditions {
  label: string;
  /** The vehicle, where runs of several are laid beside one another. */
  vehicle?: string | undefined;
  /** Where it comes from, in words, where that is not the job at hand. */
  origin?: string | undefined;
  dyno: DynoProfile;
  /** The instrument that read it: two of one profile are two machines all the same. */
  instrument?: string | undefined;
  bay?: number | undefined;
  gear?: string | undefined;
  /** Engine speed ÷ drum speed, as measured or given. */
  ratio?: number | undefined;
  tyres?: string | undefined;
  tyrePressureKpa?: number | undefined;
  fuel?: string | undefined;
  /** Percent by volume, as the fuel ledger told it when the run began. */
  ethanolPct?: number | undefined;
  /** The reading had not settled then. */
  fuelMoving?: boolean | undefined;
  /** What the controller had learned of the fuel's octane, %, its own scale. */
  learnedOctanePct?: number | undefined;
  fan?: string | undefined;
  bonnet?: string | undefined;
  /** How the absorber was driven: `inertia`, `ramp`, `hold` … */
  loadMode?: string | undefined;
  /** Mean rate of the sweep, rpm/s. */
  rampRpmPerS?: number | undefined;
  /** What the run covers, rpm. */
  fromRpm?: number | undefined;
  toRpm?: number | undefined;
  hasAir: boolean;
  /** How old the air was, s. */
  airAgeS?: number | undefined;
  /** The standard and share that its figures follow; differ only when figures from elsewhere are laid beside. */
  standard?: string | undefined;
  share?: number | undefined;
  /** Whether a diesel's logged fuel, or an assumed factor, corrects it; undefined where neither is asked for. */
  byLoggedFuel?: boolean | undefined;
  /** Where tyres slipped or hopped, so that the figures there are not the engine's. */
  slips?: readonly { fromRpm: number; toRpm: number; percent: number }[] | undefined;
  /** °C by channel. */
  startTemperatures?: Record<string, number> | undefined;
  startedAt?: Date | undefined;
  /** Strapped anew before it, where somebody said. */
  remounted?: boolean | null | undefined;
}

/** A respect in which two sets of runs differ. `stop` withholds the verdict. */
export interface Unlikeness extends Finding {
  /** How much it can matter, in words with a figure. */
  matters: Sentence;
  /** The runs that it is about, where it is not about all of them. */
  labels?: readonly string[];
  /** What would make the runs alike, where something would. */
  remedy?: string;
}

/** What the two setups compared differ in, as far as it is recorded. */
export interface RecordedChange {
  letter: string;
  change: string;
  /** Items that the step holds; 1 where only words are recorded. */
  items: number;
}

export interface LikeForLikeInput {
  test: readonly RunConditions[];
  baseline: readonly RunConditions[];
  /** Steps between the two setups. */
  changes?: readonly RecordedChange[];
  /** What run order says; undefined where it says nothing. */
  drift?: Drift | undefined;
  /** The range that is judged, rpm. */
  judged?: readonly [number, number];
  /** The spread from one mounting to the next is known and counted in. */
  remountKnown?: boolean;
}

/** The runs of both sides. */
export const all = ({ test, baseline }: LikeForLikeInput) => [...test, ...baseline];

/** What is known of them. */
export function known<T>(values: readonly (T | undefined)[]): T[] {
  return values.filter((value) => value !== undefined);
}

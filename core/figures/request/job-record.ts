import type { RunKind } from '../../recording/run-kind.ts';
import type { FuelRegulation } from '../../log/pull/run-log.ts';
import type { Air } from '../../air/air.ts';
import type { AirCircumstances } from '../../checks/air-checks.ts';
import type { FrozenBaseline } from '../../job/baseline.ts';
import type { StatedPlan } from '../../comparison/judging-rule.ts';
import type { Limit } from '../../limits/limit.ts';
import type { Target } from '../../targets/target.ts';
import type { DynoProfile } from '../../dyno/dyno-profile.ts';
import type { SetupItem } from '../../setup/item.ts';

/** What figures need to know of a setup. */
export interface SetupRecord {
  id: number;
  letter: string;
  /** The setup that it was changed from. */
  parentId?: number | null | undefined;
  /** The change in words, and item by item. */
  change?: string | undefined;
  items?: readonly SetupItem[] | undefined;
  /** What was decided on it. */
  decision?: 'keep' | 'go back' | 'try further' | null | undefined;
  /** Runs planned of it alone. */
  plan?: StatedPlan | null | undefined;
}

/** What figures need to know of a run beside its recording: who, of what, and under which circumstances. */
export interface RunRecord {
  id: number;
  setupId: number | null;
  /** Such as B2. */
  label: string | null;
  kind: RunKind;
  state: 'recording' | 'sealed' | 'interrupted';
  /** Why it is kept out of figures; null where it is not. */
  setAsideReason: string | null;
  /** ISO 8601; null where nobody knows, and then nothing is said of order and drift. */
  startedAt: string | null;
  dyno: DynoProfile;
  /** The instrument that read it; empty or left out for a file. */
  device?: string | undefined;
  /** Where it was made; null where nobody knows. */
  bay?: number | null | undefined;
  gear: string | null;
  /** Engine speed ÷ drum speed, for recordings without a pickup. */
  engineToDrumRatio: number | null;
  air: Air | null;
  airTakenAt: string | null;
  fuel: { name?: string; ethanolPct: number | null; moving: boolean } | null;
  /** As somebody said, or as the car and the job had it; left out where nobody knows. */
  tyres?: string | null;
  tyrePressureKpa?: number | null;
  fan?: string | null;
  bonnet?: string | null;
  /** How the absorber was driven, where somebody said; else it follows from dyno and plan. */
  loadMode?: string | null;
  plan?: { rampRpmPerS: number | null; steps: { speedsRpm: readonly number[] } | null } | null;
  remounted?: boolean | null;
  /** °C at the start, by channel, as far as they were logged. */
  startTemperatures: Readonly<Record<string, number>>;
  /** The dyno's own channels, and what loggers recorded beside it: whose a start temperature is. */
  channels?: readonly { name: string }[];
  logs?: readonly { name: string; channels: readonly { name: string }[] }[];
}

/** A job as figures need it. */
export interface JobRecord {
  vehicle: string;
  ignition: AirCircumstances['ignition'] | null;
  /** Whether the engine is charged; taken not to be where nobody knows. */
  boosted?: boolean | undefined;
  /** By its exhaust; undefined where nobody said. */
  turbocharged?: boolean | undefined;
  /** L; null where nobody said. */
  displacementL?: number | null | undefined;
  fuelRegulation?: FuelRegulation | null | undefined;
  /** The car's, for runs of which nobody said. */
  tyres?: string | undefined;
  /** In order; at least one. */
  setups: readonly SetupRecord[];
  runs: readonly RunRecord[];
  /** The frozen baseline in force; null where none was frozen. */
  baseline: FrozenBaseline | null;
  /** The smallest change that the owner cares about, as a share of power. */
  wantedShare?: number | undefined;
  /** Limits that were set for this job. */
  limits?: readonly Limit[] | undefined;
  /** What the owner wants a setup to make. */
  targets?: readonly Target[] | undefined;
  /** Runs planned of each setup, where that was stated. */
  plan?: StatedPlan | null | undefined;
  /** The bands that the brief names, rpm: judged where a view asks for none of its own. */
  bands?: readonly { fromRpm: number; toRpm: number }[] | undefined;
}

/** A setup of another job that is compared with. */
export interface GuestRecord {
  setup: SetupRecord;
  runs: readonly RunRecord[];
  baseline: FrozenBaseline | null;
  ignition: JobRecord['ignition'];
  boosted?: boolean | undefined;
  /** By its exhaust; undefined where nobody said. */
  turbocharged?: boolean | undefined;
  /** L; null where nobody said. */
  displacementL?: number | null | undefined;
  fuelRegulation?: FuelRegulation | null | undefined;
  tyres?: string | undefined;
  vehicle: string;
  /** Where it comes from, in words. */
  origin: string;
}

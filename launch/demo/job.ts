import type { PauseReason } from '../../contract/shop/day.ts';

/** The invented shop's first days, played by the stand-ins through the recorder (no figure is typed in). */
export interface DemoJob {
  vehicle: string;
  owner: string;
  question: string;
  gear: string;
  /** The stand-in dyno that it stood on; the inertia roller unless said. */
  dyno?: 'inertia-roller' | 'loaded-roller' | 'hub';
  /** Readings of the dyno a second; 200 unless said: long runs need no more than they are looked at with. */
  rateHz?: number;
  /** Days before the scenario's last one, and when on that day the first pull was waited for (24-hour clock). */
  daysAgo: number;
  from: string;
  seed: number;
  setups: DemoSetup[];
  /** What is written in the job's file, by the names of the API. */
  brief?: Record<string, unknown>;
  bands?: { name: string; fromRpm: number; toRpm: number }[];
  limits?: { quantity: string; value: number; scale: string | null; reason: string; source: string }[];
  targets?: {
    quantity: string;
    fromRpm: number | null;
    toRpm: number | null;
    value: number;
    scale: string | null;
    standard: string | null;
  }[];
  /** Texts that its owner signed, by the beginning of their titles. */
  signed?: string[];
  /** What is charged at its end; a setup by its letter. */
  charges?: { what: string; per: string; quantity: number; amount: number; setup?: string }[];
  inspections?: { key: string; outcome: string; note: string; measured: number | null }[];
  fuel?: DemoFuel[];
  suspicions?: { cause: string; test: string; outcome: string; state: string }[];
  notes?: string[];
  end?:
    | { state: 'paused'; for: PauseReason; why: string; expectedInDays?: number }
    | { state: 'closed'; delivered: string | null; untested: string };
}

/** Speeds and loads to be held one after the other. */
export interface DemoHolds {
  speedsRpm: number[];
  loadsKpa: number[];
  dwellS: number;
}

export interface DemoSetup {
  /** Letter of the setup it was changed from, and what changed; the first setup has neither. */
  from?: string;
  change?: string;
  expectedKw?: number;
  /** What people say before its first run that it will make. */
  forecasts?: { who: string; quantity: string; fromRpm?: number; toRpm?: number; low: number; high: number }[];
  /** What changed is the fuel table, as the setup before proposes it. */
  fuelTable?: true;
  pulls: DemoPull[];
  decision?: 'keep' | 'go back' | 'try further';
  why?: string;
  /** Words of its tune file. */
  file?: { name: string; content: string };
}

export interface DemoPull {
  /** Cool-down before the pull, minutes. */
  afterMin: number;
  /** No pull but a run of another kind. */
  kind?: 'idle' | 'cold-start' | 'transient' | 'cruise';
  /** No pull but a row of holds. */
  holds?: DemoHolds;
  note?: string;
  setAside?: string;
}

export interface DemoFuel {
  kind: 'arrived' | 'drained' | 'added' | 'measured';
  /** Before the day's first pull. */
  minutesBefore: number;
  litres?: number;
  ethanolPct?: number;
  name?: string;
}

/** So many pulls, each after a cool-down. */
export const pulls = (count: number, afterMin: number): DemoPull[] =>
  Array.from({ length: count }, () => ({ afterMin }));

/** The cars that come, with their owners and the gear that they are run in. */
export const twin = { vehicle: 'Ostrel 990 twin', owner: 'J. Pellwick', gear: '5th' };
export const kitCar = { vehicle: 'Brindle 1.0 kit car, three-cylinder turbo', owner: 'Fenmoor Hill Club', gear: '3rd' };
export const coupe = { vehicle: 'Tarrow Six hill-climb coupé', owner: 'A. Sorrel', gear: '4th' };
export const minibus = { vehicle: 'Hallam 2.2 diesel minibus', owner: 'Corrie Lines', gear: '4th' };
/** A job that is booked and has no run yet. */
export const booked = { setups: [{ pulls: [] }], daysAgo: 1, from: '16:40', seed: 1 };

import { families, healthyRun, type Family } from './families.ts';
import type { GeneratedRun } from './pull-options.ts';

/** A kind of fault, the check that should find it, and how it is put into a healthy pull. */
export interface FaultKind {
  name: string;
  check: string;
  /** Families that it makes no sense for: hubs have no tyres. */
  not?: readonly Family[];
  /** @param size 1, or a half for one that is hard to find */
  put(seed: number, middleRpm: number, topRpm: number, size: number): Partial<GeneratedRun>;
}

/** Faults of the sizes that matter in a cell: from clear to just worth a word. */
export const faultKinds: readonly FaultKind[] = [
  {
    name: 'fuel cut of 0.1 to 0.25 s',
    check: 'fuel-cut',
    put: (seed, atRpm, _, size) => ({ faults: { fuelCut: { atRpm, lastsS: size * (0.1 + 0.03 * (seed % 6)) } } }),
  },
  {
    name: 'rev limiter for 0.8 s',
    check: 'limiter',
    put: (_, __, top, size) => ({ faults: { limiter: { atRpm: top - 300, lastsS: size * 0.8 } } }),
  },
  {
    name: 'driver letting off to 40 to 65 %',
    check: 'part-throttle',
    put: (seed, atRpm, _, size) => ({
      faults: { letOff: { atRpm, share: 1 - size * (0.6 - 0.05 * (seed % 6)), lastsS: 0.3 + 0.05 * (seed % 5) } },
    }),
  },
  {
    name: 'tyre slip of 3 to 8 % beyond creep',
    check: 'tyre-slip',
    not: ['diesel-hub', 'petrol-hub'],
    put: (seed, middle, _, size) => ({
      faults: { tyreSlip: { fromRpm: middle - 400, toRpm: middle + 500, share: size * (0.03 + 0.01 * (seed % 6)) } },
    }),
  },
  {
    name: 'hop of 3 to 6 % at 4 to 11 Hz',
    check: 'hop',
    not: ['diesel-hub', 'petrol-hub'],
    put: (seed, middle, _, size) => ({
      faults: {
        hop: {
          fromRpm: middle - 400,
          toRpm: middle + 600,
          share: size * (0.03 + 0.01 * (seed % 4)),
          hz: 4 + (seed % 8),
        },
      },
    }),
  },
  {
    name: 'clutch slipping by 4 to 8 %',
    check: 'driveline-slip',
    put: (seed, _, __, size) => ({ faults: { clutchSlip: { share: size * (0.04 + 0.01 * (seed % 5)) } } }),
  },
  {
    name: 'converter open by 5 to 13 % at the start',
    check: 'driveline-slip',
    put: (seed, _, __, size) => ({ faults: { converter: { share: size * (0.05 + 0.02 * (seed % 5)) } } }),
  },
  {
    name: 'misfire of 4 to 7 %',
    check: 'rough',
    put: (seed, _, __, size) => ({ faults: { misfire: { share: size * (0.04 + 0.01 * (seed % 4)) } } }),
  },
  {
    name: 'limp mode to 40 to 60 %, taken over 100 to 400 rpm',
    check: 'limp',
    put: (seed, middle, top, size) => ({
      faults: {
        limp: {
          fromRpm: middle + 0.05 * (seed % 6) * (top - middle),
          overRpm: 100 + 60 * (seed % 6),
          share: 1 - size * (0.6 - 0.05 * (seed % 5)),
        },
      },
    }),
  },
  {
    name: 'no samples for 0.4 s',
    check: 'sample-gap',
    put: (_, __, ___, size) => ({ gap: { atS: 3.8, lastsS: size * 0.4 } }),
  },
  {
    name: 'clock forward by 0.3 to 0.9 s',
    check: 'clock-jump',
    put: (seed, _, __, size) => ({ clockJump: { atS: 3.8, byS: size * (0.3 + 0.2 * (seed % 4)) } }),
  },
  {
    name: 'clock back by 0.3 to 0.6 s',
    check: 'clock-jump',
    put: (seed, _, __, size) => ({ clockJump: { atS: 3.8, byS: -size * (0.3 + 0.1 * (seed % 4)) } }),
  },
  {
    name: 'recording cut 500 rpm early',
    check: 'cut-run',
    put: (_, __, top, size) => ({ recordedToRpm: top - size * 500 }),
  },
];

/** A pull of each family for each seed, with the fault in it. */
export function* faultyRuns(
  kind: FaultKind,
  seeds: readonly number[],
  { size = 1, of = families }: { size?: number; of?: readonly Family[] } = {},
): Generator<{ family: Family; spec: GeneratedRun }> {
  for (const family of of) {
    if (kind.not?.includes(family)) continue;
    for (const seed of seeds) {
      // Feathering and stabs would move the moment at which the fault comes.
      const healthy = { ...healthyRun(family, seed), feather: undefined, stab: undefined };
      const middle = (healthy.fromRpm! + healthy.toRpm!) / 2;
      yield { family, spec: { ...healthy, ...kind.put(seed, middle, healthy.toRpm!, size) } };
    }
  }
}

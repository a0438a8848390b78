import { quantity, say } from '../sentence/sentence.ts';
import { startTemperature } from '../checks/start-temperature.ts';
import { startWindow } from '../heat/start-window.ts';
import { all, known, type LikeForLikeInput, type Unlikeness } from './run-conditions.ts';

const staleS = 3600;

export function airMissing(input: LikeForLikeInput): Unlikeness | undefined {
  const runs = all(input);
  const without = runs.filter((run) => !run.hasAir).map((run) => run.label);
  if (without.length === 0 || without.length === runs.length) return undefined;
  return {
    id: 'air-missing',
    severity: 'stop',
    labels: without,
    message: `No air was recorded with ${without.join(', ')}; corrected and uncorrected runs cannot be compared.`,
    matters: 'a correction is often 2 to 6 %',
    remedy: 'Add the air of those runs, or compare uncorrected.',
  };
}

export function airAges(input: LikeForLikeInput): Unlikeness | undefined {
  const old = all(input).filter((run) => (run.airAgeS ?? 0) > staleS);
  if (old.length === 0) return undefined;
  return {
    id: 'air-stale',
    severity: 'mind',
    message: `The air of ${old.map((run) => run.label).join(', ')} was read more than an hour before the run.`,
    matters: say`${quantity(3, 'K')} or ${quantity(8, 'hPa')} since then would be 1 % of power`,
    remedy: 'Read the air before each run.',
  };
}

export function corrections(input: LikeForLikeInput): Unlikeness | undefined {
  const standards = new Set(known(all(input).map((run) => run.standard)));
  const shares = new Set(known(all(input).map((run) => run.share)));
  if (standards.size < 2 && shares.size < 2) return undefined;
  return {
    id: standards.size > 1 ? 'other-standard' : 'other-share',
    severity: 'stop',
    message:
      standards.size > 1
        ? `The figures follow different standards: ${[...standards].join(', ')}.`
        : `The figures apply different shares of the correction: ${[...shares].map((share) => `${Math.round(share * 100)} %`).join(', ')}.`,
    matters: 'two standards lie up to 4 % apart on the same air',
    remedy: 'Choose one standard and one share for both.',
  };
}

/** Diesels of which some are corrected by the fuel that was logged and some by an assumed factor. */
export function engineFactors(input: LikeForLikeInput): Unlikeness | undefined {
  const runs = all(input);
  const assumed = runs.filter(({ byLoggedFuel }) => byLoggedFuel === false).map(({ label }) => label);
  if (assumed.length === 0 || !runs.some(({ byLoggedFuel }) => byLoggedFuel)) return undefined;
  return {
    id: 'other-engine-factor',
    severity: 'stop',
    labels: assumed,
    message: `The fuel of ${assumed.join(', ')} was not logged: corrected by an assumed engine factor, the others by their fuel.`,
    matters: 'the two lie up to 5 % apart on a hot day',
    remedy: 'Log fuel flow and boost with all of them, or compare under another standard.',
  };
}

export function heat({ test, baseline }: LikeForLikeInput): Unlikeness | undefined {
  const window = startWindow(known(baseline.map((run) => run.startTemperatures)));
  const outside = test.flatMap((run) => {
    const by = run.startTemperatures && startTemperature(run.startTemperatures, window)?.figure;
    return by === undefined ? [] : [{ run, by }];
  });
  if (outside.length === 0) return undefined;
  const { by } = outside.reduce((a, b) => (Math.abs(b.by) > Math.abs(a.by) ? b : a));
  return {
    id: 'heat-state',
    severity: 'mind',
    figure: by,
    unit: 'K',
    message: say`${outside.map(({ run }) => run.label).join(', ')} started up to ${quantity(Math.abs(by), 'K')} ${by > 0 ? 'hotter' : 'colder'} than any of the runs it is held against.`,
    matters: 'a heat-soaked engine reads 1 to 3 % less, a cold one more: a peak, not a fair comparison',
    remedy: `Wait until it is back in the baseline's window, or set ${outside.length > 1 ? 'them' : 'it'} aside and use ready-state runs only.`,
  };
}

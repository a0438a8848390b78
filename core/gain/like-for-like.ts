import type { DynoProfile } from '../reduction/dyno-profile.ts';
import type { Finding } from '../checks/check.ts';

/** What a comparison wants to know of a run beside its curve. */
export interface RunConditions {
  label: string;
  dyno: DynoProfile;
  gear: string | undefined;
  hasAir: boolean;
  startedAt: Date;
}

/** Runs farther apart than this were probably not made on one strapping, h. */
const remountAfterH = 12;

/**
 * Lists the respects in which two sets of runs are not alike. A finding of
 * severity `stop` means that the spread within a setup cannot judge the
 * difference: figures yes, verdict no.
 */
export function unlikeRespects(test: readonly RunConditions[], baseline: readonly RunConditions[]): Finding[] {
  const all = [...test, ...baseline];
  const found: Finding[] = [];
  if (new Set(all.map((run) => JSON.stringify(run.dyno))).size > 1) {
    found.push({
      id: 'other-dyno',
      severity: 'stop',
      message: 'The runs come from different dynos or dyno settings; their difference is not the change alone.',
    });
  }
  const gears = [...new Set(all.map((run) => run.gear).filter((gear) => gear !== undefined))];
  if (gears.length > 1) {
    found.push({
      id: 'other-gear',
      severity: 'stop',
      message: `The runs were made in different gears: ${gears.join(', ')}.`,
    });
  }
  const withoutAir = all.filter((run) => !run.hasAir).map((run) => run.label);
  if (withoutAir.length > 0 && withoutAir.length < all.length) {
    found.push({
      id: 'air-missing',
      severity: 'stop',
      message: `No air was recorded with ${withoutAir.join(', ')}; corrected and uncorrected runs cannot be compared.`,
    });
  }
  const times = all.map((run) => run.startedAt.getTime());
  if (Math.max(...times) - Math.min(...times) > remountAfterH * 3600e3) {
    found.push({
      id: 'remount',
      severity: 'stop',
      message:
        'The runs are more than 12 hours apart; spread from strapping the car anew is not known, so no verdict is given.',
    });
  }
  return found;
}

import type { Job } from '../../contract/job/records.ts';
import type { StandardId } from '../../core/air/correction.ts';
import { usualStandard } from '../../core/air/usual-standard.ts';
import { usePreferences } from '../state/preferences.ts';

/** The standard that a job's figures are usually corrected to: as this person prefers, made for such an engine. */
export function useStandard({ car }: Pick<Job, 'car'>): StandardId {
  const preferred = usePreferences((state) => state.standard);
  return usualStandard(preferred, car.ignition);
}

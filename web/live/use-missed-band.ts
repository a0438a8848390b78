import type { Job, Setup } from '../../contract/job/records.ts';
import { rangeOf } from '../../core/curve/covered-range.ts';
import type { JobFigures } from '../../core/figures/job-figures.ts';
import { missedBand } from '../../core/readiness/missed-band.ts';
import type { Moment } from '../../core/readiness/moment.ts';
import { missedBandWords } from '../../core/wording/moment-words.ts';
import { latestReading, useLive } from '../state/live.ts';

/** Before a power run: that it will leave a band of the brief out, and how; empty where it will not, and in a run. */
export function useMissedBand(
  job: Job | undefined,
  setup: Setup | undefined,
  figures: JobFigures | undefined,
  { is }: Moment,
): string {
  const plan = useLive((state) => state.bay?.plan);
  if (!job || !setup || plan?.kind !== 'power' || is === 'recording' || is === 'storing') return '';
  const runs = figures?.runs.filter(({ setupId, counted }) => setupId === setup.id && counted) ?? [];
  const last = runs.at(-1);
  const missed = missedBand(job.bands, {
    planned: plan,
    waitingRpm: is === 'waiting' ? latestReading('engineSpeed') : undefined,
    last: last && rangeOf([last.curve]),
  });
  return missed ? missedBandWords(missed) : '';
}

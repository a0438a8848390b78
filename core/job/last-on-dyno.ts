import type { DynoProfile } from '../dyno/dyno-profile.ts';

/** The last run that was made on a dyno and not on the road: it tells which dyno a job is on. */
export function lastOnDyno<Run extends { dyno: Pick<DynoProfile, 'kind'> }>(runs: readonly Run[]): Run | undefined {
  return runs.findLast(({ dyno }) => dyno.kind !== 'road');
}

import type { DynoProfile } from './dyno-profile.ts';

/** What stands in the place of a machine where a run was made on none: no power follows from it. */
export const onTheRoad: DynoProfile = {
  kind: 'road',
  inertiaKgM2: 0,
  parasitic: { aNm: 0, bNmPerRadS: 0, cNmPerRadS2: 0 },
};

/**
 * What a difference amounts to, or why nothing is claimed. `drift suspected`: a
 * drift from run to run may have made it. `spread assumed`: it would be one at
 * the default's spread and not at the upper end of the default's range. `plan
 * not full`: runs of the plan are missing. `band not covered`: of the bands that
 * matter the runs cover none. `unknown`: there is no spread to judge it by.
 */
export type Verdict =
  | 'gain'
  | 'loss'
  | 'within repeatability'
  | 'drift suspected'
  | 'spread assumed'
  | 'plan not full'
  | 'band not covered'
  | 'unknown';

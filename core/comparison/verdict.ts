/**
 * What a difference amounts to, or why nothing is claimed. `clear alone`: its own interval excludes nothing's
 * being there, and yet all that was looked at could have made one such by chance. `drift suspected`: a
 * drift from run to run may have made it. `spread assumed`: it would be one at
 * the default's spread and not at the upper end of the default's range. `plan
 * not full`: runs of the plan are missing. `band not covered`: of the bands that
 * matter the runs cover none. `unknown`: there is no spread to judge it by.
 */
export type Verdict =
  | 'gain'
  | 'loss'
  | 'within repeatability'
  | 'clear alone'
  | 'drift suspected'
  | 'spread assumed'
  | 'plan not full'
  | 'band not covered'
  | 'unknown';

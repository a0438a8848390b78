import type { BorrowedCurve } from '../request/borrowed-curve.ts';
import type { Limit } from '../../limits/limit.ts';
import type { Target } from '../../targets/target.ts';
import type { StatedPlan } from '../../comparison/judging-rule.ts';
import type { CurveSettings } from './corrected-curve.ts';
import type { FiguresView, Learned } from '../request/figures-request.ts';
import type { SetupRecord } from '../request/job-record.ts';

/** A request with everything decided that it left open: which setups, which span, which loss. */
export interface ResolvedRequest extends Omit<
  FiguresView,
  'standard' | 'share' | 'smoothing' | 'gridRpm' | 'crank' | 'baselineId' | 'testId' | 'againstId'
> {
  /** The job's, and that of another job where one is laid beside. */
  setups: readonly SetupRecord[];
  baselineId: number;
  testId: number;
  againstId: number;
  settings: CurveSettings;
  borrowed?: BorrowedCurve | undefined;
  learned?: Learned | undefined;
  limits?: readonly Limit[] | undefined;
  targets?: readonly Target[] | undefined;
  /** The smallest change that matters, as a share of power; the usual one where left out. */
  wantedShare?: number | undefined;
  /** Runs planned of each setup; one of its own has precedence. */
  plan?: StatedPlan | undefined;
}

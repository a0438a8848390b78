import type { Unlikeness } from '../../likeness/run-conditions.ts';
import type { Comparison } from '../../comparison/comparison.ts';
import type { Phrase } from '../../wording/gain-sentence.ts';
import type { Caveat } from '../../judgement/caveats.ts';
import type { DeviatingRepeat } from '../../judgement/deviating-repeat.ts';
import type { PairJudgement } from '../../judgement/pair-judgement.ts';
import type { ChannelChange } from '../../comparison/channel-changes.ts';
import type { GainRow } from '../../comparison/gain-table.ts';

/** What the spread of the runs allows to be found. */
export interface Detectable {
  /** Of the first chosen range, kW. */
  spreadKw: number;
  leastSignificantKw: number;
  smallestDetectableKw: number;
}

export interface ComparisonFigures {
  /** Ids of the runs of either side. */
  compared: Record<'test' | 'baseline', number[]>;
  power: Comparison;
  torque: Comparison;
  /** What may be said over the first chosen range, or why nothing is. */
  judgement: PairJudgement;
  /** True where the runs are not like for like: no verdict is given, nothing is coloured. */
  withheld: boolean;
  sentence: Phrase[];
  rows: GainRow[];
  unlike: Unlikeness[];
  /** Runs that lie apart from their setup's others: named, never set aside by themselves. */
  deviating: DeviatingRepeat[];
  /** What stands against the figures, the gravest first. */
  caveats: Caveat[];
  /** How the logged channels differ between the sides, the largest in its own spread first. */
  channels: ChannelChange[];
  /** Absent where there is no spread. */
  detectable?: Detectable;
}

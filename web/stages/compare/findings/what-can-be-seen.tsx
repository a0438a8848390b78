import { formatPower, formatRpm, signed, halfWidthText } from '../../../ui/figures.ts';
import classes from './findings.module.css';
import type { ComparisonFigures } from '../../../../core/figures/comparison-figures.ts';
import type { CompareView } from '../view/view-address.ts';

interface WhatCanBeSeenProps {
  comparison: ComparisonFigures;
  view: CompareView;
}

/** What the spread of the runs lets one see, the gain with drift taken out, and how much earlier the peak is reached. */
export function WhatCanBeSeen({ comparison, view }: WhatCanBeSeenProps) {
  const { detectable, power } = comparison;
  const kw = (value: number) => `${formatPower(value, view.powerUnit)} ${view.powerUnit}`;
  const { difference, drift } = power.ranges[0]!;
  const { reachesRpm, staysToRpm, baselineRpm } = power.earliness;
  return (
    <section>
      <h2 className="heading">What these runs can show</h2>
      {detectable ? (
        <p className={classes.seen}>
          Spread <b>{kw(detectable.spreadKw)}</b>
          {difference.from === 'welch' && ', each setup its own'}
          {difference.borrowsSpread && ', borrowed by the side with one run'}. A change of{' '}
          <b>{kw(detectable.smallestDetectableKw)}</b> is found four times in five;{' '}
          {moreRunsText(detectable.moreRuns, `${100 * detectable.wantedShare} % (${kw(detectable.wantedKw)})`)}.
        </p>
      ) : (
        <p className={classes.seen}>
          One run a side shows no spread: a second run of either gives every figure its interval.
        </p>
      )}
      {drift && (
        <p className={classes.seen}>
          With drift from run to run taken out:{' '}
          <b>
            {signed(formatPower(drift.adjusted, view.powerUnit))} ±{' '}
            {halfWidthText(formatPower(drift.adjustedHalfWidth, view.powerUnit))} {view.powerUnit}
          </b>
          .
        </p>
      )}
      {reachesRpm !== undefined && staysToRpm !== undefined && reachesRpm < baselineRpm - 20 && (
        <p className={classes.seen}>
          {view.test.letter} reaches the peak of {view.against.letter} at <b>{formatRpm(reachesRpm)} rpm</b> instead of{' '}
          {formatRpm(baselineRpm)}, and stays above it to {formatRpm(staysToRpm)} rpm.
        </p>
      )}
    </section>
  );
}

function moreRunsText(more: number | undefined, change: string): string {
  if (more === undefined) return `${change} is beyond what repeats can show at this spread`;
  if (more === 0) return `so is one of ${change}`;
  return `for ${change} make ${more} more run${more > 1 ? 's' : ''} of each`;
}

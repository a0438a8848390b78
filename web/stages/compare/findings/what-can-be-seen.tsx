import {
  allowanceWords,
  leftOutWords,
  nextRunWords,
  ruleWords,
  spreadWords,
} from '../../../../core/wording/judgement-words.ts';
import { useOwnUnits } from '../../../units/use-own-units.tsx';
import type { Job } from '../../../../contract/job/records.ts';
import { formatPower, formatRpm } from '../../../../core/wording/figures.ts';
import classes from './findings.module.css';
import type { ComparisonFigures } from '../../../../core/figures/pairs/comparison-figures.ts';
import type { JobFigures } from '../../../../core/figures/job-figures.ts';
import type { CompareView } from '../view/view-address.ts';

interface WhatCanBeSeenProps {
  job: Job;
  figures: JobFigures;
  comparison: ComparisonFigures;
  view: CompareView;
}

/** Which interval holds and what it rests on, what the runs can show, how drift is allowed for, and what to run next. */
export function WhatCanBeSeen({ job, figures, comparison, view }: WhatCanBeSeenProps) {
  const { detectable, power, judgement } = comparison;
  const kw = (value: number) => `${formatPower(value, view.units.power)} ${view.units.power}`;
  const { difference } = power.ranges[0];
  const driftSaid = allowanceWords(difference);
  const { reachesRpm, staysToRpm, baselineRpm } = power.earliness;
  const { write } = useOwnUnits();
  const letterOf = (id: number) => job.setups.find((setup) => setup.id === id)?.letter ?? '?';
  return (
    <section>
      <h2 className="heading">What these runs can show</h2>
      {!comparison.withheld && (
        <p className={classes.seen} data-testid="rule">
          The interval <b>{ruleWords(judgement.judging)}</b>
          {judgement.judging.kind === 'every-look' && ` (look ${judgement.judging.look})`}.
        </p>
      )}
      {detectable && (
        <p className={classes.seen}>
          Spread <b>{kw(detectable.spreadKw)}</b> a run
          {difference.from === 'welch' && ', each setup its own'}
          {difference.from === 'pooled' && ', from this job’s own repeats'}
          {(difference.from === 'assumed' || difference.from === 'learned') && `, ${spreadWords(figures.spread)}`}. A
          change of <b>{kw(detectable.smallestDetectableKw)}</b> is detected <span className={classes.whole}>80 %</span>{' '}
          of the time. {leftOutWords(figures.spread)}
        </p>
      )}
      {driftSaid && <p className={classes.seen}>{write(driftSaid)}</p>}
      {reachesRpm !== undefined && staysToRpm !== undefined && reachesRpm < baselineRpm - 20 && (
        <p className={classes.seen}>
          {view.test.letter} reaches the peak of {view.against.letter} at <b>{formatRpm(reachesRpm)} rpm</b> instead of{' '}
          {formatRpm(baselineRpm)}, and stays above it to {formatRpm(staysToRpm)} rpm.
        </p>
      )}
      <p className={classes.seen} data-testid="next-run">
        Next: <b>{nextRunWords(figures.next, letterOf)}</b>
      </p>
    </section>
  );
}

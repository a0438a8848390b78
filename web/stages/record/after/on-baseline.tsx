import { useUnits } from '../../../units/use-own-units.tsx';
import { jobClaimWords, toneOf } from '../../../../core/wording/judgement-words.ts';
import type { Setup } from '../../../../contract/job/records.ts';
import { missedBands } from '../../../../core/judgement/pair-judgement.ts';
import { formatRpm, powerDifference } from '../../../../core/wording/figures.ts';
import type { JobFigures } from '../../../../core/figures/job-figures.ts';

/** The setup's gain on the baseline, beside that on its parent. */
export function OnBaseline({
  setup,
  baseline,
  figures,
}: {
  setup: Setup;
  baseline: Setup;
  figures: JobFigures | undefined;
}) {
  const unit = useUnits().power;
  const ownFigures = figures?.setups.find((candidate) => candidate.setupId === setup.id);
  const pair = ownFigures?.onBaseline;
  if (!pair) return null;
  const { difference, halfWidth } = pair.difference;
  const words = jobClaimWords(pair, figures?.setups.length ?? 0, { test: setup.letter, against: baseline.letter });
  const { figure, half } = powerDifference(difference, halfWidth, unit);
  return (
    <p className="soft">
      On the baseline {baseline.letter}
      {missedBands(pair).length === 0 && (
        <>
          , mean from {formatRpm(pair.fromRpm)} to {formatRpm(pair.toRpm)} rpm:{' '}
          <b className={`number ${toneOf(pair.jobClaim) ?? ''}`}>
            {figure}
            {half} {unit}
          </b>
        </>
      )}
      {words && `, ${words}`}
    </p>
  );
}

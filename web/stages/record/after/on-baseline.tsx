import type { Setup } from '../../../../contract/records.ts';
import { usePreferences } from '../../../state/preferences.ts';
import { formatPower, plusMinus, signed } from '../../../ui/figures.ts';
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
  const unit = usePreferences((state) => state.powerUnit);
  const ownFigures = figures?.setups.find((candidate) => candidate.setupId === setup.id);
  if (!ownFigures?.gain) return null;
  const { difference, halfWidth } = ownFigures.gain;
  const half = plusMinus(halfWidth, (kw) => formatPower(kw, unit));
  return (
    <p className="soft">
      On the baseline {baseline.letter}, mean over their common range:{' '}
      <b className={`number ${ownFigures.verdict === 'gain' ? 'gain' : ownFigures.verdict === 'loss' ? 'loss' : ''}`}>
        {signed(formatPower(difference, unit))}
        {half} {unit}
      </b>
      {ownFigures.verdict === 'within repeatability' && ', within repeatability'}
    </p>
  );
}

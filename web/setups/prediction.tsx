import { useUnits } from '../units/use-own-units.tsx';
import type { Setup } from '../../contract/job/records.ts';
import { gainOnParent, type SetupFigures } from '../../core/figures/pairs/setup-figures.ts';
import { scorePrediction, type PredictionScore } from '../../core/setup/prediction.ts';
import { predictionWords } from '../../core/wording/decision-record.ts';
import { formatPower, signed, powerDifference } from '../../core/wording/figures.ts';
import classes from './setup-details.module.css';

const words: Record<PredictionScore, string> = {
  ...predictionWords,
  open: 'not scored yet: there is no interval',
  'wrong way': `${predictionWords['wrong way']}: it went the other way`,
};

/** What a change was expected to give on its parent, and how that came out. */
export function Prediction({ setup, figures }: { setup: Setup; figures: SetupFigures | undefined }) {
  const unit = useUnits().power;
  if (setup.predictionKw === null)
    return <p className={`${classes.score} soft`}>None was written before its first run.</p>;
  const measured = figures && gainOnParent(figures, setup);
  const score = scorePrediction({ gainKw: setup.predictionKw }, measured);
  return (
    <p className={classes.score}>
      Expected {signed(formatPower(setup.predictionKw, unit))} {unit}, locked;{' '}
      {measured && !Number.isNaN(measured.halfWidth) && (
        <>
          measured {powerDifference(measured.difference, measured.halfWidth, unit).whole} {unit} on its parent:{' '}
        </>
      )}
      {words[score]}.
    </p>
  );
}

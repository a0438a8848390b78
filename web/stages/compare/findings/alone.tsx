import { peakBound, formatPower, formatRpm, formatTorque, scaleNote } from '../../../../core/wording/figures.ts';
import { peakOf } from '../../../../core/curve/peak.ts';
import classes from './findings.module.css';
import type { JobFigures } from '../../../../core/figures/job-figures.ts';
import type { CompareView } from '../view/view-address.ts';

/** What the chosen setup makes by itself, while there is nothing to compare it with. */
export function Alone({ figures, view }: { figures: JobFigures; view: CompareView }) {
  const testFigures = figures.setups.find(({ setupId }) => setupId === view.test.id);
  if (!testFigures) return null;
  const power = peakOf(testFigures.power.engineSpeedRpm, testFigures.power.values);
  const torque = peakOf(testFigures.torque.engineSpeedRpm, testFigures.torque.values);
  return (
    <section>
      <h2 className="heading">
        {view.test.letter}, {testFigures.runs === 1 ? 'one run' : `mean of ${testFigures.runs} runs`}
        {scaleNote(figures)}
      </h2>
      <p className={classes.seen}>
        Most power{' '}
        <b>
          {peakBound(power)}
          {formatPower(power.value, view.units.power)} {view.units.power}
        </b>{' '}
        at {formatRpm(power.rpm)} rpm{power.atEdge ? ', where the run ends' : ''}; most torque{' '}
        <b>
          {peakBound(torque)}
          {formatTorque(torque.value, view.units.torque)} {view.units.torque}
        </b>{' '}
        at {formatRpm(torque.rpm)} rpm.
        {testFigures.runs === 1 && ' One run shows no spread: make two more to know how far it can be trusted.'}
      </p>
    </section>
  );
}

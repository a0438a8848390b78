import { useUnits } from '../../../units/use-own-units.tsx';
import type { Run } from '../../../../contract/job/records.ts';
import type { MeanOfSamples } from '../../../../core/statistics/mean-of-samples.ts';
import { useMeasured } from '../../../workers/figures.ts';
import {
  formatPower,
  formatTenths,
  formatTorque,
  formatWhole,
  halfWidthText,
  plusMinus,
} from '../../../../core/wording/figures.ts';
import { convert } from '../../../../core/units/units.ts';
import { FindingLine, FindingList } from '../../../ui/severity.tsx';
import classes from './run-result.module.css';

/** What a row of holds or a coast-down measured, as a table. */
export function MeasuredFigures({ run }: { run: Run }) {
  const { data, error } = useMeasured(run);
  const { power: powerUnit, torque: torqueUnit, speed } = useUnits();
  if (error)
    return (
      <FindingList>
        <FindingLine severity="mind">{error.message}</FindingLine>
      </FindingList>
    );
  if (!data) return <p className="soft">Making the figures…</p>;
  if (data.kind === 'step') {
    const half = ({ halfWidth }: MeanOfSamples, write: (value: number) => string) => plusMinus(halfWidth, write);
    return (
      <table className={classes.table} data-testid="measured">
        <thead>
          <tr>
            <th>rpm</th>
            <th>{powerUnit}</th>
            <th>{torqueUnit}</th>
            <th>held</th>
          </tr>
        </thead>
        <tbody>
          {data.holds.map((hold) => (
            <tr key={hold.startS}>
              <td>{formatWhole(hold.engineSpeedRpm.mean)}</td>
              <td>
                {formatPower(hold.powerKw.mean, powerUnit)}
                {half(hold.powerKw, (value) => formatPower(value, powerUnit))}
              </td>
              <td>{formatTorque(hold.torqueNm.mean, torqueUnit)}</td>
              <td>{formatTenths(hold.endS - hold.startS)} s</td>
            </tr>
          ))}
        </tbody>
        <caption>Uncorrected, at the wheels; ± 95 % of the hold’s mean.</caption>
      </table>
    );
  }
  const radius = run.dyno.radiusM;
  return (
    <table className={classes.table} data-testid="measured">
      <thead>
        <tr>
          <th>{radius ? speed : 'rad/s'}</th>
          <th>loss, {powerUnit}</th>
          <th>at the drum, {torqueUnit}</th>
        </tr>
      </thead>
      <tbody>
        {data.losses.map(({ speedRadS, powerKw, torqueNm }) => (
          <tr key={speedRadS}>
            <td>{formatWhole(radius ? convert(speedRadS * radius, 'm/s', speed) : speedRadS)}</td>
            <td>
              {formatPower(powerKw.value, powerUnit)} ±{' '}
              {halfWidthText(formatPower((powerKw.high - powerKw.low) / 2, powerUnit))}
            </td>
            <td>{formatTorque(torqueNm.value, torqueUnit)}</td>
          </tr>
        ))}
      </tbody>
      <caption>
        Machine and driveline together, with the drum’s inertia of {run.dyno.inertiaKgM2} kg·m² alone: what else turned
        is not counted. Unloaded drag misses what grows with load: a crank estimate from it is a lower bound.
      </caption>
    </table>
  );
}

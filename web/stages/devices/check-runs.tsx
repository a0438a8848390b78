import { useUnits } from '../../units/use-own-units.tsx';
import type { DeviceState } from '../../../contract/bays/live.ts';
import { formatShare } from '../../../core/units/spoken.ts';
import { useCheckHistory } from '../../state/queries.ts';
import { formatPower, formatWhole, signed } from '../../../core/wording/figures.ts';
import classes from './devices-page.module.css';

/** The dyno's own repeatability, from its check runs. */
export function CheckRuns({ device }: { device: DeviceState }) {
  const { data } = useCheckHistory(device.device);
  const { power: powerUnit } = useUnits();
  if (!data) return null;
  const count = data.series.reduce((sum, { runs }) => sum + runs.length, 0) + data.apart.length;
  return (
    <details className={classes.fold}>
      <summary>
        Check runs
        <small>
          {count === 0
            ? 'none yet'
            : [
                `${count} ${count === 1 ? 'run' : 'runs'}`,
                data.within && `spread back to back ${formatShare(data.within.standardDeviation)}`,
                data.remount && `from strapping to strapping ${formatShare(data.remount.standardDeviation)}`,
              ]
                .filter(Boolean)
                .join(' · ')}
        </small>
      </summary>
      <div className={classes.setting}>
        <p>
          Run the same car in the same gear as a check run, three at a time, on different days. What it shows is the
          dyno’s own spread: comparisons borrow it where a setup has one run, and across strappings.
        </p>
        {data.series.map((series) => (
          <table key={series.car} className={classes.checks}>
            <caption>
              {series.car}: mean {formatPower(series.meanKw, powerUnit)} {powerUnit} from {formatWhole(series.fromRpm)}{' '}
              to {formatWhole(series.toRpm)} rpm, SAE J1349
            </caption>
            <thead>
              <tr>
                <th>run</th>
                <th>strapping</th>
                <th>when</th>
                <th>{powerUnit}</th>
                <th>away from the mean</th>
              </tr>
            </thead>
            <tbody>
              {series.runs.map((run) => (
                <tr key={run.id}>
                  <td>{run.label}</td>
                  <td>{run.mounting}</td>
                  <td>
                    {new Date(run.startedAt).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })}
                  </td>
                  <td>{formatPower(run.meanKw, powerUnit)}</td>
                  <td>{signed((100 * run.awayShare).toFixed(2).replace('-', '−'))} %</td>
                </tr>
              ))}
            </tbody>
          </table>
        ))}
        {data.apart.length > 0 && (
          <p>{data.apart.length} could not be laid beside the others: another range, or no curve.</p>
        )}
      </div>
    </details>
  );
}

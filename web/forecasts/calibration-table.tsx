import { keys } from '../state/query-keys.ts';
import { useQuery } from '@tanstack/react-query';
import { calibrations } from '../../core/forecasts/forecast.ts';
import { api } from '../state/api.ts';
import classes from './forecasts.module.css';

const percent = (share: number) => `${(100 * share).toFixed(1).replace('-', '−')} %`;

/** Who forecasts well, over all jobs whose setups have run. */
export function CalibrationTable() {
  const { data } = useQuery({ queryKey: keys.forecasts, queryFn: api.forecasts });
  const rows = calibrations(data ?? []);
  return (
    <section>
      <h2 className="heading">Forecasts</h2>
      {rows.length === 0 ? (
        <p className="soft">
          No forecast has come out yet. Write one at a setup before its first run: who, what, how much.
        </p>
      ) : (
        <table className={classes.table}>
          <thead>
            <tr>
              <th scope="col">Who</th>
              <th scope="col">Forecasts</th>
              <th scope="col">Ranges that held</th>
              <th scope="col">Off by, mean</th>
              <th scope="col">Too high, mean</th>
            </tr>
          </thead>
          <tbody>
            {rows.map(({ who, forecasts, ranges, held, meanMiss, bias }) => (
              <tr key={who}>
                <th scope="row">{who}</th>
                <td className="number">{forecasts}</td>
                <td className="number">{ranges === 0 ? '–' : `${held} of ${ranges}`}</td>
                <td className="number">{percent(meanMiss)}</td>
                <td className="number">{percent(bias)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}

import type { BoostFigures, WithInterval } from '../../../../core/log/boost-figures.ts';
import { formatRpm, formatTenths, formatWhole, plusMinus } from '../../../ui/figures.ts';
import type { LogSide } from '../view/log-side.ts';
import classes from './log-side-pane.module.css';

interface BoostTableProps {
  /** The run's label. */
  run: string;
  boost: BoostFigures;
  beside: LogSide | undefined;
}

/** How boost comes, stays and goes: this run beside the other. */
export function BoostTable({ run, boost, beside }: BoostTableProps) {
  const other = beside?.log.boost;
  const rows: [name: string, unit: string, (figures: BoostFigures) => WithInterval | undefined, typeof formatRpm][] = [
    [
      '90 % of plateau from',
      'rpm',
      ({ ninetyPercentRpm }) => ninetyPercentRpm,
      (rpm) => formatRpm(Math.round(rpm / 10) * 10),
    ],
    ['plateau', 'kPa', ({ plateauKpa }) => plateauKpa, formatTenths],
    ['peak', 'kPa', ({ peakKpa }) => peakKpa, formatTenths],
    [`above ${boost.against}`, 'kPa', ({ overshootKpa }) => overshootKpa, formatTenths],
    [`end below ${boost.against}`, 'kPa', ({ taperKpa }) => taperKpa, formatTenths],
  ];
  return (
    <table className={classes.table} aria-label="Boost">
      <thead>
        <tr>
          <th scope="col">Boost</th>
          <th scope="col">{run}</th>
          {other && <th scope="col">{beside?.label}</th>}
        </tr>
      </thead>
      <tbody>
        {rows.map(([name, unit, of, write]) => {
          const [own, others] = [of(boost), other && of(other)];
          if (!own && !others) return null;
          return (
            <tr key={name}>
              <th scope="row">
                {name}, {unit}
              </th>
              <td>{written(own, write, unit)}</td>
              {other && <td className={classes.quiet}>{written(others, write, unit)}</td>}
            </tr>
          );
        })}
      </tbody>
      <caption>
        {!boost.plateauKpa && 'Boost climbs to the end: it has no plateau. '}± is 95 %, by the reading’s noise in one
        run
        {other && ', by how runs differ in a mean'}.
      </caption>
    </table>
  );
}

function written(figure: WithInterval | undefined, write: (value: number) => string, unit: string): string {
  if (!figure) return '–';
  const width = (value: number) => (unit === 'rpm' ? formatWhole(Math.ceil(value / 10) * 10) : write(value));
  return `${write(figure.value)}${plusMinus(figure.halfWidth, width)}`;
}

import { useOwnUnits } from '../../../units/use-own-units.tsx';
import type { BoostFigures, WithInterval } from '../../../../core/log/view/boost-figures.ts';
import { figureIn } from '../../../../core/units/told-units.ts';
import { formatRpm, formatWhole, plusMinus } from '../../../../core/wording/figures.ts';
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
  const own = useOwnUnits();
  // A plateau is steadier than one reading: a digit more than a reading has.
  const pressure = (kPa: number) => figureIn(own.told('kPa').of(kPa), own.unit('kPa'), 1);
  const other = beside?.log.boost;
  const rows: [name: string, unit: string, (figures: BoostFigures) => WithInterval | undefined, typeof formatRpm][] = [
    [
      '90 % of plateau from',
      'rpm',
      ({ ninetyPercentRpm }) => ninetyPercentRpm,
      (rpm) => formatRpm(Math.round(rpm / 10) * 10),
    ],
    ['plateau', 'kPa', ({ plateauKpa }) => plateauKpa, pressure],
    ['peak', 'kPa', ({ peakKpa }) => peakKpa, pressure],
    [`above ${boost.against}`, 'kPa', ({ overshootKpa }) => overshootKpa, pressure],
    [`end below ${boost.against}`, 'kPa', ({ taperKpa }) => taperKpa, pressure],
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
          const [figure, others] = [of(boost), other && of(other)];
          if (!figure && !others) return null;
          return (
            <tr key={name}>
              <th scope="row">
                {name}, {own.unit(unit)}
              </th>
              <td>{written(figure, write, unit)}</td>
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

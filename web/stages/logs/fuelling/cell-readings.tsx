import { extent } from 'd3-array';
import type { FuellingOfRuns } from '../../../../core/fuelling/fuelling-of-runs.ts';
import type { FuellingReading, FuellingTable } from '../../../../core/fuelling/fuelling-table.ts';
import { knowledgeOf, standingOf } from '../../../../core/fuelling/standing.ts';
import { niceRange } from '../../../../core/scene/nice-range.ts';
import { formatTenths, formatWhole, signed } from '../../../../core/wording/figures.ts';
import { knowledgeWords, standingWords } from '../../../../core/wording/fuelling-words.ts';
import { errorOf, placeWords } from '../../../fuelling/cell-grid.tsx';
import classes from './fuelling-panes.module.css';

interface CellReadingsProps {
  table: FuellingTable;
  used: FuellingOfRuns['used'];
  cell: number;
}

const width = 640;
const height = 120;
const left = 44;

/** A cell's own readings in the order they were made, each a second's mean, larger the nearer it lay to the cell. */
export function CellReadings({ table, used, cell }: CellReadingsProps) {
  const readings = readingsOf(table, used, cell);
  const fitted = table.cells[cell]!;
  const knowledge = knowledgeOf(fitted);
  const errors = readings.map(({ reading }) => 100 * reading.error);
  const [least = -1, most = 1] = extent([...errors, 0]);
  const range = niceRange(Math.min(least, -1), Math.max(most, 1), 4);
  const y = (percent: number) => 8 + (height - 26) * ((range.most - percent) / (range.most - range.least));
  const x = (at: number) => left + ((at + 0.5) / Math.max(1, readings.length)) * (width - left - 8);
  const ticks = Array.from(
    { length: Math.round((range.most - range.least) / range.step) + 1 },
    (_, at) => range.least + at * range.step,
  );
  return (
    <section className={classes.readings} aria-label="Readings of the cell">
      <h2>
        {placeWords(table.axes, cell)}{' '}
        <span className="soft">
          {knowledge === 'empty'
            ? knowledgeWords.empty
            : `${errorOf(fitted)} ± ${formatTenths(100 * fitted.halfWidth)} %, ${knowledge === 'known' ? standingWords[standingOf(fitted)] : knowledgeWords.thin}; ${formatTenths(fitted.seconds)} s, ${formatWhole(fitted.samples)} samples`}
        </span>
      </h2>
      {readings.length > 0 && (
        <svg
          viewBox={`0 0 ${width} ${height}`}
          role="img"
          aria-label={`${readings.length} readings of the cell over time, in percent`}
        >
          {ticks.map((tick) => (
            <g key={tick}>
              <line
                x1={left}
                x2={width}
                y1={y(tick)}
                y2={y(tick)}
                stroke={Math.abs(tick) < 1e-9 ? 'var(--ink)' : 'var(--rule)'}
              />
              <text x={left - 6} y={y(tick) + 4} textAnchor="end">
                {signed(formatTenths(tick))}
              </text>
            </g>
          ))}
          {readings.map(({ reading, share, label }, at) => (
            <circle
              key={at}
              cx={x(at)}
              cy={y(100 * reading.error)}
              r={2 + 4 * share}
              fill="var(--ink)"
              fillOpacity={0.25 + 0.6 * share}
            >
              <title>{`${label}, ${reading.fromS.toFixed(1)} s: ${signed(formatTenths(100 * reading.error))} %`}</title>
            </circle>
          ))}
          {readings.map(({ label }, at) =>
            label !== readings[at - 1]?.label ? (
              <text key={`run ${at}`} x={x(at)} y={height - 4}>
                {label}
              </text>
            ) : null,
          )}
        </svg>
      )}
    </section>
  );
}

function readingsOf({ readings }: FuellingTable, used: FuellingOfRuns['used'], cell: number) {
  const found: { reading: FuellingReading; share: number; label: string }[] = [];
  let at = 0;
  for (const { label, readings: count } of used) {
    for (const reading of readings.slice(at, at + count)) {
      const place = reading.cells.indexOf(cell);
      if (place >= 0) found.push({ reading, share: reading.shares[place]!, label });
    }
    at += count;
  }
  return found;
}

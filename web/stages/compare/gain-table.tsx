import type { GainRow } from '../../../core/gain/table.ts';
import {
  formatPower,
  formatRpm,
  formatSeconds,
  formatTenths,
  formatTorque,
  signed,
  halfWidthText,
} from '../../ui/figures.ts';
import classes from './gain-table.module.css';
import type { ChangeView, CompareView } from './view.ts';

interface GainTableProps {
  rows: readonly GainRow[];
  view: CompareView;
  change: ChangeView;
  /** What figures for the crank rest on. */
  estimate: string | undefined;
}

/** The gain table: unit and 95 % interval in every row. */
export function GainTable({ rows, view, change, estimate }: GainTableProps) {
  const of = (quantity: GainRow['quantity']) => rows.filter((row) => row.quantity === quantity);
  const scale = estimate ? ` ≈ at the crank (${estimate})` : '';
  const { percent } = view;
  const against = view.againstRuns?.join(' ') ?? view.against.letter;
  return (
    <div>
      <table
        className={classes.table}
        data-testid="gain-table"
        aria-label={`${view.test.letter} against ${view.against.letter}`}
      >
        <thead>
          <tr>
            <td />
            <th scope="col">{against}</th>
            <th scope="col">{view.runs?.join(' ') ?? view.test.letter}</th>
            <th scope="col">
              <button
                className={classes.unit}
                title={percent ? 'Show the gain in its own unit' : 'Show the gain in percent'}
                onClick={() => change({ gain: percent ? undefined : 'percent' })}
              >
                gain{percent && ', %'}
              </button>
            </th>
          </tr>
        </thead>
        <Section
          name={`power, ${view.powerUnit}${scale}`}
          rows={of('power')}
          percent={percent}
          against={against}
          write={(value) => formatPower(value, view.powerUnit)}
        />
        <Section
          name={`torque, ${view.torqueUnit}${scale}`}
          rows={of('torque')}
          percent={percent}
          against={against}
          write={(value) => formatTorque(value, view.torqueUnit)}
        />
        <Section
          name="time to sweep, s, as driven"
          rows={of('time')}
          percent={percent}
          against={against}
          write={formatSeconds}
        />
        <Section
          name="engine speed, rpm"
          rows={of('engine speed')}
          percent={false}
          against={against}
          write={formatRpm}
        />
      </table>
      <p className={classes.note}>
        ± is a 95 % interval from the spread between runs, each row by itself; that of the largest gain and of a span
        that was found holds for all speeds at once. Colour is a verdict: only on what was chosen beforehand or found
        so.
      </p>
    </div>
  );
}

interface SectionProps {
  name: string;
  rows: GainRow[];
  percent: boolean;
  /** What the gain is over, in a word. */
  against: string;
  write: (value: number) => string;
}

function Section({ name, rows, percent, against, write }: SectionProps) {
  if (rows.length === 0) return null;
  return (
    <tbody>
      <tr className={classes.section}>
        <th scope="rowgroup" colSpan={4}>
          {name}
        </th>
      </tr>
      {rows.map((row) => {
        const shown = (value: number) => (percent ? formatTenths((100 * value) / row.baseline) : write(value));
        return (
          <tr key={`${row.id}-${row.fromRpm ?? ''}`} data-row={row.id}>
            <th scope="row">{rowLabel(row, against)}</th>
            <td>{write(row.baseline)}</td>
            <td>{write(row.test)}</td>
            <td>
              <b className={row.verdict === 'gain' || row.verdict === 'loss' ? row.verdict : undefined}>
                {signed(shown(row.difference))}
              </b>
              <i>{Number.isNaN(row.halfWidth) ? '' : `±${halfWidthText(shown(row.halfWidth))}`}</i>
            </td>
          </tr>
        );
      })}
    </tbody>
  );
}

function rowLabel(row: GainRow, against: string): string {
  const span = `${formatRpm(row.fromRpm ?? 0)}–${formatRpm(row.toRpm ?? 0)}`;
  switch (row.id) {
    case 'band':
      return `band, ${span}`;
    case 'common':
      return 'common range';
    case 'span':
      return `found, ${span}`;
    case 'at-speed':
    case 'torque-at-speed':
      return `at ${formatRpm(row.fromRpm!)} rpm`;
    case 'largest':
      return `largest, at ${formatRpm(row.fromRpm!)}`;
    case 'peak-power':
    case 'peak-torque':
      return `peak, at ${peakSpeeds(row)}${row.atEdge ? ' (end of run)' : ''}`;
    case 'swept':
      return span;
    case 'reaches-peak':
      return `reaches ${against}’s peak`;
  }
}

/** One speed where both peaks lie together, else test's and baseline's. */
function peakSpeeds(row: GainRow): string {
  const [baseline, test] = [formatRpm(row.baselineRpm!), formatRpm(row.testRpm!)];
  return baseline === test ? test : `${baseline}, ${test}`;
}

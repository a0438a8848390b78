import type { GainRow } from '../../../core/gain/table.ts';
import { formatPower, formatRpm, formatTorque, signed } from '../../ui/figures.ts';
import classes from './gain-table.module.css';
import type { CompareView } from './view.ts';

/** The gain table: unit and 95 % interval in every row. */
export function GainTable({ rows, view }: { rows: readonly GainRow[]; view: CompareView }) {
  const power = rows.filter((row) => row.quantity === 'power');
  const torque = rows.filter((row) => row.quantity === 'torque');
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
            <th scope="col">{view.againstRuns?.join(' ') ?? view.against.letter}</th>
            <th scope="col">{view.runs?.join(' ') ?? view.test.letter}</th>
            <th scope="col">gain</th>
          </tr>
        </thead>
        <Section name={`power, ${view.powerUnit}`} rows={power} write={(value) => formatPower(value, view.powerUnit)} />
        <Section
          name={`torque, ${view.torqueUnit}`}
          rows={torque}
          write={(value) => formatTorque(value, view.torqueUnit)}
        />
      </table>
      <p className={classes.note}>
        ± is a 95 % interval from the spread between runs, each row by itself; the largest gain has that of all speeds
        at once. Colour is a verdict: only on what was chosen beforehand.
      </p>
    </div>
  );
}

function Section({ name, rows, write }: { name: string; rows: GainRow[]; write: (value: number) => string }) {
  if (rows.length === 0) return null;
  return (
    <tbody>
      <tr className={classes.section}>
        <th scope="rowgroup" colSpan={4}>
          {name}
        </th>
      </tr>
      {rows.map((row) => (
        <tr key={row.id} data-row={row.id}>
          <th scope="row">{rowLabel(row)}</th>
          <td>{write(row.baseline)}</td>
          <td>{write(row.test)}</td>
          <td>
            <b className={row.verdict === 'gain' || row.verdict === 'loss' ? row.verdict : undefined}>
              {signed(write(row.difference))}
            </b>
            <i>{Number.isNaN(row.halfWidth) ? '' : `±${write(row.halfWidth)}`}</i>
          </td>
        </tr>
      ))}
    </tbody>
  );
}

function rowLabel(row: GainRow): string {
  switch (row.id) {
    case 'band':
      return `band, ${formatRpm(row.fromRpm!)}–${formatRpm(row.toRpm!)}`;
    case 'common':
      return 'common range';
    case 'at-speed':
    case 'torque-at-speed':
      return `at ${formatRpm(row.fromRpm!)} rpm`;
    case 'largest':
      return `largest, at ${formatRpm(row.fromRpm!)}`;
    case 'peak-power':
    case 'peak-torque':
      return `peak, at ${peakSpeeds(row)}${row.atEdge ? ' (end of run)' : ''}`;
  }
}

/** One speed where both peaks lie together, else test's and baseline's. */
function peakSpeeds(row: GainRow): string {
  const [baseline, test] = [formatRpm(row.baselineRpm!), formatRpm(row.testRpm!)];
  return baseline === test ? test : `${baseline}, ${test}`;
}

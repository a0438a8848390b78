import { useState } from 'react';
import type { ChangeView } from '../view/view.ts';
import type { CompareView } from '../view/view-address.ts';
import { gainTableContent, type ComparedRows } from './gain-table-content.ts';
import button from '../../../ui/text-button.module.css';
import classes from './gain-table.module.css';

interface GainTableProps {
  comparison: ComparedRows;
  view: CompareView;
  change: ChangeView;
  /** What figures for the crank rest on. */
  estimate: string | undefined;
}

/** The gain table: unit and 95 % interval in every row. */
export function GainTable({ comparison, view, change, estimate }: GainTableProps) {
  const { heads, sections } = gainTableContent(comparison, view, estimate);
  const [against, test, gain] = heads;
  const [unfolded, setUnfolded] = useState(false);
  const folded = sections.flatMap((section) => section.rows).filter((line) => line.folded).length;
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
            <th scope="col">{test}</th>
            <th scope="col">
              <button
                className={classes.unit}
                title={view.percent ? 'Show the gain in its own unit' : 'Show the gain in percent'}
                onClick={() => change({ gain: view.percent ? undefined : 'percent' })}
              >
                {gain}
              </button>
            </th>
          </tr>
        </thead>
        {sections.map(({ name, rows: lines }) => (
          <tbody key={name}>
            <tr className={classes.section} hidden={lines.every(({ folded }) => folded) && !unfolded}>
              <th scope="rowgroup" colSpan={4}>
                {name}
              </th>
            </tr>
            {lines.map((line) => (
              <tr key={line.key} data-row={line.id} hidden={line.folded && !unfolded}>
                <th scope="row">{line.label}</th>
                {line.instead === undefined ? (
                  <>
                    <td>{line.baseline}</td>
                    <td>{line.test}</td>
                    <td>
                      <b className={line.tone}>{line.gain}</b>
                      <i>{line.halfWidth}</i>
                    </td>
                  </>
                ) : (
                  <td colSpan={3}>{line.instead}</td>
                )}
              </tr>
            ))}
          </tbody>
        ))}
      </table>
      {folded > 0 && (
        <button className={button.more} aria-expanded={unfolded} onClick={() => setUnfolded(!unfolded)}>
          {unfolded ? 'Show less' : `${folded} more: clear stretches, largest gain, time, earlier peak`}
        </button>
      )}
      <p className={classes.note}>
        ± is a 95 % interval, each row by itself; that of the largest and of a clear stretch holds for all speeds at
        once. Coloured = shown (95 %), uncoloured = not shown.
      </p>
    </div>
  );
}

import type { WrittenContent } from '../../core/report/written-report.ts';
import classes from './written-table.module.css';

/** A table of a report: figures to the right, coloured where something is claimed, with what it rests on below. */
export function WrittenTable({ table: { head, rows, note } }: { table: Extract<WrittenContent, { is: 'table' }> }) {
  return (
    <>
      <table className={classes.table}>
        <thead>
          <tr>
            {head.map(({ text, right }) => (
              <th key={text} scope="col" className={right && classes.right}>
                {text}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.map(({ text }) => text).join()}>
              {row.map(({ text, right, tone }, at) => {
                const look = [right && classes.right, tone].filter(Boolean).join(' ');
                return at === 0 ? (
                  <th key={at} scope="row" className={look}>
                    {text}
                  </th>
                ) : (
                  <td key={at} className={look}>
                    {text}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
      {note && <p className={classes.note}>{note}</p>}
    </>
  );
}

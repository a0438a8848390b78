import { useRef, type CSSProperties, type KeyboardEvent } from 'react';
import type { FuellingAxes } from '../../core/fuelling/axes.ts';
import type { FittedCell } from '../../core/fuelling/corner-fit.ts';
import { knowledgeOf, standingOf } from '../../core/fuelling/standing.ts';
import { formatTenths, signed } from '../../core/wording/figures.ts';
import { axisNames, breakpointWords, knowledgeWords, standingWords } from '../../core/wording/fuelling-words.ts';
import classes from './cell-grid.module.css';
import { KnowledgeMark } from './knowledge-mark.tsx';

interface CellGridProps {
  axes: FuellingAxes;
  cells: readonly FittedCell[];
  /** What stands large in a cell; its error where this is absent. */
  write?: (cell: FittedCell) => string;
  /** The same cells in another revision: their errors stand before the cell's own. */
  before?: readonly FittedCell[] | undefined;
  chosen?: number | undefined;
  onChoose?: (cell: number) => void;
  /** Where the engine is, and where it is to go. */
  present?: number | undefined;
  next?: number | undefined;
  /** Read from afar. */
  large?: boolean;
}

/** A fuel table: each cell with its error, how sure that is, and how well the cell is known as shade, shape and number. */
export function CellGrid({
  axes,
  cells,
  write = errorOf,
  before,
  chosen,
  onChoose,
  present,
  next,
  large = false,
}: CellGridProps) {
  const table = useRef<HTMLTableElement>(null);
  const { across, down } = axes;
  const columns = across.breakpoints.length;
  // The highest load stands on top, as on a graph.
  const rows = (down?.breakpoints ?? [null]).map((load, row) => ({ load, row })).reverse();
  const move = (event: KeyboardEvent, cell: number) => {
    const step = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: columns, ArrowDown: -columns }[event.key];
    if (step === undefined) return;
    event.preventDefault();
    const sameRow = Math.abs(step) > 1 || Math.floor((cell + step) / columns) === Math.floor(cell / columns);
    const target = table.current?.querySelector<HTMLElement>(`[data-cell="${cell + step}"]`);
    if (sameRow && target) target.focus();
  };
  return (
    <table
      ref={table}
      className={large ? `${classes.grid} ${classes.large}` : classes.grid}
      aria-label="Fuel table"
      style={{ '--rows': rows.length } as CSSProperties}
    >
      <thead>
        <tr>
          <th className={classes.corner} scope="col">
            {down ? `${axisNames[down.channel].unit} \\ ` : ''}
            {axisNames[across.channel].unit}
          </th>
          {across.breakpoints.map((value) => (
            <th key={value} scope="col">
              {breakpointWords(across, value)}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map(({ load, row }) => (
          <tr key={row}>
            <th scope="row">{down && load !== null ? breakpointWords(down, load) : ''}</th>
            {across.breakpoints.map((_, column) => {
              const at = row * columns + column;
              const cell = cells[at]!;
              const [knowledge, standing] = [knowledgeOf(cell), standingOf(cell)];
              return (
                <td key={column}>
                  <button
                    className={classes.cell}
                    data-cell={at}
                    data-knowledge={knowledge}
                    data-standing={standing}
                    data-present={present === at || undefined}
                    data-next={(next === at && present !== at) || undefined}
                    aria-pressed={onChoose ? chosen === at : undefined}
                    aria-label={`${placeWords(axes, at)}: ${knowledge === 'empty' ? '' : `${errorOf(cell)} %, `}${knowledge === 'known' ? standingWords[standing] : knowledgeWords[knowledge]}`}
                    onClick={() => onChoose?.(at)}
                    onKeyDown={(event) => move(event, at)}
                  >
                    <b>
                      {beforeOf(before?.[at])}
                      {knowledge === 'empty' ? '' : write(cell)}
                    </b>
                    <small>
                      <KnowledgeMark knowledge={knowledge} standing={standing} />
                      {knowledge !== 'empty' && `± ${(100 * cell.halfWidth).toFixed(1)}`}
                    </small>
                  </button>
                </td>
              );
            })}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** `+6.1 → `, where another revision knows the cell. */
const beforeOf = (cell: FittedCell | undefined) =>
  cell && knowledgeOf(cell) !== 'empty' ? <span className={classes.before}>{errorOf(cell)} → </span> : null;

/** In percent; positive is lean. */
export const errorOf = ({ error }: FittedCell): string => signed(formatTenths(100 * error));

/** `2,500 rpm, 60 kPa` */
export function placeWords({ across, down }: FuellingAxes, cell: number): string {
  const columns = across.breakpoints.length;
  const along = `${breakpointWords(across, across.breakpoints[cell % columns]!)} ${axisNames[across.channel].unit}`;
  if (!down) return along;
  return `${along}, ${breakpointWords(down, down.breakpoints[Math.floor(cell / columns)]!)} ${axisNames[down.channel].unit}`;
}

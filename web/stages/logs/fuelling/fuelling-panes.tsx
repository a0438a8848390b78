import { SegmentedControl } from '@mantine/core';
import { useState } from 'react';
import type { Job, Setup } from '../../../../contract/job/records.ts';
import { cellCount, type FuellingAxes } from '../../../../core/fuelling/axes.ts';
import type { FittedCell } from '../../../../core/fuelling/corner-fit.ts';
import type { FuellingTable } from '../../../../core/fuelling/fuelling-table.ts';
import { knowledgeOf, proposedMultiplier } from '../../../../core/fuelling/standing.ts';
import { writeTable } from '../../../../core/fuelling/table-text.ts';
import { formatTenths } from '../../../../core/wording/figures.ts';
import { axisNames, delayWords, offsetWords, usedWords } from '../../../../core/wording/fuelling-words.ts';
import { CellGrid, errorOf } from '../../../fuelling/cell-grid.tsx';
import { KnowledgeMark } from '../../../fuelling/knowledge-mark.tsx';
import { copyText, saveFile } from '../../../ui/save-file.ts';
import button from '../../../ui/text-button.module.css';
import stage from '../logs-stage.module.css';
import type { LabelledRun } from '../view/beside.ts';
import type { LogsView } from '../view/log-address.ts';
import type { ChangeLogsView } from '../view/use-logs-view.ts';
import { AxesButton } from './axes-form.tsx';
import { CellReadings } from './cell-readings.tsx';
import classes from './fuelling-panes.module.css';
import { FuellingSide } from './fuelling-side.tsx';
import { ShowChoice } from './show-choice.tsx';
import { useFuellingOfJob } from './use-fuelling-of-job.ts';

interface FuellingPanesProps {
  job: Job;
  run: LabelledRun;
  setup: Setup;
  view: LogsView;
  change: ChangeLogsView;
}

type Figure = 'error' | 'multiplier' | 'count' | 'spread';

/** What stands in the cells, how it is called, and how many digits leave with it. */
const figures: Record<
  Figure,
  { name: string; of: (cell: FittedCell) => number; write: (cell: FittedCell) => string; digits: number }
> = {
  error: { name: 'Error, %', of: ({ error }) => 100 * error, write: errorOf, digits: 2 },
  multiplier: {
    name: 'Multiply fuel by',
    of: (cell) => proposedMultiplier(cell),
    write: (cell) => proposedMultiplier(cell).toFixed(3),
    digits: 4,
  },
  count: {
    name: 'Effective count',
    of: ({ effectiveCount }) => effectiveCount,
    write: ({ effectiveCount }) => formatTenths(effectiveCount),
    digits: 1,
  },
  spread: {
    name: 'Spread, %',
    of: ({ spread }) => 100 * spread,
    write: ({ spread }) => formatTenths(100 * spread),
    digits: 2,
  },
};

/** Fuelling errors of a setup over its fuel table, and what to do about them. */
export function FuellingPanes({ job, run, setup, view, change }: FuellingPanesProps) {
  const { shown, others } = useFuellingOfJob(job, run, setup);
  const [figure, setFigure] = useState<Figure>('error');
  const [besideId, setBesideId] = useState<number>();
  const { found, runs } = shown;
  const beside = others.find(({ setup: { id } }) => id === besideId);
  const earlier = beside?.found?.table;
  const table = found?.table;
  const labels = runs.map(({ label }) => label).join(', ');
  return (
    <>
      <main className={stage.main} aria-label="Fuelling" aria-busy={!found}>
        <header className={stage.head}>
          <h1>Fuelling, {setup.letter}</h1>
          <span className={classes.of}>
            {setup.change} · {runs.length === 1 ? 'run' : 'runs'} {labels}
          </span>
          <ShowChoice view={view} change={change} />
        </header>
        {found && !table && (
          <div className={stage.message} role="alert">
            <h2>No fuelling error can be told from {labels}</h2>
            {found.refused.map(({ id, label, why }) => (
              <p key={id}>
                {label}: {why}
              </p>
            ))}
            <p>
              Drive the table at part load on Record, or open a log that holds λ, engine speed and a load. Nothing that
              was recorded is lost.
            </p>
            <AxesButton job={job} axes={found.axes} />
          </div>
        )}
        {table && (
          <>
            <div className={classes.tools}>
              <SegmentedControl
                size="xs"
                aria-label="What stands in the cells"
                data={Object.entries(figures).map(([value, { name }]) => ({ value, label: name }))}
                value={figure}
                onChange={(value) => setFigure(value as Figure)}
              />
              {others.length > 0 && (
                <SegmentedControl
                  size="xs"
                  aria-label="Beside which revision"
                  data={[
                    { value: '', label: 'alone' },
                    ...others.map(({ setup: { id, letter } }) => ({ value: String(id), label: `beside ${letter}` })),
                  ]}
                  value={beside ? String(beside.setup.id) : ''}
                  onChange={(id) => setBesideId(id === '' ? undefined : Number(id))}
                />
              )}
              <AxesButton job={job} axes={table.axes} />
              <button
                className={button.act}
                onClick={() => copyText(textOf(table, figure, '\t'), `${figures[figure].name}: table copied.`)}
              >
                Copy table
              </button>
              <button
                className={button.act}
                onClick={() =>
                  saveFile(`fuelling-${setup.letter}-${figure}.csv`, 'text/csv', textOf(table, figure, ','))
                }
              >
                CSV
              </button>
            </div>
            <div
              className={classes.grid}
              style={{ '--rows': table.axes.down?.breakpoints.length ?? 1 } as React.CSSProperties}
            >
              <CellGrid
                axes={table.axes}
                cells={table.cells}
                write={figures[figure].write}
                before={figure === 'error' ? earlier?.cells : undefined}
                chosen={view.cell}
                onChoose={(cell) => change({ cell: cell === view.cell ? undefined : cell })}
              />
            </div>
            <Legend />
            <p className={classes.note}>
              {axisTitle(table.axes)}. + is lean: so much more fuel is needed. ± is 95 %. {usedWords(table)}{' '}
              {delayWords(table)} {offsetWords(found)}
            </p>
            {view.cell !== undefined && view.cell < cellCount(table.axes) && (
              <CellReadings table={table} used={found.used} cell={view.cell} />
            )}
          </>
        )}
      </main>
      <FuellingSide job={job} setup={setup} shown={shown} others={others} />
    </>
  );
}

/** What the shapes in the cells mean. */
function Legend() {
  const marks = [
    ['empty', 'not known', 'not driven'],
    ['thin', 'not known', 'too little driven'],
    ['known', 'open', 'known'],
    ['known', 'within 1 %', 'within 1 %, with confidence'],
  ] as const;
  return (
    <ul className={classes.legend} aria-label="What the shapes mean">
      {marks.map(([knowledge, standing, words]) => (
        <li key={words}>
          <KnowledgeMark knowledge={knowledge} standing={standing} /> {words}
        </li>
      ))}
      <li>
        <u>underlined</u> more than 3 % off, with confidence
      </li>
    </ul>
  );
}

function textOf({ axes, cells }: FuellingTable, figure: Figure, separator: string): string {
  const { of, digits } = figures[figure];
  const values = cells.map((cell) => (figure !== 'multiplier' && knowledgeOf(cell) === 'empty' ? NaN : of(cell)));
  return writeTable(axes, values, digits, separator);
}

const axisTitle = ({ across, down }: FuellingAxes): string =>
  `Across: ${axisNames[across.channel].name}, ${axisNames[across.channel].unit}${down ? `; up: ${axisNames[down.channel].name}, ${axisNames[down.channel].unit}` : ''}`;

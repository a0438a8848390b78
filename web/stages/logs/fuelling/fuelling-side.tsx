import { Button } from '@mantine/core';
import { useNavigate } from 'react-router';
import type { Job, Setup } from '../../../../contract/job/records.ts';
import { lineOf } from '../../../../core/setup/difference.ts';
import { progressOf, proposedMultiplier, usualProposal } from '../../../../core/fuelling/standing.ts';
import { offsetInProposal, progressWords } from '../../../../core/wording/fuelling-words.ts';
import { setupColour } from '../../../../core/scene/setup-look.ts';
import { api } from '../../../state/api.ts';
import { useLive } from '../../../state/live.ts';
import { useChange } from '../../../state/use-change.ts';
import side from '../side/log-side-pane.module.css';
import classes from './fuelling-panes.module.css';
import type { FuellingRevision } from './use-fuelling-of-job.ts';

interface FuellingSideProps {
  job: Job;
  setup: Setup;
  shown: FuellingRevision;
  others: readonly FuellingRevision[];
}

/** How far the table has come, revision by revision, and what is proposed next. */
export function FuellingSide({ job, setup, shown, others }: FuellingSideProps) {
  const table = shown.found?.table;
  const navigate = useNavigate();
  const multipliers = table?.cells.map((cell) => Number(proposedMultiplier(cell).toFixed(4))) ?? [];
  const revision =
    1 +
    lineOf(job.setups, setup.id)
      .flatMap(({ items }) => items)
      .filter(({ kind }) => kind === 'fuel-table').length;
  const mountedIn = useLive(({ bays }) => bays.find(({ mounted }) => mounted?.jobId === job.id)?.bay);
  const add = useChange(async () => {
    if (!table) throw new Error('Nothing is proposed yet.');
    const added = await api.addSetup(job.id, {
      parentId: setup.id,
      change: `fuel table revision ${revision}`,
      items: [{ kind: 'fuel-table', name: `revision ${revision}`, table: { ...table.axes, multipliers } }],
    });
    // The car is on the dyno: the next run is of the new table.
    if (mountedIn !== undefined) await api.mount(mountedIn, { jobId: job.id, setupId: added.id });
    return added;
  });
  const changed = multipliers.filter((value) => value !== 1);
  const progress = table && progressOf(table.cells);
  const done = progress !== undefined && progress.within1 === progress.known && progress.known > 0;
  const revisions = [...others, shown].sort((a, b) => job.setups.indexOf(a.setup) - job.setups.indexOf(b.setup));
  return (
    <aside className={side.pane} aria-label="What to do about the table">
      <div className={side.said}>
        <section>
          <h2 className="heading">Revisions</h2>
          <ol className={classes.revisions}>
            {revisions.map(({ setup: { id, letter, change }, found }) => (
              <li key={id} aria-current={id === setup.id || undefined}>
                <b style={{ color: setupColour(letter, false) }}>{letter}</b>
                <span>
                  {change}
                  <small>
                    {found
                      ? found.table
                        ? progressWords(progressOf(found.table.cells))
                        : 'no λ at part load'
                      : 'being read'}
                  </small>
                </span>
              </li>
            ))}
          </ol>
        </section>
        {progress && (
          <section data-testid="proposal">
            <h2 className="heading">Next</h2>
            <p className={classes.said}>
              {done &&
                progress.thin + progress.empty === 0 &&
                'Every cell is within 1 %, with confidence: the table is done.'}
              {done &&
                progress.thin + progress.empty > 0 &&
                `All ${progress.known} known cells are within 1 %, with confidence. ${progress.thin + progress.empty} cells are not known: drive them, or leave them as they are.`}
              {!done &&
                changed.length === 0 &&
                progress.known === 0 &&
                'No cell is known well enough to propose anything. Hold each for some seconds more.'}
              {!done &&
                changed.length === 0 &&
                progress.known > 0 &&
                'No cell’s error can be told from none, yet not all are settled: hold the open ones longer.'}
              {!done &&
                changed.length > 0 &&
                `${changed.length} ${changed.length === 1 ? 'cell is' : 'cells are'} changed, by ${range(changed)}: ${100 * usualProposal.damping} % of the error, ${100 * usualProposal.cap} % at most. Thin and empty cells stay as they are. ${shown.found ? offsetInProposal(shown.found) : ''}`}
            </p>
            {changed.length > 0 && (
              <Button
                variant="default"
                size="md"
                fullWidth
                loading={add.isPending}
                onClick={() =>
                  add.mutate(undefined, { onSuccess: () => void navigate('../record', { relative: 'path' }) })
                }
              >
                Begin setup with revision {revision}
              </Button>
            )}
            {changed.length > 0 && (
              <p className={`${side.quiet} ${classes.after}`}>
                “Multiply fuel by” in the table is what goes into the controller: copy it, and check there that limits
                still hold. Suvok writes to no controller.
              </p>
            )}
          </section>
        )}
      </div>
    </aside>
  );
}

/** `−4.1 to +6.0 %` */
function range(multipliers: readonly number[]): string {
  const percent = (value: number) => `${value < 1 ? '−' : '+'}${Math.abs(100 * (value - 1)).toFixed(1)}`;
  const [least, most] = [Math.min(...multipliers), Math.max(...multipliers)];
  return least === most ? `${percent(least)} %` : `${percent(least)} to ${percent(most)} %`;
}

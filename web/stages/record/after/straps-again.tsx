import { Button } from '@mantine/core';
import type { Job, Run } from '../../../../contract/job/records.ts';
import { entriesOf } from '../../../state/entries.ts';
import { SeverityMark } from '../../../ui/severity.tsx';
import classes from './run-result.module.css';

/** What loosens straps. */
export const strapChecks: readonly string[] = ['hop', 'tyre-slip'];
const key = 'straps';

/** After hop or slip: straps before anything else, and that they were looked at is written down. */
export function StrapsAgain({ job, run }: { job: Job; run: Run }) {
  const item = job.inspections.find((candidate) => candidate.key === key);
  const note = `checked again after ${run.label}`;
  if (item?.note.includes(note)) return <p className="soft">Straps: {note}.</p>;
  const entries = entriesOf('jobs', job.id, 'inspections');
  const checked = () =>
    item
      ? entries.change(item.id, { outcome: 'ok', note: [item.note, note].filter(Boolean).join('; ') })
      : entries.add({ key, outcome: 'ok', note, measured: null });
  return (
    <div className={classes.straps} role="alert">
      <span>
        <SeverityMark severity="stop" /> Re-check straps or hub bolts before the next run: people clear, drum at rest.
      </span>
      <Button variant="default" size="md" onClick={() => void checked()}>
        They are checked
      </Button>
    </div>
  );
}

import { Button, TextInput } from '@mantine/core';
import { useState } from 'react';
import { Link } from 'react-router';
import dayjs from 'dayjs';
import type { Job } from '../../../contract/job/records.ts';
import type { ReportView } from '../../../contract/report/report.ts';
import { api } from '../../state/api.ts';
import { useChange } from '../../state/use-change.ts';
import { takeAway } from '../../state/undo.tsx';
import { RemoveButton } from '../../ui/remove-button.tsx';
import classes from './report-stage.module.css';

interface VersionsProps {
  job: Job;
  view: ReportView;
  /** The version that is looked at; the draft is where there is none. */
  shown: number | undefined;
  stored: () => Promise<unknown>;
}

/** The reports that were kept as they were, and one more. */
export function Versions({ job, view, shown, stored }: VersionsProps) {
  const [note, setNote] = useState('');
  const keep = useChange(async () => {
    await stored();
    return api.keepReport(job.id, { ...view, note: note.trim() });
  });
  return (
    <section aria-label="Kept versions">
      <h2 className="heading">Kept versions</h2>
      <ul className={classes.versions}>
        {job.reportVersions.map(({ id, number, note: why, createdAt }) => (
          <li key={id} data-shown={number === shown || undefined}>
            <Link to={number === shown ? '?' : `?version=${number}`} aria-current={number === shown || undefined}>
              <b>Version {number}</b> <span>{dayjs(createdAt).format('D MMM YYYY, HH:mm')}</span>
              {why && <span>{why}</span>}
            </Link>
            <RemoveButton
              what={`version ${number}`}
              onRemove={() => void takeAway(`Version ${number}`, () => api.removeReportVersion(id))}
            />
          </li>
        ))}
      </ul>
      {shown === undefined && (
        <form
          className={classes.keep}
          onSubmit={(event) => {
            event.preventDefault();
            keep.mutate(undefined, { onSuccess: () => setNote('') });
          }}
        >
          <TextInput
            aria-label="What the version is for"
            placeholder="e.g. given to the owner"
            value={note}
            maxLength={300}
            onChange={(event) => setNote(event.currentTarget.value)}
          />
          <Button type="submit" variant="default" loading={keep.isPending}>
            Keep as version {(job.reportVersions.at(-1)?.number ?? 0) + 1}
          </Button>
        </form>
      )}
    </section>
  );
}

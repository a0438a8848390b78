import { keys } from '../state/query-keys.ts';
import { Button } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import dayjs from 'dayjs';
import type { Job } from '../../contract/job/records.ts';
import type { ReportView } from '../../contract/report/report.ts';
import type { SharedLink } from '../../contract/report/shared-link.ts';
import { api } from '../state/api.ts';
import { takeAway } from '../state/undo.tsx';
import { RemoveButton } from '../ui/remove-button.tsx';
import { ShareDialog } from './share-dialog.tsx';
import classes from './shared-links.module.css';

/** Who may read what of a job without an account, until when; and one more. */
export function SharedLinks({ job, view }: { job: Job; view: ReportView }) {
  const [sharing, setSharing] = useState(false);
  const { data: links = [], error } = useQuery({
    queryKey: keys.sharedLinks(job.id),
    queryFn: () => api.sharedLinks(job.id),
  });
  const nameOf = ({ reportVersionId }: SharedLink) => {
    const version = job.reportVersions.find(({ id }) => id === reportVersionId);
    return reportVersionId === null
      ? 'Comparison'
      : version
        ? `Version ${version.number}`
        : 'A version that was taken away';
  };
  return (
    <section aria-label="Shared links">
      <h2 className="heading">Shared links</h2>
      {error && <p role="alert">The links could not be read: {error.message}</p>}
      <ul className={classes.links}>
        {links.map((link) => (
          <li key={link.id}>
            <p>
              <b>{nameOf(link)}</b>
              {link.whom && ` for ${link.whom}`}
              <span>
                until {dayjs(link.endsAt).format('D MMM YYYY')}, {openedWords(link)}
              </span>
            </p>
            <RemoveButton
              what={`the link to ${nameOf(link).toLowerCase()}${link.whom && ` for ${link.whom}`}`}
              onRemove={() => void takeAway('The link', () => api.removeSharedLink(link.id))}
            />
          </li>
        ))}
      </ul>
      <Button variant="default" fullWidth onClick={() => setSharing(true)}>
        Share, to read only …
      </Button>
      <ShareDialog job={job} view={view} opened={sharing} onClose={() => setSharing(false)} />
    </section>
  );
}

function openedWords({ opened, lastOpenedAt }: SharedLink): string {
  if (opened === 0 || !lastOpenedAt) return 'not opened yet';
  const times = opened === 1 ? 'once' : `${opened} times`;
  return `opened ${times}, last on ${dayjs(lastOpenedAt).format('D MMM, HH:mm')}`;
}

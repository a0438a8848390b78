import { Button, Modal, Select, Textarea, TextInput } from '@mantine/core';
import { IconCheck } from '@tabler/icons-react';
import { useState } from 'react';
import type { StateChange } from '../../contract/job/job-requests.ts';
import type { Job } from '../../contract/job/records.ts';
import { pointsOfJob } from '../../core/handover/open-points.ts';
import { reportSides } from '../../core/report/report-request.ts';
import { api } from '../state/api.ts';
import { useChange } from '../state/use-change.ts';
import { SeverityMark } from '../ui/severity.tsx';
import { useOwnUnits } from '../units/use-own-units.tsx';
import classes from './close-job.module.css';

interface CloseJobProps {
  job: Job;
  opened: boolean;
  onClose: () => void;
}

/** The end of a job on one page: what it leaves with, and what is still open. */
export function CloseJob({ job, opened, onClose }: CloseJobProps) {
  return (
    <Modal opened={opened} onClose={onClose} title={`Close the job: ${job.vehicle}`} size={900}>
      {opened && <CloseForm job={job} done={onClose} />}
    </Modal>
  );
}

/** Leads to the end of a job; of one that is closed there is nothing left to do. */
export function CloseJobButton({ job }: { job: Job }) {
  const [opened, setOpened] = useState(false);
  if (job.state === 'closed') return null;
  return (
    <>
      <Button variant="default" fullWidth onClick={() => setOpened(true)}>
        Close the job
      </Button>
      <CloseJob job={job} opened={opened} onClose={() => setOpened(false)} />
    </>
  );
}

function CloseForm({ job, done }: { job: Job; done: () => void }) {
  const change = useChange((state: StateChange) => api.setJobState(job.id, state));
  const [deliveredSetupId, setDelivered] = useState<number | null>(reportSides(job).deliveredId);
  const [untested, setUntested] = useState(job.untested);
  const [deliveredNote, setNote] = useState(job.deliveredNote);
  const leaves = { deliveredSetupId, untested: untested.trim(), deliveredNote };
  const points = pointsOfJob({ ...job, ...leaves });
  const open = points.filter((point) => !point.done).length;
  return (
    <form
      className={classes.form}
      onSubmit={(event) => {
        event.preventDefault();
        change.mutate({ state: 'closed', ...leaves }, { onSuccess: done });
      }}
    >
      <div className={classes.fields}>
        <Select
          label="Delivered with"
          placeholder="not delivered"
          clearable
          data={job.setups.map((setup) => ({ value: String(setup.id), label: `${setup.letter}  ${setup.change}` }))}
          value={deliveredSetupId === null ? null : String(deliveredSetupId)}
          onChange={(id) => setDelivered(id === null ? null : Number(id))}
        />
        <Textarea
          label="What stayed untested"
          placeholder="e.g. cold start, part load above 4,000"
          value={untested}
          autosize
          minRows={3}
          onChange={(event) => setUntested(event.currentTarget.value)}
        />
        <TextInput
          label="A line for the hand-over"
          value={deliveredNote}
          onChange={(event) => setNote(event.currentTarget.value)}
        />
      </div>
      <Points points={points} open={open} />
      <div className={classes.end}>
        <p>
          {open === 0
            ? 'Nothing is open.'
            : `${open} point${open === 1 ? ' is' : 's are'} open. They are recorded with the closing.`}
        </p>
        <Button variant="subtle" color="gray" onClick={done}>
          Cancel
        </Button>
        <Button type="submit" loading={change.isPending}>
          Close the job
        </Button>
      </div>
    </form>
  );
}

/** What is open first, with its mark; what is done under it. */
function Points({ points, open }: { points: ReturnType<typeof pointsOfJob>; open: number }) {
  const { write } = useOwnUnits();
  const sorted = [...points].sort((a, b) => Number(a.done) - Number(b.done));
  return (
    <ul className={classes.points} aria-label={`Points of the hand-over, ${open} open`}>
      {sorted.map(({ id, done, says }) => (
        <li key={id} className={done ? classes.done : undefined}>
          {done ? <IconCheck size={16} aria-label="done" /> : <SeverityMark severity="mind" />}
          <span>{write(says)}</span>
        </li>
      ))}
    </ul>
  );
}

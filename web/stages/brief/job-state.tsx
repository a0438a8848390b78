import { Button, Modal, NativeSelect, Stack, TextInput } from '@mantine/core';
import dayjs from 'dayjs';
import { useState } from 'react';
import type { PauseReason } from '../../../contract/shop/day.ts';
import type { StateChange } from '../../../contract/job/job-requests.ts';
import type { Job } from '../../../contract/job/records.ts';
import { pauseWords } from '../../../core/day/waiting-jobs.ts';
import { CloseJob } from '../../handover/close-job.tsx';
import { api } from '../../state/api.ts';
import { useChange } from '../../state/use-change.ts';
import classes from '../../ui/file-form.module.css';
import own from './job-state.module.css';
import { FindingLine, FindingList } from '../../ui/severity.tsx';

/** Where the job stands, and what is done about that. */
export function JobState({ job }: { job: Job }) {
  const change = useChange((state: StateChange) => api.setJobState(job.id, state));
  const [asking, setAsking] = useState<'pause' | 'close'>();
  return (
    <section className={classes.section}>
      <div className={classes.state}>
        <b>
          {job.state === 'paused'
            ? `Paused, waits for ${pauseWords(job.pausedFor ?? 'other', job.pausedWhy)}`
            : job.state === 'closed'
              ? 'Closed'
              : 'Open'}
        </b>
        {job.state === 'open' && (
          <Button variant="default" onClick={() => setAsking('pause')}>
            Pause
          </Button>
        )}
        {job.state !== 'open' && (
          <Button variant="default" loading={change.isPending} onClick={() => change.mutate({ state: 'open' })}>
            {job.state === 'closed' ? 'Reopen' : 'Resume'}
          </Button>
        )}
        {job.state !== 'closed' && (
          <Button variant="default" onClick={() => setAsking('close')}>
            Close the job
          </Button>
        )}
      </div>
      {job.state === 'closed' && job.openPoints.length > 0 && (
        <div className={own.open}>
          <p>Open when it was closed</p>
          <FindingList>
            {job.openPoints.map((point) => (
              <FindingLine key={point} severity="mind">
                {point}
              </FindingLine>
            ))}
          </FindingList>
        </div>
      )}
      <Modal opened={asking === 'pause'} onClose={() => setAsking(undefined)} title="Pause the job">
        <PauseForm
          onPause={(pause) => change.mutate({ state: 'paused', ...pause }, { onSuccess: () => setAsking(undefined) })}
        />
      </Modal>
      <CloseJob job={job} opened={asking === 'close'} onClose={() => setAsking(undefined)} />
    </section>
  );
}

/** What a job may wait for, as it is chosen. */
const reasons: { value: PauseReason; label: string }[] = [
  { value: 'part', label: 'a part' },
  { value: 'repair', label: 'a repair' },
  { value: 'file', label: 'a file from the tuner' },
  { value: 'overnight', label: 'a cold start: stands overnight' },
  { value: 'owner', label: 'the owner’s word' },
  { value: 'collection', label: 'being collected: the work is finished' },
  { value: 'other', label: 'something else' },
];

function PauseForm({
  onPause,
}: {
  onPause: (pause: Omit<Extract<StateChange, { state: 'paused' }>, 'state'>) => void;
}) {
  const [reason, setReason] = useState<PauseReason>('part');
  const [why, setWhy] = useState('');
  const [expected, setExpected] = useState('');
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        const moment = dayjs(expected);
        onPause({ for: reason, why, expectedAt: moment.isValid() ? moment.toISOString() : null });
      }}
    >
      <Stack gap={12}>
        <NativeSelect
          label="It waits for"
          data={reasons}
          value={reason}
          data-autofocus
          onChange={(event) => setReason(event.currentTarget.value as PauseReason)}
        />
        <TextInput
          label="Which"
          placeholder="e.g. a pump, ordered"
          value={why}
          onChange={(event) => setWhy(event.currentTarget.value)}
        />
        <TextInput
          label="Expected"
          description="Overdue, it stands among the calls of Today."
          type="datetime-local"
          value={expected}
          onChange={(event) => setExpected(event.currentTarget.value)}
        />
        <Button type="submit">Pause</Button>
      </Stack>
    </form>
  );
}

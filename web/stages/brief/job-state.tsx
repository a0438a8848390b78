import { Button, Modal, Select, Stack, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { StateChange } from '../../../contract/http.ts';
import type { Job } from '../../../contract/records.ts';
import { CloseJob } from '../../handover/close-job.tsx';
import { api } from '../../state/api.ts';
import { useChange } from '../../state/queries.ts';
import classes from '../../ui/file-form.module.css';
import own from './job-state.module.css';
import { FindingLine, FindingList } from '../../ui/severity.tsx';

/** Where the job stands, and what it left with: arrived, best and delivered are three things, each named. */
export function JobState({ job }: { job: Job }) {
  const change = useChange((state: StateChange) => api.setJobState(job.id, state));
  const [asking, setAsking] = useState<'pause' | 'close'>();
  const best = job.runs.find((run) => run.id === job.bestRunId);
  const delivered = job.setups.find((setup) => setup.id === job.deliveredSetupId);
  return (
    <section className={classes.section}>
      <div className={classes.state}>
        <b>
          {job.state === 'paused'
            ? `Paused${job.pausedWhy && `: ${job.pausedWhy}`}`
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
      <p className={classes.quiet}>
        Arrived with {job.setups[0]?.letter ?? 'A'} · {best ? `best run ${best.label}` : 'no best run named'} ·{' '}
        {delivered ? `delivered with ${delivered.letter}` : 'not delivered'}
        {job.untested && ` · untested: ${job.untested}`}
      </p>
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
      {job.runs.length > 0 && <BestRun job={job} />}
      <Modal opened={asking === 'pause'} onClose={() => setAsking(undefined)} title="Pause the job">
        <PauseForm
          onPause={(why) => change.mutate({ state: 'paused', why }, { onSuccess: () => setAsking(undefined) })}
        />
      </Modal>
      <CloseJob job={job} opened={asking === 'close'} onClose={() => setAsking(undefined)} />
    </section>
  );
}

function BestRun({ job }: { job: Job }) {
  const change = useChange((bestRunId: number | null) => api.changeJob(job.id, { bestRunId }));
  const runs = job.runs.filter((run) => run.label && run.kind === 'power' && run.state !== 'recording');
  return (
    <Select
      mt={8}
      label="Best run seen"
      placeholder="name it"
      clearable
      data={runs.map((run) => ({
        value: String(run.id),
        label: `${run.label}${run.setAsideReason ? ' (set aside)' : ''}`,
      }))}
      value={job.bestRunId === null ? null : String(job.bestRunId)}
      onChange={(id) => change.mutate(id === null ? null : Number(id))}
    />
  );
}

function PauseForm({ onPause }: { onPause: (why: string) => void }) {
  const [why, setWhy] = useState('');
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        onPause(why);
      }}
    >
      <Stack gap={12}>
        <TextInput
          label="What is it waiting for?"
          placeholder="a pump is ordered"
          value={why}
          data-autofocus
          onChange={(event) => setWhy(event.currentTarget.value)}
        />
        <Button type="submit">Pause</Button>
      </Stack>
    </form>
  );
}

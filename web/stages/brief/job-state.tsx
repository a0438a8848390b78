import { Button, Modal, Select, Stack, Text, TextInput, Textarea } from '@mantine/core';
import { useState } from 'react';
import type { StateChange } from '../../../contract/http.ts';
import type { Job } from '../../../contract/records.ts';
import { api } from '../../state/api.ts';
import { useChange } from '../../state/queries.ts';
import classes from '../../ui/file-form.module.css';
import { putBackItems } from '../../../core/inspection/put-back.ts';
import { newestSetup } from '../../../core/job/baseline.ts';

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
      {job.runs.length > 0 && <BestRun job={job} />}
      <Modal opened={asking === 'pause'} onClose={() => setAsking(undefined)} title="Pause the job">
        <PauseForm
          onPause={(why) => change.mutate({ state: 'paused', why }, { onSuccess: () => setAsking(undefined) })}
        />
      </Modal>
      <Modal opened={asking === 'close'} onClose={() => setAsking(undefined)} title="Close the job" size="lg">
        <CloseForm
          job={job}
          pending={change.isPending}
          onClose={(state) => change.mutate(state, { onSuccess: () => setAsking(undefined) })}
        />
      </Modal>
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

function CloseForm({ job, pending, onClose }: { job: Job; pending: boolean; onClose: (state: StateChange) => void }) {
  const [delivered, setDelivered] = useState<string | null>(String(job.deliveredSetupId ?? newestSetup(job.setups).id));
  const [untested, setUntested] = useState(job.untested);
  const [note, setNote] = useState(job.deliveredNote);
  const open = putBackItems(job).filter(({ done }) => !done);
  const failed = job.inspections.filter((entry) => entry.outcome === 'fail');
  const file = job.tuneFiles.some((file) => String(file.setupId) === delivered);
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        onClose({
          state: 'closed',
          deliveredSetupId: delivered === null ? null : Number(delivered),
          untested,
          deliveredNote: note,
        });
      }}
    >
      <Stack gap={12}>
        <Select
          label="Delivered with"
          placeholder="not delivered"
          clearable
          data={job.setups.map((setup) => ({ value: String(setup.id), label: `${setup.letter}  ${setup.change}` }))}
          value={delivered}
          onChange={setDelivered}
        />
        <Textarea
          label="What stayed untested"
          placeholder="cold start, part load above 4,000…"
          value={untested}
          autosize
          onChange={(event) => setUntested(event.currentTarget.value)}
        />
        <TextInput
          label="A line for the hand-over"
          value={note}
          onChange={(event) => setNote(event.currentTarget.value)}
        />
        {open.length > 0 && (
          <div>
            <Text fw={600}>Not ticked as put back</Text>
            <ul style={{ margin: '4px 0', paddingLeft: 20 }}>
              {open.map(({ key, text }) => (
                <li key={key}>{text}</li>
              ))}
            </ul>
          </div>
        )}
        {failed.length > 0 && (
          <Text>
            {failed.length} inspection item{failed.length === 1 ? ' has' : 's have'} failed and stay in the record.
          </Text>
        )}
        {delivered !== null && !file && (
          <Text>No tune file is kept with this setup: what it left with cannot be shown later.</Text>
        )}
        <Button type="submit" loading={pending}>
          Close the job
        </Button>
      </Stack>
    </form>
  );
}

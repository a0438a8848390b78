import { Button, MultiSelect, Select, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { Suspicion } from '../../../contract/job/job-file.ts';
import type { Job } from '../../../contract/job/records.ts';
import classes from '../../ui/file-form.module.css';
import { RemoveButton } from '../../ui/remove-button.tsx';
import { entriesOf } from '../../state/entries.ts';

/** Possible causes of an odd trace, the test that would settle each, and how it came out. */
export function Suspicions({ job }: { job: Job }) {
  const suspicions = entriesOf('jobs', job.id, 'suspicions');
  const [cause, setCause] = useState('');
  return (
    <section className={classes.section}>
      <h2 className="heading">Suspicions</h2>
      <ul className={classes.list}>
        {job.suspicions.map((suspicion) => (
          <Line key={suspicion.id} job={job} suspicion={suspicion} />
        ))}
      </ul>
      {job.suspicions.length === 0 && <p className={classes.quiet}>None. A sick car is fixed, not tuned.</p>}
      <form
        className={classes.line}
        onSubmit={(event) => {
          event.preventDefault();
          void suspicions
            .add({ cause, test: '', outcome: '', state: 'open', runIds: [] })
            .then((stored) => stored && setCause(''));
        }}
      >
        <TextInput
          aria-label="New suspicion"
          placeholder="weak pump, tight plug gap…"
          value={cause}
          onChange={(event) => setCause(event.currentTarget.value)}
        />
        <Button type="submit" variant="default" disabled={cause.trim() === ''}>
          Add suspicion
        </Button>
      </form>
    </section>
  );
}

function Line({ job, suspicion }: { job: Job; suspicion: Suspicion }) {
  const { change, remove } = entriesOf('jobs', job.id, 'suspicions');
  const [test, setTest] = useState(suspicion.test);
  const [outcome, setOutcome] = useState(suspicion.outcome);
  return (
    <li className={classes.entry} style={{ gridTemplateColumns: 'minmax(0, 1fr) 118px auto' }}>
      <p>{suspicion.state === 'ruled out' ? <s>{suspicion.cause}</s> : <b>{suspicion.cause}</b>}</p>
      <Select
        aria-label={`${suspicion.cause}: how it stands`}
        data={['open', 'confirmed', 'ruled out']}
        value={suspicion.state}
        allowDeselect={false}
        onChange={(state) => void change(suspicion.id, { state })}
      />
      <RemoveButton what={suspicion.cause} onRemove={() => void remove('Suspicion', suspicion.id)} />
      <TextInput
        aria-label={`${suspicion.cause}: the test that settles it`}
        placeholder="the test that would settle it"
        value={test}
        style={{ gridColumn: '1 / -1' }}
        onChange={(event) => setTest(event.currentTarget.value)}
        onBlur={() => test !== suspicion.test && void change(suspicion.id, { test })}
      />
      <TextInput
        aria-label={`${suspicion.cause}: outcome`}
        placeholder="what came out"
        value={outcome}
        style={{ gridColumn: '1 / -1' }}
        onChange={(event) => setOutcome(event.currentTarget.value)}
        onBlur={() => outcome !== suspicion.outcome && void change(suspicion.id, { outcome })}
      />
      {job.runs.length > 0 && (
        <MultiSelect
          aria-label={`${suspicion.cause}: runs`}
          placeholder={suspicion.runIds.length > 0 ? '' : 'runs that show it'}
          data={job.runs.flatMap(({ id, label }) => (label ? [{ value: String(id), label }] : []))}
          value={suspicion.runIds.map(String)}
          onChange={(ids) => void change(suspicion.id, { runIds: ids.map(Number) })}
          style={{ gridColumn: '1 / -1' }}
        />
      )}
    </li>
  );
}

import { useOwnUnits } from '../units/use-own-units.tsx';
import { Button, Group, Popover, Select, Stack, Text, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { RunChange } from '../../contract/job/job-requests.ts';
import { runKinds } from '../../contract/instruments/recording.ts';
import type { Run } from '../../contract/job/records.ts';
import { fuelWords } from '../../core/fuel/ledger.ts';
import { CircumstancesDialog } from './circumstances/circumstances-dialog.tsx';
import { runKindWords } from '../job/run-kind-words.ts';
import { SeverityMark } from '../ui/severity.tsx';
import { api } from '../state/api.ts';
import { useChange } from '../state/use-change.ts';
import { useSetAside } from './use-set-aside.tsx';
import classes from './run-chip.module.css';

interface RunChipProps {
  run: Run;
  chosen: boolean;
  unusable: string | undefined;
  /** Limits that it went beyond, in words. */
  broken?: readonly string[] | undefined;
}

/** A run's label; opens what can be said and done about it. */
export function RunChip({ run, chosen, unusable, broken = [] }: RunChipProps) {
  const [opened, setOpened] = useState<boolean>();
  const [putting, setPutting] = useState(false);
  const out = run.setAsideReason !== null || unusable !== undefined;
  const other = run.kind === 'power' ? undefined : runKindWords[run.kind].name;
  const state = unusable ?? run.setAsideReason ?? other ?? (run.state === 'interrupted' ? 'interrupted' : 'counted');
  const told = [state, ...broken].join('; ');
  const chip = (
    <button
      className={classes.chip}
      data-chosen={(chosen && !out && !other) || undefined}
      data-aside={out || undefined}
      data-recording={run.state === 'recording' || undefined}
      aria-label={`Run ${run.label}, ${told}`}
      data-broken={broken.length > 0 || undefined}
      aria-haspopup="dialog"
      aria-expanded={opened ?? false}
      title={told}
      onClick={() => setOpened(!opened)}
    >
      {run.label}
      {other && <small>{other}</small>}
      {broken.length > 0 && <SeverityMark severity="stop" />}
    </button>
  );
  // A long day has many runs, and few of them are ever opened: the card is made when its chip is first pressed.
  if (opened === undefined) return chip;
  return (
    <>
      <Popover opened={opened} onChange={setOpened} position="right-start" width={300} shadow="md" trapFocus>
        <Popover.Target>{chip}</Popover.Target>
        <Popover.Dropdown>
          <RunCard run={run} unusable={unusable} close={() => setOpened(false)} putRight={() => setPutting(true)} />
        </Popover.Dropdown>
      </Popover>
      <CircumstancesDialog run={run} opened={putting} onClose={() => setPutting(false)} />
    </>
  );
}

interface RunCardProps {
  run: Run;
  unusable: string | undefined;
  close: () => void;
  /** Opens what it was made under. */
  putRight: () => void;
}

function RunCard({ run, unusable, close, putRight }: RunCardProps) {
  const { write } = useOwnUnits();
  const [reason, setReason] = useState('');
  const [note, setNote] = useState(run.note);
  const change = useChange((sent: RunChange) => api.changeRun(run.id, sent));
  const changeCounting = useSetAside(run);
  const setAside = async (why: string | null) => {
    close();
    await changeCounting(why);
  };
  const saveNote = () => note !== run.note && change.mutate({ note });
  return (
    <Stack gap={8}>
      <Text fw={600}>
        {run.label}{' '}
        <Text span c="dimmed" fw={400} size="sm">
          {new Date(run.startedAt).toLocaleString([], { dateStyle: 'medium', timeStyle: 'short' })}
          {run.gear && `, ${run.gear}`}
        </Text>
      </Text>
      {run.fuel && (
        <Text size="sm" c="dimmed">
          Fuel: {write(fuelWords(run.fuel))}
        </Text>
      )}
      <Button
        size="md"
        variant="default"
        onClick={() => {
          close();
          putRight();
        }}
      >
        Made under…
      </Button>
      {unusable && <Text size="sm">No curve can be made of it: {unusable}</Text>}
      {run.remarks.map((remark) => (
        <Text key={remark} size="sm" c="dimmed">
          {remark}
        </Text>
      ))}
      <TextInput
        label="Note"
        size="sm"
        value={note}
        onChange={(event) => setNote(event.currentTarget.value)}
        onBlur={saveNote}
        onKeyDown={(event) => event.key === 'Enter' && saveNote()}
      />
      <Select
        label="Kind"
        size="sm"
        data={runKinds.map((kind) => ({ value: kind, label: runKindWords[kind].name }))}
        value={run.kind}
        allowDeselect={false}
        comboboxProps={{ withinPortal: false }}
        onChange={(kind) => kind && change.mutate({ kind: kind as Run['kind'] })}
      />
      {run.setAsideReason === null ? (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            if (reason.trim()) void setAside(reason);
          }}
        >
          <Group gap={6} align="end" wrap="nowrap">
            <TextInput
              label="Set aside because"
              size="sm"
              flex={1}
              value={reason}
              onChange={(event) => setReason(event.currentTarget.value)}
              placeholder="slipped, hot, wrong gear…"
            />
            <Button type="submit" size="md" variant="default" disabled={!reason.trim()}>
              Set aside
            </Button>
          </Group>
        </form>
      ) : (
        <Button size="md" variant="default" onClick={() => void setAside(null)}>
          Bring back (set aside: {run.setAsideReason})
        </Button>
      )}
      <Group gap={12}>
        <a className={classes.export} href={`/api/runs/${run.id}/run.csv`}>
          Export CSV
        </a>
        <a className={classes.export} href={`/api/runs/${run.id}/dyno.json`}>
          dyno.json
        </a>
        {run.air && (
          <a className={classes.export} href={`/api/runs/${run.id}/air.json`}>
            air.json
          </a>
        )}
      </Group>
    </Stack>
  );
}

import { fetchWhatChanged } from '../../../state/what-changed.ts';
import { keys } from '../../../state/query-keys.ts';
import { Button, Checkbox, Group, NativeSelect, NumberInput, Stack, Text, TextInput } from '@mantine/core';
import { Dropzone } from '@mantine/dropzone';
import { notifications } from '@mantine/notifications';
import { skipToken, useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Job } from '../../../../contract/job/records.ts';
import { hasCurve } from '../../../../core/figures/runs/reading.ts';
import { usualRatio, type LogMapping } from '../../../../core/exchange/loggers/log-mapping.ts';
import type { FoundInLog } from '../../../../core/log/logger-file/pulls-in-log.ts';
import { ProbeFields } from '../../../log/probe-fields.tsx';
import { listed } from '../../../../core/units/spoken.ts';
import { api } from '../../../state/api.ts';
import { FindingLine, FindingList } from '../../../ui/severity.tsx';
import { figuresWorker } from '../../../workers/figures-worker.ts';
import type { OpenedLog } from '../../../workers/logger-file.ts';
import classes from './logger-file-form.module.css';
import { MappingTable } from './mapping-table.tsx';

type Opened = Exclude<OpenedLog, { refusal: string }>;

/** A logger's file: what its columns are, once a source; where the runs lie in it; and which of them it joins. */
export function LoggerFileForm({ job, onDone }: { job: Job; onDone: () => void }) {
  const [file, setFile] = useState<File>();
  const { data: opened } = useQuery<OpenedLog>({
    queryKey: keys.loggerFile(file),
    queryFn: file ? () => figuresWorker().openLog(file) : skipToken,
    staleTime: 0,
    gcTime: 0,
  });
  return (
    <Stack gap={14}>
      <Dropzone
        inputProps={{ 'aria-label': 'Files' }}
        onDrop={([first]) => setFile(first)}
        multiple={false}
        maxSize={100e6}
        className={classes.drop}
        aria-label="A logger’s file"
      >
        <Text fw={600}>{file ? file.name : 'Drop the logger’s table here'}</Text>
        <Text size="sm" c="dimmed">
          or press to choose it. Commas, semicolons or tabs; points or decimal commas; one pull or a whole day.
        </Text>
      </Dropzone>
      {opened && 'refusal' in opened && (
        <FindingList>
          <FindingLine severity="stop">{opened.refusal}</FindingLine>
        </FindingList>
      )}
      {file && opened && 'columns' in opened && (
        <Mapped key={file.name + file.lastModified} job={job} file={file} opened={opened} onDone={onDone} />
      )}
    </Stack>
  );
}

interface MappedProps {
  job: Job;
  file: File;
  opened: Opened;
  onDone: () => void;
}

function Mapped({ job, file, opened, onDone }: MappedProps) {
  const { data: sources } = useQuery({ queryKey: keys.logSources, queryFn: api.logSources });
  const known = sources?.find(({ headings }) => headings === opened.headings);
  if (!sources) return null;
  const begin = known ?? {
    name: file.name.replace(/\.[^.]*$/, ''),
    mapping: opened.guess,
    probe: { delayS: 0, offset: 0 },
  };
  return (
    <Form
      key={known ? 'known' : 'new'}
      job={job}
      opened={opened}
      begin={begin}
      known={known !== undefined}
      onDone={onDone}
    />
  );
}

interface FormProps {
  job: Job;
  opened: Opened;
  begin: { name: string; mapping: LogMapping; probe: { delayS: number; offset: number } };
  known: boolean;
  onDone: () => void;
}

function Form({ job, opened, begin, known, onDone }: FormProps) {
  const [name, setName] = useState(begin.name);
  const [mapping, setMapping] = useState(begin.mapping);
  const [probe, setProbe] = useState(begin.probe);
  const [left, setLeft] = useState<number[]>([]);
  const [setupId, setSetupId] = useState('');
  const runs = job.runs.filter((run) => hasCurve(run) && (setupId === '' || String(run.setupId) === setupId));
  const { data: found, isFetching } = useQuery<FoundInLog[] | { refusal: string }>({
    queryKey: keys.foundInLog(
      opened.headings,
      mapping,
      runs.map(({ id }) => id),
    ),
    queryFn: () => figuresWorker().findInLog(mapping, runs),
    staleTime: 0,
    gcTime: 0,
  });
  const fitting = Array.isArray(found) ? found.filter(fits).filter(({ id }) => !left.includes(id)) : [];
  const join = useMutation({
    mutationFn: async () => {
      await api.keepLogSource({ headings: opened.headings, name, mapping, probe });
      for (const { id, fromS, toS } of fitting)
        await api.joinLog(id, await figuresWorker().partOfLog(mapping, fromS, toS), { name, probe });
    },
    onSettled: fetchWhatChanged,
    onSuccess: () => {
      const labels = fitting.map(({ id }) => labelOf(job, id));
      notifications.show({ message: `${name} joins ${listed(labels)}.` });
      onDone();
    },
  });
  const mixture = mapping.columns.some(({ channel }) => channel === 'lambda' || channel === 'lambdaTarget');
  return (
    <>
      <FindingList>
        <FindingLine severity="note">
          {opened.rows} rows, {opened.columns.length} columns.{' '}
          {known
            ? 'Its headings are known: it is read as last time.'
            : 'A new source: what its columns are was guessed; put it right once.'}
        </FindingLine>
        {opened.remarks.map((remark) => (
          <FindingLine key={remark} severity="mind">
            {remark}
          </FindingLine>
        ))}
      </FindingList>
      <MappingTable columns={opened.columns} mapping={mapping} onChange={setMapping} />
      <div className={classes.settings}>
        <TextInput label="Called" value={name} onChange={(event) => setName(event.currentTarget.value)} />
        {mixture && (
          <>
            <Checkbox
              label="λ is shown as air–fuel ratio"
              checked={mapping.ratioAtLambda1 !== null}
              onChange={(event) =>
                setMapping({ ...mapping, ratioAtLambda1: event.currentTarget.checked ? usualRatio : null })
              }
            />
            {mapping.ratioAtLambda1 !== null && (
              <NumberInput
                label="Ratio that it shows for λ 1"
                description="Its own setting, whatever the fuel is"
                min={4}
                max={25}
                decimalScale={2}
                value={mapping.ratioAtLambda1}
                onChange={(value) => setMapping({ ...mapping, ratioAtLambda1: Number(value) || usualRatio })}
              />
            )}
            <ProbeFields probe={probe} onChange={setProbe} />
          </>
        )}
        <NativeSelect
          label="Looked for in it"
          data={[
            { value: '', label: 'all runs of the job' },
            ...job.setups.map(({ id, letter, change }) => ({
              value: String(id),
              label: `runs of ${letter}, ${change}`,
            })),
          ]}
          value={setupId}
          onChange={(event) => setSetupId(event.currentTarget.value)}
        />
      </div>
      <section aria-label="Runs in the log" aria-busy={isFetching}>
        {found && 'refusal' in found && (
          <FindingList>
            <FindingLine severity="stop">{found.refusal}</FindingLine>
          </FindingList>
        )}
        {Array.isArray(found) && (
          <ul className={classes.runs}>
            {found.map((one) => (
              <li key={one.id}>
                <Checkbox
                  label={labelOf(job, one.id)}
                  disabled={!fits(one)}
                  checked={fits(one) && !left.includes(one.id)}
                  onChange={(event) =>
                    setLeft(event.currentTarget.checked ? left.filter((id) => id !== one.id) : [...left, one.id])
                  }
                />
                <span className={fits(one) ? undefined : 'soft'}>
                  {one.fit
                    ? `fits: ${one.fit.residualPercent.toFixed(1)} % apart over ${one.fit.overlapS.toFixed(0)} s, correlation ${one.fit.correlation.toFixed(4)}`
                    : one.refused}
                </span>
              </li>
            ))}
          </ul>
        )}
        {!found && <p className="soft">The runs are being looked for in it.</p>}
      </section>
      {join.isError && (
        <Text size="sm" c="var(--stop)" role="alert">
          {join.error.message} What had joined by then stays.
        </Text>
      )}
      <Group justify="flex-end">
        <Button variant="subtle" color="gray" onClick={onDone}>
          Cancel
        </Button>
        <Button
          disabled={fitting.length === 0 || name.trim() === ''}
          loading={join.isPending}
          onClick={() => join.mutate()}
        >
          {fitting.length === 1 ? `Add it to ${labelOf(job, fitting[0]?.id)}` : `Add it to ${fitting.length} runs`}
        </Button>
      </Group>
    </>
  );
}

const labelOf = (job: Job, id: number | undefined) => job.runs.find((run) => run.id === id)?.label ?? `run ${id}`;
const fits = (one: FoundInLog): one is Extract<FoundInLog, { fromS: number }> => one.fit !== undefined;

import { Button, Group, NumberInput, Select, Stack, Text } from '@mantine/core';
import { Dropzone } from '@mantine/dropzone';
import { notifications } from '@mantine/notifications';
import { skipToken, useMutation, useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import type { AirFile, DynoFile } from '../../contract/files.ts';
import type { Job, Run, Setup } from '../../contract/records.ts';
import { queryClient } from '../state/queries.ts';
import { useLive } from '../state/live.ts';
import { FindingLine, FindingList } from '../ui/severity.tsx';
import { figuresWorker } from '../workers/figures-worker.ts';
import type { Preview } from '../workers/figures.worker.ts';
import { ImportProgress } from './import-progress.tsx';
import { ImportCancelled, sendImport, type ImportProgress as Done } from './send-import.ts';
import { takeFiles, type TakenFiles } from './taken-files.ts';
import classes from './import-form.module.css';

/** Brings one recording in: files dropped or chosen, what they hold, and where it goes. */
export function ImportForm({ job, setup, onDone }: { job: Job; setup: Setup; onDone: () => void }) {
  const [taken, setTaken] = useState<TakenFiles>({ problems: [] });
  const [setupId, setSetupId] = useState(String(setup.id));
  const [ratio, setRatio] = useState<number | string>('');
  const known = useKnownDynos(job);
  const [dynoChoice, setDynoChoice] = useState<string | null>(null);
  const dyno =
    taken.dyno?.content ?? known.find((candidate) => candidate.value === (dynoChoice ?? known[0]?.value))?.dyno;
  const { csv } = taken;
  const { data: preview, isLoading: looking } = useQuery<Preview>({
    queryKey: ['preview', csv?.name, csv?.lastModified, csv?.size],
    queryFn: csv ? () => figuresWorker().preview(csv) : skipToken,
    staleTime: Infinity,
  });
  const readable = preview && !('refusal' in preview) ? preview : undefined;
  const [progress, setProgress] = useState<Done>();
  const cancel = useRef<AbortController | undefined>(undefined);
  // A dialog that is closed waits for nothing.
  useEffect(() => () => cancel.current?.abort(), []);
  const sent = async ({ file, dyno }: { file: File; dyno: DynoFile }) => {
    const settings = {
      setupId: Number(setupId),
      dyno,
      air: taken.air?.content ?? null,
      engineToDrumRatio: readable?.hasPickup ? null : Number(ratio),
    };
    cancel.current = new AbortController();
    setProgress({ doing: 'sending', done: 0 });
    return sendImport(file, settings, setProgress, cancel.current.signal).finally(() => setProgress(undefined));
  };
  // What goes wrong is said in the dialog itself.
  const send = useMutation({ mutationFn: sent, onSuccess: () => queryClient.invalidateQueries() });
  const ready = csv && readable && dyno && (readable.hasPickup || Number(ratio) > 0) ? { file: csv, dyno } : undefined;
  return (
    <Stack gap={14}>
      <Dropzone
        onDrop={(files) => void takeFiles(taken, files).then(setTaken)}
        multiple
        maxSize={200e6}
        className={classes.drop}
        aria-label="Files to import"
      >
        <Text fw={600}>Drop run.csv here, with its dyno.json and air.json</Text>
        <Text size="sm" c="dimmed">
          or press to choose them. Columns are read as “name [unit]”.
        </Text>
      </Dropzone>
      <FindingList>
        {taken.problems.map((problem) => (
          <FindingLine key={problem} severity="stop">
            {problem}
          </FindingLine>
        ))}
        {csv && looking && <FindingLine severity="note">{csv.name} is being looked at.</FindingLine>}
        {csv && preview && 'refusal' in preview && (
          <FindingLine severity="stop">
            {csv.name}: {preview.refusal}
          </FindingLine>
        )}
        {csv && readable && (
          <FindingLine severity="note">
            {csv.name}: {readable.samples} samples over {readable.durationS.toFixed(1)} s;{' '}
            {readable.channels.join(', ')}.
          </FindingLine>
        )}
        {readable?.remarks.map((remark) => (
          <FindingLine key={remark} severity="mind">
            {remark}
          </FindingLine>
        ))}
        {taken.dyno && (
          <FindingLine severity="note">
            {taken.dyno.name}: {dynoText(taken.dyno.content)}.
          </FindingLine>
        )}
        {readable && <AirLine air={taken.air?.content} inColumns={readable.hasAir} />}
      </FindingList>
      {readable && !taken.dyno && (
        <Select
          label="Dyno"
          description="No dyno.json was given; figures need the machine."
          data={known}
          value={dynoChoice ?? known[0]?.value ?? null}
          onChange={setDynoChoice}
          allowDeselect={false}
          placeholder="None known: drop a dyno.json"
        />
      )}
      {readable && !readable.hasPickup && (
        <NumberInput
          label="Engine speed ÷ drum speed"
          description="The recording has no engine-speed pickup."
          value={ratio}
          onChange={setRatio}
          min={0}
          decimalScale={4}
        />
      )}
      <Select
        label="Into setup"
        data={job.setups.map((setup) => ({ value: String(setup.id), label: `${setup.letter}  ${setup.change}` }))}
        value={setupId}
        onChange={(value) => value && setSetupId(value)}
        allowDeselect={false}
      />
      {send.isError && (
        <Text size="sm" c="var(--stop)" role="alert">
          {send.error instanceof ImportCancelled ? 'Cancelled.' : send.error.message} Nothing was stored.
        </Text>
      )}
      {progress && <ImportProgress progress={progress} cancel={() => cancel.current?.abort()} />}
      <Group justify="flex-end">
        <Button variant="subtle" color="gray" onClick={onDone}>
          Cancel
        </Button>
        <Button
          disabled={!ready}
          loading={send.isPending}
          onClick={() =>
            ready &&
            send.mutate(ready, {
              onSuccess: ({ run }) => {
                notifications.show({ message: `Imported as ${run.label}.` });
                onDone();
              },
            })
          }
        >
          Import
        </Button>
      </Group>
    </Stack>
  );
}

function AirLine({ air, inColumns }: { air: AirFile | undefined; inColumns: boolean }) {
  if (air) {
    return (
      <FindingLine severity="note">
        Air: {air.temperatureC} °C, {air.pressureHpa} hPa, {air.relativeHumidityPct} %.
      </FindingLine>
    );
  }
  return inColumns ? (
    <FindingLine severity="note">The air is in the recording’s own columns.</FindingLine>
  ) : (
    <FindingLine severity="mind">No air was given: the run’s figures will be uncorrected and say so.</FindingLine>
  );
}

function dynoText(dyno: DynoFile): string {
  return `${dyno.kind.replace('-', ' ')}, ${dyno.inertiaKgM2} kg·m²`;
}

interface KnownDyno {
  value: string;
  label: string;
  dyno: DynoFile;
}

/** The machines at hand: those that the job's runs were made on, and those in the bays. */
function useKnownDynos(job: Job): KnownDyno[] {
  const bays = useLive((state) => state.bays);
  const found: KnownDyno[] = [];
  const add = (label: string, dyno: Run['dyno']) => {
    if (!found.some((candidate) => JSON.stringify(candidate.dyno) === JSON.stringify(dyno))) {
      found.push({ value: label, label: `${label} (${dynoText(dyno)})`, dyno });
    }
  };
  for (const run of [...job.runs].reverse()) add(`As for ${run.label}`, run.dyno);
  for (const { devices } of bays) for (const { name, dyno } of devices) if (dyno) add(name, dyno);
  return found;
}

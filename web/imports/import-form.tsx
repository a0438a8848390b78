import { keys } from '../state/query-keys.ts';
import { fetchWhatChanged } from '../state/what-changed.ts';
import { airTemperature } from '../units/own-units.ts';
import { useOwnUnits } from '../units/use-own-units.tsx';
import { Button, Group, NativeSelect, NumberInput, Select, Stack, Text, TextInput } from '@mantine/core';
import { Dropzone } from '@mantine/dropzone';
import { notifications } from '@mantine/notifications';
import { useMutation, useQueries } from '@tanstack/react-query';
import dayjs from 'dayjs';
import { useEffect, useRef, useState } from 'react';
import type { AirFile, DynoFile } from '../../contract/files/machine-and-air.ts';
import { importResult, type ImportSettings } from '../../contract/job/job-requests.ts';
import type { Job, Setup } from '../../contract/job/records.ts';
import { SendCancelled, sendFile, type SendProgress } from '../state/send-file.ts';
import { Sending } from '../ui/send-progress.tsx';
import { dynoText, useKnownDynos } from '../job/known-dynos.ts';
import { runKindWords } from '../job/run-kind-words.ts';
import { onTheRoad } from '../../core/dyno/dyno-profile.ts';
import { listed } from '../../core/units/spoken.ts';
import { FindingLine, FindingList } from '../ui/severity.tsx';
import { figuresWorker } from '../workers/figures-worker.ts';
import { ImportRows, type ImportRow } from './import-rows.tsx';
import { takeFiles, type TakenFiles } from './taken-files.ts';
import classes from './import-form.module.css';

/** The file's own date: when it was last written, which is seldom the day that it is imported. */
const dateOf = (file: File) => dayjs(file.lastModified).format('YYYY-MM-DDTHH:mm');

/** Some files are in, and one was not. */
class PartlyDone extends Error {
  constructor(labels: string[], name: string, why: Error) {
    const reason = why instanceof SendCancelled ? 'Cancelled.' : why.message;
    super(`${name}: ${reason} Nothing of it was stored; ${listed(labels)} stay.`);
  }
}

/** Brings recordings in: files dropped or chosen, what they hold, and where it goes. */
export function ImportForm({ job, setup, onDone }: { job: Job; setup: Setup; onDone: () => void }) {
  const [taken, setTaken] = useState<TakenFiles>({ recordings: [], problems: [] });
  const [ratio, setRatio] = useState<number | string>('');
  const known = useKnownDynos(job);
  const [dynoChoice, setDynoChoice] = useState<string | null>(null);
  const dyno =
    taken.dyno?.content ?? known.find((candidate) => candidate.value === (dynoChoice ?? known[0]?.value))?.dyno;
  const [gear, setGear] = useState(job.gear ?? '');
  const [kind, setKind] = useState('');
  const [rows, setRows] = useState<ImportRow[]>([]);
  const take = (files: File[]) =>
    void takeFiles(taken, files).then((now) => {
      setTaken(now);
      setRows([
        ...rows,
        ...now.recordings.map((file) => ({ file, startedAt: dateOf(file), setupId: String(setup.id) })),
      ]);
    });
  const previews = useQueries({
    queries: rows.map(({ file }) => ({
      queryKey: keys.filePreview(file),
      queryFn: () => figuresWorker().preview(file),
      staleTime: Infinity,
    })),
  }).map(({ data }) => data);
  const readable = previews.flatMap((preview) => (preview && !('refusal' in preview) ? [preview] : []));
  const pickupless = readable.some(({ hasPickup, fromRoad }) => !hasPickup && !fromRoad);
  // A drive on the road needs no machine.
  const onDyno = readable.length === 0 || readable.some(({ fromRoad }) => !fromRoad);
  const [progress, setProgress] = useState<SendProgress>();
  const [at, setAt] = useState(0);
  const cancel = useRef<AbortController | undefined>(undefined);
  // Closing the dialog cancels the import.
  useEffect(() => () => cancel.current?.abort(), []);
  const sent = async (dyno: DynoFile) => {
    cancel.current = new AbortController();
    const { signal } = cancel.current;
    const labels: string[] = [];
    for (const [index, { file, startedAt, setupId }] of rows.entries()) {
      const preview = previews[index];
      const settings = {
        setupId: Number(setupId),
        dyno: preview && 'fromRoad' in preview && preview.fromRoad ? onTheRoad : dyno,
        air: taken.air?.content ?? null,
        engineToDrumRatio:
          preview && 'hasPickup' in preview && (preview.hasPickup || preview.fromRoad) ? null : Number(ratio),
        startedAt: dayjs(startedAt).toISOString(),
        gear: gear.trim() || null,
        ...(kind === '' ? {} : { kind: kind as NonNullable<ImportSettings['kind']> }),
      };
      setAt(index);
      setProgress({ doing: 'sending', done: 0 });
      const { run } = await sendFile(
        '/imports',
        file,
        { settings: JSON.stringify(settings) },
        importResult,
        setProgress,
        signal,
      ).catch((error: Error) => {
        // Files that were stored leave the list, so that another try sends the rest alone.
        setRows(rows.slice(index));
        throw labels.length === 0 ? error : new PartlyDone(labels, file.name, error);
      });
      labels.push(`${run.label ?? file.name}${run.kind === 'power' ? '' : `, ${runKindWords[run.kind].name}`}`);
    }
    return labels;
  };
  // A failure is shown in the dialog itself, by `send.error`.
  const send = useMutation({
    mutationFn: (dyno: DynoFile) => sent(dyno).finally(() => setProgress(undefined)),
    // Shown from here and not from the dialog: with its first run the page is made anew, and the dialog with it.
    onSuccess: (labels) => notifications.show({ message: `Imported as ${listed(labels)}.` }),
    onSettled: fetchWhatChanged,
  });
  const dated = rows.every(({ startedAt }) => dayjs(startedAt).isValid());
  const ready =
    rows.length > 0 && readable.length === rows.length && dated && (!pickupless || Number(ratio) > 0)
      ? onDyno
        ? dyno
        : onTheRoad
      : undefined;
  return (
    <Stack gap={14}>
      <Dropzone
        inputProps={{ 'aria-label': 'Files' }}
        onDrop={take}
        multiple
        maxSize={200e6}
        className={classes.drop}
        aria-label="Files to import"
      >
        <Text fw={600}>Drop recordings here, with their dyno.json and air.json</Text>
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
        {taken.dyno && (
          <FindingLine severity="note">
            {taken.dyno.name}: {dynoText(taken.dyno.content)}.
          </FindingLine>
        )}
        {readable.length > 0 && <AirLine air={taken.air?.content} inColumns={readable.every(({ hasAir }) => hasAir)} />}
      </FindingList>
      {rows.length > 0 && <ImportRows job={job} rows={rows} previews={previews} onChange={setRows} />}
      {rows.length > 0 && !taken.dyno && onDyno && (
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
      {pickupless && (
        <NumberInput
          label="Engine speed ÷ drum speed"
          description="The recording has no engine-speed pickup."
          value={ratio}
          onChange={setRatio}
          min={0}
          decimalScale={4}
        />
      )}
      <Group grow align="end">
        <TextInput
          label="Gear"
          placeholder="4th"
          value={gear}
          onChange={(event) => setGear(event.currentTarget.value)}
        />
        <NativeSelect
          label="Kind of run"
          data={[
            { value: '', label: 'as the file tells' },
            ...(
              [
                'power',
                'conditioning',
                'step',
                'coast-down',
                'idle',
                'cold-start',
                'transient',
                'cruise',
                'road-check',
              ] as const
            ).map((value) => ({ value, label: runKindWords[value].name })),
          ]}
          value={kind}
          onChange={(event) => setKind(event.currentTarget.value)}
        />
      </Group>
      {send.isError && (
        <Text size="sm" c="var(--stop)" role="alert">
          {send.error instanceof PartlyDone
            ? send.error.message
            : `${send.error instanceof SendCancelled ? 'Cancelled.' : send.error.message} Nothing was stored.`}
        </Text>
      )}
      {progress && (
        <>
          {rows.length > 1 && (
            <Text size="sm">
              {rows[at]?.file.name}, {at + 1} of {rows.length}
            </Text>
          )}
          <Sending progress={progress} cancel={() => cancel.current?.abort()} storesAtOnce />
        </>
      )}
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
              onSuccess: onDone,
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
  const own = useOwnUnits();
  if (air) {
    return (
      <FindingLine severity="note">
        Air: {airTemperature(air.temperatureC, own)}, {own.whole(air.pressureHpa, 'hPa')}, {air.relativeHumidityPct} %.
      </FindingLine>
    );
  }
  return inColumns ? (
    <FindingLine severity="note">The air is in the recording’s own columns.</FindingLine>
  ) : (
    <FindingLine severity="mind">No air was given: the run’s figures will be uncorrected and say so.</FindingLine>
  );
}

import { Button, Checkbox, Group, Modal, Select, Stack, TextInput } from '@mantine/core';
import { useEffect, useState } from 'react';
import { deviceKinds } from '../../../../contract/instruments/bench-link.ts';
import type { PlainInstrument, TrialState } from '../../../../contract/instruments/plain-instrument.ts';
import { deviceKindWords } from '../../../live/device-kind-words.ts';
import { api } from '../../../state/api.ts';
import { useLive } from '../../../state/live.ts';
import { useChange } from '../../../state/use-change.ts';
import { FindingLine, FindingList } from '../../../ui/severity.tsx';
import { ColumnTable } from './column-table.tsx';
import { draftOf, emptyDraft, formOf, instrumentOf, missing, wayOf, type LinesDraft } from './lines-draft.ts';
import classes from './lines.module.css';
import { MachineFields } from './machine-fields.tsx';
import { WayFields } from './way-fields.tsx';

/** Made once: new lines come four times a second, and an open list must not be made anew under the pointer. */
const kinds = deviceKinds.map((kind) => ({ value: kind, label: deviceKindWords[kind] }));
/** Listening ends by itself after a minute; while the dialog is open it is asked for again this often, ms. */
const againMs = 20_000;
const separators: { value: PlainInstrument['form']['separator']; label: string }[] = [
  { value: ';', label: 'semicolons' },
  { value: ',', label: 'commas' },
  { value: '\t', label: 'tabs' },
  { value: ' ', label: 'blanks' },
  { value: '|', label: 'bars' },
];

interface ConnectLinesProps {
  /** One that was connected before, to be changed. */
  instrument?: PlainInstrument;
  /** Where a new one is to stand. */
  bay: number | null;
  onClose: () => void;
}

/** Connects an instrument that sends lines of text: where they come from, what their columns are, what it is. */
export function ConnectLines({ instrument, bay, onClose }: ConnectLinesProps) {
  const [draft, setDraft] = useState(instrument ? draftOf(instrument) : emptyDraft);
  const change = (part: Partial<LinesDraft>) => setDraft((before) => ({ ...before, ...part }));
  const trial = useLive((state) => state.trial);
  const { listening, listen } = useListening(draft);
  const heard = listening ? (trial?.lines ?? []) : [];
  const form = formOf(draft, heard);
  const pickup = form.columns.some((column) => column.is === 'channel' && column.name === 'engineSpeed');
  const lacks = missing(draft, form);
  const way = wayOf(draft);
  const connect = useChange((one: PlainInstrument) => api.connectPlain(one, bay));
  return (
    <Modal
      opened
      onClose={onClose}
      size={880}
      title={instrument ? `How ${instrument.device} is connected` : 'Connect an instrument that sends lines'}
    >
      <Stack gap={14}>
        <WayFields draft={draft} change={change} />
        <Group gap={12}>
          <Button
            variant="default"
            disabled={!way}
            loading={listen.isPending}
            onClick={() => way && listen.mutate(way)}
          >
            {listening ? 'Listen anew' : 'Listen'}
          </Button>
          <Heard listening={listening} trial={trial} />
        </Group>
        <pre className={classes.heard} role="log" aria-label="Lines heard">
          {heard.slice(-6).join('\n') || ' '}
        </pre>
        <Group gap={12} align="end">
          <Select
            label="Columns are parted by"
            w={170}
            data={separators}
            value={form.separator}
            allowDeselect={false}
            onChange={(separator) => separator && change({ separator })}
          />
          <TextInput
            label="Lines begin with"
            placeholder="anything"
            w={170}
            value={draft.begins}
            onChange={(event) => change({ begins: event.currentTarget.value })}
          />
          <Checkbox
            mb={8}
            label="Numbers have a decimal comma"
            checked={form.decimalComma}
            disabled={form.separator === ','}
            onChange={(event) => change({ decimalComma: event.currentTarget.checked })}
          />
        </Group>
        {form.columns.length > 0 ? (
          <ColumnTable form={form} line={newestReading(heard, form.begins)} change={(columns) => change({ columns })} />
        ) : (
          <p className={classes.said}>Its columns are shown here once a line has come.</p>
        )}
        <Group gap={12} align="end">
          <TextInput
            label="Name of the instrument"
            w={250}
            maxLength={64}
            readOnly={instrument !== undefined}
            value={draft.device}
            onChange={(event) => change({ device: event.currentTarget.value })}
          />
          <Select
            label="It is"
            w={200}
            data={kinds}
            value={draft.kind}
            allowDeselect={false}
            onChange={(kind) => kind && change({ kind })}
          />
        </Group>
        <MachineFields draft={draft} pickup={pickup} change={change} />
        {connect.isError && (
          <FindingList>
            <FindingLine severity="stop">{connect.error.message}</FindingLine>
          </FindingList>
        )}
        <Group justify="flex-end" gap={12}>
          {lacks && <span className="soft">{lacks}</span>}
          <Button variant="subtle" color="gray" onClick={onClose}>
            Cancel
          </Button>
          <Button
            disabled={lacks !== undefined}
            loading={connect.isPending}
            onClick={() => way && connect.mutate(instrumentOf(draft, way, form), { onSuccess: onClose })}
          >
            Connect
          </Button>
        </Group>
      </Stack>
    </Modal>
  );
}

/** Listens to the way that was entered, for as long as the dialog is open. */
function useListening(draft: LinesDraft) {
  const [asked, setAsked] = useState<PlainInstrument['way']>();
  const { greeting } = draft;
  const listen = useChange(async (way: PlainInstrument['way']) => {
    await api.listenToLines(way, greeting);
    setAsked(way);
  });
  const words = JSON.stringify(asked);
  useEffect(() => {
    if (words === undefined) return undefined;
    const way = JSON.parse(words) as PlainInstrument['way'];
    const timer = setInterval(() => void api.listenToLines(way, greeting).catch(() => undefined), againMs);
    return () => clearInterval(timer);
  }, [words, greeting]);
  useEffect(() => () => void api.endListening().catch(() => undefined), []);
  return { listening: asked !== undefined, listen };
}

function Heard({ listening, trial }: { listening: boolean; trial: TrialState | null }) {
  if (!listening || !trial) return <span className="soft">A few lines are shown; nothing of them is kept.</span>;
  if (trial.problem) return <span role="alert">{trial.problem} It is tried again.</span>;
  if (trial.count === 0)
    return (
      <span className="soft">{trial.connected ? 'Connected; nothing has come yet.' : 'Nobody is there yet.'}</span>
    );
  return (
    <span className="number">
      {trial.count.toLocaleString('en-GB')} lines{trial.rateHz !== null && `, ${trial.rateHz} a second`}
    </span>
  );
}

/** The newest line that begins as readings do. */
const newestReading = (heard: readonly string[], begins: string) =>
  heard.findLast((line) => line.trim().startsWith(begins.trim()) && !line.startsWith('#'));

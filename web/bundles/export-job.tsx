import { Button, Checkbox, Group, Modal, Progress, Stack, Switch, Text } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useEffect, useRef, useState } from 'react';
import { bundleMade, type BundleWishes } from '../../contract/bundle.ts';
import type { Job } from '../../contract/records.ts';
import { askInLines } from '../state/in-lines.ts';
import classes from './export-job.module.css';

interface ExportJobProps {
  job: Job;
  opened: boolean;
  onClose: () => void;
}

/** Writes the job, or a part of it, as one file that another Suvok takes in. */
export function ExportJob({ job, opened, onClose }: ExportJobProps) {
  return (
    <Modal opened={opened} onClose={onClose} title="Export job">
      {opened && <ExportForm job={job} close={onClose} />}
    </Modal>
  );
}

function ExportForm({ job, close }: { job: Job; close: () => void }) {
  const ran = job.setups.filter(({ id }) => job.runs.some((run) => run.setupId === id));
  const [chosen, setChosen] = useState(() => ran.map(({ id }) => String(id)));
  const [withOwner, setWithOwner] = useState(true);
  const { done, problem, make, cancel } = useExport(job, close);
  const isWhole = chosen.length === ran.length;
  const wishes = { setupIds: isWhole ? null : chosen.map(Number), withOwner };
  return (
    <Stack gap={14}>
      <Text size="sm">
        One file (.zip) with recordings, logs, notes, photos and tune files, for another Suvok or to keep. Its figures
        are the same there.
      </Text>
      {ran.length > 1 && (
        <Checkbox.Group label="Runs of" value={chosen} onChange={setChosen}>
          <div className={classes.setups}>
            {ran.map(({ id, letter, change }) => (
              <Checkbox key={id} value={String(id)} label={`${letter} ${change}`} />
            ))}
          </div>
        </Checkbox.Group>
      )}
      <Switch
        label="With owner, plate, contact and kept reports"
        description={withOwner ? undefined : 'Notes and photos go as they are: look through them for names and plates.'}
        checked={withOwner}
        onChange={(event) => setWithOwner(event.currentTarget.checked)}
      />
      {problem && (
        <Text size="sm" c="var(--stop)" role="alert">
          {problem}
        </Text>
      )}
      {done === undefined ? (
        <Group justify="flex-end">
          <Button variant="subtle" color="gray" onClick={close}>
            Cancel
          </Button>
          <Button data-autofocus onClick={() => void make(wishes)} disabled={ran.length > 0 && chosen.length === 0}>
            Export
          </Button>
        </Group>
      ) : (
        <Group gap={14} wrap="nowrap">
          <div style={{ flex: 1 }}>
            <Text size="sm" role="status">
              Writing the file: {Math.round(100 * done)} %
            </Text>
            <Progress value={100 * done} aria-label="How far the file is" mt={6} transitionDuration={100} />
          </div>
          <Button variant="default" onClick={cancel}>
            Cancel
          </Button>
        </Group>
      )}
    </Stack>
  );
}

/** Has the file written, and fetches it. */
function useExport(job: Job, close: () => void) {
  const [done, setDone] = useState<number>();
  const [problem, setProblem] = useState<string>();
  const control = useRef<AbortController>(undefined);
  // Whoever closes the dialog waits for it no longer.
  useEffect(() => () => control.current?.abort(), []);
  const make = async (wishes: BundleWishes) => {
    const { signal } = (control.current = new AbortController());
    setProblem(undefined);
    setDone(0);
    try {
      const made = await askInLines(bundleMade, `/jobs/${job.id}/bundle`, wishes, { onDoing: ({ done }) => setDone(done), signal }); // prettier-ignore
      const link = document.createElement('a');
      link.href = `/api/bundles/${made.fetch}`;
      link.download = made.name;
      link.click();
      notifications.show({ message: `${made.name}, ${megabytes(made.bytes)}, is saved by the browser.` });
      close();
    } catch (error) {
      if (!signal.aborted) setProblem((error as Error).message);
    } finally {
      setDone(undefined);
    }
  };
  return { done, problem, make, cancel: () => control.current?.abort() };
}

const megabytes = (bytes: number) => `${(bytes / 1e6).toFixed(bytes < 1e7 ? 1 : 0)} MB`;

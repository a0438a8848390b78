import { fetchWhatChanged } from '../state/what-changed.ts';
import { Button, Group, Modal, Stack, Text } from '@mantine/core';
import { Dropzone } from '@mantine/dropzone';
import { notifications } from '@mantine/notifications';
import { useMutation } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { bundleTaken, type BundleTaken } from '../../contract/job/bundle.ts';
import { SendCancelled, sendFile, type SendProgress } from '../state/send-file.ts';
import { Sending } from '../ui/send-progress.tsx';
import { FindingLine, FindingList } from '../ui/severity.tsx';

/** Takes a job in that another Suvok, or this one, wrote as a file. */
export function ImportJob() {
  const [opened, setOpened] = useState(false);
  return (
    <>
      <Button variant="default" onClick={() => setOpened(true)}>
        Import job
      </Button>
      <Modal opened={opened} onClose={() => setOpened(false)} title="Import job">
        {opened && <ImportForm close={() => setOpened(false)} />}
      </Modal>
    </>
  );
}

function ImportForm({ close }: { close: () => void }) {
  const navigate = useNavigate();
  const [progress, setProgress] = useState<SendProgress>();
  const cancel = useRef<AbortController>(undefined);
  // Closing the dialog cancels the import.
  useEffect(() => () => cancel.current?.abort(), []);
  const send = useMutation({
    mutationFn: (file: File) => {
      cancel.current = new AbortController();
      setProgress({ doing: 'sending', done: 0 });
      return sendFile('/bundles', file, {}, bundleTaken, setProgress, cancel.current.signal).finally(() =>
        setProgress(undefined),
      );
    },
    onSuccess: async (taken) => {
      await fetchWhatChanged();
      if (taken.already || taken.remarks.length > 0) return;
      notifications.show({ message: `Imported with ${runsOf(taken.runs)}.` });
      close();
      void navigate(`/jobs/${taken.jobId}/brief`);
    },
  });
  return (
    <Stack gap={14}>
      {!send.data && (
        <Dropzone
          onDrop={([file]) => file && send.mutate(file)}
          multiple={false}
          maxSize={4e9}
          accept={['application/zip', 'application/x-zip-compressed']}
          onReject={() => notifications.show({ message: 'That is no job file: its name ends in .zip.', color: 'red' })}
          disabled={send.isPending}
          data-autofocus
          inputProps={{ 'aria-label': 'Job file' }}
        >
          <Text fw={600}>Drop a job file (.zip) here, or press to choose it</Text>
          <Text size="sm" c="dimmed">
            It was written with Export → Job file. All of it is stored, or nothing.
          </Text>
        </Dropzone>
      )}
      {progress && <Sending progress={progress} cancel={() => cancel.current?.abort()} />}
      {send.isError && (
        <Text size="sm" c="var(--stop)" role="alert">
          {send.error instanceof SendCancelled ? 'Cancelled. Nothing was stored.' : send.error.message}
        </Text>
      )}
      {send.data && <Taken taken={send.data} close={close} />}
    </Stack>
  );
}

const runsOf = (runs: number) => `${runs} run${runs === 1 ? '' : 's'}`;

/** What is worth knowing before the job is opened. */
function Taken({ taken: { already, jobId, runs, remarks }, close }: { taken: BundleTaken; close: () => void }) {
  return (
    <>
      <Text fw={600}>
        {already ? 'This job is here already. Nothing was stored.' : `The job was imported with ${runsOf(runs)}.`}
      </Text>
      <FindingList>
        {remarks.map((remark) => (
          <FindingLine key={remark} severity="note">
            {remark}
          </FindingLine>
        ))}
      </FindingList>
      <Group justify="flex-end">
        <Button variant="subtle" color="gray" onClick={close}>
          Close
        </Button>
        <Button component={Link} to={`/jobs/${jobId}/brief`}>
          Open job
        </Button>
      </Group>
    </>
  );
}

import { Checkbox, Modal, Stack, Switch, Text } from '@mantine/core';
import { useState } from 'react';
import type { BundleWishes } from '../../contract/job/bundle.ts';
import type { Job } from '../../contract/job/records.ts';
import { ExportEnd } from './export-end.tsx';
import { useExport } from './use-export.ts';
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
  const state = useExport(`/jobs/${job.id}/bundle`, close);
  const isWhole = chosen.length === ran.length;
  const wishes: BundleWishes = { setupIds: isWhole ? null : chosen.map(Number), withOwner };
  return (
    <Stack gap={14}>
      <Text size="sm">
        One file (.zip) with recordings, logs, notes, photos and tune files, for another Suvok or to keep. Its figures
        are the same there. Bookings stay here: they are this shop’s days.
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
        label="With owner, plate, contact, consents and kept reports"
        description={withOwner ? undefined : 'Notes and photos go as they are: look through them for names and plates.'}
        checked={withOwner}
        onChange={(event) => setWithOwner(event.currentTarget.checked)}
      />
      <ExportEnd
        state={state}
        close={close}
        onExport={() => void state.make(wishes)}
        ready={ran.length === 0 || chosen.length > 0}
      />
    </Stack>
  );
}

import { Checkbox, Modal, Stack, Text } from '@mantine/core';
import { useState } from 'react';
import type { Job } from '../../contract/job/records.ts';
import type { ReportView } from '../../contract/report/report.ts';
import { ExportEnd } from './export-end.tsx';
import classes from './export-job.module.css';
import { TunerTurn } from './tuner-turn.tsx';
import { useExport } from './use-export.ts';

interface ExportRemoteProps {
  job: Job;
  view: ReportView;
  opened: boolean;
  onClose: () => void;
}

/** What a tuner elsewhere needs of some runs, as one file. */
export function ExportRemote({ opened, onClose, ...asked }: ExportRemoteProps) {
  return (
    <Modal opened={opened} onClose={onClose} title="Export for a remote tuner">
      {opened && <RemoteForm {...asked} close={onClose} />}
    </Modal>
  );
}

function RemoteForm({ job, view, close }: Pick<ExportRemoteProps, 'job' | 'view'> & { close: () => void }) {
  const runs = job.runs.filter(({ state, label }) => state !== 'recording' && label !== null);
  const lastSetup = runs.at(-1)?.setupId;
  const [chosen, setChosen] = useState(() =>
    runs.filter(({ setupId }) => setupId === lastSetup).map(({ id }) => String(id)),
  );
  const state = useExport(`/jobs/${job.id}/remote-package`, close);
  const last = runs.findLast(({ id }) => chosen.includes(String(id)));
  const file = job.tuneFiles.findLast(({ setupId }) => setupId === last?.setupId);
  return (
    <Stack gap={14}>
      <Text size="sm">
        One file (.zip): a page that opens without Suvok (open-me.html), runs and logs as CSV, curves, findings and
        conditions. Owner, plate and contact are left out.
      </Text>
      <TunerTurn job={job} />
      <Checkbox.Group label="Runs" value={chosen} onChange={setChosen}>
        <div className={classes.setups}>
          {[...runs].reverse().map(({ id, label, setupId, setAsideReason }) => (
            <Checkbox
              key={id}
              value={String(id)}
              label={`${label} ${job.setups.find((setup) => setup.id === setupId)?.change ?? ''}${setAsideReason ? ' (set aside)' : ''}`}
            />
          ))}
        </div>
      </Checkbox.Group>
      <Text size="sm" c="dimmed">
        {file ? `With the tune file ${file.name}.` : 'No tune file is stored with the last of these runs.'}
      </Text>
      <ExportEnd
        state={state}
        close={close}
        ready={chosen.length > 0}
        onExport={() => void state.make({ ...view, runIds: chosen.map(Number) })}
      />
    </Stack>
  );
}

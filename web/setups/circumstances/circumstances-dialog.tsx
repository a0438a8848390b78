import { Modal } from '@mantine/core';
import { lazy, Suspense } from 'react';
import { useJob } from '../../state/queries.ts';
import type { Run } from '../../../contract/job/records.ts';

const CircumstancesForm = lazy(async () => ({ default: (await import('./circumstances-form.tsx')).CircumstancesForm }));

/** Puts right what a run was made under. */
export function CircumstancesDialog({ run, opened, onClose }: { run: Run; opened: boolean; onClose: () => void }) {
  const { data: job } = useJob(run.jobId ?? 0, opened && run.jobId !== null);
  return (
    <Modal
      opened={opened}
      onClose={onClose}
      title={`What ${run.label ?? 'this run'} was made under`}
      size={940}
      yOffset={24}
    >
      <Suspense>{job && <CircumstancesForm job={job} run={run} onDone={onClose} />}</Suspense>
    </Modal>
  );
}

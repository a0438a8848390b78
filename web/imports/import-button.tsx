import { Modal } from '@mantine/core';
import { lazy, Suspense, useState } from 'react';
import type { Job, Setup } from '../../contract/job/records.ts';
import button from '../ui/text-button.module.css';

const ImportForm = lazy(async () => ({ default: (await import('./import-form.tsx')).ImportForm }));

/** Opens the dialog that brings a recording in from files. */
export function ImportButton({ job, setup }: { job: Job; setup: Setup }) {
  const [opened, setOpened] = useState(false);
  return (
    <>
      <button className={button.more} onClick={() => setOpened(true)}>
        Import a recording
      </button>
      <Modal
        opened={opened}
        onClose={() => setOpened(false)}
        title={`Import a recording into ${job.vehicle}`}
        size="lg"
      >
        <Suspense>
          <ImportForm job={job} setup={setup} onDone={() => setOpened(false)} />
        </Suspense>
      </Modal>
    </>
  );
}

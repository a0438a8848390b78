import { Modal } from '@mantine/core';
import { lazy, Suspense, useState } from 'react';
import type { Job } from '../../../../contract/job/records.ts';
import button from '../../../ui/text-button.module.css';

const LoggerFileForm = lazy(async () => ({ default: (await import('./logger-file-form.tsx')).LoggerFileForm }));

/** Opens the dialog in which a logger's file joins runs. */
export function LoggerFileButton({ job }: { job: Job }) {
  const [opened, setOpened] = useState(false);
  return (
    <>
      <button className={button.more} onClick={() => setOpened(true)}>
        Add a logger’s file
      </button>
      <Modal
        opened={opened}
        onClose={() => setOpened(false)}
        title="A logger’s file, laid on the runs that it holds"
        size={940}
        yOffset={24}
      >
        <Suspense>
          <LoggerFileForm job={job} onDone={() => setOpened(false)} />
        </Suspense>
      </Modal>
    </>
  );
}

import { ActionIcon, Button, FileButton } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { IconDownload, IconX } from '@tabler/icons-react';
import type { Job, Setup } from '../../contract/job/records.ts';
import { api } from '../state/api.ts';
import { useChange } from '../state/use-change.ts';
import { takeAway } from '../state/undo.tsx';
import { SavedField } from '../ui/saved-field.tsx';
import classes from './setup-details.module.css';

/** The tune files that ran in a setup: opaque, kept to the byte, known again by what is in them. */
export function TuneFiles({ job, setup }: { job: Job; setup: Setup }) {
  const files = job.tuneFiles.filter((file) => file.setupId === setup.id);
  const arrived = job.tuneFiles.some((file) => file.setupId === job.setups[0]!.id);
  const add = useChange(async (file: File) => {
    const { file: taken, knownFrom } = await api.addTuneFile(setup.id, file);
    const known = knownFrom[0];
    notifications.show({
      message: known
        ? `${taken.name} is known: the same content ran as ${known.name} in ${known.jobId === job.id ? `setup ${known.setup}` : `${known.vehicle}, setup ${known.setup}`}.`
        : `${taken.name} is kept. Its content is new here.`,
      autoClose: 9000,
    });
  });
  const giveBack = useChange(async (file: File) => {
    const { again, letter } = await api.addReturnedFile(setup.id, file);
    notifications.show({
      message: again
        ? `${file.name} is ${again.name} of setup ${again.setup} again. Nothing was stored.`
        : `Setup ${letter} was made from ${setup.letter} with ${file.name}.`,
      autoClose: 9000,
    });
  });
  return (
    <section>
      <h3 className="heading">Tune files</h3>
      <ul className={classes.files}>
        {files.map((file) => (
          <li key={file.id}>
            <span>{file.name}</span>
            <span>
              <ActionIcon
                component="a"
                variant="subtle"
                color="gray"
                size={32}
                href={`/api/tune-files/${file.id}/content`}
                aria-label={`Download ${file.name}`}
              >
                <IconDownload size={16} />
              </ActionIcon>
              <ActionIcon
                variant="subtle"
                color="gray"
                size={32}
                aria-label={`Take away ${file.name}`}
                onClick={() => void takeAway('Tune file', () => api.removeEntry('tune-files', file.id))}
              >
                <IconX size={15} />
              </ActionIcon>
            </span>
            <small className="number">
              {sizeText(file.bytes)} · {file.sha256.slice(0, 12)}
              {sameElsewhere(job, setup, file.sha256)}
            </small>
            <div className={classes.words}>
              {(['author', 'note'] as const).map((field) => (
                <SavedField
                  key={field}
                  label={field === 'author' ? 'Whose work' : 'Note'}
                  field={field}
                  value={file[field]}
                  revision={file.revision}
                  place={`tune-file/${file.id}/${field}`}
                  save={(text, revision) => api.changeTuneFile(file.id, { [field]: text, revision })}
                />
              ))}
            </div>
          </li>
        ))}
      </ul>
      {!arrived && (
        <p className={`${classes.score} soft`}>
          The file it arrived with is not kept yet
          {setup.parentId === null ? '.' : `; it belongs to ${job.setups[0]!.letter}.`}
        </p>
      )}
      <FileButton onChange={(file) => file && add.mutate(file)} inputProps={{ 'aria-label': 'Tune file' }}>
        {(props) => (
          <Button {...props} variant="default" mt={8} loading={add.isPending}>
            Add a tune file
          </Button>
        )}
      </FileButton>
      <FileButton onChange={(file) => file && giveBack.mutate(file)} inputProps={{ 'aria-label': 'Returned file' }}>
        {(props) => (
          <Button {...props} variant="subtle" mt={8} loading={giveBack.isPending}>
            New setup from a returned file
          </Button>
        )}
      </FileButton>
    </section>
  );
}

function sizeText(bytes: number): string {
  return bytes < 1000
    ? `${bytes} bytes`
    : `${(bytes / 1000).toLocaleString('en-GB', { maximumFractionDigits: bytes < 1e5 ? 1 : 0 })} kB`;
}

function sameElsewhere(job: Job, setup: Setup, sha256: string): string {
  const others = job.tuneFiles
    .filter((file) => file.sha256 === sha256 && file.setupId !== setup.id)
    .map((file) => job.setups.find((candidate) => candidate.id === file.setupId)?.letter)
    .filter(Boolean);
  return others.length > 0 ? ` · same as in ${[...new Set(others)].join(', ')}` : '';
}

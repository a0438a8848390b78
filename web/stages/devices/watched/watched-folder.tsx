import { keys } from '../../../state/query-keys.ts';
import { Button, Group, TextInput } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import type { WatchedFile } from '../../../../contract/shop/watched-folder.ts';
import { api } from '../../../state/api.ts';
import { useChange } from '../../../state/use-change.ts';
import { FindingLine, FindingList } from '../../../ui/severity.tsx';
import classes from './watched-folder.module.css';

/** Looked at again so often, ms: a file is dropped while nobody watches the page. */
const lookAgainMs = 3000;
/** Files that are listed before the rest is asked for. */
const fewest = 6;

/** The folder in which dynos and loggers drop their files: which it is, and what became of each file. */
export function WatchedFolderPane() {
  const { data, refetch } = useQuery({
    queryKey: keys.watchedFolder,
    queryFn: api.watchedFolder,
    refetchInterval: lookAgainMs,
  });
  const [typed, setTyped] = useState<string>();
  const [all, setAll] = useState(false);
  const choose = useChange((path: string | null) => api.watchFolder(path));
  const again = useChange((id: number) => api.takeAgain(id));
  if (!data) return null;
  const path = typed ?? data.path ?? '';
  const set = (to: string | null) =>
    choose.mutate(to, {
      onSuccess: () => {
        setTyped(undefined);
        void refetch();
      },
    });
  return (
    <section className={classes.pane} aria-label="Watched folder">
      <h2>Watched folder</h2>
      <p className={classes.words}>
        What a dyno or a logger drops into a folder of this machine is taken once, when it is complete, into the job on
        the dyno: recordings become runs, loggers’ files join the runs that they hold. The files stay where they are.
      </p>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (path.trim()) set(path.trim());
        }}
      >
        <Group align="end" gap={10}>
          <TextInput
            className={classes.path}
            label="Folder, its whole path"
            placeholder="e.g. /srv/dyno/results"
            value={path}
            onChange={(event) => setTyped(event.currentTarget.value)}
            error={choose.error?.message}
          />
          <Button
            type="submit"
            variant="default"
            loading={choose.isPending}
            disabled={!path.trim() || path === data.path}
          >
            Watch it
          </Button>
          {data.path !== null && (
            <Button variant="subtle" color="gray" onClick={() => set(null)}>
              Stop watching
            </Button>
          )}
        </Group>
      </form>
      {data.problem && (
        <FindingList>
          <FindingLine severity="mind">{data.problem}</FindingLine>
        </FindingList>
      )}
      {data.files.length > 0 && (
        <table className={classes.files}>
          <thead>
            <tr>
              <th>File</th>
              <th>Taken</th>
              <th>What became of it</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {data.files.slice(0, all ? undefined : fewest).map((file) => (
              <tr key={file.id} data-outcome={file.outcome}>
                <th scope="row">{file.name}</th>
                <td>{new Date(file.takenAt).toLocaleString('en-GB', { dateStyle: 'short', timeStyle: 'short' })}</td>
                <td>
                  <Became file={file} />
                </td>
                <td>
                  {file.outcome === 'refused' && data.path !== null && (
                    <Button
                      size="xs"
                      variant="default"
                      onClick={() => again.mutate(file.id, { onSuccess: () => void refetch() })}
                    >
                      Try again
                    </Button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {!all && data.files.length > fewest && (
        <Button size="xs" variant="subtle" color="gray" onClick={() => setAll(true)}>
          Show {data.files.length - fewest} more
        </Button>
      )}
    </section>
  );
}

function Became({ file }: { file: WatchedFile }) {
  if (file.outcome === 'reading') return <>being read…</>;
  if (file.outcome === 'refused') return <>Not taken, kept where it is. {file.words}</>;
  return (
    <>
      {file.outcome === 'run' ? 'Run ' : 'Log of '}
      {file.runs.map(({ jobId, label }, at) => (
        <span key={label}>
          {at > 0 && ', '}
          <Link to={`/jobs/${jobId}/${file.outcome === 'run' ? 'compare' : `logs?run=${label}`}`}>
            {label} of job {jobId}
          </Link>
        </span>
      ))}
      {file.outcome === 'run' && <span className="soft"> {file.words}</span>}
    </>
  );
}

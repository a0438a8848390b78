import { NativeSelect, TextInput } from '@mantine/core';
import type { Job } from '../../contract/job/records.ts';
import { FindingLine, FindingList } from '../ui/severity.tsx';
import { RemoveButton } from '../ui/remove-button.tsx';
import type { Preview } from '../workers/figures.worker.ts';
import classes from './import-form.module.css';

/** One recording, when it was made, and where it goes. */
export interface ImportRow {
  file: File;
  /** As a field for date and time writes it. */
  startedAt: string;
  setupId: string;
}

interface ImportRowsProps {
  job: Job;
  rows: readonly ImportRow[];
  previews: readonly (Preview | undefined)[];
  onChange: (rows: ImportRow[]) => void;
}

/** The recordings to be imported: each has a date of its own, for one batch may hold several visits. */
export function ImportRows({ job, rows, previews, onChange }: ImportRowsProps) {
  const set = (at: number, change: Partial<ImportRow>) =>
    onChange(rows.map((row, index) => (index === at ? { ...row, ...change } : row)));
  return (
    <ul className={classes.rows}>
      {rows.map(({ file, startedAt, setupId }, at) => (
        <li key={`${file.name} ${file.lastModified} ${file.size}`}>
          <div className={classes.row}>
            <b>{file.name}</b>
            <RemoveButton what={file.name} onRemove={() => onChange(rows.filter((_, index) => index !== at))} />
          </div>
          <FindingList>
            <PreviewLines preview={previews[at]} />
          </FindingList>
          <div className={classes.pair}>
            <TextInput
              type="datetime-local"
              label="Recorded"
              description="The file’s own date: is it the run’s?"
              value={startedAt}
              onChange={(event) => set(at, { startedAt: event.currentTarget.value })}
            />
            <NativeSelect
              label="Into setup"
              description="Its number follows from this"
              data={job.setups.map((setup) => ({ value: String(setup.id), label: `${setup.letter}  ${setup.change}` }))}
              value={setupId}
              onChange={(event) => set(at, { setupId: event.currentTarget.value })}
            />
          </div>
        </li>
      ))}
    </ul>
  );
}

function PreviewLines({ preview }: { preview: Preview | undefined }) {
  if (!preview) return <FindingLine severity="note">It is being looked at.</FindingLine>;
  if ('refusal' in preview) return <FindingLine severity="stop">{preview.refusal}</FindingLine>;
  return (
    <>
      <FindingLine severity="note">
        {preview.samples} samples over {preview.durationS.toFixed(1)} s; {preview.channels.join(', ')}.
      </FindingLine>
      {preview.remarks.map((remark) => (
        <FindingLine key={remark} severity="mind">
          {remark}
        </FindingLine>
      ))}
    </>
  );
}

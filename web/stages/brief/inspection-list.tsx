import { keptFigure, typedFigure } from '../../units/typed-figure.ts';
import { useOwnUnits } from '../../units/use-own-units.tsx';
import { ActionIcon, TextInput } from '@mantine/core';
import { IconAlertTriangle, IconCheck } from '@tabler/icons-react';
import { useState } from 'react';
import type { Inspection } from '../../../contract/job/job-file.ts';
import type { Job } from '../../../contract/job/records.ts';
import {
  withinTolerance,
  type InspectionItem,
  type InspectionPart,
} from '../../../core/inspection/inspection-lists.ts';
import { numberOf } from '../../ui/saved-field.tsx';
import classes from './inspection-list.module.css';
import brief from '../../ui/file-form.module.css';
import { inspectionItems } from '../../../core/inspection/inspection-items.ts';
import { GoThrough } from './go-through.tsx';
import { entriesOf } from '../../state/entries.ts';

const titles = {
  car: 'Inspection',
  mounting: 'Mounting',
  'put back': 'Put back before delivery',
  'hand-over': 'Hand-over',
} as const;

/** Inspection, mounting and what is put back: tick, or fail with a note. A fail blocks nothing and stays in sight. */
export function InspectionList({ job, parts }: { job: Job; parts: readonly InspectionPart[] }) {
  const items = inspectionItems(job);
  return (
    <>
      {parts.map((part) => {
        const itemsOfPart = items.filter((item) => item.part === part);
        const done = itemsOfPart.filter(({ key }) =>
          job.inspections.some((entry) => entry.key === key && entry.outcome !== 'open'),
        );
        return (
          <section key={part} className={brief.section}>
            <h2 className="heading">
              {titles[part]}{' '}
              <span className="number">
                {done.length} of {itemsOfPart.length}
              </span>
            </h2>
            <ul className={brief.list}>
              {itemsOfPart.map((item) => (
                <Line
                  key={item.key}
                  job={job}
                  item={item}
                  entry={job.inspections.find((entry) => entry.key === item.key)}
                />
              ))}
            </ul>
            <GoThrough job={job} title={titles[part]} items={itemsOfPart} />
          </section>
        );
      })}
    </>
  );
}

function Line({ job, item, entry }: { job: Job; item: InspectionItem; entry: Inspection | undefined }) {
  const inspections = entriesOf('jobs', job.id, 'inspections');
  const unit = item.measured?.unit ?? '';
  const told = useOwnUnits().told(unit);
  const stored = entry?.measured ?? null;
  const [measured, setMeasured] = useState(stored === null ? '' : typedFigure(stored, told, unit));
  const [note, setNote] = useState(entry?.note ?? '');
  // Written elsewhere, such as in the list that is gone through: it stands here, too.
  const [storedNote, setStoredNote] = useState(entry?.note ?? '');
  if ((entry?.note ?? '') !== storedNote) {
    setStoredNote(entry?.note ?? '');
    setNote(entry?.note ?? '');
  }
  const outcome = entry?.outcome ?? 'open';
  const store = (fields: Partial<Inspection>) =>
    inspections.add({
      key: item.key,
      outcome,
      note: note.trim(),
      measured: value ?? null,
      ...fields,
    });
  const tick = (wanted: 'ok' | 'fail') => void store({ outcome: outcome === wanted ? 'open' : wanted });
  const bound = (kept: number | undefined) => (kept === undefined ? '…' : typedFigure(kept, told, unit));
  const typed = numberOf(measured);
  // What was not written over is what was stored, whatever its digits here.
  const same = stored !== null && measured === typedFigure(stored, told, unit);
  const value = typeof typed === 'number' && !same ? keptFigure(typed, told, unit) : same ? stored : typed;
  const off = item.measured && typeof value === 'number' && !withinTolerance(value, item.measured);
  return (
    <li className={classes.line} data-outcome={outcome}>
      <div className={classes.ticks}>
        <ActionIcon
          size={34}
          variant={outcome === 'ok' ? 'filled' : 'default'}
          aria-label={`${item.text}: right`}
          aria-pressed={outcome === 'ok'}
          onClick={() => tick('ok')}
        >
          <IconCheck size={17} />
        </ActionIcon>
        <ActionIcon
          size={34}
          variant="default"
          className={outcome === 'fail' ? classes.failed : undefined}
          aria-label={`${item.text}: fails`}
          aria-pressed={outcome === 'fail'}
          onClick={() => tick('fail')}
        >
          <IconAlertTriangle size={16} />
        </ActionIcon>
      </div>
      <p className={classes.text}>{item.text}</p>
      {item.measured && (
        <TextInput
          className={classes.measured}
          aria-label={`${item.text}: measured, ${told.unit}`}
          inputMode="decimal"
          value={measured}
          error={value === undefined || off}
          onChange={(event) => setMeasured(event.currentTarget.value)}
          onBlur={() => value !== undefined && value !== (entry?.measured ?? null) && void store({ measured: value })}
          rightSection={<span className="soft">{told.unit}</span>}
          rightSectionWidth={36}
        />
      )}
      {off && item.measured && (
        <small className={classes.off}>
          outside {bound(item.measured.low)} to {bound(item.measured.high)} {told.unit}
        </small>
      )}
      {outcome === 'fail' && (
        <TextInput
          className={classes.note}
          aria-label={`${item.text}: what is wrong`}
          placeholder="what is wrong, and what was done"
          value={note}
          onChange={(event) => setNote(event.currentTarget.value)}
          onBlur={() => note !== entry?.note && void store({})}
          onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
        />
      )}
    </li>
  );
}

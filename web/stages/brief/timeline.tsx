import { useOwnUnits } from '../../units/use-own-units.tsx';
import { Button, TextInput } from '@mantine/core';
import dayjs from 'dayjs';
import { useState } from 'react';
import type { Job } from '../../../contract/job/records.ts';
import { useHistory } from '../../state/queries.ts';
import { draftOf, keepDraft } from '../../state/drafts.ts';
import classes from './timeline.module.css';
import brief from '../../ui/file-form.module.css';
import { RemoveButton } from '../../ui/remove-button.tsx';
import { timelineOf, type TimelineEvent } from './timeline-words.ts';
import { initialsOf } from '../../account/initials.ts';
import { entriesOf } from '../../state/entries.ts';

const shownAtFirst = 12;

/** Everything that happened, the last first, and a line to write into it. */
export function Timeline({ job }: { job: Job }) {
  const { data: changes = [] } = useHistory(job.id);
  const notes = entriesOf('jobs', job.id, 'notes');
  const place = `job/${job.id}/note`;
  const [text, setText] = useState(() => draftOf(place) ?? '');
  const [all, setAll] = useState(false);
  const events = timelineOf(job, changes, useOwnUnits());
  const shown = all ? events : events.slice(0, shownAtFirst);
  return (
    <section className={brief.section}>
      <h2 className="heading">Timeline</h2>
      <p className={classes.counts}>{countsOf(job)}</p>
      <form
        className={brief.line}
        onSubmit={(event) => {
          event.preventDefault();
          void notes.add({ text, at: new Date().toISOString() }).then((stored) => {
            if (!stored) return;
            setText('');
            keepDraft(place, null);
          });
        }}
      >
        <TextInput
          aria-label="A line for the timeline"
          placeholder="a line, as it happens"
          value={text}
          onChange={(event) => {
            setText(event.currentTarget.value);
            keepDraft(place, event.currentTarget.value || null);
          }}
        />
        <Button type="submit" variant="default" disabled={text.trim() === ''}>
          Write
        </Button>
      </form>
      <ol className={classes.list}>
        {shown.map((event, index) => (
          <Line
            key={event.key}
            event={event}
            newDay={!dayjs(event.at).isSame(shown[index - 1]?.at ?? dayjs(), 'day')}
            onRemove={
              event.kind === 'note'
                ? () => void notes.remove('Line', Number(event.key.slice('note-'.length)))
                : undefined
            }
          />
        ))}
      </ol>
      {events.length > shown.length && (
        <button className={brief.word} onClick={() => setAll(true)}>
          {events.length - shown.length} earlier
        </button>
      )}
    </section>
  );
}

function Line({
  event,
  newDay,
  onRemove,
}: {
  event: TimelineEvent;
  newDay: boolean;
  onRemove: (() => void) | undefined;
}) {
  return (
    <>
      {newDay && <li className={classes.day}>{dayjs(event.at).format('D MMMM')}</li>}
      <li className={classes.event} data-kind={event.kind}>
        <time className="number" dateTime={event.at}>
          {dayjs(event.at).format('HH:mm')}
        </time>
        <span>
          {event.text}
          {event.person && (
            <abbr className={classes.person} title={event.person}>
              {initialsOf(event.person)}
              <span className="seen-by-readers">, {event.person}</span>
            </abbr>
          )}
        </span>
        {onRemove && <RemoveButton what={event.text} onRemove={onRemove} />}
      </li>
    </>
  );
}

function countsOf(job: Job): string {
  const times = job.runs.map((run) => Date.parse(run.startedAt));
  const minutes = times.length > 1 ? (Math.max(...times) - Math.min(...times)) / 60e3 : 0;
  const hours =
    minutes === 0
      ? ''
      : minutes < 24 * 60
        ? `, ${Math.floor(minutes / 60)} h ${Math.round(minutes % 60)} min from the first run to the last`
        : `, over ${Math.ceil(minutes / 1440)} days`;
  const count = (number: number, noun: string) => `${number} ${noun}${number === 1 ? '' : 's'}`;
  return `${count(job.runs.length, 'run')}, ${count(job.setups.length, 'setup')}, ${count(job.tuneFiles.length, 'tune file')}${hours}.`;
}

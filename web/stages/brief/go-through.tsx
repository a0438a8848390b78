import { Button, Modal, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { Inspection } from '../../../contract/job/job-file.ts';
import type { Job } from '../../../contract/job/records.ts';
import type { InspectionItem } from '../../../core/inspection/inspection-lists.ts';
import { keptFigure, typedFigure } from '../../units/typed-figure.ts';
import { useOwnUnits } from '../../units/use-own-units.tsx';
import { entriesOf } from '../../state/entries.ts';
import { numberOf } from '../../ui/saved-field.tsx';
import classes from './go-through.module.css';

interface GoThroughProps {
  job: Job;
  title: string;
  items: readonly InspectionItem[];
}

/** The items of a list that nobody has looked at, one large at a time: for a tablet at the car, with gloves on. */
export function GoThrough({ job, title, items }: GoThroughProps) {
  const [opened, setOpened] = useState(false);
  const [passed, setPassed] = useState<readonly string[]>([]);
  const entryOf = (key: string) => job.inspections.find((entry) => entry.key === key);
  const left = items.filter(({ key }) => (entryOf(key)?.outcome ?? 'open') === 'open' && !passed.includes(key));
  const open = items.filter(({ key }) => (entryOf(key)?.outcome ?? 'open') === 'open').length;
  const [item] = left;
  if (open === 0 && !opened) return null;
  return (
    <>
      <Button
        variant="default"
        size="sm"
        mt={10}
        aria-label={`Go through: ${title}`}
        onClick={() => {
          setPassed([]);
          setOpened(true);
        }}
      >
        Go through, {open} open
      </Button>
      <Modal
        opened={opened}
        onClose={() => setOpened(false)}
        title={title}
        size="lg"
        fullScreen={window.innerWidth < 700}
      >
        {item ? (
          <Item
            key={item.key}
            job={job}
            item={item}
            entry={entryOf(item.key)}
            place={`${items.indexOf(item) + 1} of ${items.length}`}
            onLater={() => setPassed([...passed, item.key])}
          />
        ) : (
          <div className={classes.done}>
            <p>{open === 0 ? 'All of it is looked at.' : `${open} left for later.`}</p>
            <Button size="lg" data-autofocus onClick={() => setOpened(false)}>
              Close
            </Button>
          </div>
        )}
      </Modal>
    </>
  );
}

interface ItemProps {
  job: Job;
  item: InspectionItem;
  entry: Inspection | undefined;
  place: string;
  onLater: () => void;
}

function Item({ job, item, entry, place, onLater }: ItemProps) {
  const unit = item.measured?.unit ?? '';
  const told = useOwnUnits().told(unit);
  const [measured, setMeasured] = useState(
    typeof entry?.measured === 'number' ? typedFigure(entry.measured, told, unit) : '',
  );
  const [failing, setFailing] = useState(false);
  const [note, setNote] = useState(entry?.note ?? '');
  const typed = numberOf(measured);
  const store = (outcome: 'ok' | 'fail') =>
    void entriesOf('jobs', job.id, 'inspections').add({
      key: item.key,
      outcome,
      note: note.trim(),
      measured: typeof typed === 'number' ? keptFigure(typed, told, unit) : null,
    });
  return (
    <div className={classes.item}>
      <small className="number">{place}</small>
      <p>{item.text}</p>
      {item.measured && (
        <TextInput
          size="lg"
          label={`Measured, ${told.unit}`}
          inputMode="decimal"
          value={measured}
          error={typed === undefined}
          onChange={(event) => setMeasured(event.currentTarget.value)}
        />
      )}
      {failing && (
        <TextInput
          size="lg"
          label="What is wrong"
          placeholder="and what was done"
          data-autofocus
          autoFocus
          value={note}
          onChange={(event) => setNote(event.currentTarget.value)}
          onKeyDown={(event) => event.key === 'Enter' && store('fail')}
        />
      )}
      <div className={classes.acts}>
        <Button size="xl" variant="default" onClick={onLater}>
          Later
        </Button>
        <Button size="xl" variant="default" onClick={() => (failing ? store('fail') : setFailing(true))}>
          {failing ? 'Store what fails' : 'Fails'}
        </Button>
        {!failing && (
          <Button size="xl" disabled={typed === undefined} data-autofocus onClick={() => store('ok')}>
            Right
          </Button>
        )}
      </div>
    </div>
  );
}

import { Button, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { Job } from '../../../contract/job/records.ts';
import { spokenRpm } from '../../../core/units/spoken.ts';
import { readRpmRange } from '../../ui/rpm-range.ts';
import classes from '../../ui/file-form.module.css';
import { RemoveButton } from '../../ui/remove-button.tsx';
import { entriesOf } from '../../state/entries.ts';

/** Engine-speed ranges that matter to the owner: named before any gain is seen in them. */
export function Bands({ job }: { job: Job }) {
  const bands = entriesOf('jobs', job.id, 'bands');
  const [text, setText] = useState('');
  const [problem, setProblem] = useState('');
  const add = async () => {
    const found = /^(.*?)[\s,:]+(\d[\d, ]*\s*(?:-|–|to)\s*\d[\d, ]*(?:\s*rpm)?)$/.exec(text.trim());
    const range = found && readRpmRange(found[2]!);
    if (!range) {
      setProblem('Write a name and the speeds, such as “towing 1,800–3,000”.');
      return;
    }
    setProblem('');
    if (await bands.add({ name: found[1]!.trim(), ...range })) setText('');
  };
  return (
    <section className={classes.section}>
      <h2 className="heading">Bands that matter</h2>
      <ul className={classes.list}>
        {job.bands.map((band) => (
          <li key={band.id} className={classes.entry}>
            <p>
              {band.name}{' '}
              <span className="number soft">
                {spokenRpm(band.fromRpm)} to {spokenRpm(band.toRpm)} rpm
              </span>
            </p>
            <RemoveButton what={`the band ${band.name}`} onRemove={() => void bands.remove('Band', band.id)} />
          </li>
        ))}
      </ul>
      <form
        className={classes.line}
        onSubmit={(event) => {
          event.preventDefault();
          void add();
        }}
      >
        <TextInput
          aria-label="New band"
          placeholder="towing 1,800–3,000"
          value={text}
          error={problem}
          onChange={(event) => setText(event.currentTarget.value)}
        />
        <Button type="submit" variant="default" disabled={text.trim() === ''}>
          Add
        </Button>
      </form>
    </section>
  );
}

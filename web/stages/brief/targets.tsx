import { Button, Select, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { Job } from '../../../contract/job/records.ts';
import { standardIds, standards, type StandardId } from '../../../core/air/correction.ts';
import { unitOfFigure, type AskedFigure } from '../../../core/curve/asked-figure.ts';
import type { TargetFigures } from '../../../core/targets/target.ts';
import { madeWords, standingWords, targetName } from '../../../core/wording/target-words.ts';
import { AskedFigureFields, isWhole } from '../../asked-figure/asked-figure-fields.tsx';
import { useStandard } from '../../job/use-standard.ts';
import { entriesOf } from '../../state/entries.ts';
import classes from '../../ui/file-form.module.css';
import { OpenedForm } from '../../ui/opened-form.tsx';
import { RemoveButton } from '../../ui/remove-button.tsx';
import { numberOf } from '../../ui/saved-field.tsx';
import own from './targets.module.css';
import { keptFigure } from '../../units/typed-figure.ts';
import { useOwnUnits } from '../../units/use-own-units.tsx';

/** Figures that the owner wants a setup to make, each with what every setup made of it. */
export function Targets({ job, figures }: { job: Job; figures: readonly TargetFigures[] | undefined }) {
  const targets = entriesOf('jobs', job.id, 'targets');
  const { write } = useOwnUnits();
  const usual = useStandard(job);
  const letter = (id: number) => job.setups.find((setup) => setup.id === id)?.letter ?? '?';
  return (
    <section className={classes.section}>
      <h2 className="heading">Target figures</h2>
      <ul className={classes.list}>
        {job.targets.map((target) => {
          const found = figures?.find(({ id }) => id === target.id);
          return (
            <li key={target.id} className={classes.entry}>
              <p>{write(targetName(target))}</p>
              <RemoveButton
                what={write(targetName(target))}
                onRemove={() => void targets.remove('Target', target.id)}
              />
              {found && (
                <ul className={own.setups}>
                  {found.setups.map((of) => (
                    <li key={of.setupId}>
                      {letter(of.setupId)} {write(madeWords(target, of))}: {write(standingWords(target, found, of))}
                    </li>
                  ))}
                </ul>
              )}
            </li>
          );
        })}
      </ul>
      <OpenedForm word="Add a target figure" open={job.targets.length === 0 && job.runs.length === 0}>
        <NewTarget usual={usual} onAdd={targets.add} />
      </OpenedForm>
    </section>
  );
}

function NewTarget({ usual, onAdd }: { usual: StandardId; onAdd: (fields: object) => Promise<boolean> }) {
  const [asked, setAsked] = useState<AskedFigure>({ quantity: 'peak power', fromRpm: null, toRpm: null });
  const [value, setValue] = useState('');
  const [scale, setScale] = useState<string | null>('wheels');
  const [standard, setStandard] = useState<string | null>(usual);
  const unit = unitOfFigure(asked.quantity);
  const told = useOwnUnits().told(unit);
  const typed = numberOf(value);
  const isBoost = unit === 'kPa';
  const usable = typeof typed === 'number' && typed > 0 && isWhole(asked);
  return (
    <form
      className={`${classes.line} ${own.fields}`}
      onSubmit={(event) => {
        event.preventDefault();
        if (!usable) return;
        const held = isBoost ? { scale: null, standard: null } : { scale, standard };
        void onAdd({ ...asked, value: keptFigure(typed, told, unit), ...held }).then(
          (stored) => stored && setValue(''),
        );
      }}
    >
      <AskedFigureFields label="Of" asked={asked} onChange={setAsked} />
      <TextInput
        label="At least"
        inputMode="decimal"
        value={value}
        onChange={(event) => setValue(event.currentTarget.value)}
        rightSection={<span className="soft">{told.unit}</span>}
        rightSectionWidth={46}
        error={value !== '' && typeof typed !== 'number'}
      />
      {!isBoost && (
        <>
          <Select label="Scale" data={['wheels', 'crank']} value={scale} onChange={setScale} allowDeselect={false} />
          <Select
            label="Standard"
            data={standardIds.map((id) => ({ value: id, label: standards[id].name }))}
            value={standard}
            onChange={setStandard}
            allowDeselect={false}
            comboboxProps={{ width: 260, position: 'bottom-start' }}
          />
        </>
      )}
      <Button type="submit" variant="default" disabled={!usable}>
        Add
      </Button>
    </form>
  );
}

import { withUnit } from '../../../core/units/told-units.ts';
import type { OwnUnits } from '../../units/own-units.ts';
import { keptFigure } from '../../units/typed-figure.ts';
import { useOwnUnits } from '../../units/use-own-units.tsx';
import { Button, Select, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { LimitRecord } from '../../../contract/job/job-file.ts';
import type { Job } from '../../../contract/job/records.ts';
import { limitQuantities, limitQuantityNames, type LimitQuantity } from '../../../core/limits/limit.ts';
import { limitSuggestions } from '../../../core/limits/suggestions.ts';
import { numberOf } from '../../ui/saved-field.tsx';
import classes from '../../ui/file-form.module.css';
import { fuelNow } from '../../../core/fuel/ledger.ts';
import { OpenedForm } from '../../ui/opened-form.tsx';
import { RemoveButton } from '../../ui/remove-button.tsx';
import { entriesOf } from '../../state/entries.ts';
import { isBoosted } from '../../../core/job/is-boosted.ts';

const sources = { owner: 'owner', maker: 'maker', builder: 'builder', us: 'our word' } as const;
const sides = { most: 'at most', least: 'at least' } as const;

function limitText(
  { quantity, value, scale }: Pick<LimitRecord, 'quantity' | 'value' | 'scale'>,
  own: OwnUnits,
): string {
  const known = limitQuantities[quantity as LimitQuantity];
  if (!known) return `${quantity} ${value}`;
  const where = scale === 'crank' ? ' at the crank' : scale === 'wheels' ? ' at the wheels here' : '';
  return `${known.label} ${sides[known.side]} ${boundText(value, known.unit, own)}${where}`;
}

/** A bound as it was set, in the person's unit. */
function boundText(value: number, unit: string, own: OwnUnits): string {
  const told = own.told(unit);
  const asSet = told.unit === unit || told.unit === '';
  return withUnit(asSet ? value.toLocaleString('en-GB') : own.figure(value, unit), told.unit);
}

/** Bounds not to cross: value, scale, reason, and whose word it is. */
export function Limits({ job }: { job: Job }) {
  const limits = entriesOf('jobs', job.id, 'limits');
  const own = useOwnUnits();
  return (
    <section className={classes.section}>
      <h2 className="heading">Limits</h2>
      <ul className={classes.list}>
        {job.limits.map((limit) => (
          <li key={limit.id} className={classes.entry}>
            <p>
              {limitText(limit, own)}
              <small>
                {sources[limit.source]}
                {limit.reason && `: ${limit.reason}`}
              </small>
            </p>
            <RemoveButton what={limitText(limit, own)} onRemove={() => void limits.remove('Limit', limit.id)} />
          </li>
        ))}
      </ul>
      {job.limits.length === 0 && (
        <p className={classes.quiet}>None yet. What breaks first on this car, and who says so?</p>
      )}
      <OpenedForm word="Add a limit" open={job.limits.length === 0}>
        <NewLimit onAdd={limits.add} />
      </OpenedForm>
      <Suggestions job={job} onTake={limits.add} />
    </section>
  );
}

function NewLimit({ onAdd }: { onAdd: (fields: object) => Promise<boolean> }) {
  const [quantity, setQuantity] = useState<LimitQuantity>('torque');
  const [value, setValue] = useState('');
  const [scale, setScale] = useState<string | null>('crank');
  const [source, setSource] = useState<string | null>('owner');
  const [reason, setReason] = useState('');
  const { unit, scaled } = limitQuantities[quantity];
  const told = useOwnUnits().told(unit);
  const typed = numberOf(value);
  const figure = typeof typed === 'number' ? keptFigure(typed, told, unit) : typed;
  return (
    <form
      className={classes.line}
      onSubmit={(event) => {
        event.preventDefault();
        if (typeof figure !== 'number') return;
        void onAdd({ quantity, value: figure, scale: scaled ? scale : null, reason, source }).then((stored) => {
          if (!stored) return;
          setValue('');
          setReason('');
        });
      }}
    >
      <Select
        aria-label="Quantity"
        data={limitQuantityNames.map((name) => ({ value: name, label: limitQuantities[name].label }))}
        value={quantity}
        allowDeselect={false}
        onChange={(name) => setQuantity(name as LimitQuantity)}
        style={{ flexBasis: 130 }}
      />
      <TextInput
        aria-label="Value"
        inputMode="decimal"
        value={value}
        onChange={(event) => setValue(event.currentTarget.value)}
        rightSection={<span className="soft">{told.unit}</span>}
        rightSectionWidth={46}
        error={figure === undefined}
      />
      {scaled && (
        <Select aria-label="Scale" data={['crank', 'wheels']} value={scale} onChange={setScale} allowDeselect={false} />
      )}
      <Select
        aria-label="Whose word"
        data={Object.entries(sources).map(([name, label]) => ({ value: name, label }))}
        value={source}
        onChange={setSource}
        allowDeselect={false}
      />
      <TextInput
        aria-label="Reason"
        placeholder="why"
        value={reason}
        onChange={(event) => setReason(event.currentTarget.value)}
        style={{ flexBasis: 140 }}
      />
      <Button type="submit" variant="default" disabled={typeof figure !== 'number'}>
        Add
      </Button>
    </form>
  );
}

function Suggestions({ job, onTake }: { job: Job; onTake: (fields: object) => Promise<boolean> }) {
  const [shown, setShown] = useState(false);
  const own = useOwnUnits();
  const { ignition, induction } = job.car;
  const suggestions = limitSuggestions({
    ignition,
    boosted: isBoosted({ induction }),
    ethanolPct: fuelNow(job)?.ethanolPct ?? null,
  }).filter(({ quantity }) => !job.limits.some((limit) => limit.quantity === quantity));
  if (suggestions.length === 0) return null;
  if (!shown) {
    return (
      <p className={classes.quiet}>
        <button className={classes.word} onClick={() => setShown(true)}>
          {suggestions.length} suggestions
        </button>{' '}
        for{' '}
        {ignition === 'compression'
          ? 'a diesel'
          : ignition === 'spark'
            ? 'spark ignition'
            : 'an engine not described yet'}
        , not active until added.
      </p>
    );
  }
  return (
    <>
      <p className={classes.quiet}>
        Suggestions: cautious customs, not properties of this engine. Its maker comes first.
      </p>
      <ul className={classes.list}>
        {suggestions.map((suggestion) => (
          <li key={suggestion.quantity} className={classes.entry}>
            <p className="soft">
              {limitText(suggestion, own)}
              <small>{suggestion.reason}</small>
            </p>
            <Button size="compact-md" variant="default" onClick={() => void onTake({ ...suggestion, source: 'us' })}>
              Take
            </Button>
          </li>
        ))}
      </ul>
    </>
  );
}

import { Button, NativeSelect, NumberInput, TextInput } from '@mantine/core';
import { useState } from 'react';
import { forecastQuantities, type ForecastRecord } from '../../contract/forecasts.ts';
import type { Job, Setup } from '../../contract/records.ts';
import type { SetupFigures } from '../../core/figures/setup-figures.ts';
import { forecastOutcome } from '../../core/forecasts/forecast.ts';
import { say } from '../../core/sentence/sentence.ts';
import { convert } from '../../core/units/units.ts';
import { entriesOf } from '../state/entries.ts';
import { RemoveButton } from '../ui/remove-button.tsx';
import { useOwnUnits, useUnits } from '../units/use-own-units.tsx';
import classes from './forecasts.module.css';

/** What people say that a setup will make: written until its first run, then locked and scored. */
export function ForecastsOfSetup({
  job,
  setup,
  figures,
  ran,
}: {
  job: Job;
  setup: Setup;
  figures: SetupFigures | undefined;
  ran: boolean;
}) {
  // prettier-ignore
  const own = job.forecasts.filter(({ setupId }) => setupId === setup.id);
  if (ran && own.length === 0) return null;
  return (
    <section>
      <h3 className="heading">Forecasts</h3>
      <ul className={classes.list}>
        {own.map((forecast) => (
          <Line key={forecast.id} job={job} forecast={forecast} figures={figures} ran={ran} />
        ))}
      </ul>
      {!ran && <NewForecast job={job} setup={setup} />}
    </section>
  );
}

const unitOf = ({ quantity }: Pick<ForecastRecord, 'quantity'>) => (quantity.includes('torque') ? 'N·m' : 'kW');

function Line({
  job,
  forecast,
  figures,
  ran,
}: {
  job: Job;
  forecast: ForecastRecord;
  figures: SetupFigures | undefined;
  ran: boolean;
}) {
  // prettier-ignore
  const { write } = useOwnUnits();
  const { who, quantity, fromRpm, toRpm, low, high } = forecast;
  const told = (value: number) => write(say`${{ value, unit: unitOf(forecast), digits: 1 }}`);
  const actual = ran && figures ? forecastOutcome(forecast, figures) : undefined;
  const where = fromRpm === null ? '' : toRpm === null ? ` ${fromRpm} rpm` : ` ${fromRpm} to ${toRpm} rpm`;
  const outcome = actual === undefined ? (ran ? 'its runs do not cover it' : '') : `it made ${told(actual)}: ${high > low ? (actual >= low && actual <= high ? 'within the range' : actual > high ? 'more' : 'less') : `${(((low - actual) / actual) * 100).toFixed(1).replace('-', '−')} % off`}`; // prettier-ignore
  return (
    <li>
      <span>
        <b>{who}</b>: {quantity}
        {where} {low === high ? told(low) : `${told(low)} to ${told(high)}`}
        {outcome && <small>{outcome}</small>}
      </span>
      {!ran && (
        <RemoveButton
          what={`forecast of ${who}`}
          onRemove={() => void entriesOf('jobs', job.id, 'forecasts').remove('The forecast is', forecast.id)}
        />
      )}
    </li>
  );
}

function NewForecast({ job, setup }: { job: Job; setup: Setup }) {
  const units = useUnits();
  const [who, setWho] = useState('');
  const [quantity, setQuantity] = useState<ForecastRecord['quantity']>('peak power');
  const [low, setLow] = useState<number | string>('');
  const [high, setHigh] = useState<number | string>('');
  const [from, setFrom] = useState<number | string>('');
  const [to, setTo] = useState<number | string>('');
  const torque = quantity.includes('torque');
  const kept = (value: number) => (torque ? convert(value, units.torque, 'N·m') : convert(value, units.power, 'kW'));
  const isAt = quantity.endsWith(' at');
  const isMean = quantity === 'mean power';
  return (
    <form
      className={classes.new}
      onSubmit={(event) => {
        event.preventDefault();
        const lowKept = kept(Number(low));
        void entriesOf('jobs', job.id, 'forecasts')
          .add({
            setupId: setup.id,
            who: who.trim(),
            quantity,
            fromRpm: (isAt || isMean) && from !== '' ? Number(from) : null,
            toRpm: isMean && to !== '' ? Number(to) : null,
            low: lowKept,
            high: high === '' ? lowKept : kept(Number(high)),
          })
          .then((stored) => {
            if (!stored) return;
            setWho('');
            setLow('');
            setHigh('');
          });
      }}
    >
      <TextInput label="Who" value={who} onChange={(event) => setWho(event.currentTarget.value)} />
      <NativeSelect
        label="Says of"
        data={[...forecastQuantities]}
        value={quantity}
        onChange={(event) => setQuantity(event.currentTarget.value as ForecastRecord['quantity'])}
      />
      {(isAt || isMean) && (
        <NumberInput label={isAt ? 'At, rpm' : 'From, rpm'} min={0} value={from} onChange={setFrom} />
      )}
      {isMean && <NumberInput label="To, rpm" min={0} value={to} onChange={setTo} />}
      <NumberInput label={`Value, ${torque ? units.torque : units.power}`} min={0} value={low} onChange={setLow} />
      <NumberInput label="Up to" placeholder="for a range" min={0} value={high} onChange={setHigh} />
      <Button type="submit" variant="default" disabled={who.trim() === '' || low === '' || (isAt && from === '')}>
        Add
      </Button>
    </form>
  );
}

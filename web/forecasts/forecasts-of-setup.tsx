import { Button, NumberInput, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { ForecastRecord } from '../../contract/shop/forecasts.ts';
import type { Job, Setup } from '../../contract/job/records.ts';
import type { SetupFigures } from '../../core/figures/pairs/setup-figures.ts';
import { forecastOutcome } from '../../core/forecasts/forecast.ts';
import { say } from '../../core/sentence/sentence.ts';
import { unitOfFigure, type AskedFigure } from '../../core/curve/asked-figure.ts';
import { AskedFigureFields, isWhole } from '../asked-figure/asked-figure-fields.tsx';
import { askedWords } from '../../core/wording/target-words.ts';
import { entriesOf } from '../state/entries.ts';
import { RemoveButton } from '../ui/remove-button.tsx';
import { keptFigure } from '../units/typed-figure.ts';
import { useOwnUnits } from '../units/use-own-units.tsx';
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
  const { write } = useOwnUnits();
  const { who, quantity, low, high } = forecast;
  const told = (value: number) => write(say`${{ value, unit: unitOfFigure(quantity), digits: 1 }}`);
  const actual = ran && figures ? forecastOutcome(forecast, figures) : undefined;
  const outcome =
    actual === undefined
      ? ran
        ? 'its runs do not cover it'
        : ''
      : `it made ${told(actual)}: ${high > low ? (actual >= low && actual <= high ? 'within the range' : actual > high ? 'more' : 'less') : `${(((low - actual) / actual) * 100).toFixed(1).replace('-', '−')} % off`}`;
  return (
    <li>
      <span>
        <b>{who}</b>: {write(askedWords(forecast))} {low === high ? told(low) : `${told(low)} to ${told(high)}`}
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
  const [who, setWho] = useState('');
  const [asked, setAsked] = useState<AskedFigure>({ quantity: 'peak power', fromRpm: null, toRpm: null });
  const [low, setLow] = useState<number | string>('');
  const [high, setHigh] = useState<number | string>('');
  const unit = unitOfFigure(asked.quantity);
  const told = useOwnUnits().told(unit);
  const kept = (value: number | string) => keptFigure(Number(value), told, unit);
  return (
    <form
      className={classes.new}
      onSubmit={(event) => {
        event.preventDefault();
        const lowKept = kept(low);
        void entriesOf('jobs', job.id, 'forecasts')
          .add({
            setupId: setup.id,
            who: who.trim(),
            ...asked,
            low: lowKept,
            high: high === '' ? lowKept : kept(high),
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
      <AskedFigureFields label="Says of" asked={asked} onChange={setAsked} />
      <NumberInput label={`Value, ${told.unit}`} min={0} value={low} onChange={setLow} />
      <NumberInput label="Up to" placeholder="for a range" min={0} value={high} onChange={setHigh} />
      <Button type="submit" variant="default" disabled={who.trim() === '' || low === '' || !isWhole(asked)}>
        Add
      </Button>
    </form>
  );
}

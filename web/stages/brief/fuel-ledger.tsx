import type { OwnUnits } from '../../units/own-units.ts';
import { useOwnUnits } from '../../units/use-own-units.tsx';
import { Button, SegmentedControl, TextInput } from '@mantine/core';
import dayjs from 'dayjs';
import { useState } from 'react';
import type { FuelRecord } from '../../../contract/job/job-file.ts';
import type { Job } from '../../../contract/job/records.ts';
import { stoichiometricRatio, volumeFactor } from '../../../core/fuel/blend.ts';
import { otherFuelPct, type FuelState, fuelNow } from '../../../core/fuel/ledger.ts';
import { ledgerFindings } from '../../../core/fuel/ledger-checks.ts';
import { FindingLine, FindingList } from '../../ui/severity.tsx';
import { api } from '../../state/api.ts';
import { useChange } from '../../state/use-change.ts';
import { numberOf } from '../../ui/saved-field.tsx';
import { BlendHelp } from './blend-help.tsx';
import classes from '../../ui/file-form.module.css';
import { OpenedForm } from '../../ui/opened-form.tsx';
import { RemoveButton } from '../../ui/remove-button.tsx';
import { entriesOf } from '../../state/entries.ts';
import { newestSetup } from '../../../core/job/baseline.ts';

const kindWords = { arrived: 'arrived with', drained: 'drained', added: 'added', measured: 'measured' } as const;
const kinds = (['arrived', 'drained', 'added', 'measured'] as const).map((value) => ({
  value,
  label: kindWords[value],
}));

/** What is in the tank: what came in it, went out, was added and measured. Each run keeps a copy of it. */
export function FuelLedger({ job }: { job: Job }) {
  const entries = entriesOf('jobs', job.id, 'fuel-entries');
  const state = fuelNow(job);
  const own = useOwnUnits();
  return (
    <section className={classes.section}>
      <h2 className="heading">Fuel</h2>
      {state ? (
        <>
          <p className={classes.figure} style={{ margin: 0 }} data-testid="fuel-now">
            {state.ethanolPct === null ? 'content not known' : `${round(state.ethanolPct)} % ethanol`}
            <span className="soft" style={{ fontWeight: 400 }}>
              {state.ethanolPct !== null && `, ${state.from}`}
              {state.litres !== null && ` · ${own.whole(state.litres, 'L')}`}
              {state.name && ` · ${state.name}`}
            </span>
          </p>
          {state.moving && (
            <p className={classes.quiet} role="status">
              The reading is still moving: lines and pump hold the old fuel. Two readings within 1 % settle it.
            </p>
          )}
          {state.ethanolPct !== null && job.car.ignition !== 'compression' && (
            <p className={classes.quiet}>
              Stoichiometric {stoichiometricRatio(state.ethanolPct).toFixed(1)} : 1
              {state.ethanolPct >= 1 &&
                ` · ${Math.round(100 * (volumeFactor(state.ethanolPct) - 1))} % more volume than petrol`}
            </p>
          )}
        </>
      ) : (
        <p className={classes.quiet}>Not recorded. What did it arrive with, measured or assumed, and how much?</p>
      )}
      {state && <OtherFuel job={job} state={state} />}
      <ul className={classes.list}>
        {job.fuelEntries.map((entry) => (
          <li key={entry.id} className={classes.entry}>
            <p>
              <span className="number soft">{dayjs(entry.at).format('HH:mm')}</span> {entryText(entry, own)}
            </p>
            <RemoveButton what={entryText(entry, own)} onRemove={() => void entries.remove('Fuel entry', entry.id)} />
          </li>
        ))}
      </ul>
      <FindingList>
        {ledgerFindings(
          job.fuelEntries.map((entry) => ({ ...entry, at: new Date(entry.at) })),
          job.car.tankLitres,
        ).map(({ severity, message }) => (
          <FindingLine key={own.write(message)} severity={severity}>
            {own.write(message)}
          </FindingLine>
        ))}
      </FindingList>
      <OpenedForm word="Write down fuel" open={job.fuelEntries.length === 0}>
        <NewEntry first={job.fuelEntries.length === 0} onAdd={entries.add} />
      </OpenedForm>
      {state && state.ethanolPct !== null && state.litres !== null && job.car.ignition !== 'compression' && (
        <BlendHelp tank={{ litres: state.litres, ethanolPct: state.ethanolPct }} tankLitres={job.car.tankLitres} />
      )}
    </section>
  );
}

const round = (value: number) => Math.round(value * 10) / 10;

function entryText({ kind, litres, ethanolPct, name, note }: FuelRecord, own: OwnUnits): string {
  const parts = [
    kindWords[kind],
    litres !== null && own.whole(litres, 'L'),
    kind === 'drained' && litres === null && 'all',
    name,
    ethanolPct !== null && `${ethanolPct} % ethanol`,
    note && `(${note})`,
  ];
  return parts.filter(Boolean).join(' ');
}

/** The tank holds something else than the last run had: that is a change of setup. */
function OtherFuel({ job, state }: { job: Job; state: FuelState }) {
  const newest = newestSetup(job.setups);
  const ranOn = job.runs.flatMap(({ setupId, label, fuel }) =>
    setupId === newest.id && typeof fuel?.ethanolPct === 'number' ? [{ label, ethanolPct: fuel.ethanolPct }] : [],
  );
  const last = ranOn.at(-1);
  const begin = useChange((change: string) =>
    api.addSetup(job.id, {
      parentId: newest.id,
      change,
      items: [{ kind: 'fuel', name: change.replace(/^fuel /, '') }],
    }),
  );
  const { ethanolPct } = state;
  if (!last || ethanolPct === null || Math.abs(ethanolPct - last.ethanolPct) < otherFuelPct) return null;
  return (
    <div className={classes.quiet} role="status">
      {last.label} ran on {round(last.ethanolPct)} %. Runs on this fuel belong to a setup of their own.{' '}
      <Button
        size="compact-md"
        variant="default"
        loading={begin.isPending}
        onClick={() => begin.mutate(`fuel E${Math.round(ethanolPct)}`)}
      >
        Begin it
      </Button>
    </div>
  );
}

function NewEntry({ first, onAdd }: { first: boolean; onAdd: (fields: object) => Promise<boolean> }) {
  const [kind, setKind] = useState<string>(first ? 'arrived' : 'measured');
  const [litres, setLitres] = useState('');
  const [ethanol, setEthanol] = useState('');
  const [name, setName] = useState('');
  const told = useOwnUnits().told('L');
  const typed = numberOf(litres);
  const [volume, content] = [typeof typed === 'number' ? told.kept(typed) : typed, numberOf(ethanol)];
  const usable =
    volume !== undefined &&
    content !== undefined &&
    (kind === 'measured' ? content !== null : kind === 'drained' || litres + ethanol + name !== '');
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        if (!usable) return;
        void onAdd({
          kind,
          at: new Date().toISOString(),
          litres: kind === 'measured' ? null : volume,
          ethanolPct: kind === 'drained' ? null : content,
          name: kind === 'measured' || kind === 'drained' ? '' : name.trim(),
          note: '',
        }).then((stored) => {
          if (!stored) return;
          setLitres('');
          setEthanol('');
          setName('');
          setKind('measured');
        });
      }}
    >
      <SegmentedControl
        aria-label="What happened"
        fullWidth
        mt={10}
        data={[...kinds]}
        value={kind}
        onChange={setKind}
      />
      <div className={classes.line}>
        {kind !== 'measured' && (
          <TextInput
            aria-label="Volume"
            placeholder={kind === 'drained' ? 'all' : ''}
            inputMode="decimal"
            value={litres}
            onChange={(event) => setLitres(event.currentTarget.value)}
            rightSection={<span className="soft">{told.unit}</span>}
            rightSectionWidth={told.unit.length > 1 ? 58 : undefined}
            error={volume === undefined}
          />
        )}
        {kind !== 'drained' && (
          <TextInput
            aria-label="Ethanol, percent by volume"
            inputMode="decimal"
            value={ethanol}
            onChange={(event) => setEthanol(event.currentTarget.value)}
            rightSection={<span className="soft">% eth.</span>}
            rightSectionWidth={54}
            error={content === undefined}
          />
        )}
        {(kind === 'arrived' || kind === 'added') && (
          <TextInput
            aria-label="Name of the fuel"
            placeholder="98 octane"
            value={name}
            onChange={(event) => setName(event.currentTarget.value)}
          />
        )}
        <Button type="submit" variant="default" disabled={!usable}>
          Write down
        </Button>
      </div>
    </form>
  );
}

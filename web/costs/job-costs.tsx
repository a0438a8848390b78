import { Button, Group, NumberInput, Select, TextInput } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import dayjs from 'dayjs';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Charge } from '../../contract/shop/charges.ts';
import type { Job } from '../../contract/job/records.ts';
import {
  chargesCsv,
  chargesText,
  gainFor100,
  moneyWords,
  proposals,
  quantityWords,
  sums,
  type ChargedJob,
  type Proposal,
} from '../../core/charges/charges.ts';
import { difference } from '../../core/sentence/sentence.ts';
import { useJobFigures } from '../job/use-job-figures.ts';
import { entriesOf } from '../state/entries.ts';
import { useHistory, usePrices } from '../state/queries.ts';
import { RemoveButton } from '../ui/remove-button.tsx';
import { saveFile } from '../ui/save-file.ts';
import { useOwnUnits } from '../units/use-own-units.tsx';
import word from '../ui/word-button.module.css';
import classes from './job-costs.module.css';

const dayOf = (moment: string) => dayjs(moment).format('YYYY-MM-DD');

/** What a job comes to: lines that its acts propose, put right by hand, and their sum for an invoice that is written elsewhere. */
export function JobCosts({ job }: { job: Job }) {
  const { data: prices } = usePrices();
  const { data: history } = useHistory(job.id);
  const charges = entriesOf('jobs', job.id, 'charges');
  const proposed = prices && history ? proposals(chargedJob(job, history), prices, dayOf) : [];
  const open = proposed.filter(
    ({ per, what }) => !job.charges.some((charge) => charge.per === per && charge.what === what),
  );
  const take = ({ from: _from, ...line }: Proposal) => void charges.add({ ...line, why: '', setupId: null });
  return (
    <section>
      <h2 className="heading">Time and costs</h2>
      {prices?.length === 0 && (
        <p className="soft">
          The shop has no <Link to="/prices">price list</Link> yet; lines can be written all the same.
        </p>
      )}
      <ul className={classes.lines}>
        {job.charges.map((charge) => (
          <Line
            key={charge.id}
            job={job}
            charge={charge}
            proposal={proposed.find(({ per, what }) => per === charge.per && what === charge.what)}
          />
        ))}
        {open.map((line) => (
          <li key={line.per} data-proposed>
            <span>
              {line.what}
              <small>{line.from}</small>
            </span>
            <span className="number">
              {quantityWords(line)} · {moneyWords(line.quantity * line.amount, line.currency)}
            </span>
            <Button variant="default" size="compact-sm" onClick={() => take(line)} aria-label={`Charge ${line.what}`}>
              Charge
            </Button>
          </li>
        ))}
      </ul>
      {sums(job.charges).map(({ amount, currency }) => (
        <p key={currency} className={classes.sum} data-testid="sum">
          Sum <b className="number">{moneyWords(amount, currency)}</b>
        </p>
      ))}
      <NewLine job={job} currency={prices?.[0]?.currency ?? job.charges[0]?.currency ?? '€'} />
      {job.charges.length > 0 && (
        <Group gap={8} mt={8}>
          <Button
            variant="default"
            size="sm"
            onClick={() =>
              void navigator.clipboard.writeText(chargesText(job.charges)).then(
                () => notifications.show({ message: 'The lines and their sum are copied.', autoClose: 2500 }),
                () => notifications.show({ message: 'The browser does not let them be copied.', color: 'red' }),
              )
            }
          >
            Copy as text
          </Button>
          <Button
            variant="default"
            size="sm"
            onClick={() => saveFile(`costs job ${job.id}.csv`, 'text/csv', chargesCsv(job.charges))}
          >
            Save as CSV
          </Button>
        </Group>
      )}
    </section>
  );
}

/** The acts that tell of a job's time and of what went into it. */
function chargedJob(
  job: Job,
  history: readonly { subject: string; at: string; before: object | null; after: Record<string, unknown> }[],
): ChargedJob {
  const letterOf = (id: number | null) => job.setups.find((setup) => setup.id === id)?.letter ?? '';
  return {
    id: job.id,
    runs: job.runs.flatMap(({ bay, label, setupId, startedAt, endedAt }) =>
      bay === null || label === null
        ? []
        : [{ jobId: job.id, letter: letterOf(setupId), label, bay, startedAt, endedAt }],
    ),
    states: history
      .filter(({ subject, before, after }) => subject === 'job' && before !== null && 'state' in after)
      .map(({ at, after }) => ({ jobId: job.id, at, state: after.state as Job['state'], why: '' }))
      .reverse(),
    workTimes: job.workTimes.map((time) => ({ ...time, jobId: job.id })),
    fuelAdded: job.fuelEntries.filter(({ kind }) => kind === 'added'),
    tuneFiles: job.tuneFiles.length,
  };
}

function Line({ job, charge, proposal }: { job: Job; charge: Charge; proposal: Proposal | undefined }) {
  const charges = entriesOf('jobs', job.id, 'charges');
  const [editing, setEditing] = useState(false);
  const differs = proposal !== undefined && Math.abs(proposal.quantity - charge.quantity) > 0.005;
  return (
    <li>
      <span>
        <button type="button" className={word.word} onClick={() => setEditing(!editing)} aria-expanded={editing}>
          {charge.what}
        </button>
        <small>
          {quantityWords(charge)} at {moneyWords(charge.amount, charge.currency)}
          {differs && ` · the acts tell ${quantityWords(proposal)}`}
          {charge.why && ` · ${charge.why}`}
        </small>
        {charge.setupId !== null && <GainForMoney job={job} charge={charge} />}
      </span>
      <span className="number">{moneyWords(charge.quantity * charge.amount, charge.currency)}</span>
      <RemoveButton what={charge.what} onRemove={() => void charges.remove('The line is', charge.id)} />
      {editing && (
        <form
          className={classes.edit}
          onSubmit={(event) => {
            event.preventDefault();
            const form = new FormData(event.currentTarget);
            const told = (name: string) => {
              const value = form.get(name);
              return typeof value === 'string' ? value : '';
            };
            void charges
              .change(charge.id, {
                quantity: Number(told('quantity')),
                amount: Number(told('amount')),
                why: told('why'),
              })
              .then((stored) => stored && setEditing(false));
          }}
        >
          <NumberInput
            name="quantity"
            label="Quantity"
            defaultValue={charge.quantity}
            decimalScale={2}
            data-autofocus
          />
          <NumberInput
            name="amount"
            label={`Price, ${charge.currency}`}
            defaultValue={charge.amount}
            min={0}
            decimalScale={2}
          />
          <TextInput
            name="why"
            label="Why"
            defaultValue={charge.why}
            placeholder="e.g. half an hour was ours"
            required={proposal !== undefined}
          />
          <Button type="submit" variant="default">
            Save
          </Button>
        </form>
      )}
    </li>
  );
}

/** What a part gained on the setup before it, and for 100 of its money; coloured only where the gain is shown. */
function GainForMoney({ job, charge }: { job: Job; charge: Charge }) {
  const { write } = useOwnUnits();
  const figures = useJobFigures(job, { testId: charge.setupId ?? undefined });
  const pair = figures?.setups.find(({ setupId }) => setupId === charge.setupId)?.onParent;
  const letter = job.setups.find(({ id }) => id === charge.setupId)?.letter ?? '';
  if (!pair) return <small>for {letter}: not measured against the setup before it</small>;
  const { difference: kw, halfWidth } = pair.difference;
  const each = gainFor100(kw, halfWidth, charge.quantity * charge.amount);
  const tone = pair.jobClaim === 'gain' || pair.jobClaim === 'loss' ? pair.jobClaim : undefined;
  return (
    <small>
      for {letter}: <span className={tone}>{write(difference(kw, halfWidth, 'kW', 1)).trim()}</span>
      {each && (
        <>
          , {write(difference(each.kw, each.halfWidthKw, 'kW', 1)).trim()} for 100 {charge.currency}
        </>
      )}
    </small>
  );
}

/** A line of one's own: a part, another work. */
function NewLine({ job, currency }: { job: Job; currency: string }) {
  const charges = entriesOf('jobs', job.id, 'charges');
  const [what, setWhat] = useState('');
  const [amount, setAmount] = useState<number | string>('');
  const [setupId, setSetupId] = useState<string | null>(null);
  return (
    <form
      className={classes.new}
      onSubmit={(event) => {
        event.preventDefault();
        void charges
          .add({
            what: what.trim(),
            per: 'piece',
            quantity: 1,
            amount: Number(amount),
            currency,
            why: '',
            setupId: setupId === null ? null : Number(setupId),
          })
          .then((stored) => {
            if (!stored) return;
            setWhat('');
            setAmount('');
          });
      }}
    >
      <TextInput
        label="Part or work"
        placeholder="e.g. pulley, 68 mm"
        value={what}
        onChange={(event) => setWhat(event.currentTarget.value)}
      />
      <NumberInput label={`Price, ${currency}`} min={0} decimalScale={2} value={amount} onChange={setAmount} />
      <Select
        label="Of setup"
        placeholder="none"
        clearable
        data={job.setups.map(({ id, letter }) => ({ value: String(id), label: letter }))}
        value={setupId}
        onChange={setSetupId}
      />
      <Button type="submit" variant="default" disabled={what.trim() === '' || amount === ''}>
        Add
      </Button>
    </form>
  );
}

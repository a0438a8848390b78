import { Button, NativeSelect, NumberInput, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { chargedPer, type Price } from '../../../contract/shop/charges.ts';
import { moneyWords } from '../../../core/charges/charges.ts';
import { usePrices } from '../../state/queries.ts';
import { entriesOfShop } from '../../state/entries.ts';
import { RemoveButton } from '../../ui/remove-button.tsx';
import { NotFetched } from '../../ui/not-fetched.tsx';
import page from '../../ui/page.module.css';
import classes from './prices-page.module.css';

/** What the shop asks for its work. */
export function PricesPage() {
  const { data, error, refetch } = usePrices();
  return (
    <main className={page.page}>
      <h1>Prices</h1>
      <p className="soft">
        What an hour on the dyno, an hour of work, a litre, a tune file or a piece is asked for. A job proposes its
        lines by them; a line that was charged keeps its own price.
      </p>
      <NotFetched error={error} tryAgain={refetch} />
      {data?.length === 0 && <p className="soft">No price yet.</p>}
      <ul className={classes.list}>
        {data?.map((price) => (
          <Row key={price.id} price={price} />
        ))}
      </ul>
      <NewPrice currency={data?.at(-1)?.currency ?? '€'} />
    </main>
  );
}

function Row({ price: { id, name, per, amount, currency } }: { price: Price }) {
  const prices = entriesOfShop('prices');
  return (
    <li>
      <b>{name}</b>
      <span className="soft">for one {per}</span>
      <NumberInput
        aria-label={`${name}, price`}
        defaultValue={amount}
        min={0}
        decimalScale={2}
        suffix={` ${currency}`}
        onBlur={(event) => {
          const told = Number.parseFloat(event.currentTarget.value.replaceAll(',', ''));
          if (Number.isFinite(told) && told !== amount) void prices.change(id, { amount: told });
        }}
      />
      <RemoveButton
        what={`${name}, ${moneyWords(amount, currency)}`}
        onRemove={() => void prices.remove('The price is', id)}
      />
    </li>
  );
}

function NewPrice({ currency }: { currency: string }) {
  const prices = entriesOfShop('prices');
  const form = useForm({
    initialValues: { name: '', per: 'dyno hour', amount: '' as number | '', currency },
    validate: {
      name: (name) => (name.trim() ? null : 'Name what it is asked for'),
      amount: (amount) => (amount === '' ? 'Say how much' : null),
      currency: (money) => (money.trim() ? null : 'Name the currency'),
    },
  });
  return (
    <form
      className={classes.new}
      onSubmit={form.onSubmit(async (fields) => {
        if (await prices.add(fields)) form.setValues({ name: '', amount: '' });
      })}
    >
      <TextInput label="Name" placeholder="e.g. loaded roller" {...form.getInputProps('name')} />
      <NativeSelect label="For one" data={[...chargedPer]} {...form.getInputProps('per')} />
      <NumberInput label="Price" min={0} decimalScale={2} {...form.getInputProps('amount')} />
      <TextInput label="Currency" maxLength={8} {...form.getInputProps('currency')} />
      <Button type="submit">Add</Button>
    </form>
  );
}

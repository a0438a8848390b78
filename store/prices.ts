import { price, type Price } from '../contract/shop/charges.ts';
import type { Queryable } from './database.ts';
import { recordOf } from './rows.ts';

/** The price list, in its order of entry. */
export async function priceList(database: Queryable): Promise<Price[]> {
  const { rows } = await database.query(
    'select id, revision, name, per, amount::float8, currency from price where removed_at is null order by id',
  );
  return rows.map((row) => recordOf(price, row));
}

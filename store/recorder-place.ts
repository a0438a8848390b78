import type { Queryable } from './database.ts';

/** A recorder's place in the database, and for which term: what is written under an earlier one is refused. */
export interface RecorderPlace {
  recorder: string;
  term: number;
}

/** The place has been taken by another process. */
export class PlaceLost extends Error {
  constructor() {
    super('another recorder has taken this place');
  }
}

/** Takes a recorder's place: whoever had it loses it. */
export async function takePlace(database: Queryable, recorder: string): Promise<RecorderPlace> {
  const { rows } = await database.query<{ term: number }>(
    `insert into recorder (id) values ($1)
     on conflict (id) do update set term = recorder.term + 1, taken_at = now() returning term`,
    [recorder],
  );
  return { recorder, term: rows[0]?.term ?? 0 };
}

/** Makes sure of a place, until the end of the transaction. @throws PlaceLost */
export async function mustHold(client: Queryable, { recorder, term }: RecorderPlace): Promise<void> {
  const { rowCount } = await client.query('select from recorder where id = $1 and term = $2 for share', [recorder, term]); // prettier-ignore
  if (rowCount === 0) throw new PlaceLost();
}

import type { Queryable } from './database.ts';
import { databaseIdentity } from './database-identity.ts';

/** A recorder's place in a database, and for which term: what is written under an earlier one, or for another database, is refused. */
export interface RecorderPlace {
  recorder: string;
  term: number;
  database: string;
}

/** The place has been taken by another process. */
export class PlaceLost extends Error {
  constructor() {
    super('another recorder has taken this place');
  }
}

/** The database is another one than the place was taken in: it was restored, or begun anew. */
export class OtherDatabase extends Error {
  constructor() {
    super('the database is another one than before');
  }
}

/** Takes a recorder's place: whoever had it loses it. */
export async function takePlace(database: Queryable, recorder: string): Promise<RecorderPlace> {
  const { rows } = await database.query<{ term: number }>(
    `insert into recorder (id) values ($1)
     on conflict (id) do update set term = recorder.term + 1, taken_at = now() returning term`,
    [recorder],
  );
  return { recorder, term: rows[0]?.term ?? 0, database: await databaseIdentity(database) };
}

/** Makes sure of a place, until the end of the transaction. @throws PlaceLost, OtherDatabase */
export async function mustHold(client: Queryable, { recorder, term, database }: RecorderPlace): Promise<void> {
  const { rowCount } = await client.query(
    `select from recorder, database_identity
     where recorder.id = $1 and term = $2 and database_identity.id = $3 for share of recorder`,
    [recorder, term, database],
  );
  if (rowCount !== 0) return;
  throw (await databaseIdentity(client)) === database ? new PlaceLost() : new OtherDatabase();
}

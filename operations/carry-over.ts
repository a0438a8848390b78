import { connected, type Queryable } from '../store/database/database.ts';
import { takenBackLinks, takeLinksBack } from '../store/reports/shared-links.ts';

/** The sequences of the schema, each with what it gave out last; null where that was nothing. */
async function sequencesOf(client: Queryable): Promise<Map<string, bigint | null>> {
  const { rows } = await client.query<{ name: string; last: string | null }>(
    `select format('%I.%I', schemaname, sequencename) as name, last_value::text as last
     from pg_sequences where schemaname = 'public'`,
  );
  return new Map(rows.map(({ name, last }) => [name, last === null ? null : BigInt(last)]));
}

/** Makes a database another one than the one that it was made of. Data of before databases had an identity get theirs at the next start. */
export async function renewIdentity(client: Queryable): Promise<void> {
  const { rows } = await client.query<{ there: boolean }>(
    `select to_regclass('database_identity') is not null as there`,
  );
  if (rows[0]?.there) await client.query('update database_identity set id = gen_random_uuid()');
}

/**
 * Carries over what a restore must not take back: numbers that were given out, and links that were taken back.
 * @param from address of the data that are replaced @param to of those that replace them
 * @throws where the former cannot be read
 */
export async function carryOver(from: string, to: string): Promise<void> {
  const [sequences, links] = await connected(
    from,
    async (client) => [await sequencesOf(client), await takenBackLinks(client)] as const,
  );
  await connected(to, async (client) => {
    for (const [name, own] of await sequencesOf(client)) {
      const last = sequences.get(name) ?? 0n;
      if (last > (own ?? 0n)) await client.query('select setval($1::regclass, $2::bigint)', [name, String(last)]);
    }
    // A backup of before there were links has no table of them.
    if (links.length > 0) await takeLinksBack(client, links);
  });
}

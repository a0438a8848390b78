import type { Queryable } from '../store/database.ts';
import { connected } from '../store/database.ts';
import { takenBackLinks, takeLinksBack } from '../store/shared-links.ts';

interface Sequence {
  name: string;
  last: string;
}

/** Sequences of the schema that have given something out. */
async function sequencesOf(client: Queryable): Promise<Sequence[]> {
  const { rows } = await client.query<Sequence>(
    `select format('%I.%I', schemaname, sequencename) as name, last_value::text as last
     from pg_sequences where schemaname = 'public' and last_value is not null order by 1`,
  );
  return rows;
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
  const [sequences, links] = await connected(from, async (client) => [
    await sequencesOf(client),
    await takenBackLinks(client),
  ] as const); // prettier-ignore
  await connected(to, async (client) => {
    const own = new Map((await sequencesOf(client)).map(({ name, last }) => [name, BigInt(last)]));
    const { rows } = await client.query<{ name: string }>(
      `select format('%I.%I', schemaname, sequencename) as name from pg_sequences where schemaname = 'public'`,
    );
    const there = new Set(rows.map(({ name }) => name));
    for (const { name, last } of sequences)
      if (there.has(name) && BigInt(last) > (own.get(name) ?? 0n))
        await client.query('select setval($1::regclass, $2::bigint)', [name, last]);
    // A backup of before there were links has no table of them.
    if (links.length > 0) await takeLinksBack(client, links);
  });
}

import { randomBytes } from 'node:crypto';
import pg from 'pg';
import { connected } from '../store/database/database.ts';
import { migrate } from '../store/database/migrate.ts';
import { ensureRole, giveTo, letWork } from '../store/database/roles.ts';
import type { Cluster } from './postgres.ts';

/** The same database, as its owner and as the application reach it. */
export interface DatabaseAddresses {
  owner: string;
  application: string;
}

/** The application's role in the embedded database. */
const applicationRole = 'suvok_application';
const ownerRole = 'suvok_owner';

/**
 * Makes sure of both roles in the embedded database, neither of them an
 * administrator. Their passwords are new at every start and are written nowhere.
 */
export async function embeddedRoles(cluster: Cluster, database: string): Promise<DatabaseAddresses> {
  const newPassword = () => randomBytes(24).toString('base64url');
  const roles = {
    owner: { role: ownerRole, password: newPassword() },
    application: { role: applicationRole, password: newPassword() },
  };
  await connected(cluster.url(database), async (client) => {
    for (const { role, password } of Object.values(roles)) await ensureRole(client, role, password);
    await giveTo(client, ownerRole);
    await client.query(`alter database ${pg.escapeIdentifier(database)} owner to ${ownerRole}`);
  });
  return { owner: cluster.url(database, roles.owner), application: cluster.url(database, roles.application) };
}

/** Brings the schema up to date as its owner, and lets the application work in it. @throws Refusal, as `migrate` does */
export async function upToDate({ owner, application }: DatabaseAddresses): Promise<void> {
  await migrate(owner);
  const role = decodeURIComponent(new URL(application).username);
  if (role === decodeURIComponent(new URL(owner).username)) return;
  await connected(owner, (client) => letWork(client, role));
}

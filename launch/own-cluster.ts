import { chmodSync } from 'node:fs';
import { join } from 'node:path';
import { databaseAccount } from './account.ts';
import { startCluster, type Cluster } from './postgres.ts';
import { postgresPrograms } from './postgres-programs.ts';

/**
 * A PostgreSQL for what is tried or measured, in a folder that goes with it.
 * @param say told what is done where PostgreSQL has to be installed first
 * @param forTests gives up safety against power cuts for speed
 */
export async function ownCluster(
  folder: string,
  { say = () => undefined, forTests = false }: { say?: (text: string) => void; forTests?: boolean } = {},
): Promise<Cluster> {
  const programs = await postgresPrograms(say);
  // The database's account reaches its own folder through this one.
  chmodSync(folder, 0o711);
  return startCluster({ programs, folder: join(folder, 'postgresql'), account: databaseAccount(), forTests });
}

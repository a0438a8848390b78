import { spawn } from 'node:child_process';
import { existsSync, realpathSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { Failure } from '../launch/failure.ts';

/** Where a program stands: beside the server's, or beside what that is a link to. */
function programAt(programs: string, tool: string): string {
  const beside = join(programs, tool);
  return existsSync(beside) ? beside : join(dirname(realpathSync(join(programs, 'postgres'))), tool);
}

/**
 * Runs one of PostgreSQL's programs against a database. The password goes by the environment: words of a command are seen by everybody.
 * @throws Failure with what it said last
 */
export async function postgresTool(
  programs: string,
  tool: string,
  url: string,
  words: readonly string[],
): Promise<void> {
  const { hostname, port, username, password, pathname } = new URL(url);
  const child = spawn(programAt(programs, tool), words, {
    env: {
      ...process.env,
      PGHOST: hostname,
      PGPORT: port || '5432',
      PGUSER: decodeURIComponent(username),
      PGPASSWORD: decodeURIComponent(password),
      PGDATABASE: decodeURIComponent(pathname.slice(1)),
    },
    stdio: ['ignore', 'ignore', 'pipe'],
  });
  let said = '';
  child.stderr.on('data', (text: Buffer) => (said = (said + text.toString()).slice(-4000)));
  const code = await new Promise<number | null>((resolve, reject) => {
    child.once('error', reject);
    child.once('close', resolve);
  });
  if (code !== 0) throw new Failure(`${tool} did not do it: ${said.trim().split('\n').at(-1) ?? 'it gave no reason'}`);
}

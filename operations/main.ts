import { basename, join, resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { Failure } from '../launch/failure.ts';
import { accountCommand } from './account.ts';
import { makeBackup, thinOut } from './backup.ts';
import { reachDatabase, type ReachedDatabase } from './reached-database.ts';
import { restoreBackup, verifyBackup } from './restore.ts';

const usage = `suvok backup [--to FOLDER]
  A backup of one moment, beside a running Suvok or without it; into "backups" of the data folder where none is given.
suvok verify FILE
  Restores a backup into a scratch database and compares counts, every sample and figures with what went in.
suvok restore FILE
  With Suvok stopped: puts a backup in the place of the data. What was there is kept under another name.
suvok account list
suvok account add NAME owner|operator|viewer
suvok account password NAME
  On the machine itself: who may sign in, another account, or a new password for one that is lost. The password is
  made by chance and shown once; all sessions of that account end.`;

const say = (text: string) => process.stdout.write(`${text}\n`);
const megabytes = (bytes: number) => `${(bytes / 2 ** 20).toFixed(1)} MB`;

async function run(command: string | undefined, words: string[]): Promise<void> {
  const { values, positionals } = parseArgs({
    args: words,
    allowPositionals: true,
    options: { to: { type: 'string' }, kind: { type: 'string', default: 'asked' }, help: { type: 'boolean' } },
  });
  if (values.help) return void say(usage);
  const [file, ...more] = positionals;
  switch (command) {
    case 'backup':
      return withDatabase((database) => backup(database, values.to, values.kind));
    case 'verify':
      return withDatabase(async (database) => {
        const path = named(file);
        await verifyBackup(path, database);
        say(`${basename(path)} gives back all that went in: every row, every sample, the same figures`);
      });
    case 'restore':
      return withDatabase(async (database) => {
        const path = named(file);
        const { before, notCarried } = await restoreBackup(path, database);
        say(`${basename(path)} is in place. What was there before is kept in the database ${before}`);
        if (notCarried) say(notCarried);
      });
    case 'account':
      return withDatabase((database) => accountCommand(database.url, [file, ...more], say));
    default:
      throw new Failure(`There is no command "${command ?? ''}". ${usage}`);
  }
}

async function backup(database: ReachedDatabase, to: string | undefined, kind: string): Promise<void> {
  const folder = resolve(to ?? join(database.folder, 'backups'));
  const made = await makeBackup(database, folder, kind === 'daily' || kind === 'upgrade' ? kind : 'asked');
  const gone = kind === 'daily' ? await thinOut(folder) : 0;
  say(
    `${made.file} (${megabytes(made.note.bytes)}), ${made.note.holds.counts.run ?? 0} runs${gone > 0 ? `; ${gone} older daily ones were removed` : ''}`,
  );
}

function named(file: string | undefined): string {
  if (file === undefined) throw new Failure(`Name the backup's file. ${usage}`);
  return resolve(file);
}

async function withDatabase(work: (database: ReachedDatabase) => Promise<void>): Promise<void> {
  const database = await reachDatabase();
  try {
    await work(database);
  } finally {
    await database.leave();
  }
}

try {
  const [command, ...words] = process.argv.slice(2);
  await run(command, words);
  process.exit(0);
} catch (error) {
  const sentence = error instanceof Failure ? error.message : `it could not be done: ${(error as Error).message}`;
  process.stderr.write(`suvok: ${sentence}\n`);
  process.exit(1);
}

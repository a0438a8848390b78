import type pg from 'pg';
import type { Run } from '../../contract/records.ts';
import type { Log } from '../../recorder/log.ts';
import { withClient, type Database } from './database.ts';
import { runById } from './runs.ts';
import { sealRun } from './samples.ts';

/** First key of the advisory locks that say which recorders are alive. */
const lockSpace = 731_000;

/** How long to wait before a lost lock is taken again, ms. */
const retakeMs = 500;

/**
 * Tells other processes that this recorder lives: an advisory lock on a
 * connection of its own, which PostgreSQL lets go of when the process dies. A
 * lock that is lost with its connection is taken again as soon as the database answers.
 */
export class RecorderLock {
  private client: pg.PoolClient | undefined;
  private released = false;
  private again: NodeJS.Timeout | undefined;

  private constructor(
    private readonly database: Database,
    private readonly recorderId: number,
    private readonly log: Log,
  ) {}

  static async hold(database: Database, recorderId: number, log: Log): Promise<RecorderLock> {
    const lock = new RecorderLock(database, recorderId, log);
    await lock.take();
    return lock;
  }

  get held(): boolean {
    return this.client !== undefined;
  }

  /** Lets go of it, and gives its connection back whole: one that is torn away is told to the log. */
  async release(): Promise<void> {
    this.released = true;
    clearTimeout(this.again);
    const { client } = this;
    this.client = undefined;
    await client?.query('select pg_advisory_unlock_all()').then(
      () => client.release(),
      (error: Error) => client.release(error),
    );
  }

  private async take(): Promise<void> {
    const client = await this.database.connect();
    const lost = (error: Error) => {
      if (this.client !== client) return;
      this.client = undefined;
      client.release(error);
      this.log.error({ err: error }, 'the recorder lost its lock; it is taken again');
      this.retake();
    };
    client.on('error', lost);
    try {
      await client.query('select pg_advisory_lock($1, $2)', [lockSpace, this.recorderId]);
    } catch (error) {
      client.release(true);
      throw error;
    }
    // Asked to let go while it was waiting.
    if (this.released) client.release(true);
    else this.client = client;
  }

  private retake(): void {
    if (this.released) return;
    this.again = setTimeout(() => {
      this.take().then(
        () => this.log.info({ recorderId: this.recorderId }, 'the recorder holds its lock again'),
        () => this.retake(),
      );
    }, retakeMs);
  }
}

/**
 * Seals the runs that a recorder left open when it died, with everything it
 * had stored, and marks them interrupted.
 * @returns the runs
 */
export async function sealOrphans(database: Database): Promise<Run[]> {
  const { rows } = await database.query<{ id: number; recorder_id: number | null }>(
    `select id, recorder_id from run where state = 'recording'`,
  );
  const sealed: Run[] = [];
  for (const { id, recorder_id } of rows) {
    if (recorder_id !== null && (await isAlive(database, recorder_id))) continue;
    const run = await runById(database, id);
    if (!run) continue;
    await sealRun(database, run, 'interrupted', [
      'The server stopped during this run. Everything stored until then was kept.',
    ]);
    sealed.push(run);
  }
  return sealed;
}

async function isAlive(database: Database, recorderId: number): Promise<boolean> {
  return withClient(database, async (client) => {
    const { rows } = await client.query('select pg_try_advisory_lock($1, $2) as free', [lockSpace, recorderId]);
    if (!rows[0].free) return true;
    await client.query('select pg_advisory_unlock($1, $2)', [lockSpace, recorderId]);
    return false;
  });
}

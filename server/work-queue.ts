import PgBoss from 'pg-boss';
import type { Log } from '../contract/values/service-log.ts';
import { holdingLock, type Database } from '../store/database/database.ts';

/** Kinds of long work, each a queue of the database that a migration made. */
export type WorkKind = 'run-powers' | 'job-headlines';

/** How often a server looks for something, s. */
export interface QueuePace {
  /** Where it is free: for work. */
  lookS: number;
  /** For work that nobody holds any more, to give it to another one. */
  tendS: number;
}
const usualPace: QueuePace = { lookS: 4, tendS: 3 };
/** How often the queue itself looks after work that takes longer than it may, s. */
const maintainS = 30;
/** Work that was taken so lately may not hold its lock yet, s. */
const takenS = 2;
/** What is at hand may take so long to end when a server stops, ms. */
const endMs = 10_000;

/** PostgreSQL's word for a second piece of work of a kind at a time. */
const uniqueViolation = '23505';

const lockOf = (kind: WorkKind) => `suvok work ${kind}`;

/**
 * Long work of all servers on a database: asked for once, however many ask,
 * done by whichever server is free, and done by another one where that dies.
 * While the database is away nothing is done, and nothing is lost.
 */
export class WorkQueue {
  private readonly boss: PgBoss;
  private tending: NodeJS.Timeout | undefined;
  private readonly kinds: WorkKind[] = [];
  private away = false;
  private readonly stopping = new AbortController();

  constructor(
    private readonly database: Database,
    private readonly log: Log,
    private readonly pace = usualPace,
  ) {
    const executeSql = async (text: string, values: unknown[]) => {
      try {
        const answer = await database.query(text, values);
        this.away = false;
        return answer;
      } catch (error) {
        // A last look that was under way when the server stopped finds nothing.
        if (this.stopping.signal.aborted) return { rows: [] };
        this.tellOnce(error);
        throw error;
      }
    };
    // The schema is a migration's, made by its owner; nothing is done by the clock of the queue itself.
    this.boss = new PgBoss({
      db: { executeSql },
      schema: 'pgboss',
      migrate: false,
      schedule: false,
      maintenanceIntervalSeconds: Math.min(maintainS, 10 * pace.tendS),
      deleteAfterDays: 7,
    });
    this.boss.on('error', (error) => this.tellOnce(error));
  }

  async start(): Promise<void> {
    await this.boss.start();
    this.tending = setInterval(() => void this.tend(), 1000 * this.pace.tendS);
    this.tending.unref();
  }

  /**
   * Does work of a kind when there is some. While it is done its lock is held: one that is free beside active work
   * tells that whoever was at it has died.
   * @param does is given a signal that says that the server stops: what is not done by then stays to be done
   */
  async work(kind: WorkKind, does: (signal: AbortSignal) => Promise<void>): Promise<void> {
    this.kinds.push(kind);
    await this.boss.work(kind, { pollingIntervalSeconds: this.pace.lookS }, async () => {
      try {
        await holdingLock(this.database, lockOf(kind), () => does(this.stopping.signal));
      } catch (error) {
        this.log.warn({ err: error, kind }, 'work of the queue failed; it is tried again');
        throw error;
      }
    });
  }

  /** Asks for work of a kind; where it waits already, that is enough. Never rejects. */
  async ask(kind: WorkKind): Promise<void> {
    await this.boss.send(kind, {}).catch((error: Error) => this.tellOnce(error));
  }

  /** Ends what this server does, within a while. */
  async stop(): Promise<void> {
    this.stopping.abort();
    clearInterval(this.tending);
    await this.boss.stop({ graceful: true, wait: true, timeout: endMs }).catch((error: Error) => this.tellOnce(error));
  }

  /** Asks anew for work whose server has died: nobody holds its lock. Never rejects. */
  private async tend(): Promise<void> {
    try {
      for (const kind of this.kinds) {
        const { rowCount } = await this.database.query(
          `select from pgboss.job where name = $1 and state = 'active' and started_on < now() - $2 * interval '1 s'`,
          [kind, takenS],
        );
        if (rowCount === 0) continue;
        await holdingLock(this.database, lockOf(kind), async () => {
          await this.database.query(`delete from pgboss.job where name = $1 and state = 'active'`, [kind]);
          await this.ask(kind);
          this.log.warn({ kind }, 'whoever did this work has died; it is done again');
        });
      }
    } catch (error) {
      if (!this.stopping.signal.aborted) this.tellOnce(error);
    }
  }

  /** A database that is away is told of once, not at every look. */
  private tellOnce(error: unknown): void {
    // Somebody is at work of that kind, and the next piece waits until it is done.
    if ((error as { code?: string }).code === uniqueViolation) return;
    if (!this.away) this.log.warn({ err: error }, 'the queue of long work cannot be reached; it is looked at again');
    this.away = true;
  }
}

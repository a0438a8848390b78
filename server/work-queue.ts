import PgBoss from 'pg-boss';
import type { Log } from '../contract/log.ts';
import type { Database } from '../store/database.ts';

/** Kinds of long work, each a queue of the database that a migration made. */
export type WorkKind = 'run-powers' | 'job-headlines';

/** How often a server looks for something, s. */
export interface QueuePace {
  /** Where it is free: for work. */
  lookS: number;
  /** For work whose server died, to give it to another one. */
  tendS: number;
}
const usualPace: QueuePace = { lookS: 5, tendS: 30 };
/** What is at hand may take so long to end when a server stops, ms. */
const endMs = 10_000;

/**
 * Long work of all servers on a database: asked for once, however many ask,
 * done by whichever server is free, and done by another one where that dies.
 * While the database is away nothing is done, and nothing is lost.
 */
export class WorkQueue {
  private readonly boss: PgBoss;
  private away = false;
  private readonly stopping = new AbortController();

  constructor(
    database: Database,
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
    this.boss = new PgBoss({ db: { executeSql }, schema: 'pgboss', migrate: false, schedule: false, maintenanceIntervalSeconds: pace.tendS, deleteAfterDays: 7 }); // prettier-ignore
    this.boss.on('error', (error) => this.tellOnce(error));
  }

  async start(): Promise<void> {
    await this.boss.start();
  }

  /**
   * Does work of a kind when there is some.
   * @param does is given a signal that says that the server stops: what is not done by then stays to be done
   */
  async work(kind: WorkKind, does: (signal: AbortSignal) => Promise<void>): Promise<void> {
    await this.boss.work(kind, { pollingIntervalSeconds: this.pace.lookS }, async () => {
      try {
        await does(this.stopping.signal);
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
    await this.boss.stop({ graceful: true, wait: true, timeout: endMs }).catch((error: Error) => this.tellOnce(error));
  }

  /** A database that is away is told of once, not at every look. */
  private tellOnce(error: unknown): void {
    if (!this.away) this.log.warn({ err: error }, 'the queue of long work cannot be reached; it is looked at again');
    this.away = true;
  }
}

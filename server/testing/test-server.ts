import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { silentLog, type Log } from '../../contract/values/service-log.ts';
import type { BayState } from '../../contract/bays/live.ts';
import type { Job, Run } from '../../contract/job/records.ts';
import { linesPlace, socketPlace } from '../../recorder/local-link/socket-place.ts';
import { Lines } from '../../instrument/lines.ts';
import { startRecorder, type RecorderSettings, type RunningRecorder } from '../../recorder/start-recorder.ts';
import { connected } from '../../store/database/database.ts';
import { migrate } from '../../store/database/migrate.ts';
import { asApplication, freshDatabase } from '../../store/testing/test-database.ts';
import { startServer, type RunningServer, type ServerSettings } from '../server.ts';

/** Starts a recorder, a server and what takes lines of instruments in this process, as they stand beside each other anywhere: neither owns the database. @param ownerUrl its owner's address */
export async function startHere(
  ownerUrl: string,
  log: Log,
  over: Partial<RecorderSettings & ServerSettings> = {},
): Promise<{ recorder: RunningRecorder; server: RunningServer; lines: Lines }> {
  const folder = over.folder ?? mkdtempSync(join(tmpdir(), 'suvok-recorder-'));
  // As a launcher does: the two would only wait for it.
  await migrate(ownerUrl);
  const databaseUrl = await asApplication(ownerUrl);
  const recorder = await startRecorder({ databaseUrl, folder, benchLinkPort: 0, floorBytes: 0, log, ...over });
  const server = await startServer({ databaseUrl, port: 0, recorder: socketPlace(folder), log, ...over });
  return { recorder, server, lines: new Lines(linesPlace(folder)) };
}

/** A whole Suvok, recorder and server, on a fresh database and in a fresh folder, and the few requests that most tests make. */
export class TestServer {
  private constructor(
    readonly running: { port: number; benchLinkPort: number; database: RunningServer['database'] },
    readonly recorder: RunningRecorder,
    /** The recorder's own. */
    readonly folder: string,
    private readonly beside: { server: RunningServer; lines: Lines },
    readonly databaseUrl: string,
    private readonly drop: () => Promise<void>,
    readonly errors: unknown[],
  ) {}

  static async start(over: Partial<ServerSettings> = {}): Promise<TestServer> {
    const database = await freshDatabase();
    const errors: unknown[] = [];
    const log = { ...silentLog, error: (fields: object) => errors.push((fields as { err?: unknown }).err ?? fields) };
    const folder = mkdtempSync(join(tmpdir(), 'suvok-recorder-'));
    const { recorder, server, lines } = await startHere(database.url, log, { folder, ...over });
    const running = { port: server.port, benchLinkPort: recorder.benchLinkPort, database: server.database };
    return new TestServer(running, recorder, folder, { server, lines }, database.url, database.drop, errors);
  }

  async stop(): Promise<void> {
    await this.beside.server.close();
    this.beside.lines.close();
    await this.recorder.close();
    const own = this.errors.length;
    await this.drop();
    // Connections that were still closing are torn away with the database: no mistake of the server's.
    this.errors.length = own;
  }

  /** One statement as the database's owner: the server's own role may not do everything. */
  async asOwner(sql: string): Promise<unknown[]> {
    return (await connected(this.databaseUrl, (client) => client.query(sql))).rows;
  }

  get origin(): string {
    return `http://127.0.0.1:${this.running.port}`;
  }

  async request(method: string, path: string, body?: unknown): Promise<Response> {
    return fetch(this.origin + path, {
      method,
      ...(body === undefined ? {} : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
    });
  }

  async json<T>(method: string, path: string, body?: unknown): Promise<T> {
    const response = await this.request(method, path, body);
    const content = (await response.json()) as T;
    if (!response.ok) throw new Error(`${method} ${path}: ${response.status} ${JSON.stringify(content)}`);
    return content;
  }

  newJob(vehicle = 'Test car'): Promise<Job> {
    return this.json<Job>('POST', '/api/jobs', { vehicle });
  }

  async mount(job: Job, setupId = job.setups[0]!.id): Promise<void> {
    await this.json('PUT', '/api/bays/1/mounted', { jobId: job.id, setupId });
  }

  bay(): Promise<BayState> {
    return this.json<BayState>('GET', '/api/bays/1');
  }

  async runs(job: Job): Promise<Run[]> {
    return (await this.json<Job>('GET', `/api/jobs/${job.id}`)).runs;
  }
}

/** Waits until a question has an answer. @throws after two minutes, with what was waited for */
export async function eventually<T>(
  what: string,
  ask: () => Promise<T | undefined | false> | T | undefined | false,
): Promise<T> {
  const deadline = Date.now() + 120_000;
  for (;;) {
    const answer = await ask();
    if (answer !== undefined && answer !== false) return answer;
    if (Date.now() > deadline) throw new Error(`waited in vain for ${what}`);
    await new Promise((resolve) => setTimeout(resolve, 25));
  }
}

import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { spawn, type ChildProcess } from 'node:child_process';
import { silentLog } from '../../contract/values/service-log.ts';
import { openDatabase, type Database } from '../../store/database/database.ts';
import { migrate } from '../../store/database/migrate.ts';
import { freshDatabase } from '../../store/testing/test-database.ts';

/** A recorder as a process of its own, to be killed and started again on the same port and folder. */
export class KillableRecorder {
  readonly folder = mkdtempSync(join(tmpdir(), 'suvok-recorder-'));
  benchLinkPort = 0;
  private child: ChildProcess | undefined;

  constructor(private readonly databaseUrl: string) {}

  /** Memory that it holds, MB. */
  get memoryMb(): number {
    return Number(/VmRSS:\s+(\d+) kB/.exec(readFileSync(`/proc/${this.child?.pid}/status`, 'utf8'))?.[1]) / 1024;
  }

  async start(): Promise<void> {
    const child = spawn(process.execPath, ['launch/run.cjs', 'recorder/main.ts'], {
      env: {
        ...process.env,
        NODE_OPTIONS: '',
        DATABASE_URL: this.databaseUrl,
        BENCH_LINK_PORT: String(this.benchLinkPort),
        SUVOK_RECORDER: this.folder,
        SUVOK_FREE_MB: '0',
        SUVOK_LOG: join(this.folder, 'log'),
      },
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    this.child = child;
    const line = await new Promise<string>((resolve, reject) => {
      child.stdout.once('data', (text: Buffer) => resolve(text.toString()));
      child.once('close', () => reject(new Error('the recorder did not start')));
    });
    this.benchLinkPort = (JSON.parse(line) as { benchLinkPort: number }).benchLinkPort;
  }

  kill(signal: 'SIGKILL' | 'SIGTERM' = 'SIGKILL'): Promise<void> {
    const { child } = this;
    if (!child || child.exitCode !== null || child.signalCode !== null) return Promise.resolve();
    const ended = new Promise<void>((resolve) => child.once('close', () => resolve()));
    child.kill(signal);
    return ended;
  }
}

/** A database of its own with a recorder to be killed. */
export class KillBench {
  private constructor(
    readonly url: string,
    readonly database: Database,
    readonly recorder: KillableRecorder,
    private readonly drop: () => Promise<void>,
  ) {}

  static async start(): Promise<KillBench> {
    const { url, drop } = await freshDatabase();
    await migrate(url);
    const recorder = new KillableRecorder(url);
    await recorder.start();
    return new KillBench(url, openDatabase(url, silentLog), recorder, drop);
  }

  async stop(): Promise<void> {
    await this.recorder.kill('SIGTERM');
    await this.database.end();
    await this.drop();
  }
}

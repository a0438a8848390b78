import { goTo } from './go-to.ts';
import { expect, type Page } from '@playwright/test';
import type { ChildProcess } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { BaysState } from '../contract/bays/live.ts';
import type { Outside } from '../contract/people/people.ts';
import type { Job, Run } from '../contract/job/records.ts';
import { webFolder } from '../launch/build-web.ts';
import { startProgram, stopProgram } from '../launch/program.ts';
import { startSuvok } from '../launch/suvok-programs.ts';
import { silentLog } from '../contract/values/service-log.ts';
import { startHere } from '../server/testing/test-server.ts';
import { Bench, type BenchSettings } from '../simulator/bench.ts';
import type { MachineKind } from '../simulator/machine.ts';
import { freshDatabase } from '../store/testing/test-database.ts';

/** A process of its own takes two seconds to start; only what is done to a process needs one. TLS is for tests of other machines. */
export type ServerAs = 'part of the test' | 'reached from elsewhere' | 'process';

interface TestedServer {
  port: number;
  benchLinkPort: number;
  /** Where instruments on other machines reach it. */
  outside?: Outside | null;
  /** @returns false where it was left before it had ended */
  stop(): Promise<boolean>;
  kill?: () => Promise<void>;
  /** Stops a part where it is. @returns what lets it go on */
  freeze?: (part: 'server' | 'recorder') => () => void;
}

/** Rows a second of an inertia roller that plays fast: half of what it sends in real time, and half the work for all that follows. */
const fastRateHz = 100;
const usualRateHz = 200;

/** A server that does not end within this time is left to the end of the worker, ms. */
const leftAfterMs = 5000;

async function serverHere(
  databaseUrl: string,
  port: number,
  benchLinkPort: number,
  folder: string,
  fromElsewhere: boolean,
): Promise<TestedServer> {
  const log = { ...silentLog, error: (fields: object, what: string) => console.error(what, fields) };
  const { server, recorder, lines } = await startHere(databaseUrl, log, {
    port,
    benchLinkPort,
    webFolder,
    folder,
    ...(fromElsewhere && { outside: { hosts: ['suvok.shop'], port: 0, folder: join(folder, 'tls') } }),
  });
  const late = () => new Promise<false>((resolve) => setTimeout(() => resolve(false), leftAfterMs).unref());
  const close = async () => {
    await server.close();
    lines.close();
    await recorder.close();
    return true;
  };
  return {
    port: server.port,
    benchLinkPort: recorder.benchLinkPort,
    outside: recorder.outside,
    stop: () => Promise.race([close(), late()]),
  };
}

async function serverProcess(
  databaseUrl: string,
  port: number,
  benchLinkPort: number,
  folder: string,
): Promise<TestedServer> {
  const { server, recorder, ...started } = await startSuvok({
    DATABASE_URL: databaseUrl,
    PORT: String(port),
    BENCH_LINK_PORT: String(benchLinkPort),
    SUVOK_RECORDER: folder,
    SUVOK_FREE_MB: '0',
    SUVOK_WEB: webFolder,
  });
  return {
    ...started,
    stop: () => started.stop().then(() => true),
    async kill() {
      for (const { child } of [server, recorder]) child.kill('SIGKILL');
      await Promise.all([server.ended, recorder.ended]);
    },
    freeze(part) {
      const { child } = { server, recorder }[part];
      child.kill('SIGSTOP');
      return () => void child.kill('SIGCONT');
    },
  };
}

/** A whole Suvok of a test's own: database, server, and stand-ins when asked for. */
export class Suvok {
  private server!: TestedServer;
  private readonly standIns: (() => void | Promise<void>)[] = [];
  private readonly folder = mkdtempSync(join(tmpdir(), 'suvok-recorder-'));

  private constructor(
    private readonly databaseUrl: string,
    private readonly drop: () => Promise<void>,
    private readonly as: ServerAs,
  ) {}

  /**
   * @param port 0 for any
   * @param copyOf a database that it begins with a copy of
   */
  static async start(as: ServerAs, port = 0, copyOf?: string): Promise<Suvok> {
    const { url, drop } = await freshDatabase(copyOf);
    const suvok = new Suvok(url, drop, as);
    await suvok.startServer(port, 0);
    return suvok;
  }

  /** On a database that stays when it stops. */
  static async on(url: string): Promise<Suvok> {
    const suvok = new Suvok(url, () => Promise.resolve(), 'part of the test');
    await suvok.startServer(0, 0);
    return suvok;
  }

  private async startServer(port: number, benchLinkPort: number): Promise<void> {
    const { databaseUrl, folder, as } = this;
    this.server = await (as === 'process'
      ? serverProcess(databaseUrl, port, benchLinkPort, folder)
      : serverHere(databaseUrl, port, benchLinkPort, folder, as === 'reached from elsewhere'));
  }

  get origin(): string {
    return `http://127.0.0.1:${this.server.port}`;
  }

  get benchLinkPort(): number {
    return this.server.benchLinkPort;
  }

  get outside(): Outside {
    const { outside } = this.server;
    if (!outside) throw new Error('only a test that is reached from elsewhere has one');
    return outside;
  }

  /** The stand-ins as on another machine: the dyno says the code, or its key of before. */
  startFarStandIns(keys: string, code?: string): ChildProcess {
    const { port, fingerprint } = this.outside;
    const words = [
      '--port',
      String(port),
      '--fingerprint',
      fingerprint,
      '--keys',
      keys,
      ...(code ? ['--code', code] : []),
    ];
    const standIns = startProgram('simulator/main.ts', words, {});
    this.standIns.push(() => stopProgram(standIns));
    return standIns;
  }

  /**
   * Fast ones play in this process: one of their own takes as long to start as they play.
   * Real time is kept by a process with nothing else to do.
   */
  private play(
    pace: 'fast' | 'real',
    asked: Pick<BenchSettings, 'seed' | 'machine' | 'number' | 'bay' | 'rateHz'>,
  ): void {
    const { seed, machine, number, bay, rateHz } = asked;
    if (pace === 'fast') {
      const bench = new Bench({ host: '127.0.0.1', port: this.benchLinkPort, ...asked }, true);
      this.standIns.push(() => bench.close());
      return;
    }
    const words = [
      '--port',
      this.benchLinkPort,
      '--seed',
      seed,
      '--dyno',
      machine,
      '--number',
      number,
      '--rate',
      rateHz,
      ...(bay ? ['--bay', bay] : []),
    ];
    const standIns = startProgram('simulator/main.ts', words.map(String), {});
    this.standIns.push(() => stopProgram(standIns));
  }

  /** The stand-ins of a second bay, a hub pair and its logger; the first one's weather station serves it. */
  async startSecondBay(pace: 'fast' | 'real'): Promise<void> {
    this.play(pace, { seed: 7, machine: 'hub', number: 2, bay: 'Bay 2', rateHz: usualRateHz });
    await expect
      .poll(
        async () =>
          (await this.ask<BaysState>('GET', '/bays')).bays[1]?.devices.filter(({ connected }) => connected).length,
        { intervals: [100] },
      )
      .toBe(3);
  }

  /** Stand-in dyno, engine logger and weather; fast ones play a pull in well under a second. */
  async startStandIns(
    pace: 'fast' | 'real',
    seed = 5,
    machine: MachineKind = 'inertia-roller',
    rateHz = pace === 'fast' && machine === 'inertia-roller' ? fastRateHz : usualRateHz,
  ): Promise<void> {
    this.play(pace, { seed, machine, number: 1, bay: undefined, rateHz });
    await expect
      .poll(
        async () => {
          const bay = (await (await fetch(`${this.origin}/api/bays/1`)).json()) as { air: unknown; devices: unknown[] };
          return bay.air !== null && bay.devices.length;
        },
        { intervals: [100] },
      )
      .toBe(3);
  }

  /** Ends the server as a power cut would, and starts it again on the same ports. */
  async killAndRestart(): Promise<void> {
    const { port, benchLinkPort, kill } = this.server;
    if (!kill) throw new Error('Only a server that is a process of its own can be killed: test.use({ serverAs }).');
    await kill();
    await this.startServer(port, benchLinkPort);
  }

  /** A part hangs. @returns what lets it go on */
  freeze(part: 'server' | 'recorder'): () => void {
    const { freeze } = this.server;
    if (!freeze) throw new Error('Only a server that is a process of its own can hang: test.use({ serverAs }).');
    return freeze(part);
  }

  async ask<T>(method: string, path: string, body?: unknown): Promise<T> {
    const response = await fetch(`${this.origin}/api${path}`, {
      method,
      ...(body === undefined ? {} : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
    });
    expect(response.ok, `${method} ${path}`).toBe(true);
    return (await response.json()) as T;
  }

  /** A job on the dyno, with its first setup. */
  async mountedJob(vehicle = 'Tarrow Six hill-climb coupé'): Promise<Job> {
    const job = await this.ask<Job>('POST', '/jobs', { vehicle, question: 'Does it pay?', gear: '4th' });
    await this.ask('PUT', '/bays/1/mounted', { jobId: job.id, setupId: job.setups[0]!.id });
    return job;
  }

  /** A setup changed from another one, put on the dyno. */
  async mountedSetup(job: Job, change: string): Promise<void> {
    const setup = await this.ask<{ id: number }>('POST', `/jobs/${job.id}/setups`, {
      parentId: job.setups[0]!.id,
      change,
    });
    await this.ask('PUT', '/bays/1/mounted', { jobId: job.id, setupId: setup.id });
  }

  /** Records pulls without a page. */
  async record(job: Job, count: number): Promise<Run[]> {
    for (let pull = 0; pull < count; pull++) {
      const before = (await this.runs(job)).length;
      await this.ask('POST', '/bays/1/arm', { afterS: 300 });
      await expect
        .poll(async () => (await this.runs(job)).filter((run) => run.state === 'sealed').length, {
          intervals: [100],
        })
        .toBe(before + 1);
    }
    return this.runs(job);
  }

  /** Opens Record and waits until the dyno is heard. */
  async openRecord(page: Page, job: Job): Promise<void> {
    await goTo(page, `${this.origin}/jobs/${job.id}/record`);
    await expect(page.getByRole('status').filter({ hasText: 'Ready' })).toBeVisible();
  }

  async runs(job: Job): Promise<Run[]> {
    return (await this.ask<Job>('GET', `/jobs/${job.id}`)).runs;
  }

  /** @returns whether its ports are free again */
  async stop(): Promise<boolean> {
    for (const stop of this.standIns) await stop();
    const ended = await this.server.stop();
    await this.drop();
    return ended;
  }
}

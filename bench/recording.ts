import type { Page } from 'playwright-core';
import type { BaysState, BayState } from '../contract/bays/live.ts';
import type { Job, Run } from '../contract/job/records.ts';
import { startProgram, stopProgram } from '../launch/program.ts';
import type { StartedSuvok } from '../launch/suvok-programs.ts';
import pg from 'pg';
import type { Figure } from './figure.ts';
import { fourDynos } from './four-dynos.ts';
import { Instrument } from './instrument.ts';
import { withPage } from './page-bench.ts';
import { residentMb } from './process-use.ts';

/** One bay at 1 kHz × 16 channels: a minute, or five with `--long`. */
const longS = process.argv.includes('--long') ? 300 : 60;

/** A bay as it is worked: how late the screen is, whether frames are lost, what a sample takes, how soon figures come. */
export function recordingFigures(): Promise<Figure[]> {
  return withPage(async ({ server, page, databaseUrl }) => {
    const bench = new Bench(server, page, databaseUrl);
    return [
      ...(await bench.frameToPixel()),
      ...(await bench.liftToFigures()),
      ...(await bench.longRecording()),
      ...(await fourDynos(server)),
    ];
  });
}

class Bench {
  constructor(
    private readonly server: StartedSuvok,
    private readonly page: Page,
    private readonly databaseUrl: string,
  ) {}

  private async ask<T>(method: string, path: string, body?: unknown): Promise<T> {
    const response = await fetch(`http://127.0.0.1:${this.server.port}/api${path}`, {
      method,
      ...(body === undefined ? {} : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
    });
    if (!response.ok) throw new Error(`${method} ${path}: ${await response.text()}`);
    return (await response.json()) as T;
  }

  private async mounted(vehicle: string, bay = 1): Promise<Job> {
    const job = await this.ask<Job>('POST', '/jobs', { vehicle });
    await this.ask('PUT', `/bays/${bay}/mounted`, { jobId: job.id, setupId: job.setups[0]!.id });
    return job;
  }

  /** The bay that an instrument stands in: a dyno has one of its own. */
  private async bayOf(name: string): Promise<BayState> {
    for (let tries = 0; tries < 100; tries++) {
      const { bays } = await this.ask<BaysState>('GET', '/bays');
      const own = bays.find(({ devices }) => devices.some(({ device }) => device === name));
      if (own) return own;
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
    throw new Error(`${name} stands in no bay`);
  }

  /** Engine speed tells the moment at which a frame was sent; the page says when that number stood on the screen. */
  async frameToPixel(): Promise<Figure[]> {
    const job = await this.mounted('Clock');
    const client = await Instrument.connect(this.server.benchLinkPort);
    const began = Date.now();
    const timer = setInterval(() => {
      const ms = Date.now() - began;
      client.frame(ms / 1000, [60, ms % 20_000]);
    }, 10);
    await this.page.goto(`http://127.0.0.1:${this.server.port}/jobs/${job.id}/record`);
    await this.page.waitForTimeout(2500);
    const late = await this.page.evaluate(
      (start) =>
        new Promise<number[]>((done) => {
          const found: number[] = [];
          let last = '';
          const look = () => {
            const text = document.querySelector('[data-figure="engine"]')?.textContent ?? '';
            if (text !== last) {
              last = text;
              const sent = Number(text.replace(/\D/g, ''));
              // What was put into the page is painted by the next frame.
              requestAnimationFrame(() => found.push((((Date.now() - start - sent) % 20_000) + 20_000) % 20_000));
            }
            if (found.length < 240) requestAnimationFrame(look);
            else done(found);
          };
          look();
        }),
      began,
    );
    clearInterval(timer);
    client.close();
    late.sort((a, b) => a - b);
    const at = (share: number) => late[Math.floor(share * (late.length - 1))]!;
    return [
      { name: 'frame to pixel at 100 Hz, median', value: at(0.5), unit: 'ms', budget: 100 },
      { name: 'frame to pixel at 100 Hz, 95 of 100', value: at(0.95), unit: 'ms', budget: 100 },
    ];
  }

  /** From the throttle's closing to the figures on the screen, with the stand-in roller in real time. */
  async liftToFigures(): Promise<Figure[]> {
    const job = await this.mounted('Tarrow Six hill-climb coupé');
    const words = ['--port', String(this.server.benchLinkPort), '--seed', '5'];
    const standIns = startProgram('simulator/main.ts', words, {});
    await this.page.addInitScript(() =>
      localStorage.setItem(
        'suvok-preferences',
        JSON.stringify({ state: { cautionsRead: true, largeChannels: ['throttle', 'intakeTemperature'] }, version: 0 }),
      ),
    );
    await this.page.goto(`http://127.0.0.1:${this.server.port}/jobs/${job.id}/record`);
    const times: number[] = [];
    for (const label of ['A1', 'A2', 'A3']) {
      await this.page
        .getByRole('status')
        .filter({ hasText: /Ready|Result/ })
        .waitFor({ timeout: 30_000 });
      await this.page.waitForTimeout(2500);
      await this.page.keyboard.press('Space');
      times.push(
        await this.page.evaluate(
          (name) =>
            new Promise<number>((done, fail) => {
              setTimeout(() => fail(new Error(`no figures of ${name} within a minute`)), 60_000);
              let opened = false;
              let liftedAt = 0;
              const look = () => {
                const throttle = Number(document.querySelector('[data-figure="throttle"]')?.textContent);
                if (throttle > 90) opened = true;
                if (opened && !liftedAt && throttle < 50) liftedAt = performance.now();
                const shown = [...document.querySelectorAll('h2')].some((heading) =>
                  heading.textContent.startsWith(name),
                );
                const figures = document.querySelector('[data-testid="run-figures"]');
                if (liftedAt && shown && figures) done((performance.now() - liftedAt) / 1000);
                else requestAnimationFrame(look);
              };
              look();
            }),
          label,
        ),
      );
    }
    await stopProgram(standIns);
    return [{ name: 'lift to figures on screen, slowest of three', value: Math.max(...times), unit: 's', budget: 1 }];
  }

  /** Sixteen channels at 1 kHz for minutes: lost frames, memory, and what is stored. */
  async longRecording(): Promise<Figure[]> {
    const custom = Array.from({ length: 13 }, (_, index) => ({ name: `custom${index}`, unit: 'kPa' }));
    const client = await Instrument.connect(this.server.benchLinkPort, {
      device: 'fast-roller',
      rateHz: 1000,
      channels: [
        { name: 'rollerSpeed', unit: 'rad/s' },
        { name: 'engineSpeed', unit: 'rpm' },
        { name: 'throttle', unit: '%' },
        ...custom,
      ],
    });
    const own = await this.bayOf('fast-roller');
    const job = await this.mounted('Long run', own.bay);
    await this.ask('PUT', `/bays/${own.bay}/plan`, { ...own.plan, kind: 'step' });
    let step = 0;
    const send = (untilStep: number) => {
      for (; step < untilStep; step++) {
        const time = step / 1000;
        const speed = 60 + (time < 2 ? 0 : Math.min(40, 4 * (time - 2))) + 0.01 * Math.sin(step);
        const readings = custom.map((_, index) =>
          Number((100 + 10 * Math.sin(time * (index + 1)) + Math.sin(step * 12.9898 + index)).toFixed(2)),
        );
        client.frame(time, [
          Number(speed.toFixed(4)),
          Math.round((speed * 33) / 5) * 5,
          time < 2 ? 10 : 100,
          ...readings,
        ]);
      }
    };
    const began = performance.now();
    const memory: number[] = [];
    while ((performance.now() - began) / 1000 < longS + 4) {
      send(Math.floor(performance.now() - began));
      if (memory.length < Math.floor((performance.now() - began) / 5000))
        memory.push(residentMb(this.server.recorder.child.pid!));
      await new Promise((resolve) => setTimeout(resolve, 5));
    }
    const bay = await this.ask<BayState>('GET', `/bays/${own.bay}`);
    await this.ask('POST', `/bays/${own.bay}/end`);
    const device = bay.devices.find((candidate) => candidate.device === 'fast-roller')!;
    let run: Run | undefined;
    const ended = performance.now();
    while (run?.state !== 'sealed') {
      if (performance.now() - ended > 30_000)
        throw new Error(`the long run is ${run?.state ?? 'not there'} after 30 s`);
      run = (await this.ask<Job>('GET', `/jobs/${job.id}`)).runs.at(-1);
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
    client.close();
    const database = new pg.Client(this.databaseUrl);
    await database.connect();
    const { rows } = await database.query<{ bytes: string }>(
      'select sum(pg_column_size(data)) as bytes from run_channel where run_id = $1',
      [run.id],
    );
    await database.end();
    // The first half minute fills the buffers.
    const settled = memory.slice(Math.min(6, memory.length - 2));
    return [
      { name: `frames lost in ${longS} s of 1 kHz × 16 channels`, value: device.missing, unit: '', budget: 0 },
      { name: 'samples kept of it', value: run.samples / 1000, unit: 'thousand' },
      { name: 'memory of the recorder at its end', value: memory.at(-1)!, unit: 'MB' },
      { name: 'growth of memory after the first half minute', value: settled.at(-1)! - settled[0]!, unit: 'MB' },
      { name: 'stored for each sample of a channel', value: Number(rows[0]!.bytes) / run.samples / 17, unit: 'bytes' },
    ];
  }
}

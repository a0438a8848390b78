import { spawn } from 'node:child_process';
import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { freePort } from '../launch/postgres.ts';
import type { Figure } from './figure.ts';

const project = resolve(import.meta.dirname, '..');

/** Seconds from `npm start` to the address being printed: on an empty data folder with the page unbuilt, and again. */
export async function startTimes(): Promise<Figure[]> {
  const folder = mkdtempSync(join(tmpdir(), 'suvok-bench-'));
  chmodSync(folder, 0o755);
  try {
    rmSync(join(project, 'dist', 'built-from'), { force: true });
    return [
      { name: 'cold start: new cluster, page built, demo days played', value: await startOnce(folder), unit: 's' },
      { name: 'warm start', value: await startOnce(folder), unit: 's' },
    ];
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

async function startOnce(folder: string): Promise<number> {
  const [port, benchLinkPort] = [await freePort(), await freePort()];
  const began = performance.now();
  const child = spawn('npm', ['start'], {
    cwd: project,
    env: {
      ...process.env,
      SUVOK_DATA: join(folder, 'data'),
      PORT: String(port),
      BENCH_LINK_PORT: String(benchLinkPort),
      DATABASE_URL: '',
    },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const ended = new Promise<void>((done) => child.once('close', () => done()));
  const seconds = await new Promise<number>((done, fail) => {
    child.stdout.on('data', (text: Buffer) => {
      if (text.toString().includes('Suvok is at')) done((performance.now() - began) / 1000);
    });
    child.once('close', () => fail(new Error('npm start ended before it printed the address')));
  });
  child.kill('SIGINT');
  await ended;
  return seconds;
}

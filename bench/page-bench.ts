import { chromium, type Page } from 'playwright-core';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buildWeb, webFolder } from '../launch/build-web.ts';
import { findChromium } from '../launch/chromium.ts';
import { ownCluster } from '../launch/own-cluster.ts';
import { startSuvok, type StartedSuvok } from '../launch/suvok-programs.ts';

const quiet = () => undefined;

/** What a measurement has otherwise than usual. */
interface Otherwise {
  environment?: NodeJS.ProcessEnv;
  browserArguments?: string[];
}

/** What is measured in the real page: a server of its own, and a browser. */
export interface PageBench {
  server: StartedSuvok;
  page: Page;
  databaseUrl: string;
}

/** Starts database, server and browser for what is measured, and ends them after it. */
export async function withPage<T>(
  measure: (bench: PageBench) => Promise<T>,
  { environment = {}, browserArguments = [] }: Otherwise = {},
): Promise<T> {
  const folder = mkdtempSync(join(tmpdir(), 'suvok-bench-'));
  const cluster = await ownCluster(folder, { forTests: true });
  await buildWeb(quiet);
  const databaseUrl = cluster.url('postgres');
  const server = await startSuvok({
    DATABASE_URL: databaseUrl,
    PORT: '0',
    BENCH_LINK_PORT: '0',
    SUVOK_RECORDER: join(folder, 'recorder'),
    SUVOK_FREE_MB: '0',
    SUVOK_WEB: webFolder,
    ...environment,
  });
  const browser = await chromium.launch({
    executablePath: await findChromium(quiet),
    args: ['--no-sandbox', '--disable-dev-shm-usage', '--disable-background-networking', ...browserArguments],
  });
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    // The compiler's helper for names of functions, which the page does not have.
    await page.addInitScript('globalThis.__name = (made) => made');
    return await measure({ server, page, databaseUrl });
  } finally {
    await browser.close();
    await server.stop();
    await cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}

import { once } from 'node:events';
import { createServer } from 'node:net';
import type { BrowserContext } from 'playwright-core';
import { shown, watchScreen, type Shown } from './compare.ts';
import { crowdedJob } from './crowded-job.ts';
import type { Figure } from './figure.ts';
import { withPage } from './page-bench.ts';
import { slowLine, type Line } from './slow-line.ts';

/** A machine elsewhere in the shop: 20 Mbit/s, and 20 ms there and back. */
const line: Line = { bitsPerS: 20e6, delayMs: 10 };
const host = 'suvok.shop';
const owner = { name: 'Bench', password: 'a long word for the bench' };
const tries = 5;

/** Comparing 60 runs on another machine, nothing kept from before: how soon curves and figures are there, and how much was sent. */
export async function elsewhereFigures(): Promise<Figure[]> {
  const linePort = await freePort();
  const asOthers = {
    environment: { HOST: host },
    browserArguments: [`--host-resolver-rules=MAP ${host} 127.0.0.1:${linePort}`],
  };
  return withPage(async ({ server, page }) => {
    const api = `http://127.0.0.1:${server.port}/api`;
    const job = await crowdedJob(api, 15, 4);
    await fetch(`${api}/account/first`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(owner),
    });
    const { outside } = server.server;
    if (!outside) throw new Error('The server is not reached from elsewhere.');
    const slow = await slowLine(outside.port, line, linePort);
    try {
      const origin = `https://${host}:${outside.port}`;
      const browser = page.context().browser()!;
      const newContext = (signedIn?: Awaited<ReturnType<BrowserContext['storageState']>>) =>
        browser.newContext({
          viewport: page.viewportSize(),
          ignoreHTTPSErrors: true,
          ...(signedIn && { storageState: signedIn }),
        });
      const first = await newContext();
      const door = await first.newPage();
      await door.goto(origin);
      await door.evaluate(
        (who) =>
          fetch('/api/account/sign-in', {
            method: 'POST',
            headers: { 'content-type': 'application/json' },
            body: JSON.stringify(who),
          }),
        owner,
      );
      const signedIn = await first.storageState();
      await first.close();
      const found: (Shown & { sent: number })[] = [];
      while (found.length < tries) {
        const before = slow.bytesBack();
        const context = await newContext(signedIn);
        const tab = await context.newPage();
        await tab.addInitScript(watchScreen);
        await tab.goto(`${origin}/jobs/${job.id}/compare`);
        found.push({ ...(await shown(tab)), sent: slow.bytesBack() - before });
        await context.close();
      }
      const middle = (of: (one: (typeof found)[number]) => number) =>
        found.map(of).sort((a, b) => a - b)[Math.floor(tries / 2)]!;
      const name = '60 runs from elsewhere, 20 Mbit/s and 20 ms';
      return [
        { name: `${name}: curves`, value: middle(({ curves }) => curves / 1000), unit: 's', budget: 1.5 },
        { name: `${name}: all figures`, value: middle(({ figures }) => figures / 1000), unit: 's' },
        { name: `${name}: sent`, value: middle(({ sent }) => sent / 1e6), unit: 'MB' },
      ];
    } finally {
      slow.server.close();
    }
  }, asOthers);
}

/** A port that nobody listens on. */
async function freePort(): Promise<number> {
  const server = createServer();
  server.listen(0, '127.0.0.1');
  await once(server, 'listening');
  const address = server.address();
  server.close();
  await once(server, 'close');
  return typeof address === 'object' && address ? address.port : 0;
}

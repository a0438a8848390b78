import { freePort } from '../launch/postgres.ts';
import type { Page } from 'playwright-core';
import { middle, openings, shown } from './compare.ts';
import { crowdedJob } from './crowded-job.ts';
import type { Figure } from './figure.ts';
import { withPage } from './page-bench.ts';
import { slowLine, type Line } from './slow-line.ts';

/** A machine elsewhere in the shop: 20 Mbit/s, and 20 ms there and back. */
const line: Line = { bitsPerS: 20e6, delayMs: 10 };
const host = 'suvok.shop';
const owner = { name: 'Bench', password: 'a long word for the bench' };

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
      const first = await page.context().browser()!.newContext({ ignoreHTTPSErrors: true });
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
      const storageState = await first.storageState();
      await first.close();
      const asSignedIn = { ignoreHTTPSErrors: true, storageState };
      const open = async (tab: Page) => {
        const before = slow.bytesBack();
        await tab.goto(`${origin}/jobs/${job.id}/compare`);
        return { ...(await shown(tab)), sent: slow.bytesBack() - before };
      };
      const found = await openings(page, open, asSignedIn);
      const name = '60 runs from elsewhere, 20 Mbit/s and 20 ms';
      return [
        { name: `${name}: curves`, value: middle(found.map(({ curves }) => curves / 1000)), unit: 's', budget: 1.5 },
        { name: `${name}: all figures`, value: middle(found.map(({ figures }) => figures / 1000)), unit: 's' },
        { name: `${name}: sent`, value: middle(found.map(({ sent }) => sent / 1e6)), unit: 'MB' },
      ];
    } finally {
      slow.server.close();
    }
  }, asOthers);
}

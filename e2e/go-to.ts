import type { Page } from '@playwright/test';

/** What tests know of a page beside what is on its screen. */
interface Known {
  /** Its connection to the server. */
  liveSocket?: WebSocket;
  /** What it had stored when it was first shown. */
  storedFirst?: string;
}

/** Runs before the page's own scripts: its connection is remembered, so that one can wait for it. */
export function rememberSocket(): void {
  const known = globalThis as Known;
  globalThis.WebSocket = class extends WebSocket {
    constructor(url: string | URL) {
      super(url);
      known.liveSocket = this;
    }
  };
}

/** Goes to an address of the page as a press on a link does: it is not loaded anew, which takes two seconds of a processor. */
export async function goWithin(page: Page, path: string): Promise<void> {
  await page.evaluate((to) => {
    history.pushState(null, '', to);
    dispatchEvent(new PopStateEvent('popstate'));
  }, path);
}

/** Goes to an address of Suvok's page, which is loaded only where it is not there yet. */
export async function goTo(page: Page, address: string): Promise<void> {
  const { origin } = new URL(address);
  if (new URL(page.url()).origin === origin && (await meetsServer(page)))
    return goWithin(page, address.slice(origin.length));
  await load(page, address);
}

/** Loads Suvok's page, for tests of what it does as it begins, or where it may know nothing yet. */
export async function load(page: Page, address: string): Promise<void> {
  await page.goto(address);
  await page.evaluate(
    (stored) => {
      (globalThis as Known).storedFirst = stored;
    },
    await stored(page),
  );
}

/** What a page has stored, but for whose data it showed. */
const stored = (page: Page) =>
  page.evaluate(() => JSON.stringify(Object.entries(localStorage).filter(([key]) => key !== 'suvok-data')));

/** Waits until the page has found the server that answers now, and lets it ask that one for everything. */
async function meetsServer(page: Page): Promise<boolean> {
  if (!(await page.evaluate(() => (globalThis as Known).storedFirst !== undefined))) return false;
  await page.waitForFunction(() => (globalThis as Known).liveSocket?.readyState === WebSocket.OPEN, undefined, {
    polling: 50,
  });
  return true;
}

/**
 * Leaves all screens, forgets what servers have said for them, and takes toasts away.
 * @returns false where the page keeps something that goes only when it is loaded anew
 */
export async function leaveAllScreens(page: Page): Promise<boolean> {
  const first = await page.evaluate(() => (globalThis as Known).storedFirst).catch(() => undefined);
  if (first === undefined || first !== (await stored(page))) return false;
  await goWithin(page, '/no-screen-here');
  return page.evaluate(async () => {
    for (const close of document.querySelectorAll<HTMLElement>('.mantine-Notification-closeButton')) close.click();
    // Two pictures later the screens before are gone, and nobody looks at what they had asked for.
    for (let picture = 0; picture < 2; picture++) await new Promise(requestAnimationFrame);
    // A dialog that belongs to no screen stays open.
    if (document.querySelector('[role=dialog]')) return false;
    // React's own tree is the only way to what the page knows: the product has no door for tests.
    interface Fiber {
      memoizedProps?: { client?: { removeQueries?: (which: { type: 'inactive' }) => void } };
      child?: Fiber | null;
      sibling?: Fiber | null;
    }
    const root = document.getElementById('root') as unknown as Record<string, Fiber>;
    const toLook = Object.keys(root).flatMap((name) => (name.startsWith('__reactContainer$') ? [root[name]!] : []));
    for (let fiber = toLook.pop(); fiber; fiber = toLook.pop()) {
      const client = fiber.memoizedProps?.client;
      if (client?.removeQueries) {
        client.removeQueries({ type: 'inactive' });
        return true;
      }
      for (const next of [fiber.sibling, fiber.child]) if (next) toLook.push(next);
    }
    return false;
  });
}

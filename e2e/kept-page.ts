import type { Browser, BrowserContext, Page } from '@playwright/test';
import { freePort } from '../launch/postgres.ts';
import { leaveAllScreens } from './go-to.ts';

/**
 * The page that a worker keeps for all its tests, and the port that their Suvoks are reached at, one after the other.
 * A new page is 5.6 s of a processor, half of it V8 compiling what it has compiled before; the same page at the same
 * address is 2.1 s, and 0.5 s where it is not even loaded anew: to the page the next Suvok is the same shop that was
 * away for a moment. What a test leaves behind goes: address, answers it knows, toasts, storage, cookies, permissions,
 * size, other pages.
 */
export class KeptPage {
  private opened: Page | undefined;
  private port = 0;
  private inUse = false;

  private constructor(readonly context: BrowserContext) {}

  static async open(browser: Browser): Promise<KeptPage> {
    return new KeptPage(await browser.newContext({ viewport: usualSize, colorScheme: 'light' }));
  }

  async page(): Promise<Page> {
    if (!this.opened || this.opened.isClosed()) this.opened = await this.context.newPage();
    return this.opened;
  }

  /** The port for a test's Suvok; any other where it has one already. */
  async takePort(): Promise<number> {
    if (this.inUse) return 0;
    this.inUse = true;
    return (this.port ||= await freePort());
  }

  /** @param free whether nothing listens at it any more; else another one is taken from now on */
  givePort(port: number, free: boolean): void {
    if (port !== this.port) return;
    this.inUse = false;
    if (!free) this.port = 0;
  }

  /** Makes it as new for the next test. @param loadAnew what the page itself keeps goes too */
  async clean(loadAnew: boolean): Promise<void> {
    const page = await this.page();
    for (const other of this.context.pages()) if (other !== page) await other.close();
    await page.unrouteAll({ behavior: 'ignoreErrors' });
    page.removeAllListeners();
    if (loadAnew || !(await leaveAllScreens(page))) await emptied(page);
    await this.context.clearCookies();
    await this.context.clearPermissions();
    await page.emulateMedia({ colorScheme: 'light', media: null });
    await page.setViewportSize(usualSize);
    await page.mouse.move(0, 0);
  }

  async close(): Promise<void> {
    await this.context.close();
  }
}

/** No page and nothing stored. */
async function emptied(page: Page): Promise<void> {
  const { origin } = new URL(page.url());
  await page.goto('about:blank');
  if (origin === 'null') return;
  const browser = await page.context().newCDPSession(page);
  await browser.send('Storage.clearDataForOrigin', { origin, storageTypes: 'local_storage,indexeddb,cookies' });
  await browser.detach();
}

export const usualSize = { width: 1280, height: 800 };

import type { BrowserContextOptions, Page } from 'playwright-core';
import { crowdedJob } from './crowded-job.ts';
import type { Figure } from './figure.ts';
import { withPage } from './page-bench.ts';

const [setups, runsEach] = [15, 4];
const allLines = `singles=all&also=${Array.from({ length: setups - 2 }, (_, index) => String.fromCharCode(66 + index)).join('.')}`;

/** Comparing in a job of 60 runs, all of them drawn: how soon it is there, and how smoothly it follows the hand. */
export function comparingFigures(): Promise<Figure[]> {
  return withPage(async ({ server, page }) => {
    const origin = `http://127.0.0.1:${server.port}`;
    const job = await crowdedJob(`${origin}/api`, setups, runsEach);
    const from = `${origin}/jobs/${job.id}`;
    return [
      ...(await opening(page, from)),
      ...(await smoothing(page, `${from}/compare`)),
      ...(await following(page, `${from}/compare?${allLines}`)),
    ];
  });
}

/** What the page itself sees of its screen, by its own clock: whoever asks from outside asks only now and then. */
const watchScreen = `
  globalThis.shown = new Promise((done) => {
    const looked = { curves: '[role=img][aria-label^="Power of"]', figures: '[data-testid="gain-table"]' };
    const times = {};
    const drawn = (what) => {
      times[what] = performance.now();
      if (times.curves > 0 && times.figures > 0) done(times);
    };
    new MutationObserver(() => {
      for (const [what, selector] of Object.entries(looked)) {
        if (what in times || !document.querySelector(selector)) continue;
        times[what] = NaN;
        requestAnimationFrame(() => setTimeout(() => drawn(what)));
      }
    }).observe(document, { childList: true, subtree: true });
  });`;

interface Shown {
  curves: number;
  figures: number;
}

/** When curves and figures were on the screen, ms on the page's clock. */
export const shown = (page: Page) => page.evaluate<Shown>('globalThis.shown');

/** What five openings of the page told, each with nothing kept from another. */
export async function openings<Told>(
  page: Page,
  open: (tab: Page) => Promise<Told>,
  options: BrowserContextOptions = {},
): Promise<Told[]> {
  const told: Told[] = [];
  while (told.length < 5) {
    const context = await page
      .context()
      .browser()!
      .newContext({ viewport: page.viewportSize(), ...options });
    const tab = await context.newPage();
    await tab.addInitScript(watchScreen);
    told.push(await open(tab));
    await context.close();
  }
  return told;
}

/** The middle one of an odd number of values. */
export const middle = (values: number[]): number => values.sort((a, b) => a - b)[(values.length - 1) / 2]!;

async function opening(page: Page, job: string): Promise<Figure[]> {
  const tries = async (open: (tab: Page) => Promise<Shown>) => {
    const found = await openings(page, open);
    return [
      middle(found.map(({ curves }) => curves / 1000)),
      middle(found.map(({ figures }) => figures / 1000)),
    ] as const;
  };
  const cold = await tries(async (tab) => {
    await tab.goto(`${job}/compare`);
    return shown(tab);
  });
  const within = await tries(async (tab) => {
    await tab.goto(`${job}/brief`);
    await tab.waitForTimeout(2500);
    const began = await tab.evaluate(() => performance.now());
    await tab.getByRole('link', { name: /Compare/ }).click();
    const { curves, figures } = await shown(tab);
    return { curves: curves - began, figures: figures - began };
  });
  const figure = (name: string, value: number, budget: number): Figure => ({
    name: `60 runs, ${name}`,
    value,
    unit: 's',
    budget,
  });
  return [
    figure('page opened by its address: curves', cold[0], 1),
    figure('page opened by its address: all figures', cold[1], 1.3),
    figure('from another stage: curves', within[0], 0.5),
    figure('from another stage: all figures', within[1], 1),
  ];
}

/** From a new span in the address to new figures in the table, median of seven. */
async function smoothing(page: Page, address: string): Promise<Figure[]> {
  await page.goto(address);
  await page.getByTestId('gain-table').waitFor();
  const times: number[] = [];
  for (const span of [200, 240, 280, 320, 360, 400, 440]) {
    times.push(
      await page.evaluate(
        (rpm) =>
          new Promise<number>((done) => {
            const table = () => document.querySelector('[data-testid="gain-table"]')?.textContent;
            const before = table();
            const began = performance.now();
            const address = new URL(location.href);
            address.searchParams.set('smoothing', String(rpm));
            address.searchParams.delete('span');
            history.pushState(null, '', address);
            dispatchEvent(new PopStateEvent('popstate'));
            const look = () => {
              if (table() === before) requestAnimationFrame(look);
              else done(performance.now() - began);
            };
            look();
          }),
        span,
      ),
    );
  }
  return [{ name: '60 runs, smoothing changed to table changed', value: times.sort((a, b) => a - b)[3]!, unit: 'ms' }];
}

/** Times between frames while the hand moves: 95 of 100 are shorter. */
async function following(page: Page, address: string): Promise<Figure[]> {
  await page.goto(address);
  await page.getByTestId('gain-table').waitFor();
  const box = (await page.getByRole('img', { name: /^Power of/ }).boundingBox())!;
  const frames = async (name: string, move: (step: number) => Promise<void>, steps: number): Promise<Figure> => {
    const times = page.evaluate(
      (ms) =>
        new Promise<number[]>((done) => {
          const found: number[] = [];
          const began = performance.now();
          let last = began;
          const tick = () => {
            const now = performance.now();
            found.push(now - last);
            last = now;
            if (now - began < ms) requestAnimationFrame(tick);
            else done(found);
          };
          requestAnimationFrame(tick);
        }),
      1500,
    );
    for (let step = 0; step < steps; step++) {
      await move(step);
      await page.waitForTimeout(20);
    }
    const sorted = (await times).sort((a, b) => a - b);
    return {
      name: `60 runs drawn, ${name}: frame, 95 of 100`,
      value: sorted[Math.floor(sorted.length * 0.95)]!,
      unit: 'ms',
    };
  };
  return [
    await frames('crosshair moved', (step) => page.mouse.move(box.x + 100 + step * 8, box.y + 60), 50),
    await frames('zoomed by wheel', () => page.mouse.wheel(0, -40), 25),
  ];
}

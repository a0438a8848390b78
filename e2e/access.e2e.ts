import AxeBuilder from '@axe-core/playwright';
import type { Locator, Page } from '@playwright/test';
import { goTo, goWithin, load } from './go-to.ts';
import { expect, test } from './suvok.ts';

/** What axe finds; in the dark theme by its colours alone, all else being the same. */
async function violationsOf(page: Page, colorScheme: 'light' | 'dark', leftOut: string[] = []) {
  // No screen has frames: without the look for them it takes half the time.
  const axe = new AxeBuilder({ page }).setLegacyMode(true).options({ resultTypes: ['violations'] });
  return (await (colorScheme === 'dark' ? axe.withRules(['color-contrast']) : axe.disableRules(leftOut)).analyze())
    .violations;
}

/** An hour of today, at whatever hour the test is run. */
const today = (hour: number) => new Date(new Date().setHours(hour, 0, 0, 0)).toISOString();

/** Screens with the most of their own; the others are lists and forms, or further views of these. */
const main =
  /^\/(today|devices|drive)$|^(brief|record|report|logs)$|^brief.*(safety|history)|^compare\?(at|show=steps)/;

for (const [which, colorScheme] of [
  ['the main screens', 'light'],
  ['any screen', 'light'],
  ['any screen', 'dark'],
] as const)
  test(
    `axe finds nothing on ${which}, ${colorScheme}`,
    { tag: which === 'any screen' ? '@long' : [] },
    async ({ page, recorded }) => {
      const { suvok, job } = await recorded('ignition');
      await suvok.startStandIns('fast');
      await suvok.ask('POST', `/jobs/${job.id}/inspections`, {
        key: 'belts',
        outcome: 'fail',
        note: 'frayed',
        measured: null,
      });
      await suvok.ask('POST', `/jobs/${job.id}/suspicions`, {
        cause: 'weak pump',
        test: '',
        outcome: '',
        state: 'open',
        runIds: [],
      });
      await suvok.ask('POST', `/vehicles/${job.vehicleId}/parts`, {
        name: 'camshaft',
        knowledge: 'believed',
        note: '',
      });
      await suvok.ask('POST', '/bookings', {
        bay: 1,
        jobId: job.id,
        title: '',
        work: 'setup',
        startsAt: today(10),
        endsAt: today(14),
      });
      await suvok.ask('POST', '/equipment', {
        name: 'Probe for Tarrow Six',
        kind: 'probe',
        serial: '',
        what: '',
        lastOn: '2026-01-01',
        everyDays: 30,
        dueOn: null,
        device: '',
        note: '',
      });
      await suvok.ask('POST', '/prices', { name: 'Tarrow Six hour', per: 'dyno hour', amount: 90, currency: '€' });
      const compare = /^Compare, /;
      // By its address, its first heading, and what is chosen of it.
      const screens: [path: string, heading: RegExp, chosen?: RegExp][] = [
        ['/today', /day, /],
        ['/today?view=week', /^Week of /],
        ['/equipment', /^Equipment$/],
        ['/prices', /^Prices$/],
        ['/consents', /^Consents$/],
        ['/jobs', /^Jobs$/],
        ['brief', /^Brief, /, /^Plan$/],
        ['brief?show=safety', /^Brief, /, /^Safety/],
        ['brief?show=history', /^Brief, /, /^History$/],
        ['record', /^Record, /],
        ['compare?at=5000&crank=15&lanes=power.lambda.gain&axis=time', compare, /^Curves$/],
        ['compare?show=steps', compare, /^Steps$/],
        ['compare?show=response', compare, /^Response$/],
        ['compare?show=tests', compare, /^Tests$/],
        ['compare?present=1', /^ignition/i],
        ['logs', /^[A-Z]\d+$/],
        ['logs?show=fuelling', /^Fuelling, /],
        ['report', /./],
        ['/devices', /^Devices$/],
        ['/drive', /^Driver’s view$/],
        ['/vehicles', /^Vehicles$/],
        [`/vehicles/${job.vehicleId}`, /Tarrow Six/],
      ];
      // Lists and forms share their colours; what has its own is looked at in both themes.
      const looked = screens.filter(
        ([path]) =>
          (which === 'any screen' || main.test(path)) &&
          (colorScheme === 'light' || !/^.(equipment|prices|consents|jobs|devices|vehicles)/.test(path)),
      );
      await page.emulateMedia({ colorScheme });
      await goTo(page, suvok.origin);
      await expect(page.locator('html')).toHaveAttribute('data-mantine-color-scheme', colorScheme);
      // A colour on its way from one theme to the other is neither's.
      const still = await page.addStyleTag({ content: '* { transition: none !important; }' });
      for (const [path, heading, chosen] of looked) {
        await goWithin(page, path.startsWith('/') ? path : `/jobs/${job.id}/${path}`);
        if (path === 'report') await expect(page.getByTestId('report-answer')).toBeVisible();
        await expect(page.getByRole('heading', { level: 1, name: heading })).toBeAttached();
        if (chosen) await expect(page.getByRole('radio', { name: chosen }).first()).toBeChecked();
        await expect(
          page.getByText(/Tarrow Six|Stand-in inertia roller|ignition|Texts that owners sign/).first(),
        ).toBeVisible();
        if (path.includes('compare') && !path.includes('tests'))
          await expect(page.getByTestId('gain-table')).toBeVisible();
        const violations = await violationsOf(page, colorScheme);
        expect
          .soft(
            violations.map(
              (violation) =>
                `${path}, ${colorScheme}: ${violation.id} ${violation.nodes.map((node) => node.html).join(' ')}`,
            ),
          )
          .toEqual([]);
      }
      await still.evaluate((style) => (style as HTMLStyleElement).remove());
    },
  );

test('axe finds nothing in dialogs, menus, toasts and the palette', { tag: '@long' }, async ({ page, recorded }) => {
  const { suvok, job } = await recorded('ignition');
  await suvok.ask('POST', `/jobs/${job.id}/bands`, { name: 'flat out', fromRpm: 5000, toRpm: 6500 });
  const button = (name: string | RegExp) => page.getByRole('button', { name, exact: true }).first();
  const dialog = page.getByRole('dialog').first();
  const opened: [path: string, heading: string | RegExp, open: () => Promise<void>, shown: Locator][] = [
    ['/today', /day/, () => page.keyboard.press('h'), dialog],
    ['/today', /day/, () => page.keyboard.press('?'), dialog],
    ['/today', /day/, () => page.keyboard.press('Control+k'), dialog],
    ['/jobs', 'Jobs', () => page.keyboard.press('n'), dialog],
    ['brief', 'Limits', () => button('Pause').click(), dialog],
    ['brief', 'Limits', () => button('Close the job').click(), dialog],
    ['brief', 'Limits', () => button(/^Take away the band/).click(), page.getByRole('button', { name: 'Bring back' })],
    ['brief?show=safety', 'Consents', () => button(/^Sign Running/).click(), dialog],
    ['brief?show=safety', 'Consents', () => button(/^Go through: Mounting/).click(), dialog],
    ['compare', /^Setups/, () => button('Export').click(), page.getByRole('menu')],
    ['compare', /^Setups/, () => button(/all about setup B/).click(), dialog],
  ];
  for (const [path, heading, open, shown] of opened) {
    // What the one before opened is gone with its page.
    await load(page, `${suvok.origin}${path.startsWith('/') ? path : `/jobs/${job.id}/${path}`}`);
    await expect(page.getByRole('heading', { name: heading }).first()).toBeVisible();
    const still = await page.addStyleTag({
      content: '* { transition: none !important; animation: none !important; }',
    });
    await open();
    await expect(shown).toBeVisible();
    for (const colorScheme of ['light', 'dark'] as const) {
      await page.emulateMedia({ colorScheme });
      await expect(page.locator('html')).toHaveAttribute('data-mantine-color-scheme', colorScheme);
      // A list of options scrolls with the arrows of the field that it belongs to.
      const violations = await violationsOf(page, colorScheme, ['scrollable-region-focusable']);
      const told = violations.map(({ id, nodes }) => `${id} ${nodes.map((node) => node.html).join(' ')}`);
      expect.soft(told, `${path}, ${String(await shown.getAttribute('aria-label'))}, ${colorScheme}`).toEqual([]);
    }
    await still.evaluate((style) => (style as HTMLStyleElement).remove());
  }
});

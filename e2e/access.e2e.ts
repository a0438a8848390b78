import AxeBuilder from '@axe-core/playwright';
import type { Locator, Page } from '@playwright/test';
import { expect, test } from './suvok.ts';

/** What axe finds; in the dark theme by its colours alone, all else being the same. */
async function violationsOf(page: Page, colorScheme: 'light' | 'dark', leftOut: string[] = []) {
  // No screen has frames: without the look for them it takes half the time.
  const axe = new AxeBuilder({ page }).setLegacyMode(true).options({ resultTypes: ['violations'] });
  return (await (colorScheme === 'dark' ? axe.withRules(['color-contrast']) : axe.disableRules(leftOut)).analyze())
    .violations;
}

for (const colorScheme of ['light', 'dark'] as const)
  test(
    `axe finds nothing on any screen, ${colorScheme}`,
    { tag: colorScheme === 'dark' ? '@long' : [] },
    async ({ page, recorded }) => {
      test.setTimeout(300_000);
      const { suvok, job } = await recorded('ignition');
      await suvok.startStandIns('fast');
      await suvok.ask('POST', `/jobs/${job.id}/inspections`, {
        key: 'belts',
        outcome: 'fail',
        note: 'frayed',
        measured: null,
      });
      await suvok.ask('POST', `/jobs/${job.id}/suspicions`, { cause: 'weak pump', test: '', outcome: '', state: 'open', runIds: [] }); // prettier-ignore
      await suvok.ask('POST', `/vehicles/${job.vehicleId}/parts`, {
        name: 'camshaft',
        knowledge: 'believed',
        note: '',
      });
      await suvok.ask('POST', '/bookings', { bay: 1, jobId: job.id, title: '', work: 'setup', startsAt: new Date().toISOString(), endsAt: new Date(Date.now() + 3_600_000).toISOString() }); // prettier-ignore
      await suvok.ask('POST', '/equipment', { name: 'Probe for Tarrow Six', kind: 'probe', serial: '', what: '', lastOn: '2026-01-01', everyDays: 30, dueOn: null, device: '', note: '' }); // prettier-ignore
      await suvok.ask('POST', '/prices', { name: 'Tarrow Six hour', per: 'dyno hour', amount: 90, currency: '€' });
      const paths = [
        '/today',
        '/today?view=week',
        '/equipment',
        '/prices',
        '/consents',
        '/jobs',
        'brief',
        'brief?show=safety',
        'brief?show=history',
        'record',
        'compare?at=5000&crank=15&lanes=power.lambda.gain&axis=time',
        'compare?show=steps',
        'compare?show=response',
        'compare?show=tests',
        'compare?present=1',
        'logs',
        'logs?show=fuelling',
        'report',
        '/devices',
        '/drive',
        '/vehicles',
        `/vehicles/${job.vehicleId}`,
      ];
      for (const path of paths.map((run) => (run.startsWith('/') ? run : `/jobs/${job.id}/${run}`))) {
        // Lists and forms share their colours; what has its own is looked at in both themes.
        if (colorScheme === 'dark' && !/brief|record|compare|logs|report|drive|today/.test(path)) continue;
        await page.goto(suvok.origin + path);
        // A colour on its way from one theme to the other is neither's.
        await page.addStyleTag({ content: '* { transition: none !important; }' });
        await page.emulateMedia({ colorScheme });
        await expect(page.locator('html')).toHaveAttribute('data-mantine-color-scheme', colorScheme);
        await expect(
          page.getByText(/Tarrow Six|Stand-in inertia roller|ignition|Texts that owners sign/).first(),
        ).toBeVisible();
        await expect(page.getByRole('heading', { level: 1 }).first()).toBeAttached({ timeout: 20_000 });
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
    },
  );

test('axe finds nothing in dialogs, menus, toasts and the palette', { tag: '@long' }, async ({ page, recorded }) => {
  test.setTimeout(200_000);
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
    await page.goto(`${suvok.origin}${path.startsWith('/') ? path : `/jobs/${job.id}/${path}`}`);
    await expect(page.getByRole('heading', { name: heading }).first()).toBeVisible({ timeout: 20_000 });
    await page.addStyleTag({ content: '* { transition: none !important; animation: none !important; }' });
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
  }
});

import { goTo, load } from './go-to.ts';
import { expect, tableOf, test } from './suvok.ts';

test('runs that do not come from the server are said to be kept, and fetched by another try', async ({
  page,
  recorded,
}) => {
  const { suvok, job } = await recorded('two-setups');
  await page.route('**/recording*', (route) => route.abort());
  await load(page, `${suvok.origin}/jobs/${job.id}/compare`);
  await expect(page.getByRole('alert')).toContainText(
    'The figures could not be made: the samples did not come from the server. What was recorded is kept',
  );
  // Nothing looks set aside that is not.
  await expect(page.getByRole('complementary', { name: 'Setups' })).not.toContainText('making the figures');
  await page.unroute('**/recording*');
  await page.getByRole('button', { name: 'Try again' }).click();
  expect(Object.keys(await tableOf(page))).toContain('common');
  await expect(page.getByRole('alert')).toHaveCount(0);
});

test('a setup by itself shows what it makes and what to do next', async ({ page, recorded }) => {
  const { suvok, job } = await recorded('two-setups');
  await goTo(page, `${suvok.origin}/jobs/${job.id}/compare?smoothing=300&setup=A&against=A`);
  await expect(page.getByTestId('sentence')).toHaveText(
    'A stands by itself: choose or record another setup to see what a change gives.',
  );
  await expect(page.getByRole('heading', { name: 'A, mean of 3 runs' })).toBeVisible();
  await expect(page.getByText(/Most power \d+\.\d kW at \d,\d{3} rpm.*most torque \d+\.\d N·m at/)).toBeVisible();
  await expect(page.getByRole('button', { name: /^Exchange/ })).toHaveCount(0);
});

test(
  'on paper stand lanes, sentence and table, in the paper theme; the screen comes back as it was',
  { tag: '@long' },
  async ({ page, recorded }) => {
    const { suvok, job } = await recorded('two-setups');
    await page.goto(`${suvok.origin}/favicon.svg`);
    await page.evaluate(() => localStorage.setItem('mantine-color-scheme-value', 'dark'));
    await goTo(page, `${suvok.origin}/jobs/${job.id}/compare?smoothing=300`);
    await page.evaluate(() => {
      window.print = () => {
        document.title = `printed ${document.documentElement.dataset.mantineColorScheme}`;
      };
    });
    await expect(page.getByTestId('gain-table')).toBeVisible();
    await page.keyboard.press('ControlOrMeta+p');
    await expect(page).toHaveTitle('printed light');
    await expect(page.getByTestId('sentence')).toBeVisible();
    await expect(page.getByRole('img', { name: /^Power of/ })).toBeVisible();
    await expect(page.getByRole('complementary', { name: 'Setups' })).toBeHidden();
    await expect(page.getByRole('button', { name: 'Lanes', exact: true })).toBeHidden();
    await page.evaluate(() => dispatchEvent(new Event('afterprint')));
    await expect(page.locator('html')).toHaveAttribute('data-mantine-color-scheme', 'dark');
    await expect(page.getByRole('complementary', { name: 'Setups' })).toBeVisible();
  },
);

test.describe('by fingers', () => {
  test.use({ hasTouch: true, ownPage: true });

  test(
    'two fingers apart zoom the lanes, together they show more again',
    { tag: '@long' },
    async ({ page, recorded }) => {
      const { suvok, job } = await recorded('two-setups');
      await goTo(page, `${suvok.origin}/jobs/${job.id}/compare?smoothing=300`);
      const lane = page.getByRole('img', { name: /^Power of/ });
      await expect(lane).toBeVisible();
      const box = (await lane.boundingBox())!;
      const fingers = await page.context().newCDPSession(page);
      const [middle, y] = [box.x + box.width / 2, box.y + box.height / 2];
      const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', apart?: number) =>
        fingers.send('Input.dispatchTouchEvent', {
          type,
          touchPoints:
            apart === undefined
              ? []
              : [
                  { x: middle - apart, y, id: 0 },
                  { x: middle + apart, y, id: 1 },
                ],
        });
      const width = () => {
        const [, from, to] = /zoom=(\d+)-(\d+)/.exec(page.url())!;
        return Number(to) - Number(from);
      };
      await touch('touchStart', 40);
      for (const apart of [60, 90, 120]) await touch('touchMove', apart);
      await touch('touchEnd');
      await expect(page).toHaveURL(/zoom=\d+-\d+/);
      const near = width();
      expect(near).toBeLessThan(2500);
      await touch('touchStart', 120);
      for (const apart of [105, 85, 75]) await touch('touchMove', apart);
      await touch('touchEnd');
      await expect.poll(width).toBeGreaterThan(near * 1.3);
      // A pinch sets no crosshair.
      expect(page.url()).not.toContain('at=');
    },
  );
});

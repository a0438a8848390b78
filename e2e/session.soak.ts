import { expect, test } from './suvok.ts';

/** `npm run soak`: what takes too long for `npm test`. */
for (const dyno of ['inertia-roller', 'loaded-roller', 'hub'] as const) {
  test(`ten pulls on the stand-in ${dyno} with the keyboard alone, each one recorded and said so`, async ({
    page,
    suvok,
  }) => {
    // An inertia roller runs down for as long as it ran up: about half a minute a pull.
    test.setTimeout(480_000);
    await suvok.startStandIns('real', 5, dyno);
    const job = await suvok.mountedJob();
    await suvok.openRecord(page, job);
    for (let pull = 1; pull <= 10; pull++) {
      await page.keyboard.press('Space');
      await expect(page.getByRole('status').filter({ hasText: 'Recording' })).toBeVisible();
      await expect(page.getByRole('heading', { name: `A${pull} counted` })).toBeVisible();
      await expect(page.getByTestId('run-figures')).toContainText(/\d\.\d kW/);
      // A note by typing; Enter ends it.
      await page.keyboard.type(`pull ${pull}`);
      await page.keyboard.press('Enter');
    }
    await expect
      .poll(async () => (await suvok.runs(job)).map(({ note }) => note))
      .toEqual(Array.from({ length: 10 }, (_, index) => `pull ${index + 1}`));
    expect((await suvok.runs(job)).every(({ state, logs }) => state === 'sealed' && logs.length === 1)).toBe(true);
  });
}

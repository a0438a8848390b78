import { goTo } from './go-to.ts';
import type { Page } from '@playwright/test';
import type { BayState } from '../contract/bays/live.ts';
import { BenchClient } from '../server/testing/bench-client.ts';
import { expect, tableOf, test, type Suvok } from './suvok.ts';

async function pressSpace(page: Page): Promise<number> {
  await page.keyboard.press('Space');
  return Date.now();
}

/** A second press within a second of the first is taken for a stutter. */
async function untilNoStutter(pressed: number): Promise<void> {
  await expect.poll(() => Date.now() - pressed, { intervals: [50] }).toBeGreaterThan(1000);
}

test.describe('with a server that can be killed', () => {
  test.use({ serverAs: 'process' });

  test('from the space bar to what a change gave, and all of it there after kill -9', async ({ page, suvok }) => {
    await suvok.startStandIns('fast');
    const job = await suvok.mountedJob();
    await suvok.openRecord(page, job);
    for (const label of ['A1', 'A2', 'A3']) {
      const pressed = await pressSpace(page);
      await expect(page.getByRole('heading', { name: `${label} counted` })).toBeVisible();
      await expect(page.getByTestId('run-figures')).toContainText(/9\d\.\d kW/);
      await untilNoStutter(pressed);
    }
    // The planned runs are done: what changed is asked at once.
    await expect(page.getByRole('heading', { name: 'All 3 planned runs of A done' })).toBeVisible();
    await page.getByLabel('What changed from A?').fill('ignition +1.5° above 4,000');
    await expect(page.getByText('Understood: ignition +1.5° above 4,000 rpm')).toBeVisible();
    await page.keyboard.press('Enter');
    await expect(page.getByRole('button', { name: /^Setup B/ })).toHaveAttribute('aria-pressed', 'true');
    for (const label of ['B1', 'B2', 'B3']) {
      const pressed = await pressSpace(page);
      await expect(page.getByRole('heading', { name: `${label} counted` })).toBeVisible();
      await untilNoStutter(pressed);
    }
    await page.getByRole('link', { name: /Compare/ }).click();
    await expect(page.getByTestId('sentence')).toContainText(/B (makes|is within|reads)/);
    const [url, table] = [page.url(), await tableOf(page)];
    await suvok.killAndRestart();
    await page.reload();
    expect(await tableOf(page)).toEqual(table);
    expect(page.url()).toBe(url);
  });

  test('a part that hangs is told within seconds, and what it said last is struck out until it speaks again', async ({
    page,
    suvok,
  }) => {
    await suvok.startStandIns('real');
    await suvok.openRecord(page, await suvok.mountedJob());
    const engine = page.locator('[data-figure="engine"]');
    await expect(engine).toHaveText(/\d/);
    const figures = page.locator('[data-age="old"]');
    await expect(figures).toHaveCount(0);
    let goOn = suvok.freeze('recorder');
    // Pressed before anybody knows: refused within a second, and not done when the recorder goes on.
    const pressed = Date.now();
    const refused = await fetch(`${suvok.origin}/api/bays/1/arm`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: '{}',
    });
    expect([refused.ok, Date.now() - pressed < 1500]).toEqual([false, true]);
    await expect(page.getByText('The recorder is silent')).toBeVisible();
    await expect(page.getByRole('alert').getByText(/has said nothing since \d\d:\d\d:\d\d/)).toBeVisible();
    await expect(figures.locator(engine)).toHaveCSS('text-decoration-line', 'line-through');
    await expect(page.getByRole('button', { name: /^Record/ })).toBeDisabled();
    goOn();
    await expect(figures).toHaveCount(0);
    await expect(page.getByText('The recorder is silent')).toBeHidden();
    expect((await suvok.ask<BayState>('GET', '/bays/1')).recorder.state).toBe('idle');
    goOn = suvok.freeze('server');
    await expect(page.getByText(/The server has not answered since \d\d:\d\d:\d\d/)).toBeVisible();
    await expect(figures.locator(engine)).toBeVisible();
    goOn();
    await expect(page.getByText(/The server has not answered/)).toBeHidden();
    await expect(figures).toHaveCount(0);
  });
});

test('a stutter is one press, a letter goes to the note, and a run is set aside and brought back', async ({
  page,
  suvok,
}) => {
  await suvok.startStandIns('fast');
  const job = await suvok.mountedJob();
  await suvok.openRecord(page, job);
  await page.keyboard.press('Space');
  await page.keyboard.press('Space');
  await expect(page.getByRole('heading', { name: 'A1 counted' })).toBeVisible();
  await page.keyboard.type('smelt of belt');
  await expect(page.getByLabel('Note on this run')).toHaveValue('smelt of belt');
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await suvok.runs(job))[0]!.note).toBe('smelt of belt');
  await page.getByRole('button', { name: 'Set aside…' }).click();
  await page.getByLabel('Set aside because').fill('belt slipped');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'A1 set aside' })).toBeVisible();
  await page.getByRole('button', { name: 'Count it' }).click();
  await expect(page.getByRole('heading', { name: 'A1 counted' })).toBeVisible();
  expect(await suvok.runs(job)).toHaveLength(1);
});

test('the chip of a run sets it aside with a reason and offers to undo', async ({ page, suvok }) => {
  await suvok.startStandIns('fast');
  const job = await suvok.mountedJob();
  await suvok.record(job, 1);
  await goTo(page, `${suvok.origin}/jobs/${job.id}/compare`);
  await page.getByRole('button', { name: 'Run A1, counted' }).click();
  await page.getByLabel('Set aside because').fill('wrong gear');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Run A1, wrong gear' })).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: 'Run A1, counted' })).toBeVisible();
});

test('lanes draw live, and End run ends the recording but not the car', async ({ page, suvok }) => {
  await suvok.startStandIns('real');
  const job = await suvok.mountedJob();
  await suvok.openRecord(page, job);
  await page.getByTestId('control').click();
  await expect(page.getByRole('status').filter({ hasText: 'Recording' })).toBeVisible();
  await expect(page.getByText('does not stop the car')).toBeVisible();
  await expect(page.getByRole('complementary', { name: 'Setups' })).toBeHidden();
  await expect(page.getByRole('img', { name: /Power over engine speed/ })).toBeVisible();
  // The power of the moment stands beside the line, and rises with the pull.
  const power = async () => Number(await page.getByTestId('live-power').textContent());
  await expect.poll(power).toBeGreaterThan(20);
  const early = await power();
  await expect.poll(power).toBeGreaterThan(early + 15);
  await page.keyboard.press('Space');
  await expect(page.getByRole('heading', { name: 'A1 counted' })).toBeVisible();
  await expect(page.getByText(/before the lift/)).toBeVisible();
  expect(await suvok.runs(job)).toHaveLength(1);
});

test('a dyno lost during a run is said on screen and nothing half-made is left', async ({ page, suvok }) => {
  const job = await suvok.mountedJob();
  await goTo(page, `${suvok.origin}/jobs/${job.id}/record`);
  await expect(page.getByText('No dyno connected', { exact: true })).toBeVisible();
  await expect(page.getByTestId('control')).toBeDisabled();
  const client = await BenchClient.connect(suvok.benchLinkPort);
  client.hello({ name: 'Workshop roller' });
  client.pull({}, 0, 7);
  await expect(page.getByRole('status').filter({ hasText: 'Recording' })).toBeVisible();
  client.close();
  await expect(page.getByRole('alert')).toContainText('Workshop roller is not connected');
  await expect.poll(async () => (await suvok.runs(job))[0]).toMatchObject({ label: 'A1', state: 'interrupted' });
  await expect(page.getByText(/lost during this run/).first()).toBeVisible();
});

test('a limited reading that stops in a pull is struck out, and the limit is not called held', async ({
  page,
  suvok,
}) => {
  const job = await suvok.mountedJob();
  await suvok.ask('POST', `/jobs/${job.id}/limits`, {
    quantity: 'lambda',
    value: 0.95,
    scale: null,
    reason: '',
    source: 'us',
  });
  await suvok.ask('POST', `/jobs/${job.id}/limits`, {
    quantity: 'engineSpeed',
    value: 7100,
    scale: null,
    reason: '',
    source: 'us',
  });
  const [dyno, logger] = await Promise.all([
    BenchClient.connect(suvok.benchLinkPort),
    BenchClient.connect(suvok.benchLinkPort),
  ]);
  dyno.hello();
  logger.hello({
    device: 'test-logger',
    kind: 'engine-logger',
    channels: [
      { name: 'engineSpeed', unit: 'rpm' },
      { name: 'lambda', unit: '–' },
    ],
    dyno: undefined,
  });
  await goTo(page, `${suvok.origin}/jobs/${job.id}/record`);
  // In real time: a roll, then a pull in which the logger says that it is ready, and nothing more.
  const from = Date.now();
  let reads = true;
  const plays = setInterval(() => {
    const at = (Date.now() - from) / 1000;
    const drumRadS = 40 + 3 * Math.max(0, at - 1.5);
    const rpm = drumRadS * 3.4 * 9.549;
    dyno.frame(at, [drumRadS, rpm]);
    if (reads) logger.frame(at, [rpm, 0.88]);
    else logger.say({ type: 'status', state: 'ready' });
  }, 20);
  try {
    const limits = page.getByRole('region', { name: 'Limits' });
    await expect(limits).toContainText('0.95 at most');
    await expect(page.getByText('No limit crossed, 2 watched.')).toBeVisible();
    reads = false;
    await expect(limits).toContainText('is not read: nobody watches this limit');
    await expect(limits.locator('[data-unread] b')).toHaveCSS('text-decoration-line', 'line-through');
    await expect(page.getByText(/λ is not read\. No limit crossed, 1 of 2 watched\./)).toBeVisible();
    await expect(page.locator('html')).toHaveAttribute('data-last-cue', 'unread: λ is not read');
    reads = true;
    await expect(page.getByText(/λ was not read for \d+ s\. No limit crossed, 2 watched\./)).toBeVisible();
  } finally {
    clearInterval(plays);
    dyno.close();
    logger.close();
  }
});

test('a peer that sends rubbish is named on screen', { tag: '@long' }, async ({ page, suvok }) => {
  const job = await suvok.mountedJob();
  const client = await BenchClient.connect(suvok.benchLinkPort);
  client.say('hello there');
  await goTo(page, `${suvok.origin}/jobs/${job.id}/record`);
  await expect(page.getByRole('alert')).toContainText('not understood: a line is not JSON: hello there');
  client.close();
});

/** As somebody who opens Suvok for the first time. */
async function asForTheFirstTime(page: Page, suvok: Suvok): Promise<void> {
  await page.goto(`${suvok.origin}/favicon.svg`);
  await page.evaluate(() => localStorage.setItem('suvok-preferences', '{"state":{},"version":0}'));
}

test('the driver’s view shows the cautions first, on a screen that has not', async ({ page, suvok }) => {
  await suvok.mountedJob();
  await asForTheFirstTime(page, suvok);
  await goTo(page, `${suvok.origin}/bays/1/drive`);
  await expect(page.getByText('no emergency stop')).toBeVisible();
  await expect(page.getByText('This screen cannot stop the car')).toBeHidden();
  await page.getByRole('button', { name: 'Read and understood' }).click();
  await expect(page.getByText('This screen cannot stop the car')).toBeVisible();
});

test('cautions stand before the first run until they are read, once', async ({ page, suvok }) => {
  const job = await suvok.mountedJob();
  await asForTheFirstTime(page, suvok);
  await goTo(page, `${suvok.origin}/jobs/${job.id}/record`);
  await expect(page.getByText('no emergency stop')).toBeVisible();
  await page.getByRole('button', { name: 'Read and understood' }).click();
  await expect(page.getByText('no emergency stop')).toBeHidden();
  await page.reload();
  await expect(page.getByTestId('control')).toBeVisible();
  await expect(page.getByText('no emergency stop')).toBeHidden();
});

test('another job is put on the dyno with the same key', { tag: '@long' }, async ({ page, suvok }) => {
  await suvok.startStandIns('fast');
  await suvok.mountedJob();
  const other = await suvok.ask<{ id: number }>('POST', '/jobs', { vehicle: 'Marrick tourer' });
  await goTo(page, `${suvok.origin}/jobs/${other.id}/record`);
  await expect(page.getByText('Another car is on the dyno.')).toBeVisible();
  await page.keyboard.press('Space');
  await expect(page.getByRole('status').filter({ hasText: 'Ready' })).toBeVisible();
});

test(
  'the bay is ready only where nothing speaks against it, and space presses the button that has the focus',
  { tag: '@long' },
  async ({ page, suvok }) => {
    await suvok.startStandIns('fast');
    const job = await suvok.mountedJob();
    await suvok.openRecord(page, job);
    const state = page.getByTestId('state');
    await expect(state).toHaveText('Ready');
    // A planned rest that goes on.
    await suvok.record(job, 1);
    await suvok.ask('PUT', '/bays/1/plan', { ...(await suvok.ask<BayState>('GET', '/bays/1')).plan, coolDownMin: 9 });
    await page.reload();
    await expect(state).toHaveText('Not ready');
    await expect(page.getByText(/8:\d\d min until the planned rest ends\./)).toBeVisible();
    // The driver's view says the same.
    const driver = await page.context().newPage();
    await driver.goto(`${suvok.origin}/bays/1/drive`);
    await expect(driver.getByRole('status')).toHaveText('Not ready');
    await expect(driver.getByText(/until the planned rest ends/)).toBeVisible();
    await driver.close();
    // Nothing is blocked by it; a focused button answers to space itself.
    const other = page.getByRole('button', { name: /^(in .+|gear\?)$/ });
    await other.focus();
    await page.keyboard.press('Space');
    await expect(page.getByLabel('Gear', { exact: true })).toBeVisible();
    await page.keyboard.press('Escape');
    expect(await suvok.runs(job)).toHaveLength(1);
    await page.locator('body').click({ position: { x: 640, y: 300 } });
    await page.keyboard.press('Space');
    await expect(page.getByRole('heading', { name: 'A2 counted' })).toBeVisible();
    await expect(state).toHaveText('Result');
    // In one glance: the note and what comes next, without scrolling.
    await expect(page.getByRole('textbox', { name: 'Note on this run' })).toBeInViewport({ ratio: 1 });
    await expect(page.getByRole('button', { name: 'Set aside…' })).toBeInViewport({ ratio: 1 });
  },
);

test('what is opened before the bays are heard of stays open', { tag: '@long' }, async ({ page, suvok }) => {
  await suvok.startStandIns('fast');
  const job = await suvok.mountedJob();
  // As on a slow line: the first word of the bays comes late.
  await page.routeWebSocket(/./, (socket) => {
    const server = socket.connectToServer();
    server.onMessage((message) => void setTimeout(() => socket.send(message), 2500));
  });
  await goTo(page, `${suvok.origin}/jobs/${job.id}/record`);
  await page.getByRole('button', { name: /all about setup A/ }).click();
  await expect(page.getByRole('dialog', { name: 'Setup A' })).toBeVisible();
  await expect(page.getByText('Ready', { exact: true }).first()).toBeAttached();
  await expect(page.getByRole('dialog', { name: 'Setup A' })).toBeVisible();
});

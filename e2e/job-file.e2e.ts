import { goTo } from './go-to.ts';
import type { Job } from '../contract/job/records.ts';
import { expect, tableOf, test, type Suvok } from './suvok.ts';

const job = (suvok: Suvok, fields: object = {}) =>
  suvok.ask<Job>('POST', '/jobs', { vehicle: 'Marrick tourer', owner: 'B. Thistle', ...fields });
const reread = (suvok: Suvok, id: number) => suvok.ask<Job>('GET', `/jobs/${id}`);

test('the brief is written by keyboard, stores itself, and stays after a reload', async ({ page, suvok }) => {
  const { id } = await job(suvok);
  await goTo(page, `${suvok.origin}/jobs/${id}/brief`);
  await page.getByLabel('Question').fill('Why does it pull weakly at 3,000?');
  await page.keyboard.press('Tab');
  await page.getByLabel('Use').fill('towing');
  await page.keyboard.press('Tab');
  await page.getByLabel('Claimed figure', { exact: true }).fill('230,5');
  await page.keyboard.press('Tab');
  await expect.poll(async () => (await reread(suvok, id)).claimedValue).toBe(230.5);
  await page.getByLabel('Claimed figure', { exact: true }).fill('lots');
  await page.keyboard.press('Tab');
  await expect(page.getByText('That is not a number.')).toBeVisible();
  await page.getByLabel('New band').fill('towing 1,800–3,000');
  await page.keyboard.press('Enter');
  await expect(page.getByText('1,800 to 3,000 rpm')).toBeVisible();
  await page.getByLabel('New band').fill('fast');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/Write a name and the speeds/)).toBeVisible();
  expect(await reread(suvok, id)).toMatchObject({ question: 'Why does it pull weakly at 3,000?', use: 'towing' });
  await page.reload();
  await expect(page.getByLabel('Use')).toHaveValue('towing');
});

test('what is typed while the server is away stays in the field, and is stored later', async ({ page, suvok }) => {
  const { id } = await job(suvok);
  await goTo(page, `${suvok.origin}/jobs/${id}/brief`);
  await page.route('**/api/jobs/*', (route) =>
    route.request().method() === 'PATCH' ? route.abort() : route.continue(),
  );
  await page.getByLabel('Target in words').fill('150 kW');
  await page.keyboard.press('Tab');
  await expect(page.getByText('The server does not answer.')).toBeVisible();
  await page.reload();
  await expect(page.getByLabel('Target in words')).toHaveValue('150 kW');
  await page.unroute('**/api/jobs/*');
  await page.getByLabel('Target in words').focus();
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await reread(suvok, id)).target).toBe('150 kW');
});

test('two browsers write one field: both texts are shown, and one is chosen', async ({ page, suvok }) => {
  const { id } = await job(suvok);
  await goTo(page, `${suvok.origin}/jobs/${id}/brief`);
  await page.getByLabel('Target in words').fill('mine');
  // Somebody else is faster; what is being written here is not touched by it.
  const heard = page.waitForResponse(
    (response) => response.url().endsWith(`/api/jobs/${id}`) && response.request().method() === 'GET',
  );
  await suvok.ask('PATCH', `/jobs/${id}`, { target: 'theirs' });
  await heard;
  await expect(page.getByLabel('Target in words')).toHaveValue('mine');
  await page.keyboard.press('Tab');
  await expect(page.getByText(/Somebody else changed this meanwhile, to “theirs”/)).toBeVisible();
  expect((await reread(suvok, id)).target).toBe('theirs');
  await page.getByRole('button', { name: 'Store mine' }).click();
  await expect.poll(async () => (await reread(suvok, id)).target).toBe('mine');
});

test('an electric car is asked for nothing that burns: vehicle, brief and kinds of run', async ({ page, suvok }) => {
  const { id, vehicleId } = await job(suvok);
  await goTo(page, `${suvok.origin}/vehicles/${vehicleId}`);
  await expect(page.getByLabel('Fuel system')).toBeVisible();
  await page.getByLabel('Ignition').first().click();
  await page.getByRole('option', { name: 'none: electric drive' }).click();
  await expect(page.getByLabel('Fuel system')).toBeHidden();
  await expect(page.getByLabel('Induction').first()).toBeHidden();
  await goTo(page, `${suvok.origin}/jobs/${id}/brief`);
  await expect(page.getByText('electric', { exact: false }).first()).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Limits' })).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Fuel', exact: true })).toBeHidden();
  await page.getByText(/^Safety/).click();
  await expect(page.getByText(/Orange cables/)).toBeVisible();
  await expect(page.getByText(/Oil level|Extraction on|Plugs right/)).toHaveCount(0);
});

test('a limit asks for its scale, is suggested by fuel, and comes back when taken away', async ({ page, suvok }) => {
  const { id, vehicleId } = await job(suvok);
  await suvok.ask('PATCH', `/vehicles/${vehicleId}`, { ignition: 'spark', induction: 'turbo' });
  await goTo(page, `${suvok.origin}/jobs/${id}/brief`);
  await page.getByLabel('Value').fill('180');
  await page.getByLabel('Reason').fill('gearbox');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Torque at most 180 N·m at the crank')).toBeVisible();
  await page.getByRole('button', { name: /suggestions/ }).click();
  await page.locator('li', { hasText: 'λ at full load' }).getByRole('button', { name: 'Take' }).click();
  await expect(page.getByText('λ at full load at most 0.86')).toBeVisible();
  await page.getByRole('button', { name: /Take away Torque/ }).click();
  await expect(page.getByText('Torque at most 180')).toBeHidden();
  await page.getByRole('button', { name: 'Bring back' }).click();
  await expect(page.getByText('Torque at most 180')).toBeVisible();
  expect((await reread(suvok, id)).limits).toHaveLength(2);
});

test(
  'a failed inspection item keeps its note and stays in sight on Record',
  { tag: '@long' },
  async ({ page, suvok }) => {
    const mounted = await suvok.mountedJob();
    await goTo(page, `${suvok.origin}/jobs/${mounted.id}/brief?show=safety`);
    await page.getByRole('button', { name: 'Belts whole and tight: fails' }).click();
    await page.getByLabel('Belts whole and tight: what is wrong').fill('frayed edge');
    await page.keyboard.press('Enter');
    await page.getByLabel('Battery on a charger: measured, V').fill('11.9');
    await page.keyboard.press('Tab');
    await expect(page.getByText('outside 12.4 to 14.8 V')).toBeVisible();
    await expect.poll(async () => (await reread(suvok, mounted.id)).inspections.length).toBe(2);
    await page.getByRole('link', { name: /Record/ }).click();
    await expect(page.getByText('Belts whole and tight: frayed edge')).toBeVisible();
  },
);

test(
  'the fuel ledger computes what is in the tank, and says that the reading still moves',
  { tag: '@long' },
  async ({ page, suvok }) => {
    const { id } = await job(suvok);
    await goTo(page, `${suvok.origin}/jobs/${id}/brief`);
    const write = async (kind: string, fields: Record<string, string>) => {
      const opens = page.getByRole('button', { name: 'Write down fuel' });
      if (kind !== 'arrived with' && !(await page.getByRole('group', { name: 'Write down fuel' }).isVisible()))
        await opens.click();
      await page.getByText(kind, { exact: true }).click();
      for (const [label, value] of Object.entries(fields)) await page.getByLabel(label, { exact: true }).fill(value);
      await page.keyboard.press('Enter');
    };
    const now = page.getByTestId('fuel-now');
    await write('arrived with', { Volume: '20', 'Ethanol, percent by volume': '10', 'Name of the fuel': '98 octane' });
    await expect(now).toContainText('10 % ethanol, stated · 20 L · 98 octane');
    await write('added', { Volume: '30', 'Ethanol, percent by volume': '85', 'Name of the fuel': 'E85' });
    await expect(now).toContainText('55 % ethanol, computed · 50 L');
    await expect(page.getByText('The reading is still moving')).toBeVisible();
    await write('measured', { 'Ethanol, percent by volume': '53,8' });
    await expect(page.getByText('53.8 % ethanol')).toBeVisible();
    await write('measured', { 'Ethanol, percent by volume': '54' });
    await expect(now).toContainText('54 % ethanol, measured');
    await page.getByText('To reach another content').click();
    await page.getByLabel('Wanted, % ethanol').fill('70');
    await expect(page.getByText(/Add 53\.\d L: 103\.\d L of 70 %/)).toBeVisible();
  },
);

test('a change of two things is warned of, split, predicted, decided, and gone back from', async ({ page, suvok }) => {
  const mounted = await suvok.mountedJob();
  await goTo(page, `${suvok.origin}/jobs/${mounted.id}/record`);
  await expect(page.getByText('New setup from A')).toBeVisible();
  await page.keyboard.press('n');
  await page.getByLabel('What changed from A?').fill('ignition +1.5° above 4,000, boost +0.1 bar');
  await expect(page.getByText('Understood: ignition +1.5° above 4,000 rpm · boost +10 kPa')).toBeVisible();
  await page.getByRole('button', { name: 'Split into 2 steps' }).click();
  await expect(page.getByRole('button', { name: /boost \+10 kPa: all about setup C/ })).toBeVisible();
  const { setups } = await reread(suvok, mounted.id);
  expect(setups.map(({ letter, items }) => [letter, items.length])).toEqual([
    ['A', 0],
    ['B', 1],
    ['C', 1],
  ]);
  await page.getByRole('button', { name: /all about setup C/ }).click();
  await page.getByLabel(/Expected to give on its parent/).fill('2');
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await reread(suvok, mounted.id)).setups[2]!.predictionKw).toBe(2);
  await page
    .getByLabel('Tune file', { exact: true })
    .setInputFiles({ name: 'r2.bin', mimeType: 'application/octet-stream', buffer: Buffer.from('tune') });
  await expect(page.getByText('r2.bin is kept. Its content is new here.')).toBeVisible();
  await page.getByRole('dialog').getByText('go back', { exact: true }).click();
  await page.getByRole('button', { name: 'Go back to B now' }).click();
  await expect(page.getByRole('button', { name: /Back to B: all about setup D/ })).toBeVisible();
  expect((await reread(suvok, mounted.id)).setups[3]).toMatchObject({ parentId: setups[1]!.id, items: [] });
});

test(
  'the same tune file is recognised by its content, whatever it is called',
  { tag: '@long' },
  async ({ page, suvok }) => {
    const { id } = await job(suvok);
    await goTo(page, `${suvok.origin}/jobs/${id}/record`);
    await page.getByRole('button', { name: /all about setup A/ }).click();
    const give = (name: string) =>
      page
        .getByLabel('Tune file', { exact: true })
        .setInputFiles({ name, mimeType: 'application/octet-stream', buffer: Buffer.from('same') });
    await give('arrived.bin');
    await expect(page.getByText('arrived.bin is kept.')).toBeVisible();
    await give('copy.bin');
    await expect(page.getByText('copy.bin is known: the same content ran as arrived.bin in setup A.')).toBeVisible();
    // What comes back from a remote tuner is the next setup, or what was here before.
    const returned = (name: string, content: string) =>
      page
        .getByLabel('Returned file')
        .setInputFiles({ name, mimeType: 'application/octet-stream', buffer: Buffer.from(content) });
    await returned('r3.bin', 'another');
    await expect(page.getByText('Setup B was made from A with r3.bin.')).toBeVisible();
    await expect(page.getByRole('button', { name: /all about setup B/ })).toBeVisible();
    await returned('r4.bin', 'another');
    await expect(page.getByText('r4.bin is r3.bin of setup B again. Nothing was stored.')).toBeVisible();
  },
);

test('a job is paused, closed with what it left with, reopened, and the timeline tells it', async ({ page, suvok }) => {
  const { id } = await job(suvok, { question: 'Does it pay?' });
  await goTo(page, `${suvok.origin}/jobs/${id}/brief`);
  await page.getByRole('button', { name: 'Pause' }).click();
  await page.getByLabel('Which').fill('a pump is ordered');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Paused, waits for a part (a pump is ordered)')).toBeVisible();
  await page.getByRole('button', { name: 'Resume' }).click();
  await page.getByRole('button', { name: 'Close the job' }).click();
  await expect(page.getByText('Rev limiter where it belongs').last()).toBeVisible();
  await page.getByLabel('What stayed untested').fill('cold start');
  const points = page.getByRole('list', { name: /Points of the hand-over/ });
  await expect(points.getByText('What was not tested is written down.')).toBeVisible();
  await expect(points.getByText('No power run was made.')).toBeVisible();
  await expect(page.getByText('5 points are open. They are recorded with the closing.')).toBeVisible();
  await page.getByRole('dialog').getByRole('button', { name: 'Close the job' }).click();
  await expect(page.getByText('delivered with A', { exact: true })).toBeVisible();
  await expect(page.getByText('untested: cold start', { exact: true })).toBeVisible();
  await expect(page.getByText('Open when it was closed')).toBeVisible();
  await expect(page.getByRole('main').getByText('The road check is not ticked.')).toBeVisible();
  await expect(page.getByLabel('Target in words')).toBeDisabled();
  await expect(page.getByLabel('Question')).toBeDisabled();
  await page.getByRole('button', { name: 'Reopen' }).click();
  await expect(page.getByLabel('Target in words')).toBeEnabled();
  await page.keyboard.press('3');
  await expect(page.getByText('Job closed, delivered with A')).toBeVisible();
  await page.getByLabel('A line for the timeline').fill('belt squeals when cold');
  await page.keyboard.press('Enter');
  await expect(page.getByText('belt squeals when cold')).toBeVisible();
  await goTo(page, `${suvok.origin}/jobs?search=squeals`);
  await expect(page.getByRole('link', { name: /Marrick tourer/ })).toContainText('waits for its baseline');
});

test('a suspicion has a cause, a test and an outcome; a photo is shown', async ({ page, suvok }) => {
  const { id } = await job(suvok);
  await goTo(page, `${suvok.origin}/jobs/${id}/brief?show=history`);
  await page.getByLabel('New suspicion').fill('weak pump');
  await page.keyboard.press('Enter');
  await page.getByLabel('weak pump: the test that settles it').fill('log pressure at 6,000');
  await page.keyboard.press('Tab');
  await page.getByRole('combobox', { name: 'weak pump: how it stands' }).click();
  await page.getByRole('option', { name: 'ruled out' }).click();
  await expect
    .poll(async () => (await reread(suvok, id)).suspicions[0])
    .toMatchObject({ test: 'log pressure at 6,000', state: 'ruled out' });
  const png = Buffer.from(
    'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
    'base64',
  );
  await page.locator('input[type=file]').setInputFiles({ name: 'plug of 3.png', mimeType: 'image/png', buffer: png });
  await expect(page.getByRole('img', { name: 'plug of 3' })).toBeVisible();
});

test('a car keeps its owner, ratios and parts, and its jobs', { tag: '@long' }, async ({ page, suvok }) => {
  const { vehicleId } = await job(suvok, { question: 'First visit?' });
  await job(suvok, { question: 'Second visit?' });
  await goTo(page, `${suvok.origin}/vehicles`);
  await page.getByRole('link', { name: /Marrick tourer/ }).click();
  await expect(page).toHaveURL(new RegExp(`/vehicles/${vehicleId}$`));
  await expect(page.getByText('First visit?')).toBeVisible();
  await page.getByLabel('Driven tyres').fill('205/55 R16');
  await page.keyboard.press('Enter');
  await page.getByLabel('Final drive').fill('3.9');
  await page.keyboard.press('Enter');
  await page.getByLabel('Gears').fill('3rd 1.36, 4th 1');
  await page.keyboard.press('Enter');
  await expect(page.getByText('33.8 rpm per km/h')).toBeVisible();
  await expect(page.getByText('3,380 rpm')).toBeVisible();
  await page.getByLabel('New part').fill('camshaft, 280°');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('combobox', { name: 'camshaft, 280°: how well it is known' })).toHaveValue('believed');
  await page.getByLabel('Gears').fill('fourth');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/Write each gear with its ratio/)).toBeVisible();
});

test('Ctrl Z takes back what this page did last', async ({ page, suvok }) => {
  const { id } = await job(suvok);
  await goTo(page, `${suvok.origin}/jobs/${id}/brief`);
  await page.getByLabel('New band').fill('top 5,000–6,500');
  await page.keyboard.press('Enter');
  await expect(page.getByText('5,000 to 6,500 rpm')).toBeVisible();
  await page.getByRole('heading', { name: 'Limits' }).click();
  await page.keyboard.press('Control+z');
  await expect(page.getByText('Undone.')).toBeVisible();
  await expect(page.getByText('5,000 to 6,500 rpm')).toBeHidden();
});

test('a frozen baseline is a list of runs: it holds until a new version is frozen', async ({ page, recorded }) => {
  const { suvok, job } = await recorded('two-setups');
  await suvok.ask('POST', `/jobs/${job.id}/bands`, { name: 'flat out', fromRpm: 5000, toRpm: 6500 });
  await goTo(page, `${suvok.origin}/jobs/${job.id}/compare`);
  await page.getByRole('button', { name: 'Baseline: A' }).click();
  await page.getByRole('button', { name: 'Freeze A1 A2 A3' }).click();
  await expect(page.getByRole('button', { name: 'Baseline: A, frozen v1' })).toBeVisible();
  await expect(page.getByRole('dialog', { name: 'Baseline' })).toHaveCount(0);
  const before = (await tableOf(page)).common;
  const a3 = job.runs.find((run) => run.label === 'A3')!;
  await suvok.ask('PATCH', `/runs/${a3.id}`, { setAsideReason: 'visitor at the fan' });
  await expect(page.getByText(/frozen as A1 A2 A3 \(version 1\); the runs that count now are A1 A2/)).toBeVisible();
  expect((await tableOf(page)).common).toEqual(before);
  await page.getByRole('button', { name: 'Baseline: A, frozen v1' }).click();
  await page.getByLabel('Why it is replaced').fill('A3 had a visitor');
  await page.getByRole('button', { name: 'Freeze A1 A2' }).click();
  await expect(page.getByRole('button', { name: 'Baseline: A, frozen v2' })).toBeVisible();
  await expect.poll(async () => (await tableOf(page)).common).not.toEqual(before);
  // The band that the brief names is judged first, and is named beside the cards' gains; the common range is one press away.
  await expect(page.getByTestId('gain-table').locator('tr[data-row=band]')).toContainText('flat out, 5,000–6,500');
  await expect(page.getByTestId('gain-table').locator('tr[data-row=torque-band]')).toContainText('flat out');
  await expect(page.getByRole('complementary', { name: 'Setups' })).toContainText('gains over flat out, 5,000–6,500');
  await page.getByRole('button', { name: 'Range that the sentence is about: flat out' }).click();
  await page.getByRole('checkbox', { name: 'flat out, 5,000–6,500 rpm' }).click();
  await expect(page).toHaveURL(/band=common/);
  await expect(page.getByTestId('gain-table').locator('tr[data-row=band]')).toHaveCount(0);
  await page.getByRole('link', { name: /Brief/ }).click();
  await expect(page.getByRole('heading', { name: 'Limits' })).toBeVisible();
  await page.keyboard.press('3');
  await expect(page.getByText('Baseline frozen, version 2: A3 had a visitor')).toBeVisible();
});

test(
  'fuel that changes the content proposes a setup, and the next comparison tells it',
  { tag: '@long' },
  async ({ page, suvok }) => {
    const mounted = await suvok.mountedJob();
    const at = (minutes: number) => new Date(Date.now() - minutes * 60e3).toISOString();
    const entry = { litres: 20, note: '', name: '98 octane' };
    await suvok.ask('POST', `/jobs/${mounted.id}/fuel-entries`, {
      ...entry,
      kind: 'arrived',
      at: at(60),
      ethanolPct: 10,
    });
    await suvok.startStandIns('fast');
    await suvok.record(mounted, 2);
    await suvok.ask('POST', `/jobs/${mounted.id}/fuel-entries`, {
      ...entry,
      kind: 'added',
      at: at(1),
      ethanolPct: 85,
      name: 'E85',
    });
    await goTo(page, `${suvok.origin}/jobs/${mounted.id}/brief`);
    await expect(page.getByText('A2 ran on 10 %.')).toBeVisible();
    await page.getByRole('button', { name: 'Begin it' }).click();
    await expect
      .poll(async () => (await reread(suvok, mounted.id)).setups[1]?.items)
      .toEqual([{ kind: 'fuel', name: 'E48' }]);
    const { setups } = await reread(suvok, mounted.id);
    await suvok.ask('PUT', '/bays/1/mounted', { jobId: mounted.id, setupId: setups[1]!.id });
    await suvok.record(mounted, 2);
    await page.getByRole('link', { name: /Compare/ }).click();
    await expect(
      page.getByText('The fuel ledger had 47.5 % ethanol for one side and 10 % for the other.'),
    ).toBeVisible();
    await expect(page.getByText(/had not settled when B1, B2 began/)).toBeVisible();
  },
);

test(
  'a target figure is followed run by run, beside what is claimed and expected',
  { tag: '@long' },
  async ({ page, suvok }) => {
    const mounted = await suvok.mountedJob();
    await suvok.ask('PATCH', `/jobs/${mounted.id}`, {
      claimedValue: 150,
      claimedUnit: 'hp',
      claimedScale: 'crank',
      claimedSource: 'the builder',
    });
    await goTo(page, `${suvok.origin}/jobs/${mounted.id}/brief`);
    await page.getByLabel('At least').fill('20');
    await page.getByRole('button', { name: 'Add', exact: true }).first().click();
    await expect(page.getByText('peak power at least 20 kW at the wheels').first()).toBeVisible();
    await suvok.ask('POST', `/jobs/${mounted.id}/targets`, {
      quantity: 'torque at',
      fromRpm: 4000,
      toRpm: null,
      value: 900,
      scale: 'wheels',
      standard: 'sae-j1349',
    });
    await suvok.ask('POST', `/jobs/${mounted.id}/targets`, {
      quantity: 'peak boost',
      fromRpm: null,
      toRpm: null,
      value: 60,
      scale: null,
      standard: null,
    });
    await suvok.startStandIns('fast');
    await suvok.record(mounted, 2);
    const targets = page.getByRole('heading', { name: 'Target figures' }).locator('..');
    await expect(targets.getByText(/^A \d+\.\d\s±\s\d+\.\d\skW: reached$/)).toBeVisible();
    await expect(targets.getByText(/^A \d+\.\d\s±\s\d+\.\d\sN·m: [\d.,]+\sN·m short$/)).toBeVisible();
    await expect(targets.getByText('A –: not driven there, or not recorded')).toBeVisible();
    await expect(page.getByText(/would read 87 to 98\skW here, by the usual losses/)).toBeVisible();
    await expect(page.getByText('and 2 more, below')).toBeVisible();
    await suvok.ask('POST', `/jobs/${mounted.id}/setups`, {
      parentId: mounted.setups[0]!.id,
      change: 'ignition +1°',
      predictionKw: 2,
    });
    await expect(page.getByText('Expected of B')).toBeVisible();
    await expect(page.getByText('not run yet')).toBeVisible();
    await targets.getByRole('button', { name: /^Take away peak boost/ }).click();
    await expect(targets.getByText('A –: not driven there')).toBeHidden();
  },
);

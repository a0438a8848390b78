import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { booking, day, type Booking, type Day } from '../../contract/shop/day.ts';
import { BenchClient } from '../testing/bench-client.ts';
import { eventually, TestServer } from '../testing/test-server.ts';

let server: TestServer;
beforeAll(async () => {
  server = await TestServer.start();
});
afterAll(async () => {
  await server.stop();
  expect(server.errors).toEqual([]);
});

const hour = 3_600_000;
const today = new Date();
today.setHours(0, 0, 0, 0);
const at = (hours: number) => new Date(today.getTime() + hours * hour).toISOString();
const dayOf = async (from = 0, to = 24): Promise<Day> =>
  day.parse(
    await (
      await server.request('GET', `/api/day?${new URLSearchParams({ from: at(from), to: at(to) }).toString()}`)
    ).json(),
  );
const book = (fields: object) =>
  server.request('POST', '/api/bookings', {
    bay: 1,
    jobId: null,
    title: 'Somebody',
    work: '',
    startsAt: at(9),
    endsAt: at(11),
    ...fields,
  });
const booked = async (fields: object = {}) => booking.parse(((await (await book(fields)).json()) as Booking[])[0]);
const error = async (answer: Response) => [answer.status, ((await answer.json()) as { error: string }).error];

test('a booking is made, moved, stretched, taken away and brought back', async () => {
  const made = await booked({ title: 'M. Aldous' });
  expect((await dayOf()).bookings).toMatchObject([{ id: made.id, title: 'M. Aldous', bay: 1, series: null }]);
  const moved = await server.request('PATCH', `/api/bookings/${made.id}`, {
    bay: null,
    startsAt: at(10),
    endsAt: at(13),
  });
  expect(await moved.json()).toMatchObject({ bay: null, startsAt: at(10), endsAt: at(13), revision: 2 });
  // The same field changed by two: the later one is told what stands.
  const clash = await server.request('PATCH', `/api/bookings/${made.id}`, { endsAt: at(12), revision: 1 });
  expect((await error(clash))[0]).toBe(409);
  const gone = await server.request('DELETE', `/api/bookings/${made.id}`);
  expect([gone.status, (await dayOf()).bookings]).toEqual([204, []]);
  await server.request('POST', `/api/acts/${gone.headers.get('suvok-act')}/undo`);
  expect((await dayOf()).bookings).toHaveLength(1);
  await server.request('DELETE', `/api/bookings/${made.id}`);
});

test('what cannot be is refused with its reason, and nothing is stored', async () => {
  expect(await error(await book({ endsAt: at(8) }))).toEqual([400, expect.stringContaining('after the beginning')]);
  expect(await error(await book({ title: ' ' }))).toEqual([400, expect.stringContaining('who or what comes')]);
  expect(await error(await book({ jobId: 999_999 }))).toEqual([expect.any(Number), expect.any(String)]);
  const made = await booked();
  expect(await error(await server.request('PATCH', `/api/bookings/${made.id}`, { startsAt: at(12) }))).toEqual([
    400,
    expect.stringContaining('after the beginning'),
  ]);
  expect((await error(await server.request('PATCH', '/api/bookings/999999', { bay: 2 })))[0]).toBe(404);
  for (const query of ['', '?from=x&to=y', `?from=${at(24)}&to=${at(0)}`, `?from=${at(0)}&to=${at(9 * 24)}`])
    expect((await error(await server.request('GET', `/api/day${query}`)))[0]).toBe(400);
  expect((await dayOf()).bookings.map(({ id }) => id)).toEqual([made.id]);
  await server.request('DELETE', `/api/bookings/${made.id}`);
});

test('what repeats stands at the same hour each week, and the rest of it is taken away together', async () => {
  const answer = await book({ title: 'Shop car', work: 'check run', repeat: { every: 'week', times: 3 } });
  const made = (await answer.json()) as Booking[];
  expect(made).toHaveLength(3);
  expect(new Set(made.map(({ series }) => series)).size).toBe(1);
  expect(new Set(made.map(({ startsAt }) => new Date(startsAt).getHours())).size).toBe(1);
  expect(
    made.map(({ startsAt }) => Math.round((Date.parse(startsAt) - Date.parse(made[0]!.startsAt)) / (24 * hour))),
  ).toEqual([0, 7, 14]);
  await server.request('DELETE', `/api/bookings/${made[1]!.id}?series=rest`);
  expect((await dayOf()).bookings).toHaveLength(1);
  expect((await dayOf(7 * 24, 8 * 24)).bookings).toEqual([]);
  expect((await dayOf(14 * 24, 15 * 24)).bookings).toEqual([]);
  await server.request('DELETE', `/api/bookings/${made[0]!.id}`);
});

test('the day tells what was worked, who waits for what and since when, and times put right by hand', async () => {
  const job = await server.newJob();
  const dyno = await BenchClient.connect(server.running.benchLinkPort);
  dyno.hello();
  await server.mount(job);
  await eventually('the dyno', async () => (await server.bay()).devices.length > 0);
  dyno.pull();
  const run = await eventually('the run', async () => (await server.runs(job)).find(({ state }) => state === 'sealed'));
  dyno.socket.end();
  const worked = await dayOf(-24, 48);
  expect(worked.runs).toMatchObject([{ jobId: job.id, letter: 'A', label: run.label, bay: 1 }]);
  expect(worked.jobs).toMatchObject([
    { id: job.id, vehicle: job.vehicle, state: 'open', pausedFor: null, sentAt: null, failed: [] },
  ]);
  const asked = Date.now();
  await server.request('PUT', `/api/jobs/${job.id}/state`, {
    state: 'paused',
    for: 'part',
    why: 'a pump',
    expectedAt: at(30),
  });
  const paused = await dayOf(-24, 48);
  expect(paused.jobs[0]).toMatchObject({
    state: 'paused',
    pausedFor: 'part',
    pausedWhy: 'a pump',
    expectedAt: at(30),
    waiting: 'a part (a pump)',
  });
  const pausedMs = Date.parse(paused.jobs[0]!.pausedAt!);
  expect(pausedMs).toBeGreaterThan(asked - 1000);
  expect(pausedMs).toBeLessThan(Date.now() + 1000);
  expect(paused.states).toMatchObject([{ jobId: job.id, state: 'paused', why: 'a pump' }]);
  await server.request('PUT', `/api/jobs/${job.id}/state`, { state: 'open' });
  expect((await dayOf(-24, 48)).jobs[0]).toMatchObject({
    state: 'open',
    pausedFor: null,
    pausedAt: null,
    expectedAt: null,
  });
  const hand = { bay: 1, startsAt: at(8), endsAt: at(9), why: 'mounted from eight on' };
  expect((await server.request('POST', `/api/jobs/${job.id}/work-times`, { ...hand, why: '' })).status).toBe(400);
  expect((await server.request('POST', `/api/jobs/${job.id}/work-times`, hand)).status).toBe(201);
  expect((await dayOf()).workTimes).toMatchObject([{ jobId: job.id, ...hand }]);
  expect(await (await server.request('GET', `/api/jobs/${job.id}`)).json()).toMatchObject({ workTimes: [hand] });
});

import { afterAll, beforeAll, expect, test } from '@jest/globals';
import sharp from 'sharp';
import { charge, price, type Charge, type Price } from '../../contract/shop/charges.ts';
import { equipment, type Equipment } from '../../contract/shop/equipment.ts';
import type { Job } from '../../contract/job/records.ts';
import { TestServer } from '../testing/test-server.ts';

let server: TestServer;
beforeAll(async () => {
  server = await TestServer.start();
});
afterAll(async () => {
  await server.stop();
  expect(server.errors).toEqual([]);
});

const probe = {
  name: 'λ probe 2',
  kind: 'probe',
  serial: '',
  what: 'free-air check',
  lastOn: '2026-03-29',
  everyDays: 30,
  dueOn: null,
  device: '',
  note: '',
};
const all = async () => equipment.array().parse(await (await server.request('GET', '/api/equipment')).json());
const send = (id: number, content: Buffer | string, name: string) => {
  const form = new FormData();
  form.append('file', new Blob([content as BlobPart]), name);
  return fetch(`${server.origin}/api/equipment/${id}/files`, { method: 'POST', body: form });
};

test('equipment is kept with days of the calendar, whatever the zone; taken away and brought back', async () => {
  const made = await server.json<Equipment>('POST', '/api/equipment', probe);
  expect(await all()).toMatchObject([{ ...probe, id: made.id, files: [] }]);
  await server.json('PATCH', `/api/equipment/${made.id}`, { lastOn: '2026-04-28' });
  expect((await all())[0]).toMatchObject({ lastOn: '2026-04-28', everyDays: 30 });
  for (const wrong of [
    { lastOn: '2026-02-30' },
    { lastOn: 'soon' },
    { everyDays: 0 },
    { name: ' ' },
    { kind: 'hammer' },
  ])
    expect((await server.request('PATCH', `/api/equipment/${made.id}`, wrong)).status).toBe(400);
  const gone = await server.request('DELETE', `/api/equipment/${made.id}`);
  expect(await all()).toEqual([]);
  await server.request('POST', `/api/acts/${gone.headers.get('suvok-act')}/undo`);
  expect(await all()).toHaveLength(1);
});

test('a certificate is a whole PDF or picture, and comes back as it was; anything else is refused', async () => {
  const [{ id }] = (await all()) as [Equipment];
  const picture = await sharp({ create: { width: 4, height: 4, channels: 3, background: '#fff' } })
    .png()
    .toBuffer();
  const taken = (await (await send(id, picture, 'probe.png')).json()) as { id: number; mime: string };
  expect(taken.mime).toBe('image/png');
  expect((await send(id, '%PDF-1.4\n1 0 obj\n%%EOF', 'sheet.pdf')).status).toBe(201);
  for (const wrong of ['<script>alert(1)</script>', '%PDF-1.4 cut', picture.subarray(0, 20)])
    expect((await send(id, wrong, 'x.pdf')).status).toBe(400);
  expect((await send(999_999, picture, 'x.png')).status).toBe(404);
  const content = await server.request('GET', `/api/equipment-files/${taken.id}/content`);
  expect(Buffer.from(await content.arrayBuffer()).equals(picture)).toBe(true);
  expect([content.headers.get('content-disposition'), content.headers.get('content-security-policy')]).toEqual([
    expect.stringContaining('attachment'),
    expect.stringContaining('sandbox'),
  ]);
  expect((await all())[0]!.files.map(({ name }) => name)).toEqual(['sheet.pdf', 'probe.png']);
  await server.request('DELETE', `/api/equipment-files/${taken.id}`);
  expect((await server.request('GET', `/api/equipment-files/${taken.id}/content`)).status).toBe(404);
});

test('prices and lines of a job are numbers to the cent, and a line keeps its own price', async () => {
  const listed = await server.json<Price>('POST', '/api/prices', {
    name: 'Dyno',
    per: 'dyno hour',
    amount: 95.25,
    currency: '€',
  });
  expect(price.array().parse(await (await server.request('GET', '/api/prices')).json())).toMatchObject([
    { amount: 95.25 },
  ]);
  const job = await server.newJob();
  const line = { what: 'Dyno', per: 'dyno hour', quantity: 2.25, amount: 95.25, currency: '€', why: '', setupId: null };
  const made = charge.parse(await server.json<Charge>('POST', `/api/jobs/${job.id}/charges`, line));
  await server.json('PATCH', `/api/prices/${listed.id}`, { amount: 110 });
  await server.json('PATCH', `/api/charges/${made.id}`, { quantity: 2, why: 'a quarter of an hour was ours' });
  const { charges } = await server.json<Job>('GET', `/api/jobs/${job.id}`);
  expect(charges).toMatchObject([{ ...line, quantity: 2, why: 'a quarter of an hour was ours' }]);
  for (const wrong of [{ amount: -1 }, { per: 'day' }, { what: '' }, { currency: '' }])
    expect((await server.request('POST', `/api/jobs/${job.id}/charges`, { ...line, ...wrong })).status).toBe(400);
  await server.request('DELETE', `/api/charges/${made.id}`);
  expect((await server.json<Job>('GET', `/api/jobs/${job.id}`)).charges).toEqual([]);
});

import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { shiftNote, type ShiftNote } from '../../contract/shop/shifts.ts';
import { TestServer } from '../testing/test-server.ts';

let server: TestServer;
beforeAll(async () => {
  server = await TestServer.start();
});
afterAll(async () => {
  await server.stop();
  expect(server.errors).toEqual([]);
});

const all = async () => shiftNote.array().parse(await (await server.request('GET', '/api/shift-notes')).json());
const written = { text: 'Bay 1: coupé.\nThe left strap creaks.', handedBy: 'Ola', at: '2026-05-14T13:00:00.000Z' };

test('a shift is handed over, taken over by somebody, taken away and brought back; the last stands first', async () => {
  const made = await server.json<ShiftNote>('POST', '/api/shift-notes', written);
  expect(await all()).toMatchObject([{ ...written, takenBy: null, takenAt: null }]);
  await server.json('PATCH', `/api/shift-notes/${made.id}`, {
    takenBy: 'Vic',
    takenAt: '2026-05-14T13:10:00.000Z',
    revision: made.revision,
  });
  // Two take over at once: the second hears of the first.
  const late = await server.request('PATCH', `/api/shift-notes/${made.id}`, {
    takenBy: 'Ann',
    takenAt: '2026-05-14T13:11:00.000Z',
    revision: made.revision,
  });
  expect([late.status, ((await late.json()) as { error: string }).error]).toEqual([
    409,
    expect.stringContaining('“Vic”'),
  ]);
  await server.json('POST', '/api/shift-notes', { ...written, text: 'evening', at: '2026-05-14T18:00:00.000Z' });
  expect((await all()).map(({ text, takenBy }) => [text.slice(0, 7), takenBy])).toEqual([
    ['evening', null],
    ['Bay 1: ', 'Vic'],
  ]);
  const gone = await server.request('DELETE', `/api/shift-notes/${made.id}`);
  expect(await all()).toHaveLength(1);
  await server.request('POST', `/api/acts/${gone.headers.get('suvok-act')}/undo`);
  expect(await all()).toHaveLength(2);
  for (const wrong of [{ text: ' ' }, { at: 'soon' }, { text: undefined }])
    expect((await server.request('POST', '/api/shift-notes', { ...written, ...wrong })).status).toBe(400);
});

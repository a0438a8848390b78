/** @jest-environment jsdom */
import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { usualPlan } from '../../contract/instruments/recording.ts';
import { latestReading, newestRow, onRow, rowsOlderThan, useLive, watchBay } from './live.ts';
import { bayWith, connectedPage, FakeSocket } from '../testing/live-rows.ts';
import { queryClient } from './queries.ts';

const socket = () => FakeSocket.all.at(-1)!;
const real = globalThis.WebSocket;

beforeEach(() => {
  jest.useFakeTimers();
  connectedPage();
});
afterEach(() => {
  Object.assign(globalThis, { WebSocket: real });
  jest.useRealTimers();
  jest.restoreAllMocks();
});

test('rows are heard one by one in their columns; a channel without a reading has none', () => {
  const heard: number[][] = [];
  const end = onRow((row) => heard.push([...row]));
  socket().say({ type: 'columns', bay: 1, device: 'roller', columns: ['time', 'engineSpeed', 'lambda'] });
  socket().rows(1, 3000, 0.9, 2, 3100, NaN);
  expect(heard).toEqual([
    [1, 3000, 0.9],
    [2, 3100, NaN],
  ]);
  expect(latestReading('engineSpeed')).toBe(3100);
  expect(latestReading('lambda')).toBeUndefined();
  expect(latestReading('boost')).toBeUndefined();
  end();
  socket().rows(3, 3200, 0.9);
  expect(heard).toHaveLength(2);
});

test('rows that do not fit the columns are not taken for readings, and new columns begin anew', () => {
  socket().rows(1, 2, 3);
  socket().say({ type: 'columns', bay: 1, device: 'roller', columns: ['time', 'engineSpeed'] });
  socket().rows(1, 3000, 2);
  expect(newestRow()).toBeUndefined();
  socket().rows(1, 3000);
  socket().say({ type: 'columns', bay: 1, device: 'hubs', columns: ['time', 'hubSpeed'] });
  expect(latestReading('hubSpeed')).toBeUndefined();
  expect(useLive.getState().dynoDevice).toBe('hubs');
});

test('a lost connection is made anew, and then everything is fetched anew', () => {
  const invalidate = jest.spyOn(queryClient, 'invalidateQueries').mockResolvedValue(undefined);
  socket().onclose!();
  expect(useLive.getState().connected).toBe(false);
  jest.advanceTimersByTime(1100);
  expect(FakeSocket.all).toHaveLength(2);
  socket().onopen!();
  expect(useLive.getState().connected).toBe(true);
  expect(invalidate).toHaveBeenCalledTimes(1);
});

test('where the session has ended, whoever asks next is told so; another end of the connection asks nothing', () => {
  const invalidate = jest.spyOn(queryClient, 'invalidateQueries').mockResolvedValue(undefined);
  socket().onclose!({ code: 1006 } as CloseEvent);
  expect(invalidate).not.toHaveBeenCalled();
  socket().onclose!({ code: 4401 } as CloseEvent);
  expect(invalidate).toHaveBeenCalledTimes(1);
});

test('a changed job is fetched anew, and no other one', () => {
  const invalidate = jest.spyOn(queryClient, 'invalidateQueries').mockResolvedValue(undefined);
  const fetched = (table: string, jobId: number | null) => {
    invalidate.mockClear();
    socket().say({ type: 'changed', table, jobId });
    return invalidate.mock.calls.map(([filters]) => filters!.queryKey);
  };
  expect(fetched('band', 7)).toEqual([['job', 7], ['history', 7], ['jobs'], ['vehicle'], ['day']]);
  expect(fetched('shift_note', null)).toEqual([['shift-notes'], ['day']]);
  expect(fetched('owner', null)).toContainEqual(['owners']);
  // What a later Suvok tells of may be anything.
  expect(fetched('not_known_here', 7).length).toBeGreaterThan(10);
  socket().say({ type: 'rubbish' });
  expect(useLive.getState().bay).toBeUndefined();
});

test('a page watches one bay: what the other says is not shown, and a late word of it is not misread', () => {
  socket().say({ type: 'columns', bay: 1, device: 'roller', columns: ['time', 'engineSpeed'] });
  socket().rows(1, 3000);
  watchBay(2);
  expect(socket().said).toEqual([
    { type: 'watch', bay: 1 },
    { type: 'watch', bay: 2 },
  ]);
  // Rows that were on their way, and columns said again for the old bay.
  socket().rows(2, 3100);
  socket().say({ type: 'columns', bay: 1, device: 'roller', columns: ['time', 'engineSpeed', 'lambda'] });
  socket().rows(3, 3200, 0.9);
  expect([newestRow(), useLive.getState().dynoDevice]).toEqual([undefined, undefined]);
  socket().say({ type: 'columns', bay: 2, device: 'hubs', columns: ['time', 'hubSpeed'] });
  socket().rows(1, 88);
  expect(latestReading('hubSpeed')).toBe(88);
  // The way is lost and found: the wish is said again.
  socket().onclose!();
  jest.advanceTimersByTime(1100);
  socket().onopen!();
  expect(socket().said).toEqual([{ type: 'watch', bay: 2 }]);
});

test('a bay that is taken away is watched no longer', () => {
  const bayOf = (bay: number) => ({
    ...bayWith('idle'),
    bay,
    name: `Bay ${bay}`,
    air: null,
    mounted: null,
    plan: usualPlan,
    devices: [],
  });
  watchBay(2);
  socket().say({
    type: 'bays',
    bays: [bayOf(1), bayOf(2)],
    unplaced: [],
    plain: [],
    trial: null,
    silentSince: null,
    pairing: { outside: null, until: null, instruments: [] },
  });
  expect(useLive.getState().bay?.name).toBe('Bay 2');
  socket().say({
    type: 'bays',
    bays: [bayOf(1)],
    unplaced: [],
    plain: [],
    trial: null,
    silentSince: null,
    pairing: { outside: null, until: null, instruments: [] },
  });
  expect(useLive.getState()).toMatchObject({ watched: 1, bay: { name: 'Bay 1' } });
});

test('a server that hangs is told within seconds, and since when; its next word ends that', () => {
  socket().say({ type: 'columns', bay: 1, device: 'roller', columns: ['time', 'engineSpeed'] });
  socket().rows(1, 1948, 1.1, 1948);
  for (let beat = 0; beat < 8; beat++) {
    jest.advanceTimersByTime(500);
    socket().say({ type: 'alive' });
  }
  expect(useLive.getState().connected).toBe(true);
  // The server lives, and no row comes: the reading is old all the same.
  expect(rowsOlderThan(2000)).toBe(true);
  const from = Date.now();
  jest.advanceTimersByTime(2500);
  expect(useLive.getState().connected).toBe(false);
  expect(Math.abs(useLive.getState().silentSince! - from)).toBeLessThan(600);
  socket().say({ type: 'alive' });
  expect(useLive.getState()).toMatchObject({ connected: true, silentSince: undefined });
  socket().rows(9, 1900);
  expect(rowsOlderThan(2000)).toBe(false);
});

test('where nothing comes for long the server is sought anew', () => {
  jest.advanceTimersByTime(13_000);
  expect(FakeSocket.all.length).toBe(2);
  socket().onopen!();
  expect(useLive.getState().connected).toBe(true);
});

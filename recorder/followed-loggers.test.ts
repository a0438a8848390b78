import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { EventEmitter } from 'node:events';
import type { Device } from './devices/device.ts';
import { FollowedLoggers } from './followed-loggers.ts';
import { LoggerTap } from './logger-tap.ts';

const logger = (name: string, playsFast = false) =>
  Object.assign(new EventEmitter(), {
    hello: { device: name, name },
    intake: { channels: [{ name: 'lambda', unit: '–' }] },
    settings: { probe: undefined },
    connected: true,
    playsFast,
  });
const says = (device: EventEmitter, from: number, to: number) => {
  for (let at = from; at <= to; at++) device.emit('row', Float64Array.of(at, 0.9));
};
const times = (rows: Float64Array[]) => rows.map(([at]) => at);

let kept: Record<number, number[]>;
const keep = (rows: Float64Array[], source: number) => (kept[source] ??= []).push(...(times(rows) as number[]));

beforeEach(() => {
  jest.useFakeTimers();
  kept = {};
});
afterEach(() => void jest.useRealTimers());

/** Whether something has ended after a while. */
async function endsWithin(promise: Promise<void>, ms: number): Promise<boolean> {
  let ended = false;
  void promise.then(() => (ended = true));
  await jest.advanceTimersByTimeAsync(ms);
  return ended;
}

test('one that has said nothing is not followed; the others are numbered from 1', () => {
  const [silent, heard] = [logger('silent'), logger('heard')];
  const taps = [silent, heard].map((device) => new LoggerTap(device as unknown as Device));
  says(heard, 1, 3);
  const followed = new FollowedLoggers(taps, 2, keep);
  expect(followed.taps).toEqual([taps[1]]);
  expect(followed.records()).toMatchObject([{ source: 1, device: 'heard' }]);
});

test('what was said before the run was noticed, and while it goes on, goes into it; what comes after does not', async () => {
  const device = logger('slow');
  const tap = new LoggerTap(device as unknown as Device);
  says(device, 1, 20);
  const followed = new FollowedLoggers([tap], 2, keep);
  followed.handOverEarlier();
  // The lead, and a margin for the time that its readings take.
  expect(kept[1]).toEqual([15, 16, 17, 18, 19, 20]);
  says(device, 21, 25);
  expect(await endsWithin(followed.arrived(5, performance.now()), 50)).toBe(true);
  says(device, 26, 30);
  expect(kept[1]).toEqual([15, 16, 17, 18, 19, 20, 21, 22, 23, 24, 25]);
});

test('one that lags behind is waited for a little, and one that has gone is not', async () => {
  const device = logger('late');
  const tap = new LoggerTap(device as unknown as Device);
  says(device, 1, 10);
  const followed = new FollowedLoggers([tap], 2, keep);
  const arrived = followed.arrived(5, performance.now());
  expect(await endsWithin(arrived, 300)).toBe(false);
  says(device, 11, 15);
  expect(await endsWithin(arrived, 30)).toBe(true);

  const never = new FollowedLoggers([tap], 2, keep).arrived(60, performance.now());
  expect(await endsWithin(never, 350)).toBe(false);
  expect(await endsWithin(never, 100)).toBe(true);

  device.connected = false;
  expect(await endsWithin(new FollowedLoggers([tap], 2, keep).arrived(60, performance.now()), 5)).toBe(true);
});

test('without loggers nothing is waited for', async () => {
  expect(await endsWithin(new FollowedLoggers([], 2, keep).arrived(10, 0), 1)).toBe(true);
});

import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { EventEmitter } from 'node:events';
import type { Device } from '../devices/device.ts';
import { FollowedLoggers } from './followed-loggers.ts';
import { LoggerTap } from './logger-tap.ts';

const logger = (name: string, session: number, playsFast = false) =>
  Object.assign(new EventEmitter(), {
    hello: { device: name, name },
    intake: { channels: [{ name: 'lambda', unit: '–' }] },
    settings: { probe: undefined },
    connected: true,
    session,
    rows: 0,
    playsFast,
  });
type Logger = ReturnType<typeof logger>;
const tapOf = (device: Logger) => new LoggerTap(device as unknown as Device);
const says = (device: Logger, from: number, to: number) => {
  for (let at = from; at <= to; at++) {
    device.rows++;
    device.emit('row', Float64Array.of(at, 0.9));
  }
};

/** Nothing of theirs has been given up. */
const from = (taps: LoggerTap[], leadS: number) => FollowedLoggers.from(taps, leadS, () => 0);

beforeEach(() => void jest.useFakeTimers());
afterEach(() => void jest.useRealTimers());

/** What something gives within a while; undefined where it has not ended by then. */
async function within<T>(promise: Promise<T>, ms: number): Promise<T | undefined> {
  let given: T | undefined;
  void promise.then((value) => (given = value));
  await jest.advanceTimersByTimeAsync(ms);
  return given;
}

test('one that has said nothing is not followed; the others are numbered from 1', () => {
  const [silent, heard] = [logger('silent', 1), logger('heard', 2)];
  const taps = [silent, heard].map(tapOf);
  says(heard, 1, 3);
  const followed = from(taps, 2);
  expect(followed.taps).toEqual([taps[1]]);
  expect(followed.records()).toMatchObject([{ source: 1, device: 'heard' }]);
  expect(followed.sources()).toEqual([{ source: 1, session: 2, from: 0 }]);
});

test('what was said before the run was noticed, and while it goes on, goes into it; what comes after does not', async () => {
  const device = logger('slow', 1);
  const tap = tapOf(device);
  says(device, 1, 20);
  const followed = from([tap], 2);
  // The lead, and a margin for the time that its readings take: rows 14 to 19 hold 15 to 20 s.
  expect(followed.sources()[0]!.from).toBe(14);
  says(device, 21, 25);
  expect(await within(followed.arrived(5, performance.now(), performance.now()), 50)).toEqual([25]);
  says(device, 26, 30);
});

test('a run begins no earlier in a logger than its rows are on the disk', () => {
  const device = logger('slow', 7);
  const tap = tapOf(device);
  says(device, 1, 20);
  const followed = FollowedLoggers.from([tap], 2, (session) => (session === 7 ? 17 : 0));
  expect(followed.sources()[0]!.from).toBe(17);
});

test('what a logger said before it fell silent for long is none of a later run', async () => {
  const device = logger('stood', 1, true);
  const tap = tapOf(device);
  says(device, 1, 20);
  await jest.advanceTimersByTimeAsync(40_000);
  says(device, 21, 23);
  expect(from([tap], 2).sources()[0]!.from).toBe(20);
});

test('one that is played back is not waited for beyond the time in which a run must be saved', async () => {
  const device = logger('played', 1, true);
  const tap = tapOf(device);
  says(device, 1, 10);
  const lastRowMs = performance.now();
  await jest.advanceTimersByTimeAsync(10_500);
  says(device, 11, 12);
  // It goes on speaking, so that no silence ends it.
  const speaks = setInterval(() => says(device, device.rows + 1, device.rows + 1), 500);
  const arrived = from([tap], 2).arrived(60, performance.now(), lastRowMs);
  expect(await within(arrived, 3400)).toBeUndefined();
  expect(await within(arrived, 200)).toHaveLength(1);
  clearInterval(speaks);
});

test('one that lags behind is waited for a little, and one that has gone is not', async () => {
  const device = logger('late', 1);
  const tap = tapOf(device);
  says(device, 1, 10);
  const arrived = from([tap], 2).arrived(5, performance.now(), performance.now());
  expect(await within(arrived, 300)).toBeUndefined();
  says(device, 11, 15);
  expect(await within(arrived, 30)).toEqual([15]);

  const never = from([tap], 2).arrived(60, performance.now(), performance.now());
  expect(await within(never, 350)).toBeUndefined();
  expect(await within(never, 100)).toEqual([15]);

  device.connected = false;
  expect(await within(from([tap], 2).arrived(60, performance.now(), performance.now()), 5)).toEqual([15]);
});

test('without loggers nothing is waited for', async () => {
  expect(await within(from([], 2).arrived(10, 0, performance.now()), 1)).toEqual([]);
});

test('after a restart those that are there go on, and one that has gone has what came of it', async () => {
  const device = logger('here', 4);
  const tap = tapOf(device);
  says(device, 1, 7);
  const sources = [
    { source: 1, session: 3, from: 2 },
    { source: 2, session: 4, from: 5 },
  ];
  const followed = FollowedLoggers.again([tap], sources, (session) => (session === 3 ? 40 : 0));
  expect(followed.sources()).toEqual(sources);
  expect(await within(followed.arrived(9, performance.now(), performance.now()), 20)).toEqual([40, 7]);
});

/** @jest-environment jsdom */
import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { act, cleanup, renderHook } from '@testing-library/react';
import { generatedRun } from '../../core/testing/generated-run.ts';
import { testDyno } from '../../core/testing/test-car.ts';
import { useLive } from '../state/live.ts';
import { bayWith, connectedPage, type FakeSocket } from '../testing/live-rows.ts';
import { newestLivePoint, useLiveCurve, type LiveCurve } from './use-live-curve.ts';

const recording = generatedRun({ rateHz: 100, coastS: 3 });
const speeds = recording.channels.find(({ name }) => name === 'engineSpeed')!.values;
const topAt = speeds.reduce((best, rpm, index) => (rpm > speeds[best]! ? index : best), 0);
/** The engine has gained a little by then: the throttle is open. */
const openAt = speeds.findIndex((rpm) => rpm > 1.01 * speeds[0]!);
const columns = ['time', 'throttle', ...recording.channels.map(({ name }) => name)];
const rowAt = (index: number) => [
  recording.time[index]!,
  index >= openAt && index <= topAt ? 100 : 10,
  ...recording.channels.map(({ values }) => values[index]!),
];

let socket: FakeSocket;
let hook: { result: { current: LiveCurve } };
const shown = () => hook.result.current;
const realSocket = globalThis.WebSocket;

beforeEach(() => {
  jest.useFakeTimers();
  socket = connectedPage();
  act(() => socket.say({ type: 'columns', bay: 1, device: 'roller', columns }));
  hook = renderHook(() => useLiveCurve());
});
afterEach(() => {
  cleanup();
  Object.assign(globalThis, { WebSocket: realSocket });
  jest.useRealTimers();
});

const bay = (state: 'idle' | 'armed' | 'recording') => {
  act(() => useLive.setState({ bay: bayWith(state, testDyno) }));
  act(() => void jest.advanceTimersByTime(50));
};
const plays = (from: number, to: number) =>
  act(() => {
    for (let index = from; index < to; index++) socket.rows(...rowAt(index));
    jest.advanceTimersByTime(50);
  });

test('grows with the pull, rising in engine speed, near the true power, and ends with the lift', () => {
  bay('recording');
  plays(0, topAt);
  const atLift = shown().rpm.length;
  expect(atLift).toBeGreaterThan(100);
  expect(shown().rpm.every((rpm, index) => index === 0 || rpm > shown().rpm[index - 1]!)).toBe(true);
  expect(newestLivePoint()?.rpm).toBe(shown().rpm.at(-1));
  plays(topAt, recording.time.length);
  // Only what lay within the fit's window when the throttle closed.
  expect(shown().rpm.length - atLift).toBeLessThan(12);
  expect(shown().rpm.at(-1)!).toBeLessThanOrEqual(speeds[topAt]!);
});

test('nothing is gathered while nothing is announced or recorded, and nothing before the throttle opens', () => {
  plays(0, topAt);
  expect(shown().rpm).toEqual([]);
  bay('armed');
  plays(0, openAt);
  expect(shown().rpm).toEqual([]);
  expect(newestLivePoint()).toBeUndefined();
});

test('every pull has a curve of its own, and a state of the bay that changes nothing begins none', () => {
  bay('recording');
  plays(0, topAt);
  const points = shown().rpm.length;
  bay('recording');
  expect(shown().rpm).toHaveLength(points);
  bay('idle');
  bay('armed');
  expect(shown().rpm).toEqual([]);
});

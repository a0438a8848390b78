/** @jest-environment jsdom */
import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { act, cleanup } from '@testing-library/react';
import type { Job } from '../../contract/job/records.ts';
import { usePreferences } from '../state/preferences.ts';
import { useLive } from '../state/live.ts';
import { bayWith, connectedPage, type FakeSocket } from '../testing/live-rows.ts';
import { rendered } from '../testing/rendered.tsx';
import { useLimitWatch, useLiveLimits } from './watch-limits.ts';

let clockS = 0;
let socket: FakeSocket;
let spoken: string[];
const realSocket = globalThis.WebSocket;

beforeEach(() => {
  jest.useFakeTimers();
  socket = connectedPage();
  spoken = [];
  usePreferences.setState({ cues: 'spoken' });
  Object.assign(globalThis, {
    SpeechSynthesisUtterance: class {
      constructor(readonly text: string) {}
    },
    speechSynthesis: {
      speak: ({ text }: { text: string }) => spoken.push(text),
      cancel: () => undefined,
      getVoices: () => [{}],
    },
  });
  act(() =>
    socket.say({ type: 'columns', bay: 1, device: 'roller', columns: ['time', 'throttle', 'lambda', 'oilPressure'] }),
  );
});
afterEach(() => {
  cleanup();
  Object.assign(globalThis, { WebSocket: realSocket });
  jest.useRealTimers();
});

function Watch({ limits }: { limits: { quantity: string; value: number }[] }) {
  useLimitWatch({ limits: limits.map((limit) => ({ ...limit, scale: null })) } as unknown as Job);
  return null;
}
const watching = (...limits: { quantity: string; value: number }[]) => {
  rendered(<Watch limits={limits} />);
  act(() => useLive.setState({ bay: bayWith('recording') }));
};
/** The car runs on with these readings for some time. */
const drives = (seconds: number, [throttle, lambda, oil]: readonly [number, number, number]) =>
  act(() => {
    for (let left = 10 * seconds; left > 0; left--) {
      socket.rows((clockS += 0.1), throttle, lambda, oil);
      jest.advanceTimersByTime(100);
    }
  });
const shouts = () => useLiveLimits.getState().shouts.map(({ quantity, reading }) => [quantity, reading]);

test('a limit that is crossed under load shouts once, keeps its worst reading, and stays after it is over', () => {
  watching({ quantity: 'lambda', value: 0.9 });
  drives(2, [100, 0.88, 300]);
  expect(shouts()).toEqual([]);
  drives(1, [100, 0.95, 300]);
  drives(1, [100, 0.99, 300]);
  drives(1, [100, 0.93, 300]);
  drives(2, [100, 0.85, 300]);
  expect(shouts()).toEqual([['lambda', 0.99]]);
  expect(spoken).toHaveLength(1);
  expect(spoken[0]).toMatch(/Stop.*0\.95/);
});

test('one wild sample is no excursion', () => {
  watching({ quantity: 'lambda', value: 0.9 });
  drives(2, [100, 0.85, 300]);
  drives(0.1, [100, 1.3, 300]);
  drives(1, [100, 0.85, 300]);
  expect(shouts()).toEqual([]);
  expect(spoken).toEqual([]);
});

test('two wild samples with sound ones between them are no excursion either: the time begins anew', () => {
  watching({ quantity: 'lambda', value: 0.9 });
  drives(2, [100, 0.85, 300]);
  for (let again = 0; again < 6; again++) {
    drives(0.1, [100, 1.3, 300]);
    drives(0.1, [100, 0.85, 300]);
  }
  expect(shouts()).toEqual([]);
});

test('what was crossed stays marked in its row for the rest of the run, what was near stays near', () => {
  watching({ quantity: 'lambda', value: 0.9 }, { quantity: 'oilPressure', value: 200 });
  const rows = () => useLiveLimits.getState().limits.map(({ quantity, crossed, near }) => [quantity, crossed, near]);
  drives(2, [100, 0.8, 300]);
  expect(rows()).toEqual([
    ['lambda', false, false],
    ['oilPressure', false, false],
  ]);
  drives(1, [100, 0.95, 205]);
  drives(1, [100, 0.8, 300]);
  expect(rows()).toEqual([
    ['lambda', true, false],
    ['oilPressure', false, true],
  ]);
});

test('what only means something under load is left alone until the throttle has been open for a while', () => {
  watching({ quantity: 'lambda', value: 0.9 }, { quantity: 'oilPressure', value: 200 });
  drives(3, [20, 1.05, 120]);
  expect(shouts()).toEqual([]);
  // Probes are late: full load counts a little after the throttle opens.
  drives(0.4, [100, 1.05, 120]);
  expect(shouts()).toEqual([]);
  drives(1, [100, 1.05, 120]);
  expect(shouts()).toEqual([
    ['lambda', 1.05],
    ['oilPressure', 120],
  ]);
});

test('a channel that reads nothing is watched and never shouts; the next run begins anew', () => {
  watching({ quantity: 'lambda', value: 0.9 }, { quantity: 'boost', value: 150 });
  drives(2, [100, 1.2, 300]);
  expect(shouts()).toEqual([['lambda', 1.2]]);
  expect(useLiveLimits.getState().limits.map(({ quantity, reading }) => [quantity, reading])).toContainEqual([
    'boost',
    undefined,
  ]);
  act(() => useLive.setState({ bay: bayWith('idle') }));
  drives(2, [100, 1.2, 300]);
  // Over the run what was crossed stays to be seen.
  expect(shouts()).toEqual([['lambda', 1.2]]);
  act(() => useLive.setState({ bay: bayWith('recording') }));
  expect(shouts()).toEqual([]);
});

test('a limited reading that stops in a pull is struck out, heard once, and told after it', () => {
  watching({ quantity: 'lambda', value: 0.9 }, { quantity: 'oilPressure', value: 200 });
  drives(1, [100, 0.85, 300]);
  drives(0.1, [100, NaN, 300]);
  const ofLambda = () => useLiveLimits.getState().limits.find(({ quantity }) => quantity === 'lambda');
  // One row without it is no silence.
  expect(ofLambda()).toMatchObject({ reading: 0.85, unread: false });
  drives(2, [100, NaN, 300]);
  expect(ofLambda()).toMatchObject({ reading: 0.85, unread: true, crossed: false });
  expect(spoken).toEqual(['λ is not read']);
  expect(useLiveLimits.getState().gaps).toMatchObject([{ label: 'λ', now: true }]);
  drives(1, [100, 0.86, 300]);
  expect(ofLambda()).toMatchObject({ reading: 0.86, unread: false });
  const [gap] = useLiveLimits.getState().gaps;
  expect(gap).toMatchObject({ label: 'λ', now: false });
  expect(gap!.seconds).toBeGreaterThan(2);
  expect(gap!.seconds).toBeLessThan(3);
  expect(spoken).toHaveLength(1);
});

test('with the dyno itself silent no limit is held', () => {
  watching({ quantity: 'lambda', value: 0.9 }, { quantity: 'oilPressure', value: 200 });
  drives(1, [100, 0.85, 300]);
  act(() => {
    jest.advanceTimersByTime(1000);
  });
  expect(useLiveLimits.getState().limits.map(({ unread }) => unread)).toEqual([true, true]);
  expect(spoken).toEqual(['λ is not read', 'Oil pressure is not read']);
});

/** @jest-environment jsdom */
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { QueryClientProvider } from '@tanstack/react-query';
import { act, renderHook, waitFor } from '@testing-library/react';
import { expose } from 'comlink';
import type { ReactNode } from 'react';
import type { Run } from '../../contract/job/records.ts';
import type { JobFigures } from '../../core/figures/job-figures.ts';
import { queryClient } from '../state/queries.ts';
import { talkingEnds } from '../testing/talking-ends.ts';
import { figuresKey, keepForSpan, useFigures, useFiguresSoon } from './figures.ts';
import type { WorkerRequest } from './figures.worker.ts';

/** What the page asked for, each with what answers it. */
let asked: { request: WorkerRequest; answer: (figures: JobFigures) => void; refuse: (error: Error) => void }[] = [];

/** A worker that makes figures when the test says so. */
class WorkerByHand {
  constructor() {
    const { page, worker } = talkingEnds();
    expose(
      {
        figures: (request: WorkerRequest) =>
          new Promise<JobFigures>((answer, refuse) => asked.push({ request, answer, refuse })),
      },
      worker,
    );
    Object.assign(this, page);
  }
}
Object.assign(globalThis, { Worker: WorkerByHand });

const run = (id: number, setupId: number, over: object = {}) =>
  ({ id, setupId, kind: 'power', state: 'sealed', ...over }) as unknown as Run;
/** So many runs, three of each setup. */
const runsOf = (count: number) =>
  Array.from({ length: count }, (_, index) => run(index + 1, 1 + Math.floor(index / 3)));
const setups: never[] = [];
const request = (runs: readonly Run[], view: object = {}, job: object = {}): WorkerRequest => ({
  job: { vehicle: 'Car', setups, baseline: null, ...job, runs } as unknown as WorkerRequest['job'],
  view: {
    standard: 'sae-j1349',
    share: 1,
    smoothing: 'auto',
    powerUnit: 'kW',
    baselineId: 1,
    testId: 3,
    againstId: 2,
    ...view,
  },
});
const figures = (name: string) => ({ name, spanRpm: 320 }) as unknown as JobFigures;
const named = (data: JobFigures | undefined) => (data as unknown as { name: string } | undefined)?.name;
const wrapper = ({ children }: { children: ReactNode }) => (
  <QueryClientProvider client={queryClient}>{children}</QueryClientProvider>
);
const answered = (index: number, name: string) => act(() => Promise.resolve(asked[index]!.answer(figures(name))));

beforeEach(() => {
  asked = [];
});
afterEach(() => queryClient.clear());

test('of a few runs all figures are asked for at once', async () => {
  const runs = runsOf(16);
  const { result } = renderHook(() => useFiguresSoon(request(runs)), { wrapper });
  await waitFor(() => expect(asked).toHaveLength(1));
  expect(asked[0]!.request.view.curvesOnly).toBeUndefined();
  expect(result.current.pending).toBe(true);
  await answered(0, 'all');
  await waitFor(() => expect(named(result.current.figures)).toBe('all'));
  expect(result.current.pending).toBe(false);
});

test('of many runs the curves that are looked at come first, and give way to all figures for good', async () => {
  const runs = runsOf(18);
  const { result, rerender } = renderHook(({ view }) => useFiguresSoon(request(runs, view)), {
    wrapper,
    initialProps: { view: {} },
  });
  await waitFor(() => expect(asked).toHaveLength(2));
  const [first, all] = asked.map((one) => one.request);
  // Baseline, test and the other side: nine runs of eighteen, and no judgement.
  expect(first!.view.curvesOnly).toBe(true);
  expect(first!.job.runs.map(({ id }) => id)).toEqual([1, 2, 3, 4, 5, 6, 7, 8, 9]);
  expect(all!.job.runs).toHaveLength(18);
  await answered(0, 'curves');
  await waitFor(() => expect(named(result.current.figures)).toBe('curves'));
  expect(result.current.pending).toBe(true);
  await answered(1, 'all');
  await waitFor(() => expect(named(result.current.figures)).toBe('all'));
  // Another view: its figures are asked for as a whole, those of before standing meanwhile.
  rerender({ view: { testId: 4 } });
  await waitFor(() => expect(asked).toHaveLength(3));
  expect(asked[2]!.request.view.curvesOnly).toBeUndefined();
  expect(named(result.current.figures)).toBe('all');
  expect(result.current.isPlaceholderData).toBe(true);
});

test('a refusal is told, and all is asked for again on demand', async () => {
  const runs = runsOf(3);
  const { result } = renderHook(() => useFiguresSoon(request(runs)), { wrapper });
  await waitFor(() => expect(asked).toHaveLength(1));
  await act(() => Promise.resolve(asked[0]!.refuse(new Error('the samples did not come'))));
  await waitFor(() => expect(result.current.error?.message).toBe('the samples did not come'));
  expect(result.current.pending).toBe(false);
  act(() => result.current.tryAgain());
  await waitFor(() => expect(asked).toHaveLength(2));
  await answered(1, 'all');
  await waitFor(() => expect(named(result.current.figures)).toBe('all'));
  expect(result.current.error).toBeNull();
});

test('figures made with automatic smoothing are those of the span that it came to: they are not made twice', async () => {
  const runs = runsOf(3);
  const { result, rerender } = renderHook(({ view }) => useFigures(request(runs, view)), {
    wrapper,
    initialProps: { view: {} },
  });
  await waitFor(() => expect(asked).toHaveLength(1));
  await answered(0, 'auto');
  await waitFor(() => expect(named(result.current.data)).toBe('auto'));
  keepForSpan(request(runs), result.current.data!);
  rerender({ view: { smoothing: 320 } });
  await waitFor(() => expect(named(result.current.data)).toBe('auto'));
  expect(asked).toHaveLength(1);
});

test('figures are kept for what they rest on alone', () => {
  const runs = runsOf(3);
  const key = (over: Parameters<typeof request>) => JSON.stringify(figuresKey(request(...over)));
  const before = key([runs, {}, {}]);
  // Words, owners and a run that is still going on change nothing.
  expect(key([runs, {}, { vehicle: 'Another name' }])).toBe(before);
  expect(key([[...runs, run(4, 1, { state: 'recording' })], {}, {}])).toBe(before);
  // A run read anew, one more, a limit, what the fuel burns in, the view: all do.
  const others = [
    key([[{ ...runs[0]! }, ...runs.slice(1)], {}, {}]),
    key([[...runs, run(4, 1)], {}, {}]),
    key([runs, {}, { limits: [{ quantity: 'lambda' }] }]),
    key([runs, {}, { ignition: 'compression' }]),
    key([runs, {}, { targets: [{ quantity: 'peak power', value: 100 }] }]),
    key([runs, {}, { plan: { 2: 3 } }]),
    key([runs, { share: 0.5 }, {}]),
  ];
  expect(new Set([before, ...others]).size).toBe(8);
});

/** @jest-environment jsdom */
import { afterEach, expect, jest, test } from '@jest/globals';
import { QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import type { Run } from '../../contract/job/records.ts';
import { api } from '../state/api.ts';
import { queryClient } from '../state/queries.ts';
import { rendered } from '../testing/rendered.tsx';
import { RunChip } from './run-chip.tsx';

const run = (over: Partial<Run> = {}) =>
  ({
    id: 4,
    label: 'B2',
    kind: 'power',
    state: 'sealed',
    setAsideReason: null,
    note: '',
    remarks: [],
    startedAt: '2026-05-04T09:00:00Z',
    gear: '4th',
    fuel: null,
    air: null,
    ...over,
  }) as unknown as Run;
const shown = (over: Partial<Run> = {}, unusable?: string) =>
  rendered(
    <QueryClientProvider client={queryClient}>
      <RunChip run={run(over)} chosen={false} unusable={unusable} />
    </QueryClientProvider>,
  );
const chip = () => screen.getByRole('button', { name: /^Run B2/ });

afterEach(() => {
  cleanup();
  jest.restoreAllMocks();
});

test.each([
  [{}, undefined, 'Run B2, counted'],
  [{ setAsideReason: 'slipped' }, undefined, 'Run B2, slipped'],
  [{ state: 'interrupted' as const }, undefined, 'Run B2, interrupted'],
  [{}, 'no pull was found', 'Run B2, no pull was found'],
])('how it stands is in its name: %j', (over, unusable, name) => {
  shown(over, unusable);
  expect(chip().getAttribute('aria-label')).toBe(name);
});

test('a run of another kind says which, and is not struck through: only what is set aside or cannot be used is', () => {
  shown({ kind: 'cruise' });
  expect([chip().getAttribute('aria-label'), chip().textContent, chip().dataset.aside]).toEqual([
    'Run B2, cruise',
    'B2cruise',
    undefined,
  ]);
  cleanup();
  shown({ kind: 'cruise', setAsideReason: 'windy' });
  expect([chip().getAttribute('aria-label'), chip().dataset.aside]).toEqual(['Run B2, windy', 'true']);
  cleanup();
  shown({}, 'no pull was found');
  expect(chip().dataset.aside).toBe('true');
});

test('nothing stands ready before it is pressed; pressed, it opens what can be said and done', async () => {
  shown({ remarks: ['3 samples were left out.'] });
  expect(chip().getAttribute('aria-expanded')).toBe('false');
  expect(screen.queryByLabelText('Note')).toBeNull();
  fireEvent.click(chip());
  await waitFor(() => expect(screen.getByLabelText('Note')).toBeTruthy());
  expect(screen.getByText('3 samples were left out.')).toBeTruthy();
  fireEvent.click(chip());
  await waitFor(() => expect(chip().getAttribute('aria-expanded')).toBe('false'));
});

test('a run is set aside with a reason, and not without one', async () => {
  const change = jest.spyOn(api, 'changeRun').mockResolvedValue(run({ setAsideReason: 'hot' }));
  shown();
  fireEvent.click(chip());
  const button = await screen.findByRole<HTMLButtonElement>('button', { name: 'Set aside' });
  expect(button.disabled).toBe(true);
  fireEvent.change(screen.getByLabelText('Set aside because'), { target: { value: 'hot' } });
  fireEvent.click(button);
  await waitFor(() => expect(change).toHaveBeenCalledWith(4, { setAsideReason: 'hot' }));
});

test('a note is stored when it is left, and only if it is another', async () => {
  const change = jest.spyOn(api, 'changeRun').mockResolvedValue(run());
  shown({ note: 'as it was' });
  fireEvent.click(chip());
  const note = await screen.findByLabelText('Note');
  fireEvent.blur(note);
  expect(change).not.toHaveBeenCalled();
  fireEvent.change(note, { target: { value: 'pulled well' } });
  fireEvent.blur(note);
  await waitFor(() => expect(change).toHaveBeenCalledWith(4, { note: 'pulled well' }));
});

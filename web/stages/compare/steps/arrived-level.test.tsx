/** @jest-environment jsdom */
import { afterEach, expect, jest, test } from '@jest/globals';
import { QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import type { Job } from '../../../../contract/job/records.ts';
import { api } from '../../../state/api.ts';
import { queryClient } from '../../../state/queries.ts';
import { rendered } from '../../../testing/rendered.tsx';
import { ArrivedLevel } from './arrived-level.tsx';

afterEach(() => {
  cleanup();
  jest.restoreAllMocks();
});

const job = {
  setups: [
    { id: 7, letter: 'A', parentId: null, items: [{ kind: 'fuel', name: 'E10' }] },
    { id: 8, letter: 'B', parentId: 7, items: [] },
  ],
} as unknown as Job;
const shown = (unknown: string[]) =>
  rendered(
    <QueryClientProvider client={queryClient}>
      <ArrivedLevel
        job={job}
        item={{ kind: 'own', name: 'main jet', unit: '' }}
        label="main jet"
        unit=""
        unknown={unknown}
      />
    </QueryClientProvider>,
  );

test('the level as it arrived is asked for and becomes an item of the first setup, beside what stands there', async () => {
  const change = jest.spyOn(api, 'changeSetup').mockResolvedValue(job.setups[0]!);
  shown(['A', 'C']);
  const write = screen.getByRole<HTMLButtonElement>('button', { name: 'Write down' });
  expect(write.disabled).toBe(true);
  fireEvent.change(screen.getByLabelText('The main jet as it arrived'), { target: { value: '120' } });
  fireEvent.click(write);
  await waitFor(() =>
    expect(change).toHaveBeenCalledWith(7, {
      items: [
        { kind: 'fuel', name: 'E10' },
        { kind: 'own', name: 'main jet', unit: '', to: 120 },
      ],
    }),
  );
});

test('nothing is asked where the car as it came is known', () => {
  shown(['B']);
  expect(screen.queryByRole('button')).toBeNull();
});

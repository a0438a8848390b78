/** @jest-environment jsdom */
import { afterEach, expect, jest, test } from '@jest/globals';
import { QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import type { Setup } from '../../contract/job/records.ts';
import { api } from '../state/api.ts';
import { queryClient } from '../state/queries.ts';
import { rendered } from '../testing/rendered.tsx';
import { Decision } from './setup-details.tsx';

const setup = (over: Partial<Setup>) => ({ id: 5, revision: 1, decision: null, decisionWhy: '', ...over }) as Setup;
const shown = (setup: Setup) => (
  <QueryClientProvider client={queryClient}>
    <Decision setup={setup} decidedOn="C on B +1.0 kW" />
  </QueryClientProvider>
);
const why = () => screen.getByLabelText<HTMLInputElement>('Why');

afterEach(() => {
  cleanup();
  jest.restoreAllMocks();
});

test('a reason that is being written stays when the decision itself comes back from the server', async () => {
  const change = jest.spyOn(api, 'changeSetup').mockResolvedValue(setup({}));
  const { rerender } = rendered(shown(setup({})));
  fireEvent.change(why(), { target: { value: 'knocks, gives nothing' } });
  rerender(shown(setup({ revision: 2, decision: 'go back' })));
  expect(why().value).toBe('knocks, gives nothing');
  fireEvent.blur(why());
  await waitFor(() => expect(change).toHaveBeenCalledWith(5, { decisionWhy: 'knocks, gives nothing' }));
});

test('a reason that somebody else wrote comes in where nothing is being written', () => {
  const { rerender } = rendered(shown(setup({})));
  rerender(shown(setup({ revision: 2, decisionWhy: 'theirs' })));
  expect(why().value).toBe('theirs');
});

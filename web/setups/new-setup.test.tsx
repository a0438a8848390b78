/** @jest-environment jsdom */
import { keptUnits } from '../../core/units/told-units.ts';
import { afterEach, expect, jest, test } from '@jest/globals';
import { QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import type { Job, Setup } from '../../contract/job/records.ts';
import { api } from '../state/api.ts';
import { usePreferences } from '../state/preferences.ts';
import { queryClient } from '../state/queries.ts';
import { rendered } from '../testing/rendered.tsx';
import { NewSetup } from './new-setup.tsx';

const setup = (id: number, letter: string) =>
  ({ id, letter, change: '', items: [], parentId: null }) as unknown as Setup;
const job = { id: 1, bands: [], setups: [setup(1, 'A')] } as unknown as Job;

const opened = (bands: Job['bands'] = []) => {
  const added = jest.fn<(setup: Setup) => void>();
  rendered(
    <QueryClientProvider client={queryClient}>
      <NewSetup job={{ ...job, bands }} parent={job.setups[0]!} onAdded={added} hotkey={false} />
    </QueryClientProvider>,
  );
  fireEvent.click(screen.getByRole('button', { name: /New setup from A/ }));
  return added;
};
const change = () => screen.getByLabelText<HTMLInputElement>(/What changed from A/);
const write = (text: string) => fireEvent.change(change(), { target: { value: text } });
const begin = () => fireEvent.click(screen.getByRole('button', { name: 'Begin' }));
let next = 2;
const server = () =>
  jest
    .spyOn(api, 'addSetup')
    .mockImplementation((_, fields) => Promise.resolve({ ...setup(next++, 'B'), ...fields } as unknown as Setup));

afterEach(() => {
  cleanup();
  localStorage.clear();
  usePreferences.setState({ units: keptUnits });
  jest.restoreAllMocks();
  next = 2;
});

test('one line begins a setup, with what it is expected to give', async () => {
  const add = server();
  const added = opened();
  write('ignition +1.5° above 4,000');
  expect(screen.getByRole('status').textContent).toMatch(/^Understood: ignition/i);
  fireEvent.change(screen.getByLabelText(/Expected to give/), { target: { value: '2.5' } });
  begin();
  await waitFor(() => expect(added).toHaveBeenCalledTimes(1));
  expect(add).toHaveBeenCalledWith(1, { parentId: 1, change: 'ignition +1.5° above 4,000', predictionKw: 2.5 });
  expect(screen.queryByLabelText(/What changed/)).toBeNull();
});

test('several things in one line are warned of, and split into steps that follow one another', async () => {
  const add = server();
  const added = opened();
  write('ignition +1°, plug gap 0.7 mm');
  fireEvent.click(screen.getByRole('button', { name: 'Split into 2 steps' }));
  await waitFor(() => expect(added).toHaveBeenCalledTimes(1));
  expect(add.mock.calls.map(([, { parentId, items }]) => [parentId, items?.[0]?.kind])).toEqual([
    [1, 'ignition'],
    [2, 'plug-gap'],
  ]);
  // The first of them is run first.
  expect(added.mock.calls[0]![0].id).toBe(2);
});

test('nothing is begun from an empty line, or while the expectation is no number', () => {
  const add = server();
  opened();
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Begin' }).disabled).toBe(true);
  write('other plugs');
  fireEvent.change(screen.getByLabelText(/Expected to give/), { target: { value: 'a lot' } });
  fireEvent.submit(change().closest('form')!);
  expect(add).not.toHaveBeenCalled();
});

test('a line that could not be stored stays to be sent again, after a reload as well', async () => {
  const refused = jest.spyOn(api, 'addSetup').mockRejectedValue(new Error('The server does not answer.'));
  const added = opened();
  write('boost to 1.2 bar');
  begin();
  await waitFor(() => expect(refused).toHaveBeenCalled());
  expect(change().value).toBe('boost to 1.2 bar');
  expect(added).not.toHaveBeenCalled();
  cleanup();
  opened();
  expect(change().value).toBe('boost to 1.2 bar');
});

test('an expectation is written in the person’s unit, over the band that is judged, and kept in kW', async () => {
  const add = server();
  usePreferences.setState({ units: { ...keptUnits, power: 'PS' } });
  const added = opened([{ id: 1, revision: 1, name: 'flat out', fromRpm: 5000, toRpm: 6500 }]);
  write('boost +12 kPa');
  fireEvent.change(screen.getByLabelText('Expected to give, flat out (locked at its first run)'), {
    target: { value: '10' },
  });
  begin();
  await waitFor(() => expect(added).toHaveBeenCalledTimes(1));
  expect(add.mock.calls[0]![1].predictionKw).toBeCloseTo(7.355, 3);
});

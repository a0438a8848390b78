/** @jest-environment jsdom */
import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { RequestProblem } from '../state/api.ts';
import { rendered } from '../testing/rendered.tsx';
import { keptUnits } from '../../core/units/told-units.ts';
import { usePreferences } from '../state/preferences.ts';
import { numberOf, SavedField, SavedNumber } from './saved-field.tsx';

type Save = (text: string, revision: number | undefined) => Promise<unknown>;
const field = (save: Save, value = 'before', revision = 3) => (
  <SavedField label="Target" field="target" place="job/1/target" value={value} revision={revision} save={save} />
);
const input = () => screen.getByLabelText<HTMLInputElement>('Target');
const type = (text: string) => fireEvent.change(input(), { target: { value: text } });
const accepting = () => jest.fn<Save>().mockResolvedValue(undefined);

beforeEach(() => localStorage.clear());
afterEach(() => {
  cleanup();
  usePreferences.setState({ units: keptUnits });
});

test('a text is stored when it is left, with the revision that it was based on; unchanged it is not', async () => {
  const save = accepting();
  rendered(field(save));
  fireEvent.blur(input());
  expect(save).not.toHaveBeenCalled();
  type('after');
  fireEvent.blur(input());
  await waitFor(() => expect(save).toHaveBeenCalledWith('after', 3));
});

test('what is being written survives a reload, and news from the server does not touch it', () => {
  const { rerender, unmount } = rendered(field(accepting()));
  type('mine');
  rerender(field(accepting(), 'theirs', 4));
  expect(input().value).toBe('mine');
  unmount();
  rendered(field(accepting(), 'theirs', 4));
  expect(input().value).toBe('mine');
});

test('where nothing is being written, news from the server comes in', () => {
  const { rerender } = rendered(field(accepting()));
  rerender(field(accepting(), 'theirs', 4));
  expect(input().value).toBe('theirs');
});

test('a refusal is said, the text stays, and can be stored again', async () => {
  const save = jest
    .fn<Save>()
    .mockRejectedValueOnce(new RequestProblem('The server does not answer.'))
    .mockResolvedValue(undefined);
  rendered(field(save));
  type('after');
  fireEvent.keyDown(input(), { key: 'Enter' });
  await screen.findByText(/The server does not answer/);
  expect(input().value).toBe('after');
  fireEvent.click(screen.getByRole('button', { name: 'Store it' }));
  await waitFor(() => expect(screen.queryByText(/does not answer/)).toBeNull());
  expect(localStorage.length).toBe(0);
});

test('somebody else’s text is shown beside mine, and either is taken', async () => {
  const clash = new RequestProblem('Somebody else changed this meanwhile', 'target', { target: 'theirs' });
  const save = jest.fn<Save>().mockRejectedValueOnce(clash).mockResolvedValue(undefined);
  rendered(field(save));
  type('mine');
  fireEvent.blur(input());
  fireEvent.click(await screen.findByRole('button', { name: 'Store mine' }));
  // Over theirs: without a revision.
  await waitFor(() => expect(save).toHaveBeenLastCalledWith('mine', undefined));
});

test('Escape brings back what is stored', () => {
  rendered(field(accepting()));
  type('oops');
  fireEvent.keyDown(input(), { key: 'Escape' });
  expect(input().value).toBe('before');
  expect(localStorage.length).toBe(0);
});

test.each([
  ['', null],
  [' 12,5 ', 12.5],
  ['−3', -3],
  ['1 200', 1200],
  ['twelve', undefined],
])('“%s” is read as %s', (text, value) => {
  expect(numberOf(text)).toBe(value);
});

test('a number is written in the person’s unit, kept in its own, and only sent when it is written over', async () => {
  usePreferences.setState({ units: { ...keptUnits, pressure: 'psi' } });
  const save = jest
    .fn<(value: number | null, revision: number | undefined) => Promise<unknown>>()
    .mockResolvedValue(undefined);
  rendered(
    <SavedNumber label="Target" field="target" place="job/1/target" unit="kPa" value={240} revision={3} save={save} />,
  );
  expect(input().value).toBe('34.81');
  expect(screen.getByText('psi')).toBeTruthy();
  fireEvent.blur(input());
  expect(save).not.toHaveBeenCalled();
  type('35');
  fireEvent.blur(input());
  await waitFor(() => expect(save).toHaveBeenCalledWith(241.316505, 3));
});

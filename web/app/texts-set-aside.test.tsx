/** @jest-environment jsdom */
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen } from '@testing-library/react';
import { draftsSetAside, keepDraft, setDraftsAside } from '../state/drafts.ts';
import { rendered } from '../testing/rendered.tsx';
import { TextsSetAside } from './texts-set-aside.tsx';

beforeEach(() => localStorage.clear());
afterEach(cleanup);

test('nothing is shown where nothing was set aside', () => {
  rendered(<TextsSetAside />);
  expect(screen.queryByText(/not saved/)).toBeNull();
});

test('texts that were set aside are shown until they are deleted; kept for now, they come again', () => {
  keepDraft('job/1/question', 'what does it give?');
  keepDraft('job/2/note', 'windy');
  setDraftsAside();
  rendered(<TextsSetAside />);
  expect(screen.getByText('what does it give?')).toBeTruthy();
  fireEvent.click(screen.getByText('Keep for now'));
  expect(draftsSetAside()).toHaveLength(2);
  cleanup();
  rendered(<TextsSetAside />);
  fireEvent.click(screen.getByText('Delete all'));
  expect(screen.queryByText('windy')).toBeNull();
  expect(draftsSetAside()).toEqual([]);
});

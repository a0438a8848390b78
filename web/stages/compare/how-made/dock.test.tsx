/** @jest-environment jsdom */
import { afterEach, expect, test } from '@jest/globals';
import { act, cleanup, fireEvent, screen } from '@testing-library/react';
import { rendered } from '../../../testing/rendered.tsx';
import { Control } from './control.tsx';
import { Dock } from './dock.tsx';

afterEach(cleanup);

/** Two controls in one dock; the first hands out its way to close. */
function opened(): { closeFirst: () => void } {
  const kept = { closeFirst: () => undefined as void };
  rendered(
    <Dock>
      <Control text="A" label="Baseline">
        {(close) => {
          kept.closeFirst = close;
          return <input aria-label="why" />;
        }}
      </Control>
      <Control text="all" label="Range">
        <input aria-label="from" />
      </Control>
    </Dock>,
  );
  return kept;
}

test('one control is open at a time, and closing gives the focus back', () => {
  opened();
  fireEvent.click(screen.getByRole('button', { name: 'Baseline: A' }));
  expect(document.activeElement).toBe(screen.getByLabelText('why'));
  fireEvent.keyDown(window, { key: 'Escape' });
  expect(screen.queryByRole('dialog')).toBeNull();
  expect(document.activeElement).toBe(screen.getByRole('button', { name: 'Baseline: A' }));
});

test('a control that is closed late, when something was stored, leaves the one that was opened meanwhile', () => {
  const kept = opened();
  fireEvent.click(screen.getByRole('button', { name: 'Baseline: A' }));
  const late = kept.closeFirst;
  fireEvent.click(screen.getByRole('button', { name: 'Range: all' }));
  act(() => late());
  expect(screen.getByRole('dialog', { name: 'Range' })).toBeTruthy();
  expect(document.activeElement).toBe(screen.getByLabelText('from'));
});

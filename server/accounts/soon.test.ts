import { expect, test } from '@jest/globals';
import { Soon } from './soon.ts';

const later = <T>(answer: T, ms: number) => new Promise<T>((resolve) => setTimeout(() => resolve(answer), ms));
const never = <T>() => new Promise<T>(() => undefined);

test('a database that answers is believed; one that fails or hangs leaves what is remembered', async () => {
  const soon = new Soon();
  expect(
    await soon.or(
      () => later('new', 20),
      () => 'before',
    ),
  ).toBe('new');
  expect(
    await soon.or(
      () => Promise.reject(new Error('away')),
      () => 'before',
    ),
  ).toBe('before');
  const from = performance.now();
  expect(await soon.or(never<string>, () => 'before')).toBe('before');
  const first = performance.now() - from;
  expect(first).toBeGreaterThan(250);
  // Three questions in a row do not wait three times.
  expect(await soon.or(never<string>, () => 'before')).toBe('before');
  expect(await soon.or(never<string>, () => 'before')).toBe('before');
  expect(performance.now() - from - first).toBeLessThan(250);
});

test('what nobody remembers is waited for, and its failure told', async () => {
  const soon = new Soon();
  expect(
    await soon.or(
      () => later('new', 400),
      () => undefined,
    ),
  ).toBe('new');
  await expect(
    soon.or(
      () => Promise.reject(new Error('away')),
      () => undefined,
    ),
  ).rejects.toThrow('away');
});

test('once it answers again it is asked again, not memory', async () => {
  const soon = new Soon();
  await soon.or(never<string>, () => 'before');
  // Asked while it counts as slow: memory answers, and the late answer ends the slowness.
  expect(
    await soon.or(
      () => later('new', 10),
      () => 'before',
    ),
  ).toBe('before');
  await later(null, 50);
  expect(
    await soon.or(
      () => later('newer', 10),
      () => 'before',
    ),
  ).toBe('newer');
});

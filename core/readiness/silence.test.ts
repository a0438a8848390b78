import { expect, test } from '@jest/globals';
import { Silence } from './silence.ts';

test('silence begins once more than so much has passed unheard, is told once, and ends with a word', () => {
  const silence = new Silence(2000, 250);
  const begun: number[] = [];
  for (let ms = 250; ms <= 5000; ms += 250) if (silence.tick(ms)) begun.push(ms);
  expect(begun).toEqual([2250]);
  expect(silence.sinceMs).toBe(0);
  expect(silence.heard()).toBe(true);
  expect(silence.sinceMs).toBeUndefined();
  expect(silence.heard()).toBe(false);
});

test('a listener that stood still for a minute has heard no silence: what was said waits to be read', () => {
  const silence = new Silence(2000, 250);
  silence.tick(250);
  expect(silence.tick(60_250)).toBe(false);
  expect(silence.sinceMs).toBeUndefined();
});

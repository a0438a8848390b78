import { expect, test } from '@jest/globals';
import { halfWidthText } from './spoken.ts';

test.each([
  ['0.0', '<0.1'],
  ['0.00', '<0.01'],
  ['0', '<1'],
  ['0.1', '0.1'],
  ['10.0', '10.0'],
])('%s is written %s', (written, said) => expect(halfWidthText(written)).toBe(said));

import { expect, test } from '@jest/globals';
import { normSentence } from './norm-sentence.ts';

const norm = { name: 'rating', origin: 'registration paper', scale: 'wheels', peakKw: 90 } as const;
const peaks = { letter: 'B', peaksKw: [92, 94], shown: 'wheels', unit: 'kW' } as const;

test('the mean peak against the norm, as a difference and in percent, without a verdict', () => {
  expect(normSentence(norm, peaks)).toBe(
    'B peaks at 93.0 kW at the wheels, 3.0 kW (3.3 %) above the norm. “rating” is 90.0 kW at the wheels (registration paper): for orientation, no verdict.',
  );
  expect(normSentence(norm, { ...peaks, peaksKw: [81] })).toContain('9.0 kW (10.0 %) below the norm');
  expect(normSentence(norm, { ...peaks, peaksKw: [90.01] })).toContain('just the norm');
  expect(normSentence(norm, { ...peaks, unit: 'PS' })).toContain('4.1 PS (3.3 %)');
});

test('crank and wheels are not held against each other', () => {
  const sentence = normSentence({ ...norm, scale: 'crank' }, peaks);
  expect(sentence).toContain('cannot be held against each other');
  expect(sentence).toContain('Show an estimate for the crank');
  expect(sentence).not.toContain('above');
});

test('without a run that counts there is only the norm', () => {
  expect(normSentence(norm, { ...peaks, peaksKw: [] })).toMatch(/^B has no run that counts\./);
});

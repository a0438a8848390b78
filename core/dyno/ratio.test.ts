import { expect, test } from '@jest/globals';
import { engineToDrumRatio, rollingShare, rpmPerKmh, tyreCircumferenceM } from './ratio.ts';

test('a tyre size gives its rolling circumference', () => {
  // 16 in rim and twice 112.75 mm: 631.9 mm across.
  expect(tyreCircumferenceM('205/55 R16')).toBeCloseTo(Math.PI * 0.6319 * rollingShare, 4);
  expect(tyreCircumferenceM('205/55ZR16 94W')).toBe(tyreCircumferenceM('205/55 R16'));
  expect(tyreCircumferenceM('180/55-17')).toBeCloseTo(Math.PI * 0.6298 * rollingShare, 4);
  expect(tyreCircumferenceM('slicks')).toBeUndefined();
});

test('direct drive on a 1.93 m tyre', () => {
  const circumference = 1.93;
  const perKmh = rpmPerKmh(1, 3.9, circumference);
  // 100 km/h are 1666.7 m/min, 863.6 turns of the wheel.
  expect(perKmh * 100).toBeCloseTo((1000 / 0.6 / circumference) * 3.9, 6);
  // On a drum of the tyre's own size the ratio is that of gear and final drive.
  expect(engineToDrumRatio(1, 3.9, circumference, circumference / 2 / Math.PI)).toBeCloseTo(3.9, 9);
});

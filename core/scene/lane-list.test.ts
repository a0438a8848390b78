import { expect, test } from '@jest/globals';
import { laneWords, moved, placed } from './lane-list.ts';

const lanes = ['power', 'torque', 'gain', 'lambda'];

test('a lane is moved by one place, and not beyond the ends', () => {
  expect(moved(lanes, 'gain', -1)).toEqual(['power', 'gain', 'torque', 'lambda']);
  expect(moved(lanes, 'power', -1)).toEqual(lanes);
  expect(moved(lanes, 'lambda', 1)).toEqual(lanes);
});

test('a dragged lane takes the place of the one it is dropped on', () => {
  expect(placed(lanes, 'lambda', 'torque')).toEqual(['power', 'lambda', 'torque', 'gain']);
  expect(placed(lanes, 'power', 'gain')).toEqual(['torque', 'gain', 'power', 'lambda']);
  expect(placed(lanes, 'gain', 'gain')).toEqual(lanes);
});

test('the usual list stays out of the address', () => {
  expect(laneWords(['power', 'torque', 'gain'])).toBeUndefined();
  expect(laneWords(lanes)).toBe('power.torque.gain.lambda');
});

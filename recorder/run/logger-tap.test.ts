import { expect, test } from '@jest/globals';
import { EventEmitter } from 'node:events';
import type { Device } from '../devices/device.ts';
import { LoggerTap } from './logger-tap.ts';

function logger(playsFast: boolean) {
  const device = Object.assign(new EventEmitter(), { connected: true, playsFast });
  const tap = new LoggerTap(device as unknown as Device);
  let time = 0;
  const rows = (count: number) => {
    for (let row = 0; row < count; row++) device.emit('row', Float64Array.of((time += 0.1), 1));
  };
  return { device, tap, rows, ready: () => device.emit('ready') };
}

test('one that is heard as it happens has arrived once its own clock has', () => {
  const { tap, rows } = logger(false);
  rows(20);
  expect(tap.hasReached(1.9, 0)).toBe(true);
  expect(tap.hasReached(2.5, 0)).toBe(false);
});

test('one that plays back has said everything when it is ready again after the run was asked for', () => {
  const { tap, rows, ready } = logger(true);
  rows(200);
  ready();
  const asked = performance.now();
  expect(tap.hasReached(1, asked)).toBe(false);
  rows(200);
  // Half of it played: still more to come.
  expect(tap.hasReached(1, asked)).toBe(false);
  ready();
  expect(tap.hasReached(1, asked)).toBe(true);
  rows(1);
  expect(tap.hasReached(1, asked)).toBe(false);
});

test('being ready without having played is no end of anything; being gone is', () => {
  const { device, tap, ready } = logger(true);
  const asked = performance.now() - 1;
  ready();
  expect(tap.hasReached(1, asked)).toBe(false);
  device.connected = false;
  expect(tap.hasReached(1, asked)).toBe(true);
});

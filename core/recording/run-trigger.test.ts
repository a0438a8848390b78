import { describe, expect, test } from '@jest/globals';
import { runTrigger } from './run-trigger.ts';

type Kind = Parameters<typeof runTrigger>[0];

/** Plays a drum at 50 Hz. @param shape speed and throttle at a time @returns the events */
function played(kind: Kind, lastsS: number, shape: (time: number) => [speed: number, throttle?: number]) {
  const trigger = runTrigger(kind, { sustainS: 0.2 });
  const events: [string, number][] = [];
  for (let step = 0; step <= lastsS * 50; step++) {
    const time = step / 50;
    const [speed, throttle] = shape(time);
    const found = trigger.push(time, speed, throttle);
    if (found) events.push([found.event, found.time]);
  }
  return events;
}

/** Two holds between ramps, then a lift. */
const holds = (time: number): [number, number] => {
  if (time < 2) return [40, 20];
  if (time < 4) return [40 + 10 * (time - 2), 100];
  if (time < 9) return [60, 100];
  if (time < 11) return [60 + 10 * (time - 9), 100];
  if (time < 16) return [80, 100];
  return [Math.max(40, 80 - 8 * (time - 16)), 0];
};

/** Up, then out of gear. */
const coast = (time: number): [number, number] => {
  if (time < 2) return [40, 20];
  if (time < 8) return [40 + 12 * (time - 2), 100];
  return [112 * Math.exp(-(time - 8) / 14), 0];
};

describe('a row of holds', () => {
  test('is one run: steady holds do not end it, the lift does', () => {
    const events = played('step', 22, holds);
    expect(events.map(([event]) => event)).toEqual(['begins', 'ends']);
    expect(events[0]![1]).toBeCloseTo(2, 0);
    expect(events[1]![1]).toBeCloseTo(16, 0);
  });

  test('without a throttle it ends when the speed falls away', () => {
    const events = played('step', 22, (time) => [holds(time)[0]]);
    expect(events.map(([event]) => event)).toEqual(['begins', 'ends']);
    expect(events[1]![1]).toBeGreaterThan(16);
    expect(events[1]![1]).toBeLessThan(20);
  });

  test('for a power run the first hold is the end', () => {
    expect(played('power', 22, (time) => [holds(time)[0] - 0.01 * time, holds(time)[1]])[1]![1]).toBeLessThan(6);
  });
});

describe('a coast-down', () => {
  test('goes on until the drum turns at a third of its top speed', () => {
    const events = played('coast-down', 60, coast);
    expect(events.map(([event]) => event)).toEqual(['begins', 'ends']);
    expect(events[1]![1]).toBeCloseTo(8 + 14 * Math.log(3), 0);
  });

  test('ends where the drum is driven again', () => {
    const events = played('coast-down', 40, (time) => (time < 20 ? coast(time) : [coast(20)[0] + 6 * (time - 20), 30]));
    expect(events[1]![1]).toBeCloseTo(20, 0);
  });

  test('a second one begins anew', () => {
    const events = played('coast-down', 100, (time) => (time < 50 ? coast(time) : coast(time - 50)));
    expect(events.map(([event]) => event)).toEqual(['begins', 'ends', 'begins', 'ends']);
  });
});

describe('a run that was announced', () => {
  /** Rows ten a second. @returns what was told, and when */
  function told(
    kind: Kind,
    settings: Partial<Parameters<typeof runTrigger>[1]>,
    throttleAt: (time: number) => number | undefined,
  ): [string, number][] {
    const trigger = runTrigger(kind, { sustainS: 0.2, announced: true, ...settings });
    return Array.from({ length: 301 }, (_, row) => 100 + row / 10).flatMap((time): [string, number][] => {
      const found = trigger.push(time, 50, throttleAt(time - 100));
      return found ? [[found.event, Number((found.time - 100).toFixed(6))]] : [];
    });
  }

  test('for so long begins after what is waited first, ends by itself, and only once', () => {
    for (const kind of ['idle', 'cold-start'] as const) {
      expect(told(kind, { afterS: 3, lengthS: 10 }, () => 0)).toEqual([
        ['begins', 3],
        ['ends', 13],
      ]);
      expect(told(kind, { lengthS: 10 }, () => 0)).toEqual([
        ['begins', 0],
        ['ends', 10],
      ]);
    }
  });

  test('of driving begins after what is waited first, and ends where the pedal was let go for good', () => {
    const pedal = (time: number) => ((time > 5 && time < 10) || (time > 10.5 && time < 15) ? 60 : 0);
    const [begins, ends, ...more] = told('cruise', { afterS: 2 }, pedal);
    expect([begins, more.filter(([event]) => event === 'begins')]).toEqual([['begins', 2], []]);
    expect(ends).toEqual(['ends', 15]);
    // Before it was driven a closed throttle ends nothing, nor does a throttle that nobody reads.
    expect(told('transient', {}, () => 0)).toEqual([['begins', 0]]);
    expect(told('part-load', {}, () => undefined)).toEqual([['begins', 0]]);
  });
});

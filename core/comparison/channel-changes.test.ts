import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { chance, normal } from '../testing/chance.ts';
import { channelChanges, type RunChannels } from './channel-changes.ts';

const speeds = Float64Array.from({ length: 41 }, (_, index) => 2000 + 100 * index);
/** A run whose channels are given as functions of engine speed. */
const run = (channels: Record<string, (rpm: number) => number>, over = speeds): RunChannels =>
  new Map(
    Object.entries(channels).map(([name, at]) => [
      name,
      { unit: 'kPa', engineSpeedRpm: over, values: over.map((rpm) => at(rpm)) },
    ]),
  );

describe('what else changed', () => {
  test('is the difference at the same speed, largest in its own spread first', () => {
    const noise = normal(chance(3));
    const side = (boost: number, oil: number) =>
      Array.from({ length: 3 }, () => {
        const [a, b] = [noise(), noise()];
        return run({ oil: () => 400 + oil + 10 * a, boost: (rpm) => rpm / 100 + boost + 0.5 * b });
      });
    const found = channelChanges([side(6, 6), side(0, 0)]);
    expect(found.map(({ channel }) => channel)).toEqual(['boost', 'oil']);
    expect(found[0]).toMatchObject({ fromRpm: 2000, toRpm: 6000, unit: 'kPa' });
    expect(found[0]!.mean.difference).toBeGreaterThan(4.5);
    expect(found[0]!.mean.difference - found[0]!.mean.halfWidth).toBeGreaterThan(0);
    // Ten times the spread hides the same change.
    expect(found[1]!.mean.halfWidth).toBeGreaterThan(Math.abs(found[1]!.mean.difference));
  });

  test('a change at the top alone is named where it is', () => {
    const late = run({ knockRetard: (rpm) => (rpm > 5500 ? 4 : 0) });
    const [found] = channelChanges([[late], [run({ knockRetard: () => 0 })]]);
    expect(found!.greatest.rpm).toBeGreaterThan(5500);
    expect(found!.greatest.difference.difference).toBe(4);
    expect(found!.mean.difference).toBeLessThan(1);
  });

  test('one run a side has a difference, and an interval only from a setup that was repeated', () => {
    const [a, b] = [run({ oil: () => 400 }), run({ oil: () => 410 })];
    expect(channelChanges([[b], [a]])[0]!.mean.halfWidth).toBeNaN();
    const repeated = [run({ oil: () => 399 }), run({ oil: () => 401 })];
    const [found] = channelChanges([[b], [a], repeated]);
    expect(found!.mean.halfWidth).toBeGreaterThan(0);
    expect(found!.inSpreads).toBeCloseTo(10 / Math.SQRT2, 6);
  });

  test('a set point that never scatters comes first when it moved and last when it did not', () => {
    const side = (target: number, oil: readonly number[]) =>
      oil.map((value) => run({ still: () => 7, lambdaTarget: () => target, oil: () => value }));
    const names = channelChanges([side(0.82, [400, 402]), side(0.85, [390, 393])]).map(({ channel }) => channel);
    expect(names).toEqual(['lambdaTarget', 'oil', 'still']);
  });

  test('is judged over what all runs of a channel share, over the band where they cover it', () => {
    const short = run({ oil: (rpm) => rpm }, speeds.subarray(5, 30));
    const found = (band?: readonly [number, number]) => channelChanges([[short], [run({ oil: () => 0 })]], band)[0]!;
    expect(found()).toMatchObject({ fromRpm: 2500, toRpm: 4900 });
    expect(found([3000, 4000]).mean.difference).toBeCloseTo(3500, 6);
    expect(found([3000, 5500])).toMatchObject({ fromRpm: 2500, toRpm: 4900 });
    expect(channelChanges([[run({ a: () => 1 })], [run({ b: () => 1 })]])).toEqual([]);
    const apart = run({ oil: () => 1 }, speeds.subarray(35));
    expect(channelChanges([[short], [apart]])).toEqual([]);
  });

  test('exchanged sides have the opposite difference and the same interval', () => {
    const value = fc.integer({ min: -500, max: 9000 }).map((tenths) => tenths / 10);
    const side = fc.array(
      value.map((level) => run({ oil: () => level })),
      { minLength: 1, maxLength: 4 },
    );
    fc.assert(
      fc.property(side, side, (test, baseline) => {
        const [forth] = channelChanges([test, baseline]);
        const [back] = channelChanges([baseline, test]);
        expect(forth!.mean.difference).toBeCloseTo(-back!.mean.difference, 6);
        if (test.length + baseline.length > 2) expect(forth!.mean.halfWidth).toBeCloseTo(back!.mean.halfWidth, 6);
      }),
    );
  });
});

import { expect, test } from '@jest/globals';
import { mostBays } from '../../contract/values/parts.ts';
import { firstBay, type RememberedBay } from '../memory/recorder-memory.ts';
import { inOtherData, withAdded, withMounted, withRenamed, withStored } from './remembered-bays.ts';

const car = { vehicleId: 4, gear: '4th', items: [] };
const mounted = { jobId: 7, setupId: 9, ...car } as unknown as NonNullable<RememberedBay['mounted']>;
const two: RememberedBay[] = [firstBay, { ...firstBay, bay: 5, name: 'Cell', dyno: 'hub', mounted }];

test('a bay more has a number that none has, and no name twice in whatever letters', () => {
  expect(withAdded(two, 'North').map(({ bay, name }) => [bay, name])).toEqual([
    [1, 'Bay 1'],
    [5, 'Cell'],
    [6, 'North'],
  ]);
  expect(() => withAdded(two, 'CELL')).toThrow('There is a bay called Cell already');
  expect(() => withRenamed(two, 1, 'cell')).toThrow('There is a bay called Cell already');
  // Its own name in other letters is no second one.
  expect(withRenamed(two, 5, 'CELL')[1]).toMatchObject({ bay: 5, name: 'CELL', dyno: 'hub' });
  const full = Array.from({ length: mostBays }, (_, index) => ({ ...firstBay, bay: index + 1, name: `B${index}` }));
  expect(() => withAdded(full, 'One more')).toThrow(`There are ${mostBays} bays`);
});

test('one car stands on one dyno', () => {
  expect(withMounted(two, 1, mounted, new Set([5])).map((bay) => bay.mounted)).toEqual([mounted, null]);
});

test('what the recorder knows comes before what the database has of the bays', () => {
  const stored = [
    { bay: 1, name: 'South', mounted: { jobId: 1, setupId: 2 }, plan: null },
    { bay: 5, name: 'Cell', mounted: { jobId: 3, setupId: 3 }, plan: null },
    { bay: 2, name: 'East', mounted: { jobId: 8, setupId: 8 }, plan: null },
  ];
  const cars = [car, car, undefined] as unknown as Parameters<typeof withStored>[2];
  expect(withStored(two, stored, cars)).toEqual([
    { ...firstBay, name: 'South', mounted: { jobId: 1, setupId: 2, ...car } },
    // The setup of the third is not one of its job: nothing is on that dyno.
    { ...firstBay, bay: 2, name: 'East' },
    two[1],
  ]);
});

test('in another database no car is known, and a ratio is of no car there', () => {
  const settings = { hub: { ratio: { value: 3.4, vehicleId: 4 }, bay: 5 } } as unknown as Parameters<
    typeof inOtherData
  >[0]['settings'];
  expect(inOtherData({ bays: two, settings })).toEqual({
    bays: [firstBay, { ...two[1], mounted: null }],
    settings: { hub: { ratio: { value: 3.4, vehicleId: null }, bay: 5 } },
  });
});

import { describe, expect, test } from '@jest/globals';
import { placeOf, type FoundBay } from './bay-place.ts';

const bay = (number: number, otherDyno: FoundBay['otherDyno'] = 'none', name = `Bay ${number}`): FoundBay => ({
  bay: number,
  name,
  otherDyno,
});
const dyno = { kind: 'inertia-roller' as const };
const logger = { kind: 'engine-logger' as const };
const weather = { kind: 'weather' as const };

describe('a dyno has a bay of its own', () => {
  test('the first one stands in the only bay, the second makes another', () => {
    expect(placeOf(dyno, null, [bay(1)])).toEqual({ bay: 1 });
    expect(placeOf(dyno, null, [bay(1, 'there')])).toEqual({ newBay: 'Bay 2' });
  });

  test('in a shop with one bay another dyno takes the place of one that is away; with several it does not', () => {
    expect(placeOf(dyno, null, [bay(1, 'away')])).toEqual({ bay: 1 });
    expect(placeOf(dyno, null, [bay(1, 'away'), bay(2, 'there')])).toEqual({ newBay: 'Bay 3' });
    expect(placeOf(dyno, null, [bay(1, 'away'), bay(2)])).toEqual({ bay: 2 });
  });

  test('it comes back where it was settled, unless another one is there now or the bay has gone', () => {
    expect(placeOf(dyno, 2, [bay(1), bay(2)])).toEqual({ bay: 2 });
    expect(placeOf(dyno, 2, [bay(1), bay(2, 'there')])).toEqual({ bay: 1 });
    expect(placeOf(dyno, 7, [bay(1, 'there')])).toEqual({ newBay: 'Bay 2' });
  });

  test('the name of a bay that it says is heeded, and not before the shop’s own word', () => {
    const bays = [bay(1), bay(2, 'none', 'Rollers')];
    expect(placeOf({ ...dyno, bay: 'rollers' }, null, bays)).toEqual({ bay: 2 });
    expect(placeOf({ ...dyno, bay: 'rollers' }, 1, bays)).toEqual({ bay: 1 });
    expect(placeOf({ ...dyno, bay: 'Hubs' }, null, bays)).toEqual({ newBay: 'Hubs' });
  });

  test('a new bay never takes a name that is there, and a ninth bay is not made', () => {
    expect(placeOf(dyno, null, [bay(1, 'there', 'Bay 2')])).toEqual({ newBay: 'Bay 3' });
    const eight = Array.from({ length: 8 }, (_, at) => bay(at + 1, 'there'));
    expect(placeOf(dyno, null, eight)).toBeNull();
    expect(placeOf({ ...dyno, bay: 'Hubs' }, null, eight)).toBeNull();
  });
});

test('a logger is placed by itself only where there is no choice; a weather station without a bay serves all', () => {
  expect(placeOf(logger, null, [bay(1, 'there')])).toEqual({ bay: 1 });
  expect(placeOf(logger, null, [bay(1), bay(2)])).toBeNull();
  expect(placeOf(logger, 2, [bay(1), bay(2, 'there')])).toEqual({ bay: 2 });
  expect(placeOf({ ...logger, bay: 'Bay 2' }, null, [bay(1)])).toEqual({ newBay: 'Bay 2' });
  expect(placeOf(weather, null, [bay(1)])).toBeNull();
  expect(placeOf({ ...weather, bay: 'Bay 9' }, null, [bay(1)])).toBeNull();
  expect(placeOf(weather, 1, [bay(1), bay(2)])).toEqual({ bay: 1 });
});

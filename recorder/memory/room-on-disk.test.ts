import { expect, test } from '@jest/globals';
import { RoomOnDisk } from './room-on-disk.ts';

const mb = 2 ** 20;

/** The watch over a disk with so much left, of a floor of 400 MB. */
async function roomWith(free: number | Error) {
  const room = new RoomOnDisk(
    400 * mb,
    () => (free instanceof Error ? Promise.reject(free) : Promise.resolve(free)),
    () => undefined,
  );
  await room.look();
  room.stop();
  return { refusal: room.refusal(), warning: room.warning(), atTheEnd: room.atTheEnd };
}

test('with room nothing is said', async () => {
  expect(await roomWith(5000 * mb)).toEqual({ refusal: null, warning: null, atTheEnd: false });
});

test('in good time it is said that room runs short, while runs still begin', async () => {
  const { refusal, warning } = await roomWith(700 * mb);
  expect(refusal).toBeNull();
  expect(warning).toMatch(/^700 MB are left.*below 400 MB no run is begun/);
});

test('below the floor no run begins, and one that goes on may end', async () => {
  const { refusal, warning, atTheEnd } = await roomWith(300 * mb);
  expect(refusal).toMatch(/^Only 300 MB are free.*everything recorded so far is kept/);
  expect(warning).toBe(refusal);
  expect(atTheEnd).toBe(false);
  expect((await roomWith(90 * mb)).atTheEnd).toBe(true);
});

test('a disk that does not say is not full by that', async () => {
  expect((await roomWith(new Error('not supported'))).refusal).toBeNull();
});

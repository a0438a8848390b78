import { expect, test } from '@jest/globals';
import { inRows } from './strip-rows.ts';

const on = (name: string, from: number, to = from) => ({ name, from, to });

test('what has room stands in one row, and what would overlap goes into the next', () => {
  const placed = inRows([on('knock', 0.1, 0.2), on('λ', 0.6, 0.8), on('injectors', 0.62, 0.9)], 600);
  expect(placed.map(({ name, row }) => [name, row])).toEqual([
    ['knock', 0],
    ['λ', 0],
    ['injectors', 1],
  ]);
});

test('no two of one row overlap, and all stay on the strip, however many there are', () => {
  const many = Array.from({ length: 30 }, (_, at) =>
    on(`event ${at}`, ((at * 37) % 100) / 100, Math.min(1, ((at * 37) % 100) / 100 + 0.05)),
  );
  const placed = inRows(many, 500);
  expect(placed).toHaveLength(30);
  for (const one of placed) {
    expect(one.startPx).toBeGreaterThanOrEqual(0);
    expect(one.startPx + one.namePx).toBeLessThan(500);
    for (const other of placed)
      if (other !== one && other.row === one.row)
        expect(one.startPx >= other.startPx + other.widthPx || other.startPx >= one.startPx + one.widthPx).toBe(true);
  }
});

test('a moment has a bar that can be pressed, and a name at the end moves to the left of it', () => {
  const [one] = inRows([on('boost overshoots', 0.99)], 400);
  expect(one!.barWidthPx).toBe(6);
  expect(one!.startPx).toBeLessThan(0.99 * 400);
  expect(one!.startPx + one!.barPx).toBeCloseTo(396, 6);
});

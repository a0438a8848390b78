import { describe, expect, test } from '@jest/globals';
import { interpolate } from '../../numerics/interpolation.ts';
import { calibrated, handPx, tracedByColour, tracedCurve, type Picture, type PicturePlace } from './traced-curve.ts';

const [width, height] = [900, 600];
const askew = 0.03;

/** The print's own axes: 1,000 rpm at the left to 7,000 at the right, 0 kW below to 120 above; turned a little. */
function placeOf(rpm: number, kw: number): PicturePlace {
  const [across, down] = [((rpm - 1000) / 6000) * 700, (1 - kw / 120) * 480];
  return {
    x: 90 + across * Math.cos(askew) - down * Math.sin(askew),
    y: 40 + across * Math.sin(askew) + down * Math.cos(askew),
  };
}
const powerAt = (rpm: number) => 90 * Math.sin((rpm - 900) / 3700);
const torqueAt = (rpm: number) => 70 - ((rpm - 3500) / 900) ** 2 * 4;

/** A print with a grid, a red line, and a blue one that crosses it. */
function print(): Picture {
  const rgba = new Uint8ClampedArray(4 * width * height).fill(250);
  const dot = ({ x, y }: PicturePlace, [red, green, blue]: readonly number[], thick: number) => {
    for (let dx = 0; dx < thick; dx++)
      for (let dy = 0; dy < thick; dy++) {
        const at = 4 * ((Math.round(y) + dy) * width + Math.round(x) + dx);
        if (at >= 0 && at < rgba.length) rgba.set([red!, green!, blue!], at);
      }
  };
  for (let rpm = 1000; rpm <= 7000; rpm += 1) {
    for (let kw = 0; kw <= 120; kw += 20) dot(placeOf(rpm, kw), [190, 190, 190], 1);
    dot(placeOf(rpm, torqueAt(rpm)), [30, 60, 200], 3);
    dot(placeOf(rpm, powerAt(rpm)), [200, 40, 30], 3);
  }
  for (let rpm = 1000; rpm <= 7000; rpm += 1000)
    for (let kw = 0; kw <= 120; kw += 0.1) dot(placeOf(rpm, kw), [190, 190, 190], 1);
  return { width, height, rgba };
}

const marks = {
  rpm: [
    [placeOf(2000, 0), 2000],
    [placeOf(6000, 0), 6000],
  ],
  value: [
    [placeOf(1000, 0), 0],
    [placeOf(1000, 100), 100],
  ],
} as const;

describe('axes of a print', () => {
  test('are read where it hangs askew', () => {
    const { read } = calibrated(marks);
    for (const [rpm, kw] of [
      [1500, 20],
      [3300, 77],
      [6900, 5],
    ] as const) {
      const [atRpm, value] = read(placeOf(rpm, kw));
      expect(atRpm).toBeCloseTo(rpm, 6);
      expect(value).toBeCloseTo(kw, 6);
    }
  });

  test.each([
    [
      'too near together',
      {
        ...marks,
        rpm: [
          [placeOf(2000, 0), 2000],
          [placeOf(2050, 0), 2050],
        ],
      },
    ],
    [
      'two different figures',
      {
        ...marks,
        value: [
          [placeOf(1000, 0), 40],
          [placeOf(1000, 100), 40],
        ],
      },
    ],
    [
      'run the same way',
      {
        ...marks,
        value: [
          [placeOf(1000, 0), 0],
          [placeOf(5000, 0), 40],
        ],
      },
    ],
    ['Mark two places', { ...marks, value: [[placeOf(1000, 0), 0]] }],
  ] as const)('%s: refused', (words, wrong) => {
    expect(() => calibrated(wrong)).toThrow(words);
  });
});

describe('a line followed by its colour', () => {
  const picture = print();
  test('is the truth within the error that is told of it, across a grid and another line', () => {
    const traced = tracedCurve(tracedByColour(picture, placeOf(2500, powerAt(2500))), calibrated(marks));
    expect(traced.points[0]![0]).toBeLessThan(1150);
    expect(traced.points.at(-1)![0]).toBeGreaterThan(6900);
    const errors = traced.points.map(([rpm, kw]) => Math.abs(kw - powerAt(rpm)));
    expect(errors.filter((error) => error <= traced.error).length / errors.length).toBeGreaterThan(0.93);
    // A pixel is a quarter of a kilowatt here.
    expect(traced.error).toBeLessThan(1);
    expect(traced.points.every(([rpm], at) => at === 0 || rpm > traced.points[at - 1]![0])).toBe(true);
  });

  test('the other line gives the other curve', () => {
    const { points } = tracedCurve(tracedByColour(picture, placeOf(5500, torqueAt(5500))), calibrated(marks));
    const [x, y] = [Float64Array.from(points, ([rpm]) => rpm), Float64Array.from(points, ([, value]) => value)];
    for (const rpm of [2000, 3500, 5000, 6500])
      expect(Math.abs(interpolate(x, y, rpm) - torqueAt(rpm))).toBeLessThan(1);
  });

  test('bare paper is no line', () => {
    expect(() => tracedByColour(picture, { x: 30, y: 20 })).toThrow('No line was found there');
  });
});

describe('a line traced by hand', () => {
  test('holds the places that were pressed, in order, with the error of a hand', () => {
    const { read, valuePerPx } = calibrated(marks);
    const traced = tracedCurve(
      [5000, 2000, 3500].map((rpm) => placeOf(rpm, powerAt(rpm))),
      { read, valuePerPx },
      handPx,
    );
    expect(traced.points.map(([rpm]) => Math.round(rpm))).toEqual([2000, 3500, 5000]);
    expect(traced.error).toBeCloseTo(1.96 * Math.hypot(1, handPx) * valuePerPx, 9);
  });

  test('of too little it is refused', () => {
    expect(() => tracedCurve([placeOf(3000, 50)], calibrated(marks), handPx)).toThrow('less than 200 rpm');
  });
});

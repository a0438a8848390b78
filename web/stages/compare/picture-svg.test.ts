import { expect, test } from '@jest/globals';
import { pictureSvg, type Picture } from './picture-svg.ts';

const picture = (over: Partial<Picture> = {}): string =>
  pictureSvg({
    title: 'Tarrow <Six>: B & C',
    sentence: 'B makes 2.0 ± 0.4 kW more than A.',
    made: 'At the wheels, uncorrected.',
    range: [2000, 6000],
    lanes: [
      {
        title: 'Power, kW',
        lines: [
          { name: 'A', colour: '#111', width: 2, rpm: [1000, 3000, 5000, 7000], values: [10, 40, 70, 60] },
          { name: 'B', colour: '#22c', width: 2.6, rpm: [3000, 5000], values: [NaN, NaN] },
        ],
      },
    ],
    colours: { ground: '#fff', ink: '#111', soft: '#555', rule: '#ddd' },
    ...over,
  });

test('stands by itself: title, sentence, how it was made; signs of its own language are written as such', () => {
  const svg = picture();
  expect(svg).toMatch(/^<svg xmlns="http:\/\/www\.w3\.org\/2000\/svg"[\s\S]*<\/svg>$/);
  expect(svg).toContain('Tarrow &lt;Six&gt;: B &amp; C');
  expect(svg).toContain('B makes 2.0 ± 0.4 kW more than A.');
  expect(svg).toContain('At the wheels, uncorrected.');
});

test('lines keep inside the range, and what is no number is not drawn', () => {
  const drawn = [...picture().matchAll(/<polyline[^>]*points="([^"]*)"/g)].map(([, points]) => points!.trim());
  const places = drawn.flatMap((points) => points.split(/\s+/).filter(Boolean));
  expect(places).toHaveLength(2);
  for (const place of places) {
    const [x, y] = place.split(',').map(Number);
    expect(x).toBeGreaterThanOrEqual(70);
    expect(x).toBeLessThanOrEqual(1070);
    expect(y).toBeGreaterThan(0);
  }
  expect(picture()).not.toContain('NaN');
});

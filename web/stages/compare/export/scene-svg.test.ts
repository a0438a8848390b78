import { expect, test } from '@jest/globals';
import { comparedAt } from '../testing/two-setups.ts';
import { compareScene, sceneAt } from '../../../../core/scene/compare-scene.ts';
import { shownSetups } from '../../../../core/scene/shown-setups.ts';
import { sceneSvg } from '../../../../core/scene/scene-svg.ts';

const words = { title: 'Tarrow <Six>: B & C', sentence: 'B makes 2.0 ± 0.4 kW more than A.', made: 'At the wheels.' };

function picture(address: string, zoom?: [number, number]): string {
  const { job, view, figures } = comparedAt(address);
  const content = compareScene({ view, figures, shown: shownSetups(job, figures, view) }, [])!;
  return sceneSvg(sceneAt(content, zoom), words, (css) => css.replace(/^var\(--(.*)\)$/, '$1'));
}

test('stands by itself: title, sentence, how it was made; signs of its own language are written as such', () => {
  const svg = picture('');
  expect(svg.slice(0, 60) + svg.slice(-6)).toMatch(/^<svg xmlns="http:\/\/www\.w3\.org\/2000\/svg"[\s\S]*<\/svg>$/);
  expect(svg.includes('Tarrow &lt;Six&gt;: B &amp; C')).toBe(true);
  expect(svg.includes('B makes 2.0 ± 0.4 kW more than A.')).toBe(true);
  expect(svg.includes('At the wheels.')).toBe(true);
  expect(svg.includes('var(')).toBe(false);
  expect(svg.includes('NaN')).toBe(false);
});

test('draws the lanes that the screen shows: every line, the grey envelopes, the gain’s area, the band, names at the ends', () => {
  const svg = picture('band=3000-4500');
  // Three runs and two means in power and torque; bounds and gain.
  expect(svg.match(/<path[^>]*fill="none"/g)).toHaveLength(2 * 5 + 3);
  expect(svg.match(/fill="ink" opacity="0.15"/g)).toHaveLength(2);
  expect(svg.match(/fill="band"/g)).toHaveLength(3);
  expect(/>Power<.*>kW[^<]*</.test(svg)).toBe(true);
  expect(svg.match(/font-weight="600">B</g)).toHaveLength(2);
  // A loss is hatched: told from a gain in grey too. What is none has no hatching.
  expect(svg.includes('stroke="loss"')).toBe(false);
  const back = picture('setup=A&against=B');
  expect(back.match(/stroke="loss"/g)!.length).toBeGreaterThan(20);
  expect(picture('lanes=gain').match(/<path[^>]*fill="none"/g)).toHaveLength(3);
});

test('a lane without anything to draw says why in its place', () => {
  expect(picture('setup=A&against=A').includes('No gain to draw.')).toBe(true);
});

test('zoomed, its axis shows those speeds, its lines end there, and each lane keeps to its own place', () => {
  const svg = picture('', [3000, 4000]);
  expect(svg.includes('>3,400<')).toBe(true);
  expect(svg.includes('>6,000<')).toBe(false);
  expect(svg.length).toBeLessThan(picture('').length);
  const clips = [...svg.matchAll(/<clipPath id="([^"]+)">/g)].map(([, id]) => id);
  expect(new Set(clips).size).toBe(3);
  expect([...svg.matchAll(/clip-path="url\(#([^)]+)\)"/g)].map(([, id]) => id)).toEqual(clips);
  // Two pictures in one page share names: one name never means two outlines.
  const outlines = (picture: string) =>
    new Map([...picture.matchAll(/<clipPath id="([^"]+)"><path d="([^"]+)"/g)].map(([, id, outline]) => [id, outline]));
  const other = outlines(picture('lanes=gain'));
  expect(other.size).toBeGreaterThan(0);
  for (const [id, outline] of outlines(svg)) expect(other.get(id) ?? outline).toBe(outline);
});

test('a norm of one figure is dashed across the power lane, as on the screen', () => {
  const { job, view, figures } = comparedAt('');
  const norm = { name: 'club norm', kw: 90 };
  const content = compareScene({ view, figures: { ...figures, norm }, shown: shownSetups(job, figures, view) }, [])!;
  const svg = sceneSvg(sceneAt(content, undefined), words, (css) => css);
  expect(svg.match(/<line[^>]*stroke-dasharray="6 4"/g)).toHaveLength(1);
  expect(svg.includes('club norm 90.0, dashed')).toBe(true);
});

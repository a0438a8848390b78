import { expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { paperColours } from '../../core/scene/paper-colours.ts';

const ofBlock = (css: string, selector: string) =>
  Object.fromEntries(
    [...css.slice(css.indexOf(selector), css.indexOf('}', css.indexOf(selector))).matchAll(/(--[\w-]+): (#\w+);/g)].map(
      ([, name, value]) => [name!, value!],
    ),
  );

test('paper has the colours of the light theme; only ground and bands are lighter on it', () => {
  const light = ofBlock(readFileSync('web/app/theme.css', 'utf8'), "scheme='light']");
  const sheet = ofBlock(readFileSync('web/report/report-sheet.module.css', 'utf8'), '.sheet');
  const long = (colour: string) => (colour === '#fff' ? '#ffffff' : colour);
  for (const [name, colour] of Object.entries(paperColours))
    expect([name, long((sheet[name] ?? light[name])!)]).toEqual([name, colour]);
  expect(Object.keys(sheet)).toEqual(['--ground', '--band']);
  expect(
    Object.keys(light)
      .filter((name) => name.startsWith('--setup'))
      .every((name) => name in paperColours),
  ).toBe(true);
});

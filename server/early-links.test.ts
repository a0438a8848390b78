import { expect, test } from '@jest/globals';
import { earlyLinks, type BuildManifest } from './early-links.ts';

const chunk = (file: string, imports: string[] = [], css: string[] = []) => ({ file, imports, css });
const built: BuildManifest = {
  'index.html': chunk('assets/index.js', ['_first.js']),
  '_first.js': chunk('assets/first.js'),
  'page.tsx': {
    ...chunk('assets/page.js', ['_shared.js'], ['assets/page.css']),
    assets: ['assets/archivo-vietnamese-wdth-normal-r.woff2', 'assets/archivo-latin-wdth-normal-D.woff2'],
  },
  'stages/compare/compare-stage.tsx': chunk('assets/compare.js', ['_shared.js', '_charts.js'], ['assets/compare.css']),
  'stages/record/record-stage.tsx': chunk('assets/record.js'),
  '_shared.js': chunk('assets/shared.js'),
  // What imports each other is named once.
  '_charts.js': chunk('assets/charts.js', ['_shared.js', '_charts.js']),
};
const page = [
  '/assets/index.js',
  '/assets/first.js',
  '/assets/page.js',
  '/assets/shared.js',
  '/assets/page.css',
  '/assets/archivo-latin-wdth-normal-D.woff2',
];
const filesOf = (path: string) => [...(earlyLinks(path, built) ?? '').matchAll(/<([^>]+)>/g)].map(([, file]) => file);

test('a stage’s page has its job, its scripts and its styles fetched early, each once', () => {
  expect(filesOf('/jobs/12/compare')).toEqual([
    '/assets/index.js',
    '/assets/first.js',
    '/api/jobs/12',
    '/assets/page.js',
    '/assets/shared.js',
    '/assets/compare.js',
    '/assets/charts.js',
    '/assets/page.css',
    '/assets/compare.css',
    '/assets/archivo-latin-wdth-normal-D.woff2',
    '/api/account',
  ]);
  // What starts the page and its worker comes before all else.
  expect(earlyLinks('/jobs/12/compare', built)).toMatch(
    /^<\/assets\/index\.js>; rel=modulepreload; fetchpriority=high,/,
  );
  expect(earlyLinks('/jobs/12/compare', built)).toContain('</assets/charts.js>; rel=modulepreload');
  expect(earlyLinks('/jobs/12/compare', built)).toContain('</api/jobs/12>; rel=preload; as=fetch; crossorigin');
});

test.each(['/', '/jobs', '/jobs/12', '/jobs/abc/compare', '/jobs/12/nothing', '/vehicles/3'])(
  '%s has the page’s own code and nothing of a stage or a job',
  (path) => {
    expect(filesOf(path)).toEqual([...page, '/api/account']);
  },
);

test('a page that was not built has nothing', () => {
  expect(earlyLinks('/jobs/12/compare', {})).toBeUndefined();
});

test('what was shared is read by somebody who has no account', () => {
  expect(filesOf('/shared/abcdef')).toEqual(page);
});

import { expect, test } from '@jest/globals';
import { earlyLinks } from './app.ts';

const stages = new Map([['compare', '/assets/compare-stage-x.js']]);

test('a stage’s page has its job and its script fetched early', () => {
  expect(earlyLinks('/jobs/12/compare', stages)).toBe(
    '</api/jobs/12>; rel=preload; as=fetch; crossorigin, </assets/compare-stage-x.js>; rel=modulepreload',
  );
});

test.each(['/', '/jobs', '/jobs/12', '/jobs/abc/compare', '/jobs/12/nothing', '/vehicles/3'])(
  '%s has nothing',
  (path) => {
    expect(earlyLinks(path, stages)).toBeUndefined();
  },
);

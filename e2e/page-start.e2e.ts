import { expect, test } from '@playwright/test';
import { statSync } from 'node:fs';
import { join } from 'node:path';
import { webFolder } from '../launch/build-web.ts';
import { builtInto } from '../server/early-links.ts';

test('what starts the figures worker waits for nothing of the page’s own code', () => {
  const built = builtInto(webFolder);
  const waitedFor = new Set<string>();
  const visit = (source: string) => {
    if (waitedFor.has(source)) return;
    waitedFor.add(source);
    built[source]!.imports.forEach(visit);
  };
  visit('index.html');
  const bytes = [...waitedFor].reduce((sum, source) => sum + statSync(join(webFolder, built[source]!.file)).size, 0);
  // The page itself has more than a million.
  expect(bytes).toBeGreaterThan(1000);
  expect(bytes).toBeLessThan(20_000);
});

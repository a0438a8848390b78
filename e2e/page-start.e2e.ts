import { expect, test } from '@playwright/test';
import { readdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { webFolder } from '../launch/build-web.ts';
import { builtInto } from '../server/early-links.ts';

test('what another machine fetches for Compare is compressed, and no script carries licences', () => {
  const built = builtInto(webFolder);
  const assets = readdirSync(join(webFolder, 'assets'));
  const scripts = assets.filter((name) => name.endsWith('.js'));
  for (const name of scripts) {
    expect([name, /@license|Licensed under/.test(readFileSync(join(webFolder, 'assets', name), 'utf8'))]).toEqual([
      name,
      false,
    ]);
    if (statSync(join(webFolder, 'assets', name)).size > 1000) expect(assets).toContain(`${name}.br`);
  }
  expect(readFileSync(join(webFolder, 'licences-of-the-worker.txt'), 'utf8')).toContain('ml-matrix');
  expect(Object.keys(built).length).toBeGreaterThan(10);
});

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

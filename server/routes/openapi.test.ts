import { expect, test } from '@jest/globals';
import { endpoints } from '../../contract/api.ts';
import { createApp } from '../app.ts';
import type { Bay } from '../recorder/bay.ts';
import type { Database } from '../store/database.ts';
import { openApi } from './openapi.ts';

interface Layer {
  route?: { path: string; methods?: Record<string, boolean> };
  handle: { stack?: Layer[] };
}

test('every request that the server answers is described, and nothing else', () => {
  const app = createApp({} as Database, {} as Bay, undefined, () => undefined);
  const routes: string[] = [];
  const walk = (stack: Layer[]) => {
    for (const { route, handle } of stack) {
      if (route)
        routes.push(...Object.keys(route.methods ?? {}).map((method) => `${method} ${route.path.replace(/^\/api/, '')}`)); // prettier-ignore
      else if (handle.stack) walk(handle.stack);
    }
  };
  walk((app.router as unknown as { stack: Layer[] }).stack);
  expect(routes.length).toBeGreaterThan(40);
  expect(endpoints.map(({ method, path }) => `${method} ${path}`).sort()).toEqual(routes.sort());
});

test('every reference leads somewhere, and every body has its fields', () => {
  const api = openApi() as { paths: Record<string, object>; components: { schemas: Record<string, object> } };
  const text = JSON.stringify(api);
  for (const [, name] of text.matchAll(/#\/components\/schemas\/(\w+)/g))
    expect(api.components.schemas[name!]).toBeDefined();
  expect(text).not.toContain('"schema":{}');
  expect(JSON.stringify(api.paths['/jobs/{id}/limits'])).toContain('quantity');
});

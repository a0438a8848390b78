import type { WatchedFolder } from '../watched/watched-folder.ts';
import { ImportReader } from '../import/import-reader.ts';
import { expect, test } from '@jest/globals';
import type { DynoHistory } from '../dyno-history.ts';
import { createApp } from '../app.ts';
import { RequestsAtWork } from '../requests-at-work.ts';
import type { Accounts } from '../accounts/accounts.ts';
import type { RecorderClient } from '../recorder-client.ts';
import type { Database } from '../../store/database/database.ts';
import { silentLog } from '../../contract/values/service-log.ts';
import { ContractRoutes } from './contract-routes.ts';
import { openApi } from './openapi.ts';

test('what the contract lists is answered, and nothing else can be', () => {
  const routes = new ContractRoutes(() => (_request, _response, next) => next(), new RequestsAtWork());
  const nothing = () => undefined;
  expect(() => routes.get('/secret', nothing)).toThrow('contract/requests/api.ts does not list get /secret');
  routes.get('/jobs', nothing);
  expect(() => routes.get('/jobs', nothing)).toThrow('answered twice');
  expect(() => routes.mustBeWhole()).toThrow(/nothing answers: .*get \/runs\/:id/);
  // The whole server answers all: it refuses to start otherwise.
  expect(() =>
    createApp({
      database: {} as Database,
      dynos: {} as DynoHistory,
      recorder: {} as RecorderClient,
      reader: new ImportReader(),
      watched: {} as WatchedFolder,
      accounts: { guard: () => () => undefined, sessions: () => undefined } as unknown as Accounts,
      atWork: new RequestsAtWork(),
      hosts: [],
      outside: () => null,
      data: { identity: '' },
      webFolder: undefined,
      log: silentLog,
    }),
  ).not.toThrow();
});

test('every reference leads somewhere, and every body has its fields', () => {
  const api = openApi() as { paths: Record<string, object>; components: { schemas: Record<string, object> } };
  const text = JSON.stringify(api);
  for (const [, name] of text.matchAll(/#\/components\/schemas\/(\w+)/g))
    expect(api.components.schemas[name!]).toBeDefined();
  expect(text).not.toContain('"schema":{}');
  expect(JSON.stringify(api.paths['/jobs/{id}/limits'])).toContain('quantity');
});

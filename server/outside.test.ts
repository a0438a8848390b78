import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { mkdtempSync } from 'node:fs';
import { Agent, request } from 'node:https';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { WebSocket } from 'ws';
import { silentLog } from '../contract/log.ts';
import { migrate } from '../store/migrate.ts';
import { freshDatabase } from '../store/testing/test-database.ts';
import { startHere } from './testing/test-server.ts';
import type { RunningServer } from './server.ts';
import type { RunningRecorder } from '../recorder/start-recorder.ts';

const folder = () => mkdtempSync(join(tmpdir(), 'suvok-tls-'));
const password = 'quite a long one';

describe('from another machine', () => {
  let server: RunningServer;
  let recorder: RunningRecorder;
  let drop: () => Promise<void>;
  const place = folder();
  const host = 'suvok.shop';
  beforeEach(async () => {
    const database = await freshDatabase();
    ({ drop } = database);
    await migrate(database.url);
    const outside = { hosts: [host], port: 0, folder: join(place, 'tls') };
    ({ server, recorder } = await startHere(database.url, silentLog, { outside, askedMost: 100 }));
  });
  afterEach(async () => {
    agent.destroy();
    await server.close();
    await recorder.close();
    await drop();
  });

  const agent = new Agent({ keepAlive: true, maxSockets: 20 });
  const ask = (
    method: string,
    path: string,
    { body, cookie = '', named = host }: { body?: unknown; cookie?: string; named?: string } = {},
  ) =>
    new Promise<{ status: number; text: string; cookie: string; setCookie: string }>((resolve, reject) => {
      const port = server.outside!.port;
      const headers = { host: `${named}:${port}`, cookie, ...(body === undefined ? {} : { 'content-type': 'application/json' }) }; // prettier-ignore
      const sent = request(
        { host: '127.0.0.1', port, path, method, headers, agent, rejectUnauthorized: false },
        (response) => {
          let text = '';
          response.on('data', (bytes: Buffer) => (text += bytes.toString()));
          response.on('end', () => {
            const [setCookie = ''] = response.headers['set-cookie'] ?? [];
            resolve({ status: response.statusCode ?? 0, text, cookie: setCookie.split(';')[0]!, setCookie });
          });
        },
      );
      sent.once('error', reject);
      sent.end(body === undefined ? undefined : JSON.stringify(body));
    });
  const opened = (cookie: string) =>
    new Promise<number>((resolve) => {
      const port = server.outside!.port;
      const origin = `https://${host}:${port}`;
      const socket = new WebSocket(`wss://127.0.0.1:${port}/live`, { origin, headers: { cookie, host: `${host}:${port}` }, rejectUnauthorized: false }); // prettier-ignore
      socket.on('open', () => {
        socket.close();
        resolve(200);
      });
      socket.on('unexpected-response', (_request, { statusCode }) => resolve(statusCode ?? 0));
      socket.on('error', () => undefined);
    });

  test('nobody comes in before there is an account, not even to make the first; then whoever signs in does', async () => {
    for (const [method, path, body] of [
      ['GET', '/api/jobs', undefined],
      ['GET', '/', undefined],
      ['POST', '/api/account/first', { name: 'Eve', password }],
    ] as const) {
      // prettier-ignore
      const { status, text } = await ask(method, path, { body });
      expect([status, text]).toEqual([403, expect.stringContaining('first account on this machine itself')]);
    }
    expect(await opened('')).toBe(403);
    const first = await fetch(`http://127.0.0.1:${server.port}/api/account/first`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ name: 'Ola', password }) }); // prettier-ignore
    expect(first.status).toBe(201);
    // Over plain HTTP on this machine the cookie cannot be Secure.
    expect(first.headers.get('set-cookie')).not.toMatch(/Secure/);
    expect((await ask('GET', '/api/jobs')).status).toBe(401);
    expect(await opened('')).toBe(401);
    const { status, cookie, setCookie } = await ask('POST', '/api/account/sign-in', {
      body: { name: 'Ola', password },
    });
    expect(status).toBe(200);
    expect(setCookie).toMatch(/Secure/);
    expect((await ask('GET', '/api/jobs', { cookie })).status).toBe(200);
    expect(await opened(cookie)).toBe(200);
    const told = JSON.parse((await ask('GET', '/api/outside', { cookie })).text) as object;
    expect(told).toEqual(server.outside);
    // Another name of this machine is a page elsewhere that sent somebody here.
    expect((await ask('GET', '/api/jobs', { cookie, named: 'evil.example' })).status).toBe(403);
    expect((await ask('GET', '/api/jobs', { cookie, named: 'localhost' })).status).toBe(403);
    // One that asks without end is slowed; this machine itself is not.
    // On a busy machine ten seconds pass meanwhile, and what counts begins anew.
    const asked = () => Promise.all(Array.from({ length: 110 }, () => ask('GET', '/api/account', { cookie })));
    let slowed: Awaited<ReturnType<typeof asked>> = [];
    for (let tries = 0; slowed.length === 0 && tries < 4; tries++)
      slowed = (await asked()).filter(({ status }) => status === 429);
    expect(slowed.length).toBeGreaterThan(0);
    expect(slowed[0]!.text).toMatch(/asks too much at once/);
    expect((await fetch(`http://127.0.0.1:${server.port}/api/account`)).status).toBe(200);
  }, 60_000);
});

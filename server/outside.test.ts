import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { mkdirSync, mkdtempSync, writeFileSync } from 'node:fs';
import { brotliCompressSync, brotliDecompressSync, gunzipSync } from 'node:zlib';
import { Agent, request } from 'node:https';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { WebSocket } from 'ws';
import { silentLog } from '../contract/values/service-log.ts';
import type { Lines } from '../instrument/lines.ts';
import { migrate } from '../store/database/migrate.ts';
import { freshDatabase } from '../store/testing/test-database.ts';
import { startHere } from './testing/test-server.ts';
import type { RunningServer } from './server.ts';
import type { RunningRecorder } from '../recorder/start-recorder.ts';

const folder = () => mkdtempSync(join(tmpdir(), 'suvok-tls-'));
const password = 'quite a long one';

describe('from another machine', () => {
  let server: RunningServer;
  let recorder: RunningRecorder;
  let lines: Lines;
  let drop: () => Promise<void>;
  const place = folder();
  const host = 'suvok.shop';
  const script = 'const said = "a word";\n'.repeat(400);
  const web = folder();
  mkdirSync(join(web, 'assets'));
  writeFileSync(join(web, 'index.html'), '<title>Suvok</title>');
  writeFileSync(join(web, 'assets', 'page-1.js'), script);
  writeFileSync(join(web, 'assets', 'page-1.js.br'), brotliCompressSync(script));
  beforeEach(async () => {
    const database = await freshDatabase();
    ({ drop } = database);
    await migrate(database.url);
    const outside = { hosts: [host], port: 0, folder: join(place, 'tls') };
    ({ server, recorder, lines } = await startHere(database.url, silentLog, {
      outside,
      askedMost: 100,
      webFolder: web,
    }));
  });
  afterEach(async () => {
    agent.destroy();
    await server.close();
    lines.close();
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
      const headers = {
        host: `${named}:${port}`,
        cookie,
        ...(body === undefined ? {} : { 'content-type': 'application/json' }),
      };
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
      const socket = new WebSocket(`wss://127.0.0.1:${port}/live`, {
        origin,
        headers: { cookie, host: `${host}:${port}` },
        rejectUnauthorized: false,
      });
      socket.on('open', () => {
        socket.close();
        resolve(200);
      });
      socket.on('unexpected-response', (_request, { statusCode }) => resolve(statusCode ?? 0));
      socket.on('error', () => undefined);
    });

  test('what goes to another machine is compressed: built files as they were with the build, answers as they come; on this machine nothing is', async () => {
    const fetched = (path: string, accept: string, cookie = '') =>
      new Promise<{ encoding: string | undefined; cache: string | undefined; bytes: Buffer }>((resolve, reject) => {
        const port = server.outside!.port;
        const headers = { host: `${host}:${port}`, 'accept-encoding': accept, cookie };
        const sent = request(
          { host: '127.0.0.1', port, path, headers, agent, rejectUnauthorized: false },
          (response) => {
            const parts: Buffer[] = [];
            response.on('data', (part: Buffer) => parts.push(part));
            response.on('end', () =>
              resolve({
                encoding: response.headers['content-encoding'],
                cache: response.headers['cache-control'],
                bytes: Buffer.concat(parts),
              }),
            );
          },
        );
        sent.once('error', reject);
        sent.end();
      });
    const local = `http://127.0.0.1:${server.port}`;
    const post = (path: string, body: object) =>
      fetch(`${local}/api${path}`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(body),
      });
    for (let job = 0; job < 12; job++) await post('/jobs', { vehicle: `Car ${job}` });
    const first = await post('/account/first', { name: 'Ola', password });
    const cookie = first.headers.get('set-cookie')!.split(';')[0]!;
    const built = await fetched('/assets/page-1.js', 'gzip, br');
    expect([built.encoding, built.cache]).toEqual(['br', expect.stringContaining('immutable')]);
    expect(brotliDecompressSync(built.bytes).toString()).toBe(script);
    const plain = await fetched('/assets/page-1.js', 'identity');
    expect([plain.encoding, plain.bytes.toString()]).toEqual([undefined, script]);
    const answer = await fetched('/api/jobs', 'gzip', cookie);
    expect(answer.encoding).toBe('gzip');
    expect(JSON.parse(gunzipSync(answer.bytes).toString())).toMatchObject({ total: 12 });
    expect((await fetched('/api/account', 'gzip', cookie)).encoding).toBeUndefined();
    for (const path of ['/assets/page-1.js', '/api/jobs'])
      expect(
        (await fetch(local + path, { headers: { 'accept-encoding': 'gzip, br', cookie } })).headers.get(
          'content-encoding',
        ),
      ).toBeNull();
  }, 60_000);

  test('nobody comes in before there is an account, not even to make the first; then whoever signs in does', async () => {
    for (const [method, path, body] of [
      ['GET', '/api/jobs', undefined],
      ['GET', '/', undefined],
      ['POST', '/api/account/first', { name: 'Eve', password }],
    ] as const) {
      const { status, text } = await ask(method, path, { body });
      expect([status, text]).toEqual([403, expect.stringContaining('first account on this machine itself')]);
    }
    expect(await opened('')).toBe(403);
    const first = await fetch(`http://127.0.0.1:${server.port}/api/account/first`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ name: 'Ola', password }),
    });
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

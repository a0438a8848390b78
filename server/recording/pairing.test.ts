import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { mkdtempSync, readFileSync, statSync } from 'node:fs';
import { connect as connectPlainly } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { connect, type TLSSocket } from 'node:tls';
import { silentLog } from '../../contract/values/service-log.ts';
import type { BaysState } from '../../contract/bays/live.ts';
import type { PairingOffer } from '../../contract/people/pairing.ts';
import { testDyno } from '../../core/testing/test-car.ts';
import type { RunningRecorder } from '../../recorder/start-recorder.ts';
import { freshDatabase } from '../../store/testing/test-database.ts';
import type { RunningServer } from '../server.ts';
import { eventually, startHere } from '../testing/test-server.ts';

let server: RunningServer;
let recorder: RunningRecorder;
let drop: () => Promise<void>;
let url: string;
let folder: string;
let cookie = '';
const open: (() => void)[] = [];
const tlsFolder = join(mkdtempSync(join(tmpdir(), 'suvok-tls-')), 'tls');
const outside = { hosts: ['suvok.shop'], port: 0, folder: tlsFolder };

beforeEach(async () => {
  ({ url, drop } = await freshDatabase());
  folder = mkdtempSync(join(tmpdir(), 'suvok-recorder-'));
  ({ server, recorder } = await startHere(url, silentLog, { outside, folder }));
  cookie = '';
});
afterEach(async () => {
  for (const close of open.splice(0)) close();
  await server.close();
  await recorder.close();
  await drop();
});

async function ask(method: string, path: string, body?: unknown): Promise<{ status: number; content: unknown }> {
  const response = await fetch(`http://127.0.0.1:${server.port}/api${path}`, {
    method,
    headers: { cookie, ...(body === undefined ? {} : { 'content-type': 'application/json' }) },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  });
  const [set] = response.headers.getSetCookie();
  if (set) cookie = set.split(';')[0]!;
  return { status: response.status, content: await response.json() };
}
const owner = () => ask('POST', '/account/first', { name: 'Ola', password: 'quite a long one' });
const offer = async () => (await ask('POST', '/pairing', {})).content as PairingOffer;
const bays = async () => (await ask('GET', '/bays')).content as BaysState;
const paired = async () => (await bays()).pairing.instruments.map(({ device }) => device);

const hello = (device = 'far-roller', more: object = {}) => ({
  type: 'hello',
  protocol: 2,
  instance: 'one',
  device,
  kind: 'inertia-roller',
  rateHz: 200,
  dyno: testDyno,
  channels: [
    { name: 'rollerSpeed', unit: 'rad/s' },
    { name: 'engineSpeed', unit: 'rpm' },
  ],
  ...more,
});

/** A peer from another machine: what it hears, and whether it was let go. */
class Far {
  heard: Record<string, unknown>[] = [];
  gone = false;
  private constructor(private readonly socket: TLSSocket) {
    let rest = '';
    socket.setEncoding('utf8');
    socket.on('data', (text: string) => {
      const lines = (rest + text).split('\n');
      rest = lines.pop()!;
      this.heard.push(...lines.map((line) => JSON.parse(line) as Record<string, unknown>));
    });
    socket.on('close', () => (this.gone = true));
    socket.on('error', () => undefined);
    open.push(() => socket.destroy());
  }
  static async connect(): Promise<Far> {
    const socket = connect({ port: recorder.outside!.port, host: '127.0.0.1', rejectUnauthorized: false });
    await new Promise((resolve, reject) => socket.once('secureConnect', resolve).once('error', reject));
    expect(socket.getPeerCertificate().fingerprint256).toBe(recorder.outside!.fingerprint);
    return new Far(socket);
  }
  say(message: unknown): void {
    this.socket.write((typeof message === 'string' ? message : JSON.stringify(message)) + '\n');
  }
  hears(type: string): Promise<Record<string, unknown>> {
    return eventually(type, () => this.heard.find((message) => message.type === type));
  }
  async refused(sentence: RegExp): Promise<void> {
    expect((await this.hears('problem')).text).toMatch(sentence);
    await eventually('being let go', () => this.gone);
  }
}
/** @returns what a new connection is answered to a code */
async function pairing(code: string, device = 'far-roller'): Promise<Record<string, unknown>> {
  const far = await Far.connect();
  far.say({ type: 'pair', code, device });
  return eventually('an answer', () => far.heard[0]);
}

test('an instrument on another machine is let in once by a code, and then by its key, until that is taken back', async () => {
  await owner();
  const { code, outside: place } = await offer();
  expect(code).toMatch(/^[A-Z2-9]{4}-[A-Z2-9]{4}$/);
  expect(place).toEqual(recorder.outside);
  const far = await Far.connect();
  // As somebody writes it.
  far.say({ type: 'pair', code: code.toLowerCase().replace('-', ' '), device: 'far-roller' });
  const { key } = await far.hears('paired');
  far.say(hello('far-roller', { key }));
  await far.hears('welcome');
  await eventually('the instrument', async () =>
    (await bays()).bays[0]!.devices.some(({ device }) => device === 'far-roller'),
  );
  expect(await paired()).toEqual(['far-roller']);
  // The key is in nothing that is kept or shown; the code has served.
  for (const file of ['bay.json']) {
    expect(readFileSync(join(folder, file), 'utf8')).not.toContain(String(key));
    expect(statSync(join(folder, file)).mode & 0o077).toBe(0);
  }
  expect(JSON.stringify(await bays())).not.toContain(String(key));
  expect(await pairing(code, 'another')).toMatchObject({
    type: 'problem',
    text: expect.stringMatching(/no pairing is open/),
  });

  // It comes back with its key; its name alone, its key under another name, and no hello at all are nothing.
  const again = await Far.connect();
  again.say(hello('far-roller', { key }));
  await again.hears('welcome');
  for (const not of [hello(), hello('other-roller', { key }), hello('far-roller', { key: 'x' })]) {
    const stranger = await Far.connect();
    stranger.say(not);
    await stranger.refused(/is not paired/);
  }
  const page = await Far.connect();
  page.say('POST / HTTP/1.1');
  await page.refused(/not JSON/);

  expect((await ask('POST', '/pairing/revoke', { device: 'far-roller' })).status).toBe(200);
  await eventually('being let go', () => again.gone);
  const late = await Far.connect();
  late.say(hello('far-roller', { key }));
  await late.refused(/pairing was taken back/);
  expect(await paired()).toEqual([]);
  expect((await ask('POST', '/pairing/revoke', { device: 'far-roller' })).content).toMatchObject({
    error: expect.stringMatching(/No instrument called far-roller is paired/),
  });
});

test('five wrong codes are worth as much as none, and a new code takes the place of the one before', async () => {
  await owner();
  const first = await offer();
  const { code } = await offer();
  expect(await pairing(first.code)).toMatchObject({ type: 'problem' });
  for (let wrong = 0; wrong < 4; wrong++) expect(await pairing('AAAA-AAAA')).toMatchObject({ type: 'problem' });
  // The recorder's word reaches the server a moment later.
  await eventually('the code being worth nothing', async () => (await bays()).pairing.until === null);
  expect(await pairing(code)).toMatchObject({ text: expect.stringMatching(/no pairing is open/) });
  const third = await offer();
  await ask('DELETE', '/pairing');
  expect(await pairing(third.code)).toMatchObject({ text: expect.stringMatching(/no pairing is open/) });
});

test('there is no code without an account; on this machine nobody is paired, and nobody speaks without TLS', async () => {
  expect(await ask('POST', '/pairing', {})).toMatchObject({
    status: 409,
    content: { error: expect.stringMatching(/Make the first account/) },
  });
  const local = connectPlainly({ port: recorder.benchLinkPort, host: '127.0.0.1' });
  open.push(() => local.destroy());
  local.write(JSON.stringify({ type: 'pair', code: 'x', device: 'y' }) + '\n');
  const said = await new Promise<string>((resolve) => local.once('data', (bytes) => resolve(bytes.toString())));
  expect(said).toMatch(/only instruments on other machines are paired/);
  const bare = connectPlainly({ port: recorder.outside!.port, host: '127.0.0.1' });
  bare.on('error', () => undefined);
  bare.write(JSON.stringify(hello()) + '\n');
  await new Promise((resolve) => bare.once('close', resolve));
  expect((await bays()).bays[0]!.devices).toEqual([]);
});

test('a pairing outlives the recorder, and its certificate does', async () => {
  await owner();
  const { code } = await offer();
  const { key } = await pairing(code);
  const { fingerprint } = recorder.outside!;
  await recorder.close();
  await server.close();
  ({ server, recorder } = await startHere(url, silentLog, { outside, folder }));
  expect(recorder.outside).toMatchObject({ fingerprint });
  const far = await Far.connect();
  far.say(hello('far-roller', { key }));
  await far.hears('welcome');
});

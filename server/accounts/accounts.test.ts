import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { WebSocket } from 'ws';
import type { Account, Person } from '../../contract/people/people.ts';
import type { Change } from '../../contract/job/job-file.ts';
import type { Job } from '../../contract/job/records.ts';
import { endpoints } from '../../contract/requests/api.ts';
import { keptUnits } from '../../core/units/told-units.ts';
import { silentLog } from '../../contract/values/service-log.ts';
import { socketPlace } from '../../recorder/local-link/socket-place.ts';
import { startServer } from '../server.ts';
import { eventually, TestServer } from '../testing/test-server.ts';

let server: TestServer;
beforeEach(async () => {
  server = await TestServer.start();
});
afterEach(async () => {
  await server.stop();
  expect(server.errors).toEqual([]);
});

const password = 'quite a long one';

/** A browser: it keeps its cookie. */
class Browser {
  cookie = '';
  setCookie = '';

  constructor(private readonly origin = server.origin) {}

  async ask(method: string, path: string, body?: unknown): Promise<{ status: number; content: unknown }> {
    const response = await fetch(`${this.origin}/api${path}`, {
      method,
      headers: {
        ...(this.cookie && { cookie: this.cookie }),
        ...(body === undefined ? {} : { 'content-type': 'application/json' }),
      },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
    const set = response.headers.get('set-cookie');
    if (set) [this.setCookie, this.cookie] = [set, set.split(';')[0]!];
    const text = await response.text();
    return { status: response.status, content: text ? (JSON.parse(text) as unknown) : undefined };
  }

  async signIn(name: string, with_ = password): Promise<number> {
    return (await this.ask('POST', '/account/sign-in', { name, password: with_ })).status;
  }

  async me(): Promise<Account> {
    return (await this.ask('GET', '/account')).content as Account;
  }
}

/** The owner, signed in, and whoever else there is. */
async function withAccounts(...others: { name: string; role: Person['role'] }[]): Promise<Browser> {
  const owner = new Browser();
  expect((await owner.ask('POST', '/account/first', { name: 'Ola', password })).status).toBe(201);
  for (const other of others) expect((await owner.ask('POST', '/people', { ...other, password })).status).toBe(201);
  return owner;
}

describe('accounts', () => {
  test('units are chosen for oneself, by a viewer too, and are there wherever one signs in', async () => {
    const owner = await withAccounts({ name: 'Vic', role: 'viewer' });
    const vic = new Browser();
    await vic.signIn('Vic');
    expect((await vic.me()).me?.units).toBeNull();
    const units = { ...keptUnits, pressure: 'psi', temperature: '°F', mixture: 'AFR' };
    expect(await vic.ask('PUT', '/account/units', units)).toMatchObject({ status: 200, content: { me: { units } } });
    const elsewhere = new Browser();
    await elsewhere.signIn('vic');
    expect((await elsewhere.me()).me?.units).toEqual(units);
    expect((await owner.me()).me?.units).toBeNull();
    // A unit that is none, one too few, and nobody signed in.
    expect((await vic.ask('PUT', '/account/units', { ...units, pressure: 'atü' })).status).toBe(400);
    expect((await vic.ask('PUT', '/account/units', { power: 'kW' })).status).toBe(400);
    expect((await new Browser().ask('PUT', '/account/units', units)).status).toBe(401);
    expect((await elsewhere.me()).me?.units).toEqual(units);
  });

  test('without any, Suvok is open; with the first, everybody signs in, and nothing but that is answered', async () => {
    const anybody = new Browser();
    expect(await anybody.me()).toEqual({ accounts: false, me: null });
    expect((await anybody.ask('GET', '/jobs')).status).toBe(200);
    const owner = await withAccounts();
    expect(await owner.me()).toMatchObject({ accounts: true, me: { name: 'Ola', role: 'owner' } });
    expect((await owner.ask('GET', '/jobs')).status).toBe(200);
    for (const { method, path, needs } of endpoints) {
      if (needs === 'nobody') continue;
      const { status, content } = await anybody.ask(
        method.toUpperCase(),
        path.replace(':id', '1'),
        method === 'get' || method === 'delete' ? undefined : {},
      );
      expect([path, status, content]).toEqual([path, 401, { error: 'Sign in first.' }]);
    }
    expect((await anybody.ask('POST', '/account/first', { name: 'Eve', password })).status).toBe(409);
    expect((await anybody.ask('GET', '/health')).status).toBe(200);
  });

  test('a viewer looks, an operator works, an owner says who may', async () => {
    const owner = await withAccounts({ name: 'Vic', role: 'viewer' }, { name: 'Opal', role: 'operator' });
    const [viewer, operator] = [new Browser(), new Browser()];
    await viewer.signIn('vic');
    await operator.signIn('OPAL');
    const statuses = async (method: string, path: string, body?: unknown) => {
      const found: number[] = [];
      for (const browser of [viewer, operator, owner]) found.push((await browser.ask(method, path, body)).status);
      return found;
    };
    expect(await statuses('GET', '/jobs')).toEqual([200, 200, 200]);
    expect(await statuses('POST', '/jobs', { vehicle: 'Car' })).toEqual([403, 201, 201]);
    expect(await statuses('POST', '/bays/1/arm', {})).toEqual([403, 422, 422]);
    expect(await statuses('GET', '/people')).toEqual([403, 403, 200]);
    expect(await statuses('PUT', '/plain-instrument', {})).toEqual([403, 403, 400]);
    expect((await viewer.ask('POST', '/jobs', { vehicle: 'Car' })).content).toEqual({
      error: 'Vic is a viewer and may look only: this needs an operator.',
    });
  });

  test('the cookie is for Suvok’s own pages, and every sign-in gets another session', async () => {
    const owner = await withAccounts();
    expect(owner.setCookie).toMatch(/HttpOnly/i);
    expect(owner.setCookie).toMatch(/SameSite=Strict/i);
    const before = owner.cookie;
    await owner.signIn('Ola');
    expect(owner.cookie).not.toBe(before);
    const old = new Browser();
    old.cookie = before;
    expect((await old.ask('GET', '/jobs')).status).toBe(401);
    const forged = new Browser();
    forged.cookie = owner.cookie.slice(0, -3) + 'abc';
    expect((await forged.ask('GET', '/jobs')).status).toBe(401);
  });

  test('wrong passwords take as long as right ones for nobody to be told apart, and guessing is slowed', async () => {
    await withAccounts();
    const guesser = new Browser();
    expect((await guesser.ask('POST', '/account/sign-in', { name: 'Nobody', password })).content).toEqual(
      (await guesser.ask('POST', '/account/sign-in', { name: 'Ola', password: 'another one altogether' })).content,
    );
    for (let guess = 1; guess < 8; guess++) expect(await guesser.signIn('Ola', `guess ${guess}`)).toBe(401);
    const { status, content } = await guesser.ask('POST', '/account/sign-in', { name: 'Ola', password });
    expect(status).toBe(429);
    expect(content).toMatchObject({ error: expect.stringContaining('Too many wrong passwords') as unknown });
  });

  test.each([
    ['a blank', ' '],
    ['a tab', '\t'],
    ['a no-break space', '\u00a0'],
    ['a line end', '\n'],
    ['what is never seen', '\u200e'],
  ])(
    'guesses are counted by the account, with %s before the name or after it, and however it is written',
    async (_name, blank) => {
      await withAccounts({ name: 'Öl', role: 'operator' });
      const guesser = new Browser();
      const names = ['Öl', 'öL', ` ${blank}`.repeat(3) + 'Öl', `Öl${blank}`];
      const statuses: number[] = [];
      for (let guess = 0; guess < 16; guess++) {
        const blanks = blank.repeat(1 + (guess % 7));
        statuses.push(
          await guesser.signIn(guess % 2 ? blanks + names[guess % 4]! : names[guess % 4]! + blanks, `guess ${guess}`),
        );
      }
      expect(statuses.slice(0, 8)).toEqual(Array(8).fill(401));
      expect(statuses.slice(8)).toEqual(Array(8).fill(429));
      expect(await guesser.signIn('Ola')).toBe(200);
    },
  );

  test('guesses of the present password are slowed where it is changed, and nothing else is', async () => {
    const owner = await withAccounts({ name: 'Opal', role: 'operator' });
    const thief = new Browser();
    await thief.signIn('Opal');
    const change = async (before: string, next = 'another long one') =>
      (await thief.ask('POST', '/account/password', { before, password: next })).status;
    // One that is too short was no guess.
    for (let tries = 0; tries < 9; tries++) expect(await change(password, 'short')).toBe(400);
    for (let guess = 0; guess < 8; guess++) expect(await change(`guess ${guess}`)).toBe(422);
    expect(await change(password)).toBe(429);
    expect((await thief.ask('GET', '/jobs')).status).toBe(200);
    // It shuts nobody out who signs in, nor others.
    expect(await new Browser().signIn('Opal')).toBe(200);
    expect(
      (await owner.ask('POST', '/account/password', { before: password, password: 'a third long one' })).status,
    ).toBe(200);
  });

  test('signing out ends the session; everywhere, all of them', async () => {
    const here = await withAccounts();
    const there = new Browser();
    await there.signIn('Ola');
    await here.ask('POST', '/account/sign-out');
    expect((await here.ask('GET', '/jobs')).status).toBe(401);
    expect((await there.ask('GET', '/jobs')).status).toBe(200);
    await here.signIn('Ola');
    await here.ask('POST', '/account/sign-out-everywhere');
    expect((await there.ask('GET', '/jobs')).status).toBe(401);
  });

  test('another password ends all other sessions, and a shut account is shut at once', async () => {
    const owner = await withAccounts({ name: 'Opal', role: 'operator' });
    const [one, two] = [new Browser(), new Browser()];
    await one.signIn('Opal');
    await two.signIn('Opal');
    expect((await one.ask('POST', '/account/password', { before: 'no', password: 'another long one' })).status).toBe(
      422,
    );
    expect(
      (await one.ask('POST', '/account/password', { before: password, password: 'another long one' })).status,
    ).toBe(200);
    expect((await one.ask('GET', '/jobs')).status).toBe(200);
    expect((await two.ask('GET', '/jobs')).status).toBe(401);
    expect(await two.signIn('Opal')).toBe(401);
    const people = (await owner.ask('GET', '/people')).content as Person[];
    const opal = people.find(({ name }) => name === 'Opal')!;
    await owner.ask('PATCH', `/people/${opal.id}`, { disabled: true });
    expect((await one.ask('GET', '/jobs')).status).toBe(401);
    expect(await one.signIn('Opal', 'another long one')).toBe(401);
    await owner.ask('PATCH', `/people/${opal.id}`, { disabled: false });
    expect(await one.signIn('Opal', 'another long one')).toBe(200);
  });

  test('one owner always stays, a name is given once, and a password is long', async () => {
    const owner = await withAccounts();
    const me = (await owner.me()).me!;
    for (const change of [{ disabled: true }, { role: 'viewer' }])
      expect((await owner.ask('PATCH', `/people/${me.id}`, change)).content).toMatchObject({
        error: expect.stringContaining('One owner must stay') as unknown,
      });
    expect((await owner.ask('POST', '/people', { name: 'OLA', role: 'viewer', password })).status).toBe(422);
    expect(
      (await owner.ask('POST', '/people', { name: 'Vic', role: 'viewer', password: 'short' })).content,
    ).toMatchObject({ error: expect.stringContaining('12 characters') as unknown });
    const { rows } = await server.running.database.query<{ password_hash: string }>('select password_hash from person');
    expect(rows[0]!.password_hash).toMatch(/^\$argon2id\$v=19\$m=19456,t=2,p=1\$/);
  });

  test('a session ends a week after it began, however it was used', async () => {
    const owner = await withAccounts();
    await server.running.database.query(
      `update session set sess = jsonb_set(sess::jsonb, '{signedInAt}', to_jsonb(extract(epoch from now() - interval '8 days') * 1000))::json`,
    );
    expect((await owner.ask('GET', '/jobs')).status).toBe(401);
  });
});

test('the history names the person; what Suvok does by itself has nobody’s name', async () => {
  const before = await server.newJob('Earlier car');
  const owner = await withAccounts();
  const job = (await owner.ask('POST', '/jobs', { vehicle: 'Car' })).content as Job;
  await owner.ask('PATCH', `/jobs/${job.id}`, { question: 'Does it pay?' });
  const history = (await owner.ask('GET', `/jobs/${job.id}/history`)).content as Change[];
  expect(history.filter(({ subject }) => subject === 'job').map(({ person }) => person)).toEqual(['Ola', 'Ola']);
  const earlier = (await owner.ask('GET', `/jobs/${before.id}/history`)).content as Change[];
  expect(earlier.every(({ person }) => person === null)).toBe(true);
});

test('a page listens only while its session lasts', async () => {
  const owner = await withAccounts();
  const opened = (cookie: string) =>
    new Promise<WebSocket | number>((resolve) => {
      const socket = new WebSocket(`${server.origin.replace('http', 'ws')}/live`, {
        origin: server.origin,
        headers: { cookie },
      });
      socket.on('open', () => resolve(socket));
      socket.on('unexpected-response', (_request, { statusCode }) => resolve(statusCode ?? 0));
      socket.on('error', () => undefined);
    });
  expect(await opened('')).toBe(401);
  const socket = (await opened(owner.cookie)) as WebSocket;
  let code = 0;
  socket.on('close', (said) => (code = said));
  await owner.ask('POST', '/account/sign-out');
  await eventually('its end', () => code === 4401);
});

test('a session holds on another server of the database, and over a restart; signed out on one it is on both', async () => {
  const owner = await withAccounts();
  const second = await startServer({
    databaseUrl: server.databaseUrl,
    port: 0,
    recorder: socketPlace(server.folder),
    log: silentLog,
  });
  const there = new Browser(`http://127.0.0.1:${second.port}`);
  there.cookie = owner.cookie;
  expect((await there.ask('GET', '/jobs')).status).toBe(200);
  await owner.ask('POST', '/account/sign-out');
  expect((await there.ask('GET', '/jobs')).status).toBe(401);
  await second.close();
});

test('keys answer within a second while nobody can read sessions or people', async () => {
  const owner = await withAccounts({ name: 'Oke', role: 'operator' });
  await owner.ask('GET', '/bays');
  const holder = await server.running.database.connect();
  await holder.query('begin');
  await holder.query('lock table session, person in access exclusive mode');
  try {
    for (const path of ['/bays/1/end', '/bays/1/arm', '/bays/1/end']) {
      const from = performance.now();
      // With nothing in the bay they are refused or taken: what counts is that somebody with rights is known.
      const { status } = await owner.ask('POST', path, {});
      expect(performance.now() - from).toBeLessThan(1000);
      expect([200, 409, 422]).toContain(status);
    }
    // Whoever was never seen is not let in.
    const stranger = new Browser();
    const { status } = await stranger.ask('POST', '/bays/1/end', {});
    expect(status).toBe(401);
  } finally {
    await holder.query('rollback');
    holder.release();
  }
});

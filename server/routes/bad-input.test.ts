import { request as httpRequest } from 'node:http';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { z } from 'zod';
import { endpoints } from '../../contract/requests/api.ts';
import type { Endpoint } from '../../contract/values/endpoint.ts';
import type { Job } from '../../contract/job/records.ts';
import { writeRecordingCsv } from '../../core/exchange/recordings/write-csv.ts';
import { generatedRun } from '../../core/testing/generated-run.ts';
import { testDyno } from '../../core/testing/test-car.ts';
import { eventually, TestServer } from '../testing/test-server.ts';
import { shortOrWhole } from '../../core/testing/short-or-whole.ts';

let server: TestServer;
let job: Job;
/** Numbers of things that are there, so that a broken field is reached behind a good address. */
let there: number[];

beforeAll(async () => {
  server = await TestServer.start();
  job = await server.newJob();
  const setupId = job.setups[0]!.id;
  const form = new FormData();
  form.set(
    'settings',
    JSON.stringify({ setupId, dyno: testDyno, air: null, engineToDrumRatio: null, startedAt: '2026-05-04T09:00:00Z' }),
  );
  form.set('file', new Blob([writeRecordingCsv(generatedRun({}))]), 'run.csv');
  const imported = await fetch(`${server.origin}/api/imports`, { method: 'POST', body: form });
  expect(imported.status).toBe(201);
  there = [1, job.id, setupId];
});
afterAll(() => server.stop());

/** What an address, a query or a line of text may hold that nobody meant. */
const oddTexts = [
  '',
  ' ',
  '\u0000',
  'a\u0000b',
  '\ud800',
  'x\udfff',
  '\u202eabc',
  '\u0007',
  'constructor',
  '__proto__',
  'valueOf',
  'toString',
  'NaN',
  'Infinity',
  '-1',
  '0',
  '1e3',
  '0x10',
  '1.5',
  '+1',
  '١',
  '1e400',
  '1e-9',
  '9'.repeat(30),
  '2147483648',
  '99999999999999',
  '%',
  '%00',
  '..',
  '[',
  '['.repeat(2000),
  "'; drop table job; --",
  'x'.repeat(20_000),
  '2026-13-45',
  '99999-01-01T00:00:00Z',
  '0000-00-00T00:00:00Z',
  '+275760-09-13T00:00:00Z',
  '1000-01-01T00:00:00Z',
];
const oddText = fc.oneof(fc.constantFrom(...oddTexts), fc.string({ unit: 'binary', maxLength: 40 }));
const oddNumber = fc.constantFrom(0, -0, -1, 1, 1.5, 1e-9, 1e9, 2 ** 31, 2 ** 53, 1e300, -1e300, 5e-324);
const oddValue: fc.Arbitrary<unknown> = fc.oneof(
  oddText,
  oddNumber,
  fc.constantFrom<unknown>(
    null,
    true,
    [],
    {},
    [[]],
    [null],
    { id: 1 },
    { constructor: 1 },
    JSON.parse('{"__proto__": {"x": 1}}'),
  ),
  fc.array(oddText, { maxLength: 3 }),
  fc.constant(Array.from({ length: 3000 }, () => 1)),
);

interface JsonSchema {
  type?: string;
  properties?: Record<string, JsonSchema>;
  items?: JsonSchema;
  enum?: unknown[];
  anyOf?: JsonSchema[];
}

/** Values near what a schema asks for: mostly its form, with something odd in it. */
function near(schema: JsonSchema, depth = 0): fc.Arbitrary<unknown> {
  const forms = schema.anyOf ?? [schema];
  const plain = forms.map((form): fc.Arbitrary<unknown> => {
    if (form.enum) return fc.constantFrom(...form.enum);
    if (form.properties && depth < 4) {
      const fields = Object.entries(form.properties).map(([name, field]) => [name, near(field, depth + 1)] as const);
      return fc.record(Object.fromEntries(fields), { requiredKeys: [] });
    }
    if (form.type === 'array') return fc.array(near(form.items ?? {}, depth + 1), { maxLength: 3 });
    if (form.type === 'string')
      return fc.oneof(fc.constantFrom('a', 'ignition +1°', '2026-05-04T09:00:00Z', 'kW'), oddText);
    if (form.type === 'integer' || form.type === 'number')
      return fc.oneof(fc.constantFrom(...(there ?? [1])), fc.constantFrom(1, 20, 3000), oddNumber);
    if (form.type === 'boolean') return fc.boolean();
    if (form.type === 'null') return fc.constant(null);
    return oddValue;
  });
  return fc.oneof({ weight: 6, arbitrary: fc.oneof(...plain) }, { weight: 1, arbitrary: oddValue });
}

interface Sent {
  method: string;
  path: string;
  headers?: Record<string, string>;
  body?: string | Buffer;
}

/** A request as it is, nothing encoded or refused on the way. */
function send({ method, path, headers = {}, body }: Sent): Promise<{ status: number; text: string }> {
  return new Promise((resolve, reject) => {
    const { port } = server.running;
    const host = `127.0.0.1:${port}`;
    const asked = httpRequest(
      { port, host: '127.0.0.1', method, path, headers: { host, origin: `http://${host}`, ...headers } },
      (answer) => {
        const chunks: Buffer[] = [];
        answer.on('data', (chunk: Buffer) => chunks.push(chunk));
        answer.on('end', () =>
          resolve({ status: answer.statusCode ?? 0, text: Buffer.concat(chunks).toString('utf8') }),
        );
        answer.on('error', reject);
      },
    );
    asked.on('error', reject);
    asked.end(body);
  });
}

/** Refused with one sentence, or done: never a mistake of the server's own. */
async function takenOrRefused(sent: Sent): Promise<void> {
  const { status, text } = await send(sent);
  const about = `${sent.method} ${sent.path.slice(0, 300)} ${String(sent.body).slice(0, 2000)} → ${status} ${text.slice(0, 300)}`;
  const own = server.errors.splice(0).map(String);
  expect([about, status < 500, own]).toEqual([about, true, []]);
  if (status >= 400 && text !== '') {
    const { error } = JSON.parse(text) as { error?: unknown };
    expect([about, typeof error]).toEqual([about, 'string']);
  }
}

const id = fc.oneof(fc.constantFrom(...oddTexts.slice(3)), fc.integer({ min: 1, max: 3 }).map(String));
const addressOf = ({ path, query = [] }: Endpoint) =>
  fc
    .record({
      id,
      query: fc.dictionary(fc.constantFrom(...query, 'other', 'a[b]', '__proto__'), oddText, { maxKeys: 3 }),
    })
    .map(({ id, query }) => {
      // A lone surrogate cannot be written in an address; what is sent for it is broken UTF-8.
      const written = (text: string) => (/\p{Cs}/u.test(text) ? '%ED%A0%80' : encodeURIComponent(text));
      const words = Object.entries(query).map(([name, value]) => `${written(name)}=${written(value)}`);
      return `/api${path.replace(':id', written(id))}${words.length > 0 ? `?${words.join('&')}` : ''}`;
    });
/** A form as it goes over the wire: what is odd in it stays odd. */
const formOf = ({ form = [] }: Endpoint) => {
  const field = fc.record({ name: fc.oneof(fc.constantFrom(...form, 'other'), oddText), value: oddText });
  const file = fc.record({
    name: oddText,
    type: fc.constantFrom('image/png', 'text/csv', 'a\u0000b', ''),
    content: oddText,
  });
  const part = (head: string, content: string) =>
    Buffer.from(`--b\r\nContent-Disposition: form-data; ${head}\r\n\r\n${content}\r\n`, 'utf8');
  const word = (text: string) => text.replaceAll(/["\r\n]/g, '_');
  return fc
    .record({ fields: fc.array(field, { maxLength: 4 }), file: fc.option(file), whole: fc.boolean() })
    .map(({ fields, file, whole }) =>
      Buffer.concat([
        ...fields.map(({ name, value }) => part(`name="${word(name)}"`, value)),
        ...(file
          ? [part(`name="file"; filename="${word(file.name)}"\r\nContent-Type: ${file.type}`, file.content)]
          : []),
        Buffer.from(whole ? '--b--\r\n' : ''),
      ]),
    );
};
const most = { numRuns: shortOrWhole(3, 1500) };
/** Stops or starts something outside of the database; sent with a broken body only. */
const json = { 'content-type': 'application/json' };

describe('whatever is sent', () => {
  test.each(endpoints.map((endpoint) => [`${endpoint.method} ${endpoint.path}`, endpoint] as const))(
    '%s answers or refuses in a sentence',
    async (_name, endpoint) => {
      const method = endpoint.method.toUpperCase();
      const schema = endpoint.body
        ? (z.toJSONSchema(endpoint.body, { io: 'input', unrepresentable: 'any' }) as JsonSchema)
        : undefined;
      const body = schema ? near(schema) : oddValue;
      await fc.assert(
        fc.asyncProperty(addressOf(endpoint), body, async (path, value) => {
          const sends = method !== 'GET' && method !== 'DELETE' && !endpoint.form;
          await takenOrRefused({
            method,
            path,
            headers: sends ? json : {},
            ...(sends ? { body: JSON.stringify(value) } : {}),
          });
        }),
        most,
      );
      if (endpoint.form)
        await fc.assert(
          fc.asyncProperty(fc.constantFrom(...there), formOf(endpoint), async (id, body) => {
            await takenOrRefused({
              method,
              path: `/api${endpoint.path.replace(':id', String(id))}`,
              headers: { 'content-type': 'multipart/form-data; boundary=b' },
              body,
            });
          }),
          { numRuns: 4 * most.numRuns },
        );
      // Behind addresses of what is there the body itself is looked at.
      if (schema && endpoint.path.includes(':id'))
        await fc.assert(
          fc.asyncProperty(fc.constantFrom(...there), near(schema), async (id, value) => {
            await takenOrRefused({
              method,
              path: `/api${endpoint.path.replace(':id', String(id))}`,
              headers: json,
              body: JSON.stringify(value),
            });
          }),
          most,
        );
      // Nonsense may well be a good name and password: nobody is to sign in after that.
      if (endpoint.path !== '/account/first') return;
      await server.running.database.query('delete from person');
      await eventually(
        'what is known of accounts to be old',
        async () => (await server.request('GET', '/api/jobs')).ok,
      );
    },
    // Fifteen hundred requests each, however slow the machine.
    shortOrWhole(300_000, 3_600_000),
  );
});

describe('requests that are broken before any route is asked', () => {
  const post = (headers: Record<string, string>, body: string | Buffer, path = '/api/jobs') =>
    send({ method: 'POST', path, headers, body });

  test.each([
    ['no JSON', 400, () => post(json, '{"vehicle": ')],
    ['a bare word', 400, () => post(json, 'yes')],
    ['nothing', 400, () => post(json, '')],
    ['another character set', 415, () => post({ 'content-type': 'application/json; charset=klingon' }, '{}')],
    ['another encoding', 415, () => post({ ...json, 'content-encoding': 'rot13' }, '{}')],
    ['bytes that are no gzip', 400, () => post({ ...json, 'content-encoding': 'gzip' }, '{}')],
    ['too much', 413, () => post(json, JSON.stringify({ vehicle: 'x'.repeat(2e6) }))],
    ['nesting without end', 400, () => post(json, `{"vehicle": ${'['.repeat(5000)}${']'.repeat(5000)}}`)],
    ['half a character', 400, () => post(json, '{"vehicle": "\\ud800"}')],
    ['a form without its boundary', 400, () => post({ 'content-type': 'multipart/form-data' }, 'x', '/api/imports')],
    [
      'a form that breaks off',
      400,
      () =>
        post(
          { 'content-type': 'multipart/form-data; boundary=b' },
          '--b\r\nContent-Disposition: form-data; name="file"; filename="a"\r\n\r\nabc',
          '/api/imports',
        ),
    ],
    [
      'a form with an odd field',
      400,
      () =>
        post(
          { 'content-type': 'multipart/form-data; boundary=b' },
          '--b\r\nContent-Disposition: form-data; name="constructor[x]"\r\n\r\nabc\r\n--b--',
          '/api/imports',
        ),
    ],
    ['an address that is no UTF-8', 400, () => send({ method: 'GET', path: '/api/jobs/%ff' })],
    ['an address that is nowhere', 404, () => send({ method: 'GET', path: '/api/constructor' })],
    ['a method that is not answered', 404, () => send({ method: 'PUT', path: '/api/jobs' })],
    ['a grid that never ends', 400, () => send({ method: 'GET', path: '/api/runs/1/curve?grid=1e-5' })],
  ] as const)('%s is refused in a sentence', async (_name, status, ask) => {
    const answer = await ask();
    expect([answer.status, answer.text]).toEqual([status, expect.stringMatching(/^\{"error":".+\."/)]);
    expect(server.errors.splice(0)).toEqual([]);
  });

  test.each([
    ['word', { caption: 'a\u0000b' }, 'photo.png'],
    ['name of a word', { 'cap\u0000tion': 'a' }, 'photo.png'],
    ['file’s name', { caption: 'a' }, 'a\u0000b.png'],
  ])('a form with a %s that cannot be stored is refused, and the server lives', async (_what, words, name) => {
    for (const path of endpoints.filter(({ form }) => form).map((endpoint) => endpoint.path)) {
      const head = (of: string) => `--b\r\nContent-Disposition: form-data; ${of}\r\n\r\n`;
      const body =
        Object.entries(words)
          .map(([word, value]) => `${head(`name="${word}"`)}${value}\r\n`)
          .join('') + `${head(`name="file"; filename="${name}"`)}abc\r\n--b--\r\n`;
      const { status, text } = await post(
        { 'content-type': 'multipart/form-data; boundary=b' },
        body,
        `/api${path.replace(':id', String(job.id))}`,
      );
      expect([path, status, text]).toEqual([path, 400, expect.stringMatching(/^\{"error":".+\./)]);
    }
    expect((await send({ method: 'GET', path: '/api/health' })).status).toBe(200);
    expect(server.errors.splice(0)).toEqual([]);
  });

  test('what is never seen is taken out, and the rest is stored', async () => {
    const made = await server.json<Job>('POST', '/api/jobs', {
      vehicle: '\u202eTarrow\u0007 Six',
      question: 'one\r\ntwo',
    });
    expect(made).toMatchObject({ vehicle: 'Tarrow Six', question: 'one\ntwo' });
  });

  test('an id is digits alone', async () => {
    for (const id of ['1e0', '0x1', '01', '1.0', ' 1', '٤'])
      expect([id, (await send({ method: 'GET', path: `/api/jobs/${encodeURIComponent(id)}` })).status]).toEqual([
        id,
        404,
      ]);
  });

  test('undoing the act that wrote a vehicle down leaves no job without one', async () => {
    const written = await server.request('POST', '/api/vehicles', { name: 'Car to undo' });
    const { id } = (await written.json()) as { id: number };
    const made = await server.json<Job>('POST', '/api/jobs', { vehicleId: id });
    const undone = await server.request('POST', `/api/acts/${written.headers.get('suvok-act')}/undo`);
    expect(undone.status).toBe(422);
    expect(await undone.text()).toContain('A vehicle that has jobs is kept');
    expect(await server.json<Job>('GET', `/api/jobs/${made.id}`)).toMatchObject({ vehicle: 'Car to undo' });
  });
});

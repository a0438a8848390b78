import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { request } from 'node:http';
import { TestServer } from './testing/test-server.ts';

let server: TestServer;
beforeAll(async () => {
  server = await TestServer.start();
});
afterAll(() => server.stop());

/** A request as a browser words it; `fetch` would not let us say so. */
function asked(
  path: string,
  headers: Record<string, string>,
  method = 'GET',
): Promise<{ status: number; headers: NodeJS.Dict<string | string[]> }> {
  return new Promise((resolve, reject) => {
    const sent = request({ port: server.running.port, host: '127.0.0.1', path, method, headers }, (response) => {
      response.resume();
      resolve({ status: response.statusCode ?? 0, headers: response.headers });
    });
    sent.once('error', reject);
    sent.end();
  });
}

const from = (site: string, mode: string, dest: string) => ({
  'sec-fetch-site': site,
  'sec-fetch-mode': mode,
  'sec-fetch-dest': dest,
});

test.each([
  ['Suvok’s own page', from('same-origin', 'cors', 'empty'), 200],
  ['an address that somebody typed', from('none', 'navigate', 'document'), 200],
  ['a program that is no browser', {}, 200],
  ['a script of another site', from('cross-site', 'no-cors', 'empty'), 403],
  ['a picture in a page of another site', from('cross-site', 'no-cors', 'image'), 403],
  ['a page on another port of this machine', from('same-site', 'cors', 'empty'), 403],
  ['a link from another site to what is no page', from('cross-site', 'navigate', 'document'), 403],
  ['another name of this machine', { host: 'suvok.example:80' }, 403],
])('the jobs, asked for by %s', async (_who, headers, status) => {
  expect((await asked('/api/jobs', headers)).status).toBe(status);
});

test('a link to a page may be opened from anywhere; nothing may be changed from there', async () => {
  // Without the built page there is nothing to open here: that is another answer than a refusal.
  expect((await asked('/jobs/1', from('cross-site', 'navigate', 'document'))).status).toBe(404);
  expect((await asked('/jobs/1', from('cross-site', 'navigate', 'iframe'))).status).toBe(403);
  expect((await asked('/api/bays/1/end', from('cross-site', 'navigate', 'document'), 'POST')).status).toBe(403);
  expect(
    (
      await asked(
        '/api/bays/1/end',
        { ...from('same-origin', 'cors', 'empty'), origin: 'http://elsewhere.example' },
        'POST',
      )
    ).status,
  ).toBe(403);
});

test('no answer of the API is kept by a browser, and the page may load nothing from elsewhere', async () => {
  const { headers } = await asked('/api/jobs', {});
  expect(headers['cache-control']).toBe('no-store');
  const policy = String(headers['content-security-policy']);
  expect(policy).toContain("connect-src 'self';");
  expect(policy).toContain("frame-ancestors 'none'");
  expect(policy).not.toMatch(/https?:|wss?:|\*/);
});

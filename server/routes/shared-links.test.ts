import { afterAll, beforeAll, expect, test } from '@jest/globals';
import sharp from 'sharp';
import type { Job } from '../../contract/job/records.ts';
import { reportVersion } from '../../contract/report/report.ts';
import { madeSharedLink, sharedContent, sharedLink } from '../../contract/report/shared-link.ts';
import { keptUnits } from '../../core/units/told-units.ts';
import { importRun } from '../testing/imported-run.ts';
import { TestServer } from '../testing/test-server.ts';

let server: TestServer;
let job: Job;
const view = { standard: 'sae-j1349', units: keptUnits };
const gone = 'This link is not known, has ended or was taken back. Ask whoever sent it for another one.';

const addPhoto = async (): Promise<number> => {
  const form = new FormData();
  const picture = await sharp({ create: { width: 4, height: 4, channels: 3, background: '#777' } })
    .png()
    .toBuffer();
  form.set('file', new Blob([new Uint8Array(picture)]), 'plug.png');
  const response = await fetch(`${server.origin}/api/jobs/${job.id}/photos`, { method: 'POST', body: form });
  return ((await response.json()) as { id: number }).id;
};

beforeAll(async () => {
  server = await TestServer.start();
  job = await server.newJob();
  const [arrived] = job.setups;
  for (const [seed, factor] of [
    [1, 0.998],
    [2, 1.002],
  ] as const)
    await importRun(server, arrived!.id, seed, factor);
  const setup = await server.json<{ id: number }>('POST', `/api/jobs/${job.id}/setups`, {
    parentId: arrived!.id,
    change: 'Short intake',
  });
  for (const [seed, factor] of [
    [4, 1.048],
    [5, 1.052],
  ] as const)
    await importRun(server, setup.id, seed, factor);
  const tune = new FormData();
  tune.set('file', new Blob(['map']), 'secret-map.bin');
  await fetch(`${server.origin}/api/setups/${setup.id}/tune-files`, { method: 'POST', body: tune });
  await server.json('PATCH', `/api/vehicles/${job.vehicleId}`, { plate: 'SV 1234' });
});
afterAll(async () => {
  await server.stop();
  expect(server.errors).toEqual([]);
});

const share = async (over: object = {}) => {
  const { key, ...link } = madeSharedLink.parse(
    await server.json('POST', `/api/jobs/${job.id}/shared-links`, {
      reportVersionId: null,
      whom: 'the owner',
      days: 30,
      view,
      ...over,
    }),
  );
  return { key, link };
};
const links = async () => sharedLink.array().parse(await server.json('GET', `/api/jobs/${job.id}/shared-links`));
const keepVersion = async () =>
  reportVersion.parse(await server.json('POST', `/api/jobs/${job.id}/report/versions`, { ...view }));
const open = async (key: string, more = '') => server.request('GET', `/api/shared/${key}${more}`);

test('a kept report is read with its link, with its photos and as a PDF, and nothing beside it', async () => {
  const shown = await addPhoto();
  const version = await keepVersion();
  const later = await addPhoto();
  const { key, link } = await share({ reportVersionId: version.id });
  expect(link).toMatchObject({ whom: 'the owner', opened: 0, lastOpenedAt: null });
  expect(Date.parse(link.endsAt) - Date.now()).toBeGreaterThan(29 * 86_400e3);
  const opened = sharedContent.parse(await (await open(key)).json());
  const kept = await server.json<{ written: { blocks: unknown } }>('GET', `/api/report-versions/${version.id}`);
  expect(opened).toMatchObject({ is: 'report', report: { blocks: kept.written.blocks } });
  expect(JSON.stringify(opened)).toContain(`version ${version.number}`);
  expect((await open(key, `/photos/${shown}`)).headers.get('content-type')).toBe('image/png');
  expect((await open(key, `/photos/${later}`)).status).toBe(404);
  const pdf = await open(key, '/pdf?paper=LETTER');
  expect(
    Buffer.from(await pdf.arrayBuffer())
      .subarray(0, 5)
      .toString(),
  ).toBe('%PDF-');
  expect((await open(key, '/page')).status).toBe(404);
  expect((await links()).find(({ id }) => id === link.id)).toMatchObject({ opened: 1 });
});

test('a comparison is a page of its own as the job stands, without owner, plate and files', async () => {
  const { key } = await share({ whom: 'tuner' });
  expect(await (await open(key)).json()).toMatchObject({ is: 'comparison' });
  const page = await open(key, '/page');
  expect(page.headers.get('content-security-policy')).toContain("default-src 'none'");
  const html = await page.text();
  expect(html).toMatch(/<h1>[\d.]+\s±\s[\d.]+\skW/);
  expect(html).toContain('"title":"Power"');
  for (const unsaid of ['SV 1234', 'secret-map', '/api/']) expect(html).not.toContain(unsaid);
  expect((await open(key, '/pdf')).status).toBe(404);
  expect((await open(key, '/photos/1')).status).toBe(404);
});

test('a link that is unknown, ended, taken back or without its report says the same; taking back is undone', async () => {
  const version = await keepVersion();
  const { key, link } = await share({ reportVersionId: version.id });
  const refused = async () => {
    const answer = await open(key);
    expect([answer.status, await answer.json()]).toEqual([404, { error: gone }]);
  };
  const response = await server.request('DELETE', `/api/shared-links/${link.id}`);
  await refused();
  expect((await links()).map(({ id }) => id)).not.toContain(link.id);
  await server.request('POST', `/api/acts/${response.headers.get('suvok-act')}/undo`);
  expect((await open(key)).status).toBe(200);
  const taken = await server.request('DELETE', `/api/report-versions/${version.id}`);
  await refused();
  await server.request('POST', `/api/acts/${taken.headers.get('suvok-act')}/undo`);
  expect((await open(key)).status).toBe(200);
  await server.asOwner(`update shared_link set ends_at = now() - interval '1 s' where id = ${link.id}`);
  await refused();
  for (const strange of ['x', 'a'.repeat(43), '%00', 'a'.repeat(300)])
    expect(((await (await open(strange)).json()) as { error: string }).error).not.toBe('');
});

test('no key is stored, and no report of another job is shared', async () => {
  const { key } = await share();
  const { rows } = await server.running.database.query(
    `select 1 from shared_link where shared_link::text like $1 union all select 1 from history where history::text like $1`,
    [`%${key}%`],
  );
  expect(rows).toEqual([]);
  const other = await server.newJob();
  const version = await keepVersion();
  const answer = await server.request('POST', `/api/jobs/${other.id}/shared-links`, {
    reportVersionId: version.id,
    days: 1,
    view,
  });
  expect([answer.status, await answer.json()]).toEqual([
    422,
    { error: 'There is no such kept report in this job: nothing was shared.' },
  ]);
  expect(
    (await server.request('POST', `/api/jobs/${other.id}/shared-links`, { reportVersionId: null, days: 0, view }))
      .status,
  ).toBe(400);
});

test('where there are accounts a link opens without one what it names, and the job stays closed', async () => {
  const { key } = await share();
  const first = await server.request('POST', '/api/account/first', { name: 'Rhea', password: 'quite a long one' });
  expect(first.ok).toBe(true);
  for (const closed of [`/api/jobs/${job.id}`, `/api/jobs/${job.id}/shared-links`, '/api/report-versions/1'])
    expect((await server.request('GET', closed)).status).toBe(401);
  expect((await open(key)).status).toBe(200);
  expect((await open(key, '/page')).status).toBe(200);
});

import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, openAsBlob, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { bundleMade, bundleManifest, bundleTaken, type BundleTaken } from '../../contract/job/bundle.ts';
import type { Job } from '../../contract/job/records.ts';
import { wholeReportVersion } from '../../contract/report/report.ts';
import { workLine } from '../../contract/values/answers.ts';
import { keptUnits } from '../../core/units/told-units.ts';
import { importRun } from '../testing/imported-run.ts';
import { TestServer } from '../testing/test-server.ts';
import { changedZip, filesIn } from '../testing/zip-files.ts';

let here: TestServer;
let there: TestServer;
let job: Job;
let bundle: Buffer;
const folder = mkdtempSync(join(tmpdir(), 'suvok-bundle-test-'));
const view = { standard: 'sae-j1349', units: keptUnits };

const jobOf = (server: TestServer, id: number) => server.json<Job>('GET', `/api/jobs/${id}`);

async function writtenBundle(server: TestServer, jobId: number, wishes: object = {}): Promise<Buffer> {
  const made = bundleMade.parse(await server.json('POST', `/api/jobs/${jobId}/bundle`, wishes));
  const response = await server.request('GET', `/api/bundles/${made.fetch}`);
  expect(response.headers.get('content-disposition')).toContain(made.name);
  const bytes = Buffer.from(await response.arrayBuffer());
  expect(bytes.length).toBe(made.bytes);
  // It is fetched once.
  expect((await server.request('GET', `/api/bundles/${made.fetch}`)).status).toBe(404);
  return bytes;
}

async function sent(
  server: TestServer,
  bytes: Buffer,
): Promise<{ status: number; said: { error?: string } & BundleTaken }> {
  const path = join(folder, `${randomUUID()}.zip`);
  writeFileSync(path, bytes);
  const form = new FormData();
  form.append('file', await openAsBlob(path), 'job.zip');
  const response = await fetch(`${server.origin}/api/bundles`, { method: 'POST', body: form });
  return { status: response.status, said: (await response.json()) as { error?: string } & BundleTaken };
}

/** Lines of a hand. */
const hand = [[[20, 100, 0.4], [180, 60, 0.7], [300, 120, 0.5]]]; // prettier-ignore

/** A job in the words that hold anywhere: letters and labels for numbers of rows. */
function anywhere(job: Job): unknown {
  const letters = new Map(job.setups.map(({ id, letter }) => [id, letter]));
  const labels = new Map(job.runs.map(({ id, label }) => [id, label]));
  const written = JSON.stringify(job, (key, value: unknown) => {
    if (['id', 'revision', 'jobId', 'vehicleId', 'ownerId', 'bay', 'templateId'].includes(key)) return undefined;
    if (['setupId', 'parentId', 'deliveredSetupId', 'testId', 'againstId'].includes(key))
      return letters.get(value as number) ?? null;
    if (key === 'bestRunId') return labels.get(value as number) ?? null;
    if (key === 'runIds') return (value as number[]).map((id) => labels.get(id));
    if (key === 'address') return String(value).replace(/curve-\d+/, 'curve-N');
    return value;
  });
  return JSON.parse(written) as unknown;
}

/** Everything that the report says, figure by figure. */
async function reported(server: TestServer, jobId: number) {
  const { id } = await server.json<{ id: number }>('POST', `/api/jobs/${jobId}/report/versions`, view);
  const { written, restsOn } = wholeReportVersion.parse(await server.json('GET', `/api/report-versions/${id}`));
  const blocks = written.blocks.map((block) =>
    JSON.stringify(block).replace(/"photos":\[\{"id":\d+/g, '"photos":[{"id":0'),
  );
  const { setups } = await jobOf(server, jobId);
  const letter = (id: unknown) => setups.find((setup) => setup.id === id)?.letter;
  const { testId, againstId, ...judgement } = restsOn.judgement ?? {};
  return { blocks, judgement, of: [letter(testId), letter(againstId)], spread: restsOn.spread };
}

beforeAll(async () => {
  [here, there] = [await TestServer.start(), await TestServer.start()];
  const post = async <T = { id: number }>(path: string, body: unknown) => here.json<T>('POST', `/api${path}`, body);
  // The shop knows its dyno by check runs of another job.
  const shop = await here.newJob('Check car');
  for (const seed of [7, 8, 9]) await importRun(here, shop.setups[0]!.id, seed, 1 + 0.002 * (seed - 8));
  await here.asOwner(`update run set device = 'roller', kind = 'check'`);
  job = await post<Job>('/jobs', { vehicle: 'Tarrow Six', owner: 'A. Sorrel', question: 'Does it pay?', gear: '4th' });
  await here.json('PATCH', `/api/vehicles/${job.vehicleId}`, {
    plate: 'SU 12',
    gears: [{ gear: '4th', ratio: 1.21 }],
    finalDrive: 3.9,
    massKg: 1180,
  });
  const { ownerId } = (await jobOf(here, job.id)).car;
  await here.json('PATCH', `/api/owners/${ownerId}`, { contact: 'sorrel@example.org' });
  await post(`/vehicles/${job.vehicleId}/parts`, { name: 'camshaft', knowledge: 'believed', note: '' });
  const a = job.setups[0]!.id;
  const gone = await post(`/jobs/${job.id}/setups`, { parentId: a, change: 'never run' });
  const b = await post(`/jobs/${job.id}/setups`, { parentId: a, change: 'ignition +2°', predictionKw: 3 });
  await here.request('DELETE', `/api/setups/${gone.id}`);
  await post(`/jobs/${job.id}/forecasts`, {
    setupId: b.id,
    who: 'Ann',
    quantity: 'mean torque',
    fromRpm: 3000,
    toRpm: 5000,
    low: 150,
    high: 160,
  });
  const runs = [];
  for (const [seed, factor] of [
    [1, 0.998],
    [2, 1],
    [3, 1.002],
  ] as const)
    runs.push(await importRun(here, a, seed, factor));
  for (const [seed, factor] of [
    [4, 1.048],
    [5, 1.05],
    [6, 1.052],
  ] as const)
    runs.push(await importRun(here, b.id, seed, factor));
  await here.asOwner(`update run set device = 'roller' where job_id = ${job.id}`);
  await post(`/jobs/${job.id}/bands`, { name: 'the climb', fromRpm: 3500, toRpm: 5000 });
  await post(`/jobs/${job.id}/limits`, {
    quantity: 'power',
    value: 250,
    scale: 'wheels',
    reason: 'clutch',
    source: 'owner',
  });
  await post(`/jobs/${job.id}/targets`, {
    quantity: 'power at',
    fromRpm: 5000,
    toRpm: null,
    value: 120,
    scale: 'wheels',
    standard: 'sae-j1349',
  });
  await post(`/jobs/${job.id}/charges`, {
    what: 'Dyno',
    per: 'dyno hour',
    quantity: 1.25,
    amount: 95.5,
    currency: '€',
    why: 'longer',
    setupId: b.id,
  });
  await post(`/jobs/${job.id}/work-times`, {
    bay: null,
    startsAt: '2026-05-14T07:00:00Z',
    endsAt: '2026-05-14T08:30:00Z',
    why: 'mounting',
  });
  const [text] = await here.json<{ id: number; revision: number }[]>('GET', '/api/consent-templates');
  await post(`/jobs/${job.id}/consents`, {
    templateId: text!.id,
    version: text!.revision,
    name: 'A. Sorrel',
    strokes: hand,
  });
  await post(`/jobs/${job.id}/notes`, { text: 'Łucja’s note', at: '2026-05-14T09:30:00Z' });
  await post(`/jobs/${job.id}/fuel-entries`, {
    kind: 'arrived',
    at: '2026-05-14T08:00:00Z',
    litres: 20,
    ethanolPct: 8,
    name: 'pump',
    note: '',
  });
  await post(`/jobs/${job.id}/suspicions`, {
    cause: 'weak pump',
    test: '',
    outcome: '',
    state: 'open',
    runIds: [runs[0]!.id],
  });
  const curve = await post(`/jobs/${job.id}/borrowed-curves`, {
    name: 'norm',
    origin: 'a sheet',
    scale: 'wheels',
    points: [
      [2000, 50],
      [6000, 140],
    ],
  });
  await post(`/jobs/${job.id}/views`, { name: 'against the norm', address: `?from=curve-${curve.id}` });
  await post(`/jobs/${job.id}/baseline`, { setupId: a, runIds: runs.slice(0, 3).map(({ id }) => id), why: 'arrived' });
  await here.json('PATCH', `/api/runs/${runs[0]!.id}`, { setAsideReason: 'a wheel slipped', note: 'once' });
  await here.json('PATCH', `/api/setups/${b.id}`, { decision: 'keep', decisionWhy: 'shown' });
  const file = new FormData();
  file.append('file', new Blob(['a tune']), 'b.bin');
  file.append('author', 'R. Teal');
  expect((await fetch(`${here.origin}/api/setups/${b.id}/tune-files`, { method: 'POST', body: file })).status).toBe(
    201,
  );
  const picture = new FormData();
  picture.append(
    'file',
    new Blob([
      Uint8Array.from(
        await sharp({ create: { width: 8, height: 8, channels: 3, background: '#345' } })
          .png()
          .toBuffer(),
      ),
    ]),
    'p.png',
  );
  picture.append('caption', 'intake');
  expect((await fetch(`${here.origin}/api/jobs/${job.id}/photos`, { method: 'POST', body: picture })).status).toBe(201);
  await here.json('POST', `/api/jobs/${job.id}/report/versions`, { ...view, note: 'handed over' });
  await here.json('POST', `/api/jobs/${job.id}/remote-package`, { ...view, runIds: [runs[4]!.id, runs[5]!.id] });
  await here.asOwner('update setup_tune_file set returned = true');
  await here.json('PUT', `/api/jobs/${job.id}/state`, {
    state: 'paused',
    for: 'part',
    why: 'a pump',
    expectedAt: '2026-06-01T09:00:00.000Z',
  });
  job = await jobOf(here, job.id);
  expect(job.tunerPackages).toMatchObject([{ setupId: b.id, runs: 2 }]);
  bundle = await writtenBundle(here, job.id);
});
afterAll(async () => {
  rmSync(folder, { recursive: true });
  await here.stop();
  await there.stop();
  expect([...here.errors, ...there.errors]).toEqual([]);
});

test('a job that was taken in says the same elsewhere: every word, every sample and every figure', async () => {
  const { status, said } = await sent(there, bundle);
  expect([status, said.error]).toEqual([201, undefined]);
  expect(bundleTaken.parse(said)).toMatchObject({ already: false, runs: 6, remarks: [] });
  const taken = await jobOf(there, said.jobId);
  expect(anywhere(taken)).toEqual(anywhere(job));
  const [signed] = taken.consents;
  expect(signed).toMatchObject({ templateId: null, name: 'A. Sorrel' });
  expect(await there.asOwner('select strokes from consent')).toEqual([{ strokes: hand }]);
  const paper = await there.request('GET', `/api/consents/${signed!.id}/consent.pdf`);
  expect([paper.status, paper.headers.get('content-type')]).toEqual([200, 'application/pdf']);
  for (const [index, run] of job.runs.entries()) {
    const [ours, theirs] = [
      await here.request('GET', `/api/runs/${run.id}/recording`),
      await there.request('GET', `/api/runs/${taken.runs[index]!.id}/recording`),
    ];
    expect(Buffer.from(await theirs.arrayBuffer()).equals(Buffer.from(await ours.arrayBuffer()))).toBe(true);
  }
  const known = (server: TestServer, id: number) =>
    server.json<{ within?: unknown }>('GET', `/api/check-history?device=roller&job=${id}`);
  expect(await known(there, said.jobId)).toEqual(await known(here, job.id));
  expect((await known(there, said.jobId)).within).toBeDefined();
  // What another shop knew of its dyno is nothing that this one knows of its own.
  expect(await there.json('GET', '/api/check-history?device=roller')).toMatchObject({ series: [], repeats: [] });
  const ours = await reported(here, job.id);
  expect(await reported(there, said.jobId)).toEqual(ours);
  expect(ours.of).toEqual(['C', 'A']);
  // The report that was kept speaks of the setups as they are numbered here.
  const kept = wholeReportVersion.parse(await there.json('GET', `/api/report-versions/${taken.reportVersions[0]!.id}`));
  const numbered = { testId: taken.setups[1]!.id, againstId: taken.setups[0]!.id };
  expect(kept.restsOn).toMatchObject({ judgement: numbered, arrived: { setupId: numbered.againstId } });
  const [photo, file] = [taken.photos[0]!, taken.tuneFiles[0]!];
  expect(await (await there.request('GET', `/api/tune-files/${file.id}/content`)).text()).toBe('a tune');
  expect((await there.request('GET', `/api/photos/${photo.id}/content`)).headers.get('content-type')).toBe('image/png');
  // No letter and no label is given out again.
  const next = await there.json<{ letter: string; id: number }>('POST', `/api/jobs/${said.jobId}/setups`, {
    parentId: null,
    change: 'later',
  });
  expect(next.letter).toBe('D');
  expect((await importRun(there, taken.setups[1]!.id, 10, 1)).label).toBe('C4');
});

test('it is taken in once, however often it comes, and at once', async () => {
  const fresh = await TestServer.start();
  const answers = await Promise.all([sent(fresh, bundle), sent(fresh, bundle)]);
  expect(answers.map(({ status }) => status).sort()).toEqual([200, 201]);
  expect(answers[0]!.said.jobId).toBe(answers[1]!.said.jobId);
  const again = answers.find(({ said }) => said.already)!;
  expect(again.said).toMatchObject({ runs: 0, remarks: ['Every run of the bundle is here.'] });
  expect((await fresh.json<{ total: number }>('GET', '/api/jobs')).total).toBe(1);
  await fresh.stop();
});

test('where it comes from it changes nothing, and tells what it has beyond', async () => {
  expect((await sent(here, bundle)).said).toMatchObject({ jobId: job.id, already: true });
  expect(await jobOf(here, job.id)).toMatchObject({ revision: job.revision, setups: job.setups });
});

test('a part goes without the others’ runs, and without the owner where that is wanted', async () => {
  const part = await writtenBundle(here, job.id, { setupIds: [job.setups[0]!.id], withOwner: false });
  const files = await filesIn(part);
  const words = [...files].filter(([path]) => path.endsWith('.json')).map(([, bytes]) => bytes.toString('utf8'));
  for (const word of ['Sorrel', 'SU 12', 'sorrel@example.org']) expect(words.join()).not.toContain(word);
  expect([...files.keys()].filter((path) => path.startsWith('runs/')).sort()).toEqual([
    'runs/A1.csv',
    'runs/A2.csv',
    'runs/A3.csv',
  ]);
  expect(bundleManifest.parse(JSON.parse(words.at(-1)!))).toMatchObject({ ownerLeftOut: true, runsLeftOut: 3 });
  const fresh = await TestServer.start();
  const { said } = await sent(fresh, part);
  expect(said.remarks).toEqual(['3 runs of the job were left out where the bundle was written.']);
  expect(await jobOf(fresh, said.jobId)).toMatchObject({
    owner: '',
    plate: '',
    setups: [{ letter: 'A' }, { letter: 'C' }],
  });
  // The whole of it tells then what is missing.
  expect((await sent(fresh, bundle)).said.remarks).toEqual([
    'The bundle has runs that are not here: C1, C2, C3. The job here was left as it is.',
  ]);
  await fresh.stop();
});

test.each<[string, (bytes: Buffer) => Promise<Buffer> | Buffer, RegExp]>([
  ['no zip at all', () => Buffer.from('no zip'), /it is no \.zip file/],
  [
    'its end is missing',
    (bytes) => bytes.subarray(0, bytes.length - 400),
    /it is no \.zip file, or its end is missing/,
  ],
  [
    'another zip',
    (bytes) => changedZip(bytes, (files) => files.delete('bundle.json')),
    /no job bundle: it has no bundle\.json/,
  ],
  [
    'a run is missing',
    (bytes) => changedZip(bytes, (files) => files.delete('runs/C2.csv')),
    /runs\/C2\.csv is missing/,
  ],
  [
    'a sample was changed',
    (bytes) =>
      changedZip(bytes, (files) =>
        files.set('runs/C3.csv', Buffer.from(files.get('runs/C3.csv')!.toString().replace(/\d\n/, '5\n'))),
      ),
    /runs\/C3\.csv is not what was written/,
  ],
  [
    'a newer form',
    (bytes) => changedZip(bytes, (files) => files.set('bundle.json', Buffer.from('{"version": 2}'))),
    /a newer Suvok wrote it/,
  ],
  [
    'its words are others',
    (bytes) => changedZip(bytes, (files) => files.set('job.json', Buffer.from('{"job": 1}'))),
    /job\.json is not what was written/,
  ],
])('a broken one is refused with nothing half done: %s', async (_, spoilt, sentence) => {
  const fresh = await TestServer.start();
  const { status, said } = await sent(fresh, await spoilt(bundle));
  expect(status).toBe(422);
  expect(said.error).toMatch(sentence);
  expect(said.error).toMatch(/Nothing was stored\.$/);
  expect((await fresh.json<{ total: number }>('GET', '/api/jobs')).total).toBe(0);
  expect(await fresh.json('GET', '/api/vehicles')).toEqual([]);
  await fresh.stop();
});

test('it is told as it goes, and who goes away leaves nothing behind', async () => {
  const asked = (signal?: AbortSignal) =>
    fetch(`${here.origin}/api/jobs/${job.id}/bundle`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', accept: 'application/x-ndjson' },
      body: '{}',
      ...(signal ? { signal } : {}),
    }).then((response) => response.text());
  const lines = (await asked())
    .trim()
    .split('\n')
    .map((line) => workLine.parse(JSON.parse(line)));
  const done = lines.flatMap((line) => ('doing' in line ? [line.done] : []));
  expect(done.length).toBeGreaterThan(6);
  expect(done).toEqual([...done].sort((a, b) => a - b));
  expect(lines.at(-1)).toHaveProperty('answer.fetch');
  const cancel = new AbortController();
  const gone = asked(cancel.signal);
  setTimeout(() => cancel.abort(), 20);
  await expect(gone).rejects.toThrow(/abort/i);
  expect((await here.request('POST', `/api/jobs/${job.id}/bundle`, { setupIds: [99_999] })).status).toBe(404);
  expect((await here.request('POST', '/api/jobs/99999/bundle', {})).status).toBe(404);
});

import { standardIds } from '../../core/air/correction.ts';
import { createHash } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Change, FuelRecord, Inspection, LimitRecord, Suspicion, TuneFile } from '../../contract/job/job-file.ts';
import { job as jobSchema, type Job, type JobList, type Run, type Setup } from '../../contract/job/records.ts';
import { vehicleWithAll, type VehicleWithAll } from '../../contract/shop/vehicles.ts';
import { writeRecordingCsv } from '../../core/exchange/recordings/write-csv.ts';
import { generatedRun } from '../../core/testing/generated-run.ts';
import { testDyno } from '../../core/testing/test-car.ts';
import { TestServer } from '../testing/test-server.ts';

let server: TestServer;
beforeAll(async () => {
  server = await TestServer.start();
});
afterAll(async () => {
  await server.stop();
  expect(server.errors).toEqual([]);
});

const recording = writeRecordingCsv(generatedRun({ speedNoise: 0.01 }));

async function ran(setupId: number): Promise<Run> {
  const form = new FormData();
  form.append('file', new Blob([recording]), 'run.csv');
  form.append(
    'settings',
    JSON.stringify({
      setupId,
      dyno: testDyno,
      air: null,
      engineToDrumRatio: null,
      startedAt: new Date().toISOString(),
    }),
  );
  const response = await fetch(`${server.origin}/api/imports`, { method: 'POST', body: form });
  return ((await response.json()) as { run: Run }).run;
}

async function sent(path: string, file: Blob, name: string, fields: Record<string, string> = {}): Promise<Response> {
  const form = new FormData();
  form.append('file', file, name);
  for (const [field, value] of Object.entries(fields)) form.append(field, value);
  return fetch(server.origin + path, { method: 'POST', body: form });
}

const reread = (job: Job) => server.json<Job>('GET', `/api/jobs/${job.id}`);
const refusedBy = async (response: Response) =>
  (await response.json()) as { error: string; field?: string; current?: Record<string, unknown> };

describe('owners and vehicles', () => {
  test('a car that comes back is the same car, with its earlier jobs', async () => {
    const first = await server.json<Job>('POST', '/api/jobs', { vehicle: 'Marl Wren', owner: 'P. Tansy' });
    const again = await server.json<Job>('POST', '/api/jobs', {
      vehicle: 'marl wren',
      owner: 'p. tansy',
      question: 'Back again?',
    });
    expect(again.vehicleId).toBe(first.vehicleId);
    const other = await server.json<Job>('POST', '/api/jobs', { vehicle: 'Marl Wren', owner: 'Q. Rush' });
    expect(other.vehicleId).not.toBe(first.vehicleId);
    const car = vehicleWithAll.parse(await server.json('GET', `/api/vehicles/${first.vehicleId}`));
    expect(car.jobs.map(({ id }) => id).sort()).toEqual([first.id, again.id].sort());
    expect(car.owner?.name).toBe('P. Tansy');
  });

  test('what is written of a car comes with its jobs, and parts say how well they are known', async () => {
    const job = jobSchema.parse(await server.newJob('Sorrel Van'));
    await server.json('PATCH', `/api/vehicles/${job.vehicleId}`, {
      plate: 'TS 104',
      ignition: 'compression',
      gears: [{ gear: '4th', ratio: 1 }],
      ownerName: 'V. Reed',
    });
    await server.json('POST', `/api/vehicles/${job.vehicleId}/parts`, {
      name: 'pump',
      knowledge: 'believed',
      note: '',
    });
    expect((await reread(job)).car).toMatchObject({ plate: 'TS 104', ignition: 'compression', ownerName: 'V. Reed' });
    await server.json('PATCH', `/api/vehicles/${job.vehicleId}`, { ignition: 'electric' });
    const car = await server.json<VehicleWithAll>('GET', `/api/vehicles/${job.vehicleId}`);
    expect(car.ignition).toBe('electric');
    expect(car.parts).toMatchObject([{ name: 'pump', knowledge: 'believed' }]);
    const refused = await server.request('DELETE', `/api/vehicles/${job.vehicleId}`);
    expect(refused.status).toBe(409);
    expect((await server.request('PATCH', `/api/vehicles/${job.vehicleId}`, { finalDrive: -1 })).status).toBe(400);
  });
});

describe('the list', () => {
  test('is searched by every word in owner, vehicle, plate, question and notes, and says what each job waits for', async () => {
    const job = await server.json<Job>('POST', '/api/jobs', {
      vehicle: 'Quarry Trial',
      owner: 'O. Fern',
      question: 'Mud?',
    });
    await server.json('PATCH', `/api/vehicles/${job.vehicleId}`, { plate: 'QT 77' });
    await server.json('POST', `/api/jobs/${job.id}/notes`, {
      text: 'belt squeals 100 % when cold',
      at: new Date().toISOString(),
    });
    const found = async (search: string) =>
      (await server.json<JobList>('GET', `/api/jobs?search=${encodeURIComponent(search)}`)).jobs.map(({ id }) => id);
    for (const search of ['quarry fern', 'qt 77', 'mud', 'squeals', '100 %'])
      expect(await found(search)).toEqual([job.id]);
    expect(await found('quarry nobody')).toEqual([]);
    expect(await found('_')).toEqual([]);
    const waiting = async () => (await server.json<JobList>('GET', '/api/jobs?search=quarry')).jobs[0]!.waiting;
    expect(await waiting()).toBe('its baseline');
    await server.json('PUT', `/api/jobs/${job.id}/state`, { state: 'paused', why: 'tyres ordered' });
    expect(await waiting()).toBe('tyres ordered');
    const { jobs, total } = await server.json<JobList>('GET', '/api/jobs?most=1&offset=1');
    expect(jobs).toHaveLength(1);
    expect(total).toBeGreaterThan(1);
    expect((await server.request('GET', '/api/jobs?most=x')).status).toBe(400);
  });
});

/** A figure that an owner may want. */
const aTarget = { quantity: 'peak power', fromRpm: null, toRpm: null, value: 90, scale: 'wheels' };

describe('entries', () => {
  test('a target is taken under every standard that there is', async () => {
    const job = await server.newJob();
    for (const standard of standardIds)
      await server.json('POST', `/api/jobs/${job.id}/targets`, { ...aTarget, standard });
    expect((await reread(job)).targets.map(({ standard }) => standard)).toEqual([...standardIds]);
  });

  test.each<[string, object, RegExp]>([
    ['bands', { name: 'pull away', fromRpm: 4000, toRpm: 3000 }, /toRpm.*above the lower/],
    ['limits', { quantity: 'torque', value: 180, scale: null, reason: '', source: 'owner' }, /crank or of the wheels/],
    ['inspections', { key: 'oil', outcome: 'perhaps', note: '', measured: null }, /outcome/],
    [
      'fuel-entries',
      { kind: 'measured', at: new Date().toISOString(), litres: null, ethanolPct: null, name: '', note: '' },
      /give the reading/,
    ],
    ['suspicions', { cause: ' ', test: '', outcome: '', state: 'open', runIds: [] }, /cause/],
    ['targets', { ...aTarget, standard: null }, /under which standard/],
    ['notes', { text: '', at: new Date().toISOString() }, /write the line/],
  ])('%s refuse %j with the field', async (path, fields, sentence) => {
    const job = await server.newJob();
    const response = await server.request('POST', `/api/jobs/${job.id}/${path}`, fields);
    expect(response.status).toBe(400);
    const { error, field } = await refusedBy(response);
    expect(error).toMatch(sentence);
    expect(field).toBeTruthy();
  });

  test('are taken away and brought back by undoing, and undoing is undone', async () => {
    const job = await server.newJob();
    const limit = await server.json<LimitRecord>('POST', `/api/jobs/${job.id}/limits`, {
      quantity: 'boost',
      value: 120,
      scale: null,
      reason: 'the hose',
      source: 'builder',
    });
    const removed = await server.request('DELETE', `/api/limits/${limit.id}`);
    expect((await reread(job)).limits).toEqual([]);
    const undone = await server.request('POST', `/api/acts/${removed.headers.get('suvok-act')}/undo`);
    expect(undone.status).toBe(204);
    expect((await reread(job)).limits).toMatchObject([{ id: limit.id, value: 120 }]);
    await server.request('POST', `/api/acts/${undone.headers.get('suvok-act')}/undo`);
    expect((await reread(job)).limits).toEqual([]);
  });

  test('a change that was changed again is not undone over', async () => {
    const job = await server.newJob();
    const first = await server.request('PATCH', `/api/jobs/${job.id}`, { target: '150 kW' });
    await server.json('PATCH', `/api/jobs/${job.id}`, { target: '160 kW' });
    const refused = await server.request('POST', `/api/acts/${first.headers.get('suvok-act')}/undo`);
    expect(refused.status).toBe(409);
    expect((await reread(job)).target).toBe('160 kW');
  });

  test('a change that would break a rule of two fields is refused', async () => {
    const job = await server.newJob();
    const band = await server.json<{ id: number }>('POST', `/api/jobs/${job.id}/bands`, {
      name: 'tow',
      fromRpm: 1500,
      toRpm: 3000,
    });
    expect((await server.request('PATCH', `/api/bands/${band.id}`, { fromRpm: 3500 })).status).toBe(400);
    expect((await server.request('PATCH', `/api/bands/${band.id}`, { fromRpm: 1700 })).status).toBe(200);
    expect((await reread(job)).bands).toMatchObject([{ fromRpm: 1700, toRpm: 3000, revision: 2 }]);
  });

  test('one line of an inspection is one entry, however often it is ticked', async () => {
    const job = await server.newJob();
    const tick = (outcome: string) =>
      server.json<Inspection>('POST', `/api/jobs/${job.id}/inspections`, {
        key: 'belts',
        outcome,
        note: '',
        measured: null,
      });
    const [a, b] = [await tick('fail'), await tick('ok')];
    expect(b.id).toBe(a.id);
    expect((await reread(job)).inspections).toMatchObject([{ key: 'belts', outcome: 'ok' }]);
  });

  test('a suspicion is linked to runs of its own job only', async () => {
    const [job, other] = [await server.newJob(), await server.newJob('Other')];
    const [mine, theirs] = [await ran(job.setups[0]!.id), await ran(other.setups[0]!.id)];
    const suspicion = await server.json<Suspicion>('POST', `/api/jobs/${job.id}/suspicions`, {
      cause: 'weak pump',
      test: 'log pressure at 6,000',
      outcome: '',
      state: 'open',
      runIds: [mine.id, theirs.id],
    });
    expect(suspicion.runIds).toEqual([mine.id]);
  });
});

describe('two browsers', () => {
  test('edit different fields of one setup: both stay', async () => {
    const job = await server.newJob();
    const { id, revision } = job.setups[0]!;
    await server.json('PATCH', `/api/setups/${id}`, { decisionWhy: 'sounds well', revision });
    await server.json('PATCH', `/api/setups/${id}`, { predictionWhy: 'more air', revision });
    expect((await reread(job)).setups[0]).toMatchObject({ decisionWhy: 'sounds well', predictionWhy: 'more air' });
  });

  test('edit the same field: the second is told, nothing is stored, and it may insist', async () => {
    const job = await server.newJob();
    const { id, revision } = job.setups[0]!;
    await server.json('PATCH', `/api/setups/${id}`, { change: 'As it came', revision });
    const refused = await server.request('PATCH', `/api/setups/${id}`, { change: 'As arrived, wet', revision });
    expect(refused.status).toBe(409);
    expect(await refusedBy(refused)).toMatchObject({
      field: 'change',
      current: { change: 'As it came', revision: revision + 1 },
    });
    expect((await reread(job)).setups[0]!.change).toBe('As it came');
    await server.json('PATCH', `/api/setups/${id}`, { change: 'As arrived, wet', revision: revision + 1 });
    expect((await reread(job)).setups[0]!.change).toBe('As arrived, wet');
  });
});

describe('setups', () => {
  test('planned runs are inherited by the next setup, and a limit that nobody could judge is refused', async () => {
    const job = await server.newJob();
    await server.json('PATCH', `/api/setups/${job.setups[0]!.id}`, { plannedRuns: 3 });
    const next = await server.json<Setup>('POST', `/api/jobs/${job.id}/setups`, {
      parentId: job.setups[0]!.id,
      change: 'boost +5 kPa',
    });
    expect(next.plannedRuns).toBe(3);
    const cleared = await server.json<Setup>('PATCH', `/api/setups/${next.id}`, { plannedRuns: null });
    expect(cleared.plannedRuns).toBeNull();
    const unknown = { quantity: 'valveFloat', value: 3, scale: null, reason: '', source: 'owner' };
    const refused = await server.request('POST', `/api/jobs/${job.id}/limits`, unknown);
    expect(refused.status).toBe(422);
    expect(await refused.text()).toMatch(/valveFloat.* is not known.*exhaustTemperature/);
    expect((await reread(job)).limits).toEqual([]);
  });

  test('a prediction is locked at the first run, and a setup that ran is kept', async () => {
    const job = await server.newJob();
    const setup = await server.json<Setup>('POST', `/api/jobs/${job.id}/setups`, {
      parentId: job.setups[0]!.id,
      change: 'ignition +2°',
      predictionKw: 2,
    });
    await server.json('PATCH', `/api/setups/${setup.id}`, { predictionKw: 2.5, plannedRuns: 2 });
    await ran(setup.id);
    const replanned = await server.request('PATCH', `/api/setups/${setup.id}`, { plannedRuns: 5 });
    expect(await replanned.text()).toMatch(/planned runs is locked/);
    const late = await server.request('PATCH', `/api/setups/${setup.id}`, { predictionKw: 0.5 });
    expect(late.status).toBe(422);
    expect((await refusedBy(late)).error).toMatch(/locked/);
    expect((await refusedBy(await server.request('DELETE', `/api/setups/${setup.id}`))).error).toMatch(/kept for ever/);
    expect((await refusedBy(await server.request('DELETE', `/api/setups/${job.setups[0]!.id}`))).error).toMatch(
      /changed from this|kept/,
    );
    const decided = await server.json<Setup>('PATCH', `/api/setups/${setup.id}`, {
      decision: 'keep',
      decisionWhy: 'it pays',
      decidedOn: 'B on A +2.1 ± 0.4 kW',
    });
    expect(decided).toMatchObject({ predictionKw: 2.5, decision: 'keep', decidedOn: 'B on A +2.1 ± 0.4 kW' });
    expect(decided.decidedAt).not.toBeNull();
  });

  test('one that never ran can be taken away and brought back, and its letter is not given out again', async () => {
    const job = await server.newJob();
    const begin = (change: string) =>
      server.json<Setup>('POST', `/api/jobs/${job.id}/setups`, { parentId: job.setups[0]!.id, change });
    const b = await begin('boost +5 kPa');
    const removed = await server.request('DELETE', `/api/setups/${b.id}`);
    expect((await begin('boost +8 kPa')).letter).toBe('C');
    await server.request('POST', `/api/acts/${removed.headers.get('suvok-act')}/undo`);
    expect((await reread(job)).setups.map(({ letter }) => letter)).toEqual(['A', 'B', 'C']);
  });

  test('a frozen baseline is a list of runs; replacing it is the next version', async () => {
    const job = await server.newJob();
    const setupId = job.setups[0]!.id;
    const runs = [await ran(setupId), await ran(setupId), await ran(setupId)];
    const freeze = (runIds: number[], why: string, spread: object | null = null) =>
      server.request('POST', `/api/jobs/${job.id}/baseline`, { setupId, runIds, why, spread });
    const spread = { share: 0.004, df: 9.5, repeats: 24 };
    await freeze(
      runs.map(({ id }) => id),
      'three alike',
    );
    await freeze(
      runs.slice(1).map(({ id }) => id),
      'A1 was cold',
      spread,
    );
    expect((await reread(job)).baseline).toMatchObject({
      version: 2,
      runIds: runs.slice(1).map(({ id }) => id),
      why: 'A1 was cold',
      spread,
    });
    expect((await reread(job)).earlierBaselines).toMatchObject([
      { version: 1, runIds: runs.map(({ id }) => id), why: 'three alike', spread: null },
    ]);
    expect((await freeze([runs[0]!.id], 'x', { share: -1, df: 2 })).status).toBe(400);
    expect((await freeze([999_999], 'x')).status).toBe(422);
    const history = await server.json<Change[]>('GET', `/api/jobs/${job.id}/history`);
    expect(history.filter(({ subject }) => subject === 'baseline')).toHaveLength(2);
  });
});

describe('borrowed curves', () => {
  const sheet = {
    name: 'maker’s sheet',
    origin: 'brochure',
    scale: 'crank',
    points: [
      [2000, 28],
      [3000, 47.5],
    ],
  };

  test('are kept with their origin, taken away and brought back', async () => {
    const job = await server.newJob();
    const { id } = await server.json<{ id: number }>('POST', `/api/jobs/${job.id}/borrowed-curves`, sheet);
    expect((await reread(job)).borrowedCurves).toMatchObject([{ id, ...sheet }]);
    const away = await server.request('DELETE', `/api/borrowed-curves/${id}`);
    expect((await reread(job)).borrowedCurves).toEqual([]);
    await server.request('POST', `/api/acts/${away.headers.get('suvok-act')}/undo`);
    expect((await reread(job)).borrowedCurves).toMatchObject([{ id, ...sheet }]);
  });

  test.each([
    [{ origin: '' }, /where it comes from/],
    [{ points: [[2000, 28]] }, /two points/],
    [
      {
        points: [
          [3000, 28],
          [2000, 47],
        ],
      },
      /must rise/,
    ],
    [{ scale: 'flywheel' }, /scale/],
  ])('refuses %j', async (over, why) => {
    const job = await server.newJob();
    const response = await server.request('POST', `/api/jobs/${job.id}/borrowed-curves`, { ...sheet, ...over });
    expect(response.status).toBe(400);
    expect((await refusedBy(response)).error).toMatch(why);
  });
});

describe('the fuel ledger', () => {
  test('each run keeps a copy of what it said then', async () => {
    const job = await server.newJob();
    const at = (minutes: number) => new Date(Date.now() - minutes * 60e3).toISOString();
    const entry = (fields: object) =>
      server.json<FuelRecord>('POST', `/api/jobs/${job.id}/fuel-entries`, {
        litres: null,
        ethanolPct: null,
        name: '',
        note: '',
        ...fields,
      });
    const unknown = await ran(job.setups[0]!.id);
    await entry({ kind: 'arrived', at: at(60), litres: 20, ethanolPct: 10, name: '98 octane' });
    const before = await ran(job.setups[0]!.id);
    await entry({ kind: 'added', at: at(0.01), litres: 30, ethanolPct: 85, name: 'E85' });
    const after = await ran(job.setups[0]!.id);
    expect(unknown.fuel).toBeNull();
    expect(before.fuel).toMatchObject({ ethanolPct: 10, from: 'stated' });
    expect(after.fuel).toMatchObject({ ethanolPct: 55, from: 'computed', moving: true });
  });
});

describe('files', () => {
  test('a tune file is kept to the byte and known again by what is in it', async () => {
    const job = await server.newJob('Brindle');
    const content = new Blob([Uint8Array.from({ length: 5000 }, (_, index) => index % 251)]);
    const path = `/api/setups/${job.setups[0]!.id}/tune-files`;
    const first = (await (await sent(path, content, 'arrived é.bin', { author: 'unknown' })).json()) as {
      file: TuneFile;
      knownFrom: unknown[];
    };
    expect(first).toMatchObject({ file: { name: 'arrived é.bin', bytes: 5000, author: 'unknown' }, knownFrom: [] });
    const again = (await (await sent(path, content, 'renamed.bin')).json()) as { file: TuneFile; knownFrom: object[] };
    expect(again.file.sha256).toBe(first.file.sha256);
    expect(again.knownFrom).toMatchObject([{ name: 'arrived é.bin', setup: 'A', vehicle: 'Brindle' }]);
    const back = await fetch(`${server.origin}/api/tune-files/${first.file.id}/content`);
    expect(Buffer.from(await back.arrayBuffer()).equals(Buffer.from(await content.arrayBuffer()))).toBe(true);
    expect((await sent(path, new Blob([]), 'empty.bin')).status).toBe(400);
    expect((await reread(job)).tuneFiles).toHaveLength(2);
  });

  test('a file that came back is a setup of its own, once, however often it comes', async () => {
    const job = await server.newJob('Sent away');
    const path = `/api/setups/${job.setups[0]!.id}/returned-files`;
    const content = new Blob(['revision 2']);
    const both = await Promise.all([
      sent(path, content, 'r2.bin', { author: 'R. Teal' }),
      sent(path, content, 'r2 copy.bin'),
    ]);
    expect(both.map(({ status }) => status).sort()).toEqual([200, 201]);
    const now = await reread(job);
    expect(now.setups).toMatchObject([{ letter: 'A' }, { letter: 'B', parentId: job.setups[0]!.id }]);
    expect(now.tuneFiles).toMatchObject([{ setupId: now.setups[1]!.id }]);
    expect(now.setups[1]!.change).toBe(`Tune file ${now.tuneFiles[0]!.name}`);
    expect(await (await sent(path, content, 'r9.bin')).json()).toEqual({
      again: { setup: 'B', name: now.tuneFiles[0]!.name },
      letter: null,
    });
    // Another job that has the same content is told nothing of this one: there it is new.
    const other = await server.newJob('Another');
    expect((await sent(`/api/setups/${other.setups[0]!.id}/returned-files`, content, 'r2.bin')).status).toBe(201);
    expect((await sent(path, new Blob([]), 'empty.bin')).status).toBe(400);
    expect((await sent('/api/setups/99999/returned-files', content, 'r2.bin')).status).toBe(404);
  });

  test('a photo is one by all of its bytes, not by its name', async () => {
    const job = await server.newJob();
    const path = `/api/jobs/${job.id}/photos`;
    const png = Buffer.from(
      'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
      'base64',
    );
    expect((await sent(path, new Blob(['<script>']), 'plug.png')).status).toBe(400);
    expect((await sent(path, new Blob([png]), 'plug.txt', { caption: 'plug of 3' })).status).toBe(201);
    const [photo] = (await reread(job)).photos;
    expect(photo).toMatchObject({ caption: 'plug of 3', mime: 'image/png' });
    const shown = await fetch(`${server.origin}/api/photos/${photo!.id}/content`);
    expect(shown.headers.get('content-type')).toBe('image/png');
    expect(shown.headers.get('x-content-type-options')).toBe('nosniff');
    // A browser keeps it by what it holds, and asks each time whether this number still means that.
    const etag = shown.headers.get('etag')!;
    expect([etag, shown.headers.get('cache-control')]).toEqual([
      `"${createHash('sha256').update(png).digest('hex')}"`,
      'private, no-cache',
    ]);
    const asked = (tag: string) =>
      fetch(`${server.origin}/api/photos/${photo!.id}/content`, {
        headers: { 'if-none-match': tag, 'cache-control': 'max-age=0' },
      });
    expect([(await asked(etag)).status, (await asked('"another"')).status]).toEqual([304, 200]);
  });
});

describe('the end of a job', () => {
  test('closing writes what it was delivered with, takes it off the dyno, and reopening keeps it', async () => {
    const job = await server.newJob();
    await server.mount(job);
    const setupId = job.setups[0]!.id;
    const closed = await server.json<Job>('PUT', `/api/jobs/${job.id}/state`, {
      state: 'closed',
      deliveredSetupId: setupId,
      untested: 'cold start',
      deliveredNote: '',
    });
    expect(closed).toMatchObject({ state: 'closed', deliveredSetupId: setupId, untested: 'cold start' });
    // What is open then is recorded as the words of that day.
    expect(closed.openPoints).toContain('No tune file is stored with what is delivered.');
    expect(closed.openPoints).not.toContain('Nothing is written of what was not tested.');
    expect((await server.bay()).mounted).toBeNull();
    // Its file is read only now; what comes after the work is written all the same.
    const path = `/api/jobs/${job.id}`;
    const band = { name: 'late', fromRpm: 2000, toRpm: 3000 };
    const refused = async (method: string, to: string, body: object) => {
      const answer = await server.request(method, to, body);
      return [answer.status, ((await answer.json()) as { error?: string }).error];
    };
    const sentence = [
      422,
      'The job is closed: its file is read only until it is reopened (Brief, Reopen). Nothing was changed.',
    ];
    expect(await refused('PATCH', path, { question: 'another' })).toEqual(sentence);
    expect(await refused('POST', `${path}/bands`, band)).toEqual(sentence);
    expect(await refused('POST', `${path}/setups`, { parentId: setupId, change: 'ignition +1°' })).toEqual(sentence);
    expect(await refused('PATCH', `/api/setups/${setupId}`, { decision: 'keep' })).toEqual(sentence);
    expect(
      await refused('POST', `${path}/targets`, {
        quantity: 'peak power',
        fromRpm: null,
        toRpm: null,
        value: 90,
        scale: 'wheels',
        standard: 'sae-j1349',
      }),
    ).toEqual(sentence);
    expect(await refused('PUT', '/api/bays/1/mounted', { jobId: job.id, setupId })).toEqual([
      409,
      'The job is closed. Reopen it (Brief, Reopen), then put it on the dyno.',
    ]);
    await server.json('POST', `${path}/notes`, { text: 'collected', at: '2026-05-15T08:00:00Z' });
    await server.json('POST', `${path}/charges`, {
      what: 'Dyno',
      per: 'dyno hour',
      quantity: 1,
      amount: 90,
      currency: '€',
      why: 'by hand',
      setupId: null,
    });
    const open = await server.json<Job>('PUT', `/api/jobs/${job.id}/state`, { state: 'open' });
    expect((await server.request('POST', `${path}/bands`, band)).status).toBe(201);
    expect(open).toMatchObject({ state: 'open', closedAt: null, deliveredSetupId: setupId });
    const other = await server.newJob('Other');
    const wrong = { state: 'closed', deliveredSetupId: other.setups[0]!.id, untested: '', deliveredNote: '' };
    expect((await server.request('PUT', `/api/jobs/${job.id}/state`, wrong)).status).toBe(409);
  });
});

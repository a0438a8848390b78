import { afterAll, beforeAll, expect, test } from '@jest/globals';
import sharp from 'sharp';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import type { Job } from '../../contract/job/records.ts';
import { reportPdf, reportVersion, wholeReportVersion } from '../../contract/report/report.ts';
import { workLine } from '../../contract/values/answers.ts';
import { inWhole, shortOrWhole } from '../../core/testing/short-or-whole.ts';
import { keptUnits, unitSets } from '../../core/units/told-units.ts';
import { importRun } from '../testing/imported-run.ts';
import { TestServer } from '../testing/test-server.ts';

let server: TestServer;
let job: Job;
const view = { standard: 'sae-j1349', units: keptUnits };

beforeAll(async () => {
  server = await TestServer.start();
  job = await server.newJob();
  for (const [seed, factor] of [
    [1, 0.998],
    [2, 1],
    [3, 1.002],
  ] as const)
    await importRun(server, job.setups[0]!.id, seed, factor);
  const setup = await server.json<{ id: number }>('POST', `/api/jobs/${job.id}/setups`, {
    parentId: job.setups[0]!.id,
    change: 'Short intake',
  });
  for (const [seed, factor] of [
    [4, 1.048],
    [5, 1.05],
    [6, 1.052],
  ] as const)
    await importRun(server, setup.id, seed, factor);
  job = await server.json('PATCH', `/api/jobs/${job.id}`, {
    question: 'Does λ 0.88 pay above 5,000 → 6,000? Asks Łucja Čapková.',
  });
});
afterAll(async () => {
  await server.stop();
  expect(server.errors).toEqual([]);
});

async function textOf(bytes: Uint8Array): Promise<{ pages: string[]; title: unknown; language: unknown }> {
  const document = await getDocument({ data: bytes, useSystemFonts: true, verbosity: 0 }).promise;
  const { info } = await document.getMetadata();
  const pages: string[] = [];
  for (let at = 1; at <= document.numPages; at++) {
    const { items } = await (await document.getPage(at)).getTextContent();
    pages.push(
      items
        .map((item) => ('str' in item ? item.str + (item.hasEOL ? ' ' : '') : ''))
        .join('')
        .replace(/\s+/g, ' '),
    );
  }
  return { pages, title: (info as { Title?: string }).Title, language: (info as { Language?: string }).Language };
}

/** What a report says, as plain words without spaces: a PDF places its words one by one. */
const squeezed = (text: string) => text.replace(/\s+/g, '');

async function pdfOf(path: string, body: unknown): Promise<{ pages: string[]; title: unknown; language: unknown }> {
  const response = await server.request('POST', path, body);
  expect([response.status, response.headers.get('content-type')]).toEqual([200, 'application/pdf']);
  return textOf(new Uint8Array(await response.arrayBuffer()));
}

const keptNow = async (over: object = {}) =>
  reportVersion.parse(await server.json('POST', `/api/jobs/${job.id}/report/versions`, { ...view, ...over }));
const wholeOf = async (id: number) => wholeReportVersion.parse(await server.json('GET', `/api/report-versions/${id}`));

test('a PDF says every word and figure of the report, in any letters, with pages that are counted', async () => {
  const version = await keptNow();
  const { written } = await wholeOf(version.id);
  const { pages, title, language } = await pdfOf(`/api/jobs/${job.id}/report/pdf`, { ...view, paper: 'A4' });
  const whole = squeezed(pages.join(''));
  const strings: string[] = [];
  JSON.stringify(written, (key, value: unknown) => {
    // Pictures have words of their own; what says what a picture shows is not printed.
    if (key === 'narrow' || key === 'is' || key === 'id' || key === 'tone' || key === 'severity' || key === 'says')
      return undefined;
    if (key === 'shapes')
      strings.push(...(value as { is: string; words?: string }[]).flatMap(({ words = '' }) => words));
    if (key === 'shapes') return undefined;
    if (typeof value === 'string') strings.push(value);
    return value;
  });
  expect(strings.length).toBeGreaterThan(60);
  expect(strings.filter((text) => !whole.includes(squeezed(text)))).toEqual([]);
  expect(whole).toContain('ŁucjaČapková');
  expect(title).toBe((written.head as { about: string }).about);
  expect(language).toBe('en');
  for (const [at, text] of pages.entries()) expect(squeezed(text)).toContain(`${at + 1}/${pages.length}`);
});

test('the one-page form is one page, on either paper', async () => {
  await server.json('PATCH', `/api/jobs/${job.id}`, {
    report: { form: 'short', order: [], hidden: [], headline: '', words: 'Much to say. '.repeat(30), units: null },
  });
  for (const paper of shortOrWhole(['LETTER'], ['A4', 'LETTER']))
    expect((await pdfOf(`/api/jobs/${job.id}/report/pdf`, { ...view, paper })).pages).toHaveLength(1);
  await server.json('PATCH', `/api/jobs/${job.id}`, { report: null });
});

test('in another language it says so itself, whoever reads the page; a language that is none is refused', async () => {
  const draft = { form: 'long', order: [], hidden: [], headline: '', words: '', units: null };
  await server.json('PATCH', `/api/jobs/${job.id}`, { report: { ...draft, language: 'de' } });
  const { pages, language } = await pdfOf(`/api/jobs/${job.id}/report/pdf`, { ...view, paper: 'A4' });
  expect(language).toBe('de');
  for (const words of ['Wie die Zahlen entstanden sind', 'Was jede Änderung brachte', 'Leistung', 'Łucja Čapková'])
    expect(squeezed(pages.join(''))).toContain(squeezed(words));
  expect(pages.join('')).not.toMatch(/How the figures|from \d/);
  if (inWhole) {
    const version = await keptNow();
    const kept = await pdfOf(`/api/report-versions/${version.id}/pdf`, { paper: 'A4' });
    expect(kept.pages[0]).toContain(`Fassung ${version.number}`);
  }
  const refused = await server.request('PATCH', `/api/jobs/${job.id}`, { report: { ...draft, language: 'xx' } });
  expect(refused.status).toBe(400);
  await server.json('PATCH', `/api/jobs/${job.id}`, { report: null });
});

(inWhole ? test : test.skip)('words of any length break no table', async () => {
  const long = 'Throttlebodyspacer'.repeat(9);
  const setup = await server.json<{ id: number }>('POST', `/api/jobs/${job.id}/setups`, {
    parentId: job.setups[0]!.id,
    change: `${long} and more`,
  });
  await importRun(server, setup.id, 7, 1);
  const { pages } = await pdfOf(`/api/jobs/${job.id}/report/pdf`, { ...view, paper: 'A4' });
  expect(squeezed(pages.join('')).replaceAll('-', '')).toContain(long);
  await server.json('PATCH', `/api/setups/${setup.id}`, { decision: 'go back', decisionWhy: '' });
});

test('it is told as it goes, and the last line holds the file', async () => {
  const response = await fetch(`${server.origin}/api/jobs/${job.id}/report/pdf`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', accept: 'application/x-ndjson' },
    body: JSON.stringify({ ...view, paper: 'LETTER' }),
  });
  const lines = (await response.text())
    .trim()
    .split('\n')
    .map((line) => workLine.parse(JSON.parse(line)));
  expect(lines.flatMap((line) => ('doing' in line ? line.doing : []))).toEqual(['reading', 'comparing', 'writing']);
  const last = lines.at(-1)!;
  const { name, pages, base64 } = reportPdf.parse('answer' in last ? last.answer : undefined);
  expect(name).toMatch(/^[\p{L}\p{N}-]+\.pdf$/u);
  expect((await textOf(new Uint8Array(Buffer.from(base64, 'base64')))).pages).toHaveLength(pages);
});

test('a kept report never changes, whatever becomes of the job; it says what it rests on, and is undone', async () => {
  const version = await keptNow({ note: 'for the owner' });
  expect(version.restsOn).toMatchObject({
    standard: 'sae-j1349',
    arrived: { letter: 'A' },
    delivered: { letter: 'B' },
  });
  expect(version.restsOn.delivered.runs).toHaveLength(3);
  expect(version.restsOn.judgement).toMatchObject({ claim: 'gain', testId: version.restsOn.delivered.setupId });
  const before = await wholeOf(version.id);
  await server.json('PATCH', `/api/runs/${version.restsOn.delivered.runs[0]!.id}`, { setAsideReason: 'slip' });
  expect(await wholeOf(version.id)).toEqual(before);
  const next = await keptNow();
  expect(next.number).toBe(version.number + 1);
  expect(next.restsOn.delivered.runs).toHaveLength(2);
  expect((await wholeOf(next.id)).written).not.toEqual(before.written);
  const { pages } = await pdfOf(`/api/report-versions/${version.id}/pdf`, { paper: 'A4' });
  expect(squeezed(pages[0]!)).toContain(`version${version.number}`);
  // Neither the server nor anybody at the database changes what was kept.
  await expect(
    server.asOwner(`update report_version_content set written = '{}' where report_version_id = ${version.id}`),
  ).rejects.toThrow(/never altered/);
  await expect(server.asOwner(`update report_version set rests_on = '{}' where id = ${version.id}`)).rejects.toThrow(
    /never altered/,
  );
  const taken = await server.request('DELETE', `/api/report-versions/${next.id}`);
  expect((await server.request('GET', `/api/report-versions/${next.id}`)).status).toBe(404);
  await server.request('POST', `/api/acts/${taken.headers.get('suvok-act')}/undo`);
  expect((await wholeOf(next.id)).number).toBe(next.number);
});

test('in units of its own a version says so', async () => {
  const us = unitSets.find(({ name }) => name === 'US')!.units;
  const version = await keptNow({ units: us });
  expect(version.view.units).toEqual(us);
  expect(JSON.stringify((await wholeOf(version.id)).written)).toContain('hp');
});

test('photos stand in it with their captions; one that a PDF cannot hold is named', async () => {
  const sent = async (content: Buffer, caption: string) => {
    const form = new FormData();
    form.append('file', new Blob([new Uint8Array(content)]), 'plug');
    form.append('caption', caption);
    expect((await fetch(`${server.origin}/api/jobs/${job.id}/photos`, { method: 'POST', body: form })).status).toBe(
      201,
    );
  };
  const picture = sharp({ create: { width: 60, height: 40, channels: 3, background: '#a04020' } });
  await sent(await picture.png().toBuffer(), 'Plug of the third');
  await sent(await picture.webp().toBuffer(), 'Gauge at rest');
  const response = await server.request('POST', `/api/jobs/${job.id}/report/pdf`, { ...view, paper: 'A4' });
  const bytes = new Uint8Array(await response.arrayBuffer());
  expect(
    Buffer.from(bytes)
      .toString('latin1')
      .match(/\/Subtype \/Image/g),
  ).toHaveLength(1);
  const words = (await textOf(bytes)).pages.join(' ');
  expect(words).toContain('Plug of the third');
  expect(words).toContain('Gauge at rest: in the report on screen');
});

test('what cannot be made says why, and keeps nothing', async () => {
  const empty = await server.newJob();
  const ask = async (path: string, body: object) => {
    const response = await server.request('POST', path, body);
    return [response.status, ((await response.json()) as { error: string }).error] as const;
  };
  expect(await ask(`/api/jobs/${empty.id}/report/pdf`, { ...view, paper: 'A4' })).toEqual([
    422,
    expect.stringMatching(/nothing to report yet/),
  ]);
  expect(await ask(`/api/jobs/${job.id}/report/versions`, { ...view, standard: 'none-such' })).toEqual([
    422,
    expect.stringMatching(/There is no standard "none-such"/),
  ]);
  expect((await ask(`/api/jobs/${job.id}/report/pdf`, { ...view, paper: 'A3' }))[0]).toBe(400);
  expect((await ask('/api/jobs/99999/report/pdf', { ...view, paper: 'A4' }))[0]).toBe(404);
  expect((await server.json<Job>('GET', `/api/jobs/${empty.id}`)).reportVersions).toEqual([]);
});

test('who goes away ends the work', async () => {
  const cancel = new AbortController();
  const asked = fetch(`${server.origin}/api/jobs/${job.id}/report/pdf`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', accept: 'application/x-ndjson' },
    body: JSON.stringify({ ...view, paper: 'A4' }),
    signal: cancel.signal,
  }).then((response) => response.text());
  setTimeout(() => cancel.abort(), 30);
  await expect(asked).rejects.toThrow(/abort/i);
  // The next one is made all the same.
  expect((await pdfOf(`/api/jobs/${job.id}/report/pdf`, { ...view, paper: 'A4' })).pages.length).toBeGreaterThan(0);
});

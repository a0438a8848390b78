import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { consent, type Consent, type ConsentTemplate } from '../../contract/shop/consents.ts';
import type { Job } from '../../contract/job/records.ts';
import { TestServer } from '../testing/test-server.ts';

let server: TestServer;
beforeAll(async () => {
  server = await TestServer.start();
});
afterAll(async () => {
  await server.stop();
  expect(server.errors).toEqual([]);
});

const hand = [[[20, 100, 0.4], [180, 60, 0.7], [300, 120, 0.5]]]; // prettier-ignore
const sign = (job: Job, template: ConsentTemplate, over: object = {}) =>
  server.request('POST', `/api/jobs/${job.id}/consents`, {
    templateId: template.id,
    version: template.revision,
    name: 'A. Sorrel',
    strokes: hand,
    ...over,
  });
const templates = () => server.json<ConsentTemplate[]>('GET', '/api/consent-templates');

test('what is signed keeps its text, whatever becomes of the template, and can be had as PDF', async () => {
  const job = await server.newJob();
  const [first] = (await templates()) as [ConsentTemplate];
  const signed = consent.parse(await (await sign(job, first)).json());
  expect(signed).toMatchObject({ title: first.title, text: first.text, version: first.revision });
  expect(signed).not.toHaveProperty('strokes');
  await server.json('PATCH', `/api/consent-templates/${first.id}`, { text: 'Another text.' });
  const { consents } = await server.json<Job>('GET', `/api/jobs/${job.id}`);
  expect(consents).toEqual([signed]);
  const pdf = await server.request('GET', `/api/consents/${signed.id}/consent.pdf`);
  expect([
    pdf.headers.get('content-type'),
    Buffer.from(await pdf.arrayBuffer())
      .subarray(0, 5)
      .toString(),
  ]).toEqual(['application/pdf', '%PDF-']);
  // What was read is no longer what stands: nobody signs that.
  const late = await sign(job, first);
  expect([late.status, ((await late.json()) as { error: string }).error]).toEqual([
    422,
    expect.stringContaining('read it again'),
  ]);
});

test('an empty hand or name is refused; what is taken away stays stored and unchanged', async () => {
  const job = await server.newJob();
  const [first] = (await templates()) as [ConsentTemplate];
  for (const wrong of [{ strokes: [] }, { strokes: [[]] }, { name: ' ' }, { strokes: 'x' }])
    expect((await sign(job, first, wrong)).status).toBe(400);
  expect((await sign({ ...job, id: 999_999 }, first)).status).toBe(404);
  const { id } = (await (await sign(job, first)).json()) as Consent;
  await expect(
    server.running.database.query(`update consent set text = 'I agree to all' where id = $1`, [id]),
  ).rejects.toThrow(/as it was signed/);
  expect((await server.request('DELETE', `/api/consents/${id}`)).status).toBe(204);
  expect((await server.json<Job>('GET', `/api/jobs/${job.id}`)).consents).toEqual([]);
});

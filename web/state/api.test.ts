/** @jest-environment jsdom */
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { useActs } from './acts.ts';
import { api, RequestProblem } from './api.ts';

const real = globalThis.fetch;
let asked: { path: string; init: RequestInit | undefined }[];
let answer: () => Promise<Response>;

/** As the page meets it: jsdom has no Response of its own. */
const json = (status: number, content: unknown, act?: string) =>
  Promise.resolve({
    ok: status < 400,
    status,
    headers: new Map(act ? [['suvok-act', act]] : []) as unknown as Headers,
    json: () => (content === undefined ? Promise.reject(new SyntaxError('no JSON')) : Promise.resolve(content)),
  } as Response);

beforeEach(() => {
  asked = [];
  useActs.setState({ acts: [] });
  globalThis.fetch = ((path: string, init?: RequestInit) => {
    asked.push({ path, init });
    return answer();
  }) as typeof fetch;
});
afterEach(() => {
  globalThis.fetch = real;
});

const problem = async (act: Promise<unknown>): Promise<RequestProblem> => {
  const error = await act.then(
    () => undefined,
    (reason: unknown) => reason,
  );
  expect(error).toBeInstanceOf(RequestProblem);
  return error as RequestProblem;
};
const run = {
  id: 3,
  jobId: 1,
  setupId: 1,
  number: 1,
  label: 'A1',
};

test('a server that does not answer is said, with what was kept and what to do', async () => {
  answer = () => Promise.reject(new TypeError('Failed to fetch'));
  const { message } = await problem(api.jobs({ search: '', state: 'all', offset: 0 }));
  expect(message).toMatch(/does not answer\. What was recorded is kept; check/);
});

test('a refusal is the server’s own sentence, with the field and what is stored now', async () => {
  answer = () =>
    json(409, { error: 'Somebody else changed the note.', field: 'note', current: { note: 'theirs', revision: 4 } });
  const { message, field, current } = await problem(api.changeRun(3, { note: 'mine' }));
  expect([message, field, current]).toEqual([
    'Somebody else changed the note.',
    'note',
    { note: 'theirs', revision: 4 },
  ]);
  expect(asked[0]).toMatchObject({
    path: '/api/runs/3',
    init: { method: 'PATCH', body: JSON.stringify({ note: 'mine' }) },
  });
});

test('an answer without a reason says so; one in another form asks for a reload', async () => {
  answer = () => json(502, undefined);
  expect((await problem(api.job(1))).message).toMatch(/answered with 502 and no reason/);
  answer = () => json(200, run);
  expect((await problem(api.job(1))).message).toMatch(/in a form this page does not know\. Reload/);
});

test('the number of an act is remembered, so that it can be undone; that of a refused one is not', async () => {
  answer = () => json(200, undefined, '17');
  await problem(api.changeRun(3, { note: 'x' }));
  expect(useActs.getState().acts).toEqual(['17']);
  answer = () => json(409, { error: 'No.' }, '18');
  await problem(api.changeRun(3, { note: 'x' }));
  expect(useActs.getState().acts).toEqual(['17']);
});

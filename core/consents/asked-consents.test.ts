import { expect, test } from '@jest/globals';
import { jobConsents, type AskedTemplate, type ConsentedJob } from './asked-consents.ts';

const templates = (['every job', 'settings changed', 'diesel', 'by hand'] as const).map((asked, at): AskedTemplate => ({
  id: at + 1,
  revision: 2,
  title: asked,
  asked,
}));
const job = (over: Partial<ConsentedJob> = {}): ConsentedJob => ({
  car: { ignition: 'spark' },
  setups: [1],
  consents: [],
  ...over,
});
const missing = (of: ConsentedJob) =>
  jobConsents(of, templates).flatMap(({ isMissing, template }) => (isMissing ? [template.asked] : []));

test('each is asked for where it applies: a diesel, a change, every job; one by hand never by itself', () => {
  expect(missing(job())).toEqual(['every job']);
  expect(missing(job({ setups: [1, 2] }))).toEqual(['every job', 'settings changed']);
  expect(missing(job({ car: { ignition: 'compression' } }))).toEqual(['every job', 'diesel']);
});

test('what is signed is no gap; of an older text it says so; the last signature counts', () => {
  const signed = (version: number) => ({ templateId: 1, version, name: 'A. Sorrel', signedAt: '2026-05-14T08:00:00Z' });
  const [first] = jobConsents(job({ consents: [signed(1)] }), templates);
  expect(first).toMatchObject({ isMissing: false, isOlder: true });
  expect(jobConsents(job({ consents: [signed(1), signed(2)] }), templates)[0]).toMatchObject({
    isOlder: false,
    signed: { version: 2 },
  });
});

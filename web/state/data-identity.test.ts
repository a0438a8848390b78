/** @jest-environment jsdom */
import { beforeEach, expect, jest, test } from '@jest/globals';
import type * as Identity from './data-identity.ts';
import { draftOf, draftsSetAside, forgetDraftsSetAside, keepDraft } from './drafts.ts';

const [one, other] = ['00000000-0000-4000-8000-000000000001', '00000000-0000-4000-8000-000000000002'];

/** A page that has just been loaded: it knows nothing but what the browser keeps. */
async function page(): Promise<typeof Identity & { load: jest.Mock<() => void> }> {
  jest.resetModules();
  return { ...(await import('./data-identity.ts')), load: jest.fn<() => void>() };
}

beforeEach(() => localStorage.clear());

test('in the same data drafts stay where they are, and requests say which data they are meant for', async () => {
  keepDraft('job/5/question', 'half a sen');
  for (let load = 0; load < 2; load++) {
    const { meetData, headersOfData, load } = await page();
    expect(headersOfData({ accept: 'x' })).toEqual({ accept: 'x' });
    meetData(one, load);
    meetData(one, load);
    expect(load).not.toHaveBeenCalled();
    expect(headersOfData({ accept: 'x' })).toEqual({ accept: 'x', 'suvok-data': one });
  }
  expect(draftOf('job/5/question')).toBe('half a sen');
});

test('other data under an open page: it is loaded anew once, and what was typed is set aside, not lost', async () => {
  const open = await page();
  open.meetData(one, open.load);
  keepDraft('job/5/question', 'half a sen');
  open.meetData(other, open.load);
  expect(open.load).toHaveBeenCalledTimes(1);
  // Until it is loaded, what it still asks is of the data that it shows.
  expect(open.headersOfData()).toEqual({ 'suvok-data': one });
  expect(draftOf('job/5/question')).toBeNull();
  expect(draftsSetAside()).toEqual(['half a sen']);
  const loaded = await page();
  loaded.meetData(other, loaded.load);
  expect(loaded.load).not.toHaveBeenCalled();
  forgetDraftsSetAside();
  expect(draftsSetAside()).toEqual([]);
});

test('other data since the browser was here last are met in the same way', async () => {
  const before = await page();
  before.meetData(one, before.load);
  keepDraft('job/5/note', 'a note');
  const later = await page();
  later.meetData(other, later.load);
  expect(later.load).toHaveBeenCalledTimes(1);
  expect([draftOf('job/5/note'), draftsSetAside()]).toEqual([null, ['a note']]);
});

import { expect, test } from '@jest/globals';
import { jobChange, newJob, runChange } from './job-requests.ts';

test('a change never fills in what it does not name', () => {
  expect(newJob.parse({ vehicle: ' Test car ' })).toEqual({
    vehicle: 'Test car',
    owner: '',
    question: '',
    gear: null,
  });
  expect(jobChange.parse({ question: 'why?' })).toEqual({ question: 'why?' });
  expect(runChange.parse({ setAsideReason: null })).toEqual({ setAsideReason: null });
});

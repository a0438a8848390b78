import { expect, test } from '@jest/globals';
import type { Job, Run } from '../../../../contract/job/records.ts';
import { comparedAt } from '../testing/two-setups.ts';
import { offeredLanes } from './use-logged-sides.ts';

const { job, view } = comparedAt('?setup=A&against=B');
const withChannels = (channels: Record<string, string[]>): Job => ({
  ...job,
  runs: job.runs.map((run) => ({
    ...run,
    logs: [],
    channels: (channels[run.label ?? ''] ?? []).map((name) => ({ name, unit: '' })),
  })) as Run[],
});
const logged = withChannels({ A1: ['engineSpeed', 'lambda'], A2: ['boost'], A3: ['oilPressure'] });

test('lanes are offered of what the latest run of the setup recorded, engine speed being the axis', () => {
  expect(offeredLanes(logged, view)).toEqual(['oilPressure']);
  expect(offeredLanes(logged, { ...view, runs: ['A1', 'A2'] })).toEqual(['boost']);
});

test('a frozen list is what its setup stands for: no later run is looked at', () => {
  const list = { setupId: view.test.id, runIds: [1], version: 1, why: '', createdAt: '', spread: null };
  expect(offeredLanes(logged, { ...view, frozen: list })).toEqual(['lambda']);
});

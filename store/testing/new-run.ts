import { randomUUID } from 'node:crypto';
import type { NewRun } from '../../contract/bays/recorded-run.ts';
import { testDyno } from '../../core/testing/test-car.ts';

/** A run that begins, of no job. */
export const newRun = (over: Partial<NewRun> = {}): NewRun => ({
  key: randomUUID(),
  bay: null,
  recordedBy: '',
  setup: null,
  database: null,
  gear: null,
  startedAt: '2026-05-04T09:00:00.000Z',
  dyno: testDyno,
  engineToDrumRatio: 3.4,
  air: null,
  airTakenAt: null,
  startTemperatures: {},
  channels: [{ name: 'rollerSpeed', unit: 'rad/s' }],
  source: 'Roller',
  device: 'roller',
  kind: 'power',
  plan: null,
  logs: [],
  ...over,
});

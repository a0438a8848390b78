import { written } from '../sentence/sentence.ts';
import { expect, test } from '@jest/globals';
import { testDyno } from '../testing/test-car.ts';
import { unlikeRespects } from './like-for-like.ts';
import type { LikeForLikeInput, RunConditions } from './run-conditions.ts';
import { loneBaseline } from './session-respects.ts';

const conditions = (over: Partial<RunConditions> = {}): RunConditions => ({
  label: 'A1',
  dyno: testDyno,
  instrument: 'roller-1',
  bay: 1,
  gear: '4th',
  ratio: 3.4,
  tyres: 'road 195',
  tyrePressureKpa: 240,
  fuel: 'E10',
  fan: 'full',
  loadMode: 'inertia',
  rampRpmPerS: 400,
  fromRpm: 2100,
  toRpm: 6800,
  hasAir: true,
  airAgeS: 120,
  standard: 'sae-j1349',
  share: 1,
  startTemperatures: { oilTemperature: 85 },
  startedAt: new Date('2026-05-04T10:00:00Z'),
  ...over,
});
const ids = (over: Partial<RunConditions>, more: Partial<LikeForLikeInput> = {}) =>
  unlikeRespects({ test: [conditions(over)], baseline: [conditions()], ...more }).map(({ id }) => id);

test('alike runs raise nothing', () => {
  expect(ids({ startedAt: new Date('2026-05-04T12:00:00Z'), rampRpmPerS: 415, toRpm: 6750 })).toEqual([]);
});

test('a baseline of one run is named as such; of two it is not, and of none there is nothing to name', () => {
  expect(loneBaseline([conditions()])).toMatchObject({
    severity: 'mind',
    message: expect.stringContaining('is one run, A1'),
  });
  expect(loneBaseline([conditions(), conditions()])).toBeUndefined();
  expect(loneBaseline([])).toBeUndefined();
});

test('another vehicle withholds the verdict; another visit is told with where it comes from', () => {
  const found = unlikeRespects({
    test: [conditions({ vehicle: 'Tarrow Six' })],
    baseline: [conditions({ vehicle: 'Ostrel 990', origin: 'setup B of job 3' })],
  });
  expect(found.map(({ id, severity }) => [id, severity])).toEqual([
    ['other-vehicle', 'stop'],
    ['other-job', 'note'],
  ]);
  expect(found[1]!.message).toContain('setup B of job 3');
  expect(ids({ vehicle: 'Tarrow Six' })).toEqual([]);
});

test('a learned octane reading that moved from side to side, or within one, is told', () => {
  const side = (...learned: number[]) => learned.map((learnedOctanePct) => conditions({ learnedOctanePct }));
  const found = (test: RunConditions[], baseline: RunConditions[]) =>
    unlikeRespects({ test, baseline }).filter(({ id }) => id === 'learned-octane');
  expect(found(side(71), side(62.4, 62))[0]).toMatchObject({
    severity: 'mind',
    message: expect.stringContaining('between 62 and 71 %'),
  });
  expect(found(side(60, 66), [conditions()])).toHaveLength(1);
  expect(found(side(61), side(62.4, 62))).toEqual([]);
  expect(found(side(61), [conditions()])).toEqual([]);
});

test('what is not known is not compared', () => {
  const bare = (label: string) => ({ label, dyno: testDyno, hasAir: true });
  expect(unlikeRespects({ test: [bare('B1')], baseline: [conditions()] })).toEqual([]);
});

test.each<[string, Partial<RunConditions>, 'stop' | 'mind']>([
  ['other-dyno', { dyno: { ...testDyno, inertiaKgM2: 51 } }, 'stop'],
  ['other-dyno', { instrument: 'roller-2' }, 'stop'],
  ['remount', { bay: 2 }, 'stop'],
  ['other-kind', { dyno: { ...testDyno, kind: 'loaded-roller' } }, 'stop'],
  ['other-gear', { gear: '3rd', ratio: 4.6 }, 'stop'],
  ['other-ratio', { ratio: 3.5 }, 'stop'],
  ['other-tyres', { tyres: 'slicks' }, 'mind'],
  ['other-tyre-pressure', { tyrePressureKpa: 210 }, 'mind'],
  ['other-fuel', { fuel: 'E85' }, 'mind'],
  ['other-fan', { fan: 'off' }, 'mind'],
  ['other-load-mode', { loadMode: 'ramp' }, 'stop'],
  ['other-ramp', { rampRpmPerS: 300 }, 'mind'],
  ['air-missing', { hasAir: false }, 'stop'],
  ['air-stale', { airAgeS: 7200 }, 'mind'],
  ['other-standard', { standard: 'din-70020' }, 'stop'],
  ['other-share', { share: 0.5 }, 'stop'],
  ['other-range', { toRpm: 6300 }, 'mind'],
  ['heat-state', { startTemperatures: { oilTemperature: 101 } }, 'mind'],
  ['remount', { startedAt: new Date('2026-05-05T10:00:00Z') }, 'stop'],
])('%s: said with how much it matters and a remedy', (id, over, severity) => {
  const found = unlikeRespects({ test: [conditions({ label: 'B1', ...over })], baseline: [conditions()] });
  expect(found.map((unlikeness) => unlikeness.id)).toEqual([id]);
  expect(found[0]!.severity).toBe(severity);
  expect(written(found[0]!.message)).toMatch(/^[A-Z].*\.$/);
  expect(written(found[0]!.matters).length).toBeGreaterThan(10);
  expect(found[0]!.remedy).toMatch(/^[A-Z].*\.$/);
});

test('other drums are another dyno, and never another gear, other tyres or slip; a file names no instrument', () => {
  expect(ids({ instrument: 'hubs', ratio: 5 })).toEqual(['other-dyno']);
  expect(ids({ instrument: undefined })).toEqual([]);
  const [found] = unlikeRespects({ test: [conditions({ instrument: 'roller-2' })], baseline: [conditions()] });
  expect(found!.message).toContain('roller-2 and roller-1');
});

test('a known spread of mountings turns the remount into a note', () => {
  const found = unlikeRespects({
    test: [conditions({ startedAt: new Date('2026-05-06T10:00:00Z') })],
    baseline: [conditions()],
    remountKnown: true,
  });
  expect(found).toMatchObject([{ id: 'remount', severity: 'note' }]);
});

test('steps of several items, and several steps', () => {
  const step = (letter: string, items: number) => ({ letter, change: `change of ${letter}`, items });
  expect(ids({}, { changes: [step('B', 1)] })).toEqual([]);
  const [inOne] = unlikeRespects({ test: [conditions()], baseline: [conditions()], changes: [step('B', 2)] });
  expect(inOne!.message).toMatch(/One step changes 2 things \(B change of B\).*cannot be split/);
  const [chain] = unlikeRespects({
    test: [conditions()],
    baseline: [conditions()],
    changes: [step('B', 1), step('C', 1)],
  });
  expect(chain!.message).toMatch(/differ in 2 steps/);
});

test('an order in blocks is a note, and with evident drift more', () => {
  const drift = {
    perRun: 0.4,
    halfWidth: 0.3,
    pValue: 0.2,
    adjusted: 1,
    adjustedHalfWidth: 3,
    widening: 3,
    apart: 3,
    separable: false,
    orderScatter: 4,
  };
  const two = { test: [conditions(), conditions()], baseline: [conditions(), conditions()] };
  expect(unlikeRespects({ ...two, drift })).toMatchObject([{ id: 'not-bracketed', severity: 'note' }]);
  expect(unlikeRespects({ ...two, drift: { ...drift, pValue: 0.01 } })).toMatchObject([{ severity: 'mind' }]);
  expect(unlikeRespects({ ...two, drift: { ...drift, separable: true, orderScatter: 4 } })).toEqual([]);
});

test('fuel that changed between the sides, within one, or had not settled', () => {
  const on = (ethanolPct: number, fuelMoving = false) => conditions({ ethanolPct, fuelMoving });
  const found = (test: RunConditions[], baseline: RunConditions[]) => unlikeRespects({ test, baseline });
  expect(found([on(10), on(10.6)], [on(9.8)])).toEqual([]);
  expect(found([on(30)], [on(10), on(10)])[0]).toMatchObject({
    id: 'other-ethanol',
    message: expect.stringMatching(/30 %.*10 %/),
  });
  expect(found([on(10), on(13), on(7)], [on(10)])[0]!.message).toMatch(/within a setup/);
  expect(found([on(10, true)], [on(10)])[0]!.id).toBe('fuel-moving');
});

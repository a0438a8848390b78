import { describe, expect, test } from '@jest/globals';
import type { Job, Run, Setup } from '../../../../contract/job/records.ts';
import type { RunFinding } from '../../../../core/judgement/run-findings.ts';
import { findingsOf } from './result-findings.ts';

const minute = (at: number) => new Date(Date.UTC(2026, 4, 4, 9, at)).toISOString();
const run = (id: number, at: number, oilC: number, over: Partial<Run> = {}) =>
  ({
    id,
    setupId: 1,
    kind: 'power',
    state: 'sealed',
    setAsideReason: null,
    startedAt: minute(at),
    endedAt: minute(at + 0.3),
    startTemperatures: { oilTemperature: oilC },
    remarks: [],
    ...over,
  }) as unknown as Run;
const baseline = { id: 1 } as Setup;
const usual = [run(1, 0, 85), run(2, 5, 86), run(3, 10, 84)];
const check = (
  id: string,
  severity: RunFinding['severity'],
  message: string,
  over: Partial<RunFinding> = {},
): RunFinding => ({ id, from: 'check', severity, message, weight: 1, limit: false, ...over });
const found = (run: Run, found: RunFinding[] = []) =>
  findingsOf({ job: { runs: [...usual, run] } as Job, run: run, baseline, found, unusable: undefined });

describe('what is said right after the lift', () => {
  test('of a run that started as the baseline’s did: nothing', () => {
    expect(found(run(9, 15, 85, { setupId: 2 }))).toEqual([]);
  });

  test('the gravest first, three of the log at most, and every broken limit', () => {
    const events = [1, 2, 3, 4].map((at) => check(`${at}`, 'mind', `event ${at}`, { from: 'log' }));
    const limits = [1, 2, 3, 4].map((at) => check(`${at}`, 'stop', `limit ${at}`, { from: 'log', limit: true }));
    const said = found(run(9, 15, 85, { setupId: 2 }), [
      check('slip', 'note', 'note'),
      check('hop', 'stop', 'hop'),
      ...limits,
      ...events,
    ]);
    expect(said.map(({ text }) => text)).toEqual([
      'hop',
      'limit 1',
      'limit 2',
      'limit 3',
      'limit 4',
      'event 1',
      'event 2',
      'event 3',
      'note',
    ]);
  });

  test('after a full cool-down the cold peak is told once, by its word', () => {
    const cold = run(9, 90, 60, { setupId: 2 });
    const said = found(cold, [check('start-temperature', 'mind', 'It started 25 K colder.')]);
    expect(said.map(({ text }) => text)).toEqual([expect.stringContaining('Cold peak')]);
  });

  test('otherwise by how many kelvin it started off the window', () => {
    const cool = run(9, 15, 76, { setupId: 2 });
    const said = found(cool, [check('start-temperature', 'mind', 'It started 8 K colder.')]);
    expect(said.map(({ text }) => text)).toEqual(['It started 8 K colder.']);
  });

  test('an interrupted run says what was kept, and one without a curve why', () => {
    const interrupted = run(9, 15, 85, { setupId: 2, state: 'interrupted' });
    const said = findingsOf({
      job: { runs: [...usual, interrupted] } as Job,
      run: interrupted,
      baseline,
      found: [],
      unusable: 'no sweep',
    });
    expect(said.map(({ text }) => text)).toEqual([
      'No curve can be made of this run: no sweep',
      'It was interrupted; everything that had arrived was kept.',
    ]);
  });
});

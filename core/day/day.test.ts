import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { callWords, lateWords, nextWords, shiftWords, sinceWords } from '../wording/day-words.ts';
import { bayRows, conflictsOf } from './bay-rows.ts';
import type { Booking, DayBay, DayFacts, DayJob, DayRun } from './day-facts.ts';
import { dayPicture } from './day-picture.ts';
import { waitingJobs } from './waiting-jobs.ts';
import { workedMs } from './worked-stretches.ts';

const at = (clock: string, day = 14) => `2026-05-${day}T${clock}:00.000Z`;
const ms = (clock: string) => Date.parse(at(clock));
const clock = (moment: number) => new Date(moment).toISOString().slice(11, 16);
const job = (id: number, over: Partial<DayJob> = {}): DayJob => ({
  id,
  vehicle: `Car ${id}`,
  plate: '',
  owner: `Owner ${id}`,
  contact: '07700',
  state: 'open',
  pausedFor: null,
  pausedWhy: '',
  pausedAt: null,
  expectedAt: null,
  closedAt: null,
  waiting: 'runs of C',
  sentAt: null,
  failed: [],
  failedAt: null,
  ...over,
});
const booking = (id: number, jobId: number | null, from: string, to: string, bay: number | null = 1): Booking => ({
  id,
  bay,
  jobId,
  title: jobId === null ? 'Somebody' : '',
  work: 'setup',
  startsAt: at(from),
  endsAt: at(to),
});
const run = (jobId: number, label: string, from: string, to: string, bay = 1): DayRun => ({
  jobId,
  letter: label[0]!,
  label,
  bay,
  startedAt: at(from),
  endedAt: at(to),
});
const facts = (over: Partial<DayFacts> = {}): DayFacts => ({
  bookings: [],
  jobs: [],
  runs: [],
  states: [],
  workTimes: [],
  ...over,
});
const bay = (jobId: number | null, number = 1): DayBay => ({ bay: number, name: `Bay ${number}`, jobId });

describe('what was worked', () => {
  const worked = (over: Partial<DayFacts>, mounted: number | null, now: string) =>
    bayRows(facts(over), [bay(mounted)], ms(now))[0]!.worked;

  test('is from the first run to the last; while the car is on the dyno, to now', () => {
    const runs = [run(1, 'A1', '09:00', '09:01'), run(1, 'A2', '09:10', '09:11'), run(1, 'B1', '09:30', '09:31')];
    const [done] = worked({ jobs: [job(1)], runs }, null, '11:00');
    expect([clock(done!.fromMs), clock(done!.toMs), done!.runWords, done!.goesOn]).toEqual([
      '09:00',
      '09:31',
      'A 2 · B 1',
      false,
    ]);
    const [still] = worked({ jobs: [job(1)], runs }, 1, '11:00');
    expect([clock(still!.toMs), still!.goesOn]).toEqual(['11:00', true]);
    // Another job on the dyno ends it.
    expect(worked({ jobs: [job(1)], runs }, 2, '11:00')[0]!.goesOn).toBe(false);
  });

  test('a pause stands by itself with its reason, and is no work', () => {
    const runs = [run(1, 'A1', '09:00', '09:01'), run(1, 'B1', '11:00', '11:01')];
    const states = [
      { jobId: 1, at: at('09:20'), state: 'paused' as const, why: 'hose' },
      { jobId: 1, at: at('10:40'), state: 'open' as const, why: '' },
    ];
    const parts = worked({ jobs: [job(1)], runs, states }, 1, '11:30');
    expect(parts.map(({ kind, fromMs, toMs, why }) => [kind, clock(fromMs), clock(toMs), why])).toEqual([
      ['work', '09:00', '09:20', ''],
      ['pause', '09:20', '10:40', 'hose'],
      ['work', '10:40', '11:30', ''],
    ]);
    expect(workedMs(parts)).toBe(70 * 60_000);
    // Paused now: the pause goes on.
    const paused = worked(
      { jobs: [job(1, { state: 'paused' })], runs: runs.slice(0, 1), states: states.slice(0, 1) },
      1,
      '12:00',
    );
    expect(paused.map(({ kind }) => kind)).toEqual(['work']);
  });

  test('what was put right by hand stands in the place of what the acts tell', () => {
    const runs = [run(1, 'A1', '09:00', '09:01')];
    const workTimes = [{ jobId: 1, bay: 1, startsAt: at('08:15'), endsAt: at('09:45'), why: 'mounting' }];
    expect(worked({ jobs: [job(1)], runs, workTimes }, 1, '12:00')).toMatchObject([
      { byHand: true, why: 'mounting', runWords: 'A 1', goesOn: false },
    ]);
  });
});

describe('what is to be expected', () => {
  const jobs = [job(1), job(2), job(3)];
  const bookings = [
    booking(10, 1, '09:00', '11:00'),
    booking(11, 2, '11:15', '12:45'),
    booking(12, 3, '13:15', '15:00'),
  ];
  const runs = [run(1, 'A1', '09:40', '09:41')];

  test('what began late ends late, and moves what follows as far as it must', () => {
    const [row] = bayRows(facts({ jobs, bookings, runs }), [bay(1)], ms('10:30'));
    const told = row!.booked.map(({ state, expectedFromMs, expectedToMs, lateMin }) => [
      state,
      clock(expectedFromMs),
      clock(expectedToMs),
      lateMin,
    ]);
    expect(told).toEqual([
      ['running', '09:40', '11:40', 40],
      ['to come', '11:40', '13:10', 25],
      ['to come', '13:15', '15:00', 0],
    ]);
  });

  test('what is over its time takes ten minutes more at least; a pause is added to it', () => {
    const late = bayRows(facts({ jobs, bookings, runs }), [bay(1)], ms('12:30'))[0]!.booked[0]!;
    expect([late.state, clock(late.expectedToMs)]).toEqual(['running', '12:40']);
    const states = [
      { jobId: 1, at: at('10:00'), state: 'paused' as const, why: '' },
      { jobId: 1, at: at('10:30'), state: 'open' as const, why: '' },
    ];
    const rested = bayRows(facts({ jobs, bookings, runs, states }), [bay(1)], ms('11:00'))[0]!.booked[0]!;
    expect(clock(rested.expectedToMs)).toBe('12:10');
  });

  test('off the dyno it is done; what should have begun has not, and what is past moves nothing', () => {
    const [row] = bayRows(facts({ jobs, bookings, runs }), [bay(null)], ms('13:00'));
    expect(row!.booked.map(({ state }) => state)).toEqual(['done', 'not begun', 'to come']);
    expect(row!.booked[2]!.lateMin).toBe(0);
    const begun = bayRows(facts({ jobs, bookings, runs }), [bay(null)], ms('12:00'))[0]!.booked;
    expect([clock(begun[1]!.expectedFromMs), clock(begun[2]!.expectedFromMs)]).toEqual(['12:00', '13:30']);
  });

  test('two bookings of one job on a day take the runs that lie nearest', () => {
    const twice = [booking(1, 1, '09:00', '10:00'), booking(2, 1, '14:00', '15:00')];
    const [row] = bayRows(
      facts({ jobs: [job(1)], bookings: twice, runs: [run(1, 'A1', '09:05', '09:06')] }),
      [bay(1)],
      ms('09:30'),
    );
    expect(row!.booked.map(({ state }) => state)).toEqual(['running', 'to come']);
  });

  test('nothing that follows in a bay begins before what stands there has ended, whatever is booked', () => {
    const spans = fc.array(fc.tuple(fc.integer({ min: 0, max: 1300 }), fc.integer({ min: 5, max: 300 })), {
      maxLength: 8,
    });
    fc.assert(
      fc.property(spans, fc.integer({ min: 0, max: 1440 }), (drawn, nowMin) => {
        const dayMs = ms('00:00');
        const moment = (minutes: number) => new Date(dayMs + minutes * 60_000).toISOString();
        const list = drawn.map(([from, length], id) => ({
          ...booking(id, null, '09:00', '10:00'),
          startsAt: moment(from),
          endsAt: moment(from + length),
        }));
        const nowMs = dayMs + nowMin * 60_000;
        const ahead = bayRows(facts({ bookings: list }), [bay(null)], nowMs)[0]!.booked.filter(
          ({ toMs }) => toMs >= nowMs,
        );
        ahead
          .slice(1)
          .forEach((next, index) => expect(next.expectedFromMs).toBeGreaterThanOrEqual(ahead[index]!.expectedToMs));
        for (const one of ahead) expect(one.expectedFromMs).toBeGreaterThanOrEqual(one.fromMs);
      }),
    );
  });

  test('a bay has one car and a car one place: conflicts are said on both; the floor has room', () => {
    const crossed = [
      booking(1, 1, '09:00', '10:00'),
      booking(2, 2, '09:30', '11:00'),
      booking(3, 1, '09:30', '09:45', 2),
      booking(4, 2, '12:00', '13:00', null),
      booking(5, 3, '12:00', '13:00', null),
    ];
    const found = conflictsOf({ bookings: crossed, jobs });
    expect(found.get(1)).toBe('the same car is booked elsewhere at this time');
    expect(found.get(2)).toBe('the bay is booked for Car 1 too');
    expect([found.has(4), found.has(5)]).toEqual([false, false]);
  });
});

describe('who waits', () => {
  test('for a part, a file, a repair, the owner; the longest first; overdue where it was promised', () => {
    const jobs = [
      job(1, {
        state: 'paused',
        pausedFor: 'part',
        pausedWhy: 'pulley',
        pausedAt: at('08:00', 8),
        expectedAt: at('09:00', 13),
      }),
      job(2, { sentAt: at('08:02') }),
      job(3, { failed: ['tyres', 'coolant leak'], failedAt: at('09:00') }),
      job(4, { failed: ['tyres'], failedAt: at('09:00') }),
      job(5),
      job(6, { state: 'closed', failed: ['x'] }),
      job(7, { state: 'paused', pausedFor: 'overnight', pausedAt: at('18:00', 13), expectedAt: at('18:00') }),
    ];
    const found = waitingJobs({ jobs }, [bay(4)], ms('10:42'));
    expect(found.map(({ job: { id }, what, isOverdue }) => [id, what, isOverdue])).toEqual([
      [1, 'a part (pulley)', true],
      [7, 'its cold start, stands overnight', false],
      [2, 'a file from the tuner', false],
      [3, 'a repair: tyres, coolant leak', false],
    ]);
  });
});

describe('the day in a look', () => {
  const jobs = [
    job(1, { vehicle: 'Tarrow Six' }),
    job(2, { vehicle: 'Hallam minibus', owner: 'Corrie Lines' }),
    job(3, {
      state: 'paused',
      pausedFor: 'collection',
      pausedAt: at('09:20'),
      vehicle: 'Ostrel 990',
      owner: 'J. Pellwick',
    }),
  ];
  const late = dayPicture(
    facts({
      jobs,
      bookings: [booking(1, 1, '09:00', '11:00'), booking(2, 2, '11:15', '12:45')],
      runs: [run(1, 'A1', '10:00', '10:01')],
    }),
    [bay(1)],
    ms('10:42'),
  );

  test('says what is next, how late it is, and whom to call', () => {
    expect(nextWords(late, clock, ms('10:42'))).toBe(
      'Runs of C, Tarrow Six on Bay 1. Then call Corrie Lines: Hallam minibus begins at 12:00, 45 min later.',
    );
    expect(lateWords(late, clock)).toBe('the day runs 1 h late; Hallam minibus will not begin before 12:00');
    expect(late.calls.map((call) => callWords(call, clock))).toEqual([
      'Call Corrie Lines: Hallam minibus begins at 12:00, 45 min later',
      'Call J. Pellwick: Ostrel 990 can be collected',
    ]);
    expect(shiftWords(late, clock).split('\n')).toEqual([
      'Bay 1: Tarrow Six. Next: runs of C.',
      'Ostrel 990 is finished and waits to be collected.',
      'Call Corrie Lines: Hallam minibus begins at 12:00, 45 min later.',
      'Next on Bay 1: Hallam minibus, booked for 11:15.',
    ]);
    expect(late.dynoMs).toEqual({ worked: 42 * 60_000, booked: 3.5 * 3_600_000 });
  });

  test('an empty day says so; a free bay names what comes', () => {
    const empty = dayPicture(facts(), [bay(null)], ms('10:00'));
    expect([nextWords(empty, clock, ms('10:00')), lateWords(empty, clock)]).toEqual([
      'Nothing is booked, nothing is on a dyno, nobody waits.',
      'the day is on time',
    ]);
    const ahead = dayPicture(facts({ jobs, bookings: [booking(1, 2, '11:00', '12:00')] }), [bay(null)], ms('10:00'));
    expect(nextWords(ahead, clock, ms('10:00'))).toMatch(/^Hallam minibus on Bay 1, at 11:00\./);
  });

  test('lasting is told in minutes, hours or days', () => {
    expect([5, 119, 160, 60 * 47, 60 * 24 * 6].map((minutes) => sinceWords(minutes * 60_000))).toEqual([
      '5 min',
      '1 h 59 min',
      '3 h',
      '47 h',
      '6 days',
    ]);
  });
});

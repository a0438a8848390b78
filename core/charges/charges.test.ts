import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { chargedHours, chargesText, proposals, sums, type ChargedJob, type Price } from './charges.ts';

const dayOf = (moment: string) => moment.slice(0, 10);
const run = (startedAt: string, endedAt: string) => ({
  jobId: 1,
  letter: 'A',
  label: 'A1',
  bay: 1,
  startedAt,
  endedAt,
});
const job = (over: Partial<ChargedJob> = {}): ChargedJob => ({
  id: 1,
  runs: [],
  states: [],
  workTimes: [],
  fuelAdded: [],
  tuneFiles: 0,
  ...over,
});
const prices: Price[] = [
  { name: 'Dyno', per: 'dyno hour', amount: 90, currency: '€' },
  { name: 'Work', per: 'work hour', amount: 60, currency: '€' },
  { name: 'E85', per: 'litre', amount: 1.05, currency: '€' },
];
const twoDays = [
  run('2026-05-13T10:00:00Z', '2026-05-13T10:01:00Z'),
  run('2026-05-13T12:00:00Z', '2026-05-13T12:06:00Z'),
  run('2026-05-14T09:00:00Z', '2026-05-14T09:30:00Z'),
];

test('hours are those of each day from the first run to the last; a night or a pause in between costs nothing', () => {
  expect(chargedHours(job({ runs: twoDays }), dayOf).dyno).toBeCloseTo(2.6, 6);
  const states = [
    { jobId: 1, at: '2026-05-13T10:30:00Z', state: 'paused' as const, why: 'hose' },
    { jobId: 1, at: '2026-05-13T11:30:00Z', state: 'open' as const, why: '' },
  ];
  expect(chargedHours(job({ runs: twoDays, states }), dayOf).dyno).toBeCloseTo(1.6, 6);
  const floor = {
    jobId: 1,
    bay: null,
    startsAt: '2026-05-12T08:00:00Z',
    endsAt: '2026-05-12T10:00:00Z',
    why: 'fitted the pulley',
  };
  expect(chargedHours(job({ runs: twoDays, workTimes: [floor] }), dayOf)).toEqual({
    dyno: expect.closeTo(2.6, 6),
    work: expect.closeTo(4.6, 6),
  });
});

test('is proposed by the acts and the price list, in quarters of an hour; what has no price is left out', () => {
  const told = proposals(
    job({ runs: twoDays, fuelAdded: [{ litres: 24 }, { litres: null }, { litres: 6.5 }], tuneFiles: 2 }),
    prices,
    dayOf,
  );
  expect(told.map(({ what, quantity, amount }) => [what, quantity, amount])).toEqual([
    ['Dyno', 2.75, 90],
    ['Work', 2.75, 60],
    ['E85', 30.5, 1.05],
  ]);
  expect(proposals(job(), prices, dayOf)).toEqual([]);
});

test('adds up to the cent whatever the lines, currencies apart', () => {
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.integer({ min: 1, max: 400 }), fc.integer({ min: 0, max: 100_000 }))), (drawn) => {
      const lines = drawn.map(([quarters, cents]) => ({
        what: 'x',
        per: 'piece' as const,
        quantity: quarters,
        amount: cents / 100,
        currency: '€',
      }));
      const cents = drawn.reduce((sum, [quantity, each]) => sum + quantity * each, 0);
      expect(sums(lines)).toEqual(drawn.length === 0 ? [] : [{ currency: '€', amount: cents / 100 }]);
    }),
  );
  const mixed = [
    { what: 'Dyno', per: 'dyno hour' as const, quantity: 2.5, amount: 90, currency: '€' },
    { what: 'Pulley', per: 'piece' as const, quantity: 1, amount: 140, currency: '$' },
  ];
  expect(chargesText(mixed)).toBe(
    'Dyno: 2.5 h at 90.00 € = 225.00 €\nPulley: 1 × at 140.00 $ = 140.00 $\nSum: 225.00 €\nSum: 140.00 $',
  );
});

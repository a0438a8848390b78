import { written } from '../sentence/sentence.ts';
import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { mixed } from './blend.ts';
import { explanations, ledgerFindings } from './ledger-checks.ts';
import type { FuelEntry } from './ledger.ts';

let minute = 0;
const entry = (kind: FuelEntry['kind'], litres: number | null, ethanolPct: number | null, name = ''): FuelEntry => ({
  kind,
  litres,
  ethanolPct,
  name,
  at: new Date(Date.UTC(2026, 4, 4, 9, minute++)),
});
const ids = (entries: FuelEntry[], tank: number | null = 45) => ledgerFindings(entries, tank).map(({ id }) => id);

test('a ledger that fits says nothing, whatever is not known', () => {
  expect(
    ids([entry('arrived', 20, 8), entry('added', 20, 85), entry('measured', null, 45), entry('measured', null, 46)]),
  ).toEqual([]);
  expect(ids([entry('arrived', null, 8), entry('added', 60, 85)])).toEqual([]);
  expect(
    ids([entry('arrived', 20, null), entry('added', 10, 85), entry('measured', null, 60), entry('measured', null, 60)]),
  ).toEqual([]);
  expect(ids([entry('arrived', 20, 8), entry('added', 50, 85)], null)).toEqual([]);
  expect(ids([])).toEqual([]);
});

test('more than the tank takes, and more drained than was in it', () => {
  const [over] = ledgerFindings([entry('arrived', 20, 8), entry('added', 40, 85, 'E85')], 45);
  expect(written(over!.message)).toBe(
    'With 40 L of E85 added there would be 60 L in a tank of 45 L: a volume is wrong, or what was drained is not written down.',
  );
  expect(ids([entry('arrived', 46, 8)])).toEqual([]);
  expect(ids([entry('arrived', 60, 8)])).toEqual(['over-tank']);
  expect(ids([entry('arrived', 20, 8), entry('drained', 30, null)])).toEqual(['over-drained']);
});

test('a reading that settled elsewhere names the residue and the pump content that it implies, once', () => {
  const ledger = [
    entry('arrived', 10, 10),
    entry('added', 30, 85),
    entry('measured', null, 55),
    entry('measured', null, 60),
    entry('measured', null, 60.4),
  ];
  const [said, ...rest] = ledgerFindings([...ledger, entry('measured', null, 60.2)], 45);
  expect(rest).toEqual([]);
  expect(written(said!.message)).toMatch(
    /settled at 60\.4 % ethanol, and what is written down makes 66\.3 %: 14\.6 L were in the tank before rather than 10 L, or the pump gave 77\.2 % rather than 85 %/,
  );
  // Not settled yet: nothing is concluded.
  expect(ledgerFindings(ledger.slice(0, 4), 45)).toEqual([]);
});

test('what is implied makes the reading', () => {
  const litres = fc.double({ min: 1, max: 60, noNaN: true });
  fc.assert(
    fc.property(
      litres,
      litres,
      fc.double({ min: 0, max: 30, noNaN: true }),
      fc.double({ min: 40, max: 100, noNaN: true }),
      fc.double({ min: 31, max: 39, noNaN: true }),
      (r, a, q, c, read) => {
        const [byResidue, byPump] = explanations({ litres: r, ethanolPct: q }, { litres: a, ethanolPct: c }, read).map(
          (cause) => written(cause),
        );
        // A residue that no tank holds explains nothing.
        fc.pre(/ L were in the tank/.test(byResidue ?? ''));
        const left = Number(/^([\d.]+) L/.exec(byResidue!)![1]);
        // To a tenth of a litre, as it is said.
        const around = [left - 0.05, left + 0.05].map(
          (litres) => mixed({ litres: Math.max(0, litres), ethanolPct: q }, { litres: a, ethanolPct: c }).ethanolPct,
        );
        expect(read).toBeGreaterThanOrEqual(around[1]! - 1e-9);
        expect(read).toBeLessThanOrEqual(around[0]! + 1e-9);
        if (byPump) expect(byPump).toMatch(/^the pump gave [\d.]+ %/);
      },
    ),
  );
});

import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { drawnErrors, partLoadDrive } from '../testing/part-load-drive.ts';
import { cellCount, dealerOf, noShares, type FuellingAxes } from './axes.ts';
import { fitCorners } from './corner-fit.ts';
import { fuellingTable, joinedFuelling, usualFuelling } from './fuelling-table.ts';
import { nextCell } from './next-cell.ts';
import { knowledgeOf, progressOf, proposedMultiplier, standingOf } from './standing.ts';
import { shortOrWhole } from '../testing/short-or-whole.ts';

const axes: FuellingAxes = {
  across: { channel: 'engineSpeed', breakpoints: [1500, 2000, 2500, 3000, 3500, 4000, 4500] },
  down: { channel: 'manifoldPressure', breakpoints: [35, 50, 65, 80, 95] },
};
const cells = cellCount(axes);
/** What the generator's probe has: looking for it takes most of the time, and is tested by itself. */
const typed = { ...usualFuelling, delay: { transportS: 0.145, lagS: 0.1 } };
const level = (error: number) => new Array<number>(cells).fill(error);
/** Spread of a second's mean of the generator's noise, as a share, and blocks that a hold of 4 s leaves. */
const noise = 0.0031;
const blocks = 3;

describe('fuelling errors over a table', () => {
  it('tells a known table of errors as well as noise and count allow, without bias, its intervals true', () => {
    const drives = shortOrWhole(4, 6);
    const bias = new Float64Array(cells);
    let [squares, covered, told] = [0, 0, 0];
    for (let seed = 1; seed <= drives; seed++) {
      const errors = drawnErrors(axes, seed);
      const { log } = partLoadDrive({
        axes,
        errors,
        seed,
        trims: seed % 2 === 0,
        lambdaTarget: (_, kpa) => (seed % 3 === 0 && kpa > 85 ? 0.9 : 1),
      });
      fuellingTable(log, axes, shortOrWhole(typed, usualFuelling)).cells.forEach((cell, at) => {
        expect(knowledgeOf(cell)).toBe('known');
        const off = cell.error - errors[at]!;
        bias[at]! += off / drives;
        squares += off ** 2;
        told++;
        if (Math.abs(off) <= cell.halfWidth) covered++;
      });
    }
    expect(Math.sqrt(squares / told)).toBeLessThan((1.3 * noise) / Math.sqrt(blocks));
    expect(Math.abs(bias.reduce((sum, value) => sum + value, 0) / cells)).toBeLessThan(0.001);
    expect(covered / told).toBeGreaterThan(0.91);
    expect(covered / told).toBeLessThan(0.985);
  });

  it('finds the delay within 20 ms where the mixture moves enough, and says where it does not', () => {
    for (const volumeS of shortOrWhole([0.25], [0.12, 0.25, 0.4])) {
      for (let seed = 1; seed <= shortOrWhole(1, 2); seed++) {
        const errors = level(0).map((_, cell) => (((cell % 7) + Math.floor(cell / 7)) % 2 ? 0.06 : -0.04));
        const { log, delayS } = partLoadDrive({ axes, errors, seed, volumeS });
        const { foundDelay, delayFrom } = fuellingTable(log, axes);
        expect(delayFrom).toBe('found');
        expect(Math.abs(foundDelay!.transportS + foundDelay!.lagS - delayS)).toBeLessThan(0.02);
      }
    }
    const even = fuellingTable(partLoadDrive({ axes, errors: level(0.03), seed: 4 }).log, axes);
    expect(even.delayFrom).toBe('usual');
    expect(even.foundDelay!.known).toBe(false);
    expect(even.cells[10]!.error).toBeCloseTo(0.03, 2);
  });

  it('takes a typed delay as it is', () => {
    const delay = { transportS: 0.2, lagS: 0.08 };
    const told = fuellingTable(partLoadDrive({ axes, errors: level(0), seed: 1 }).log, axes, {
      ...usualFuelling,
      delay,
    });
    expect(told).toMatchObject({ delay, delayFrom: 'typed', foundDelay: null });
  });

  it('is within 1 % with confidence after fewer than four revisions, and does not ring', () => {
    const truth = drawnErrors(axes, 21).map((error, cell) => error + (cell === 16 ? 0.09 : 0));
    let fuel = level(1);
    const worst: number[] = [];
    let done = 0;
    for (let revision = 0; revision < 4; revision++) {
      // Lean by what is needed over what is given.
      const errors = truth.map((error, cell) => (1 + error) / fuel[cell]! - 1);
      worst.push(Math.max(...errors.map(Math.abs)));
      const first = fuellingTable(partLoadDrive({ axes, errors, seed: 30 + revision, holdS: 6 }).log, axes, typed);
      // What is still open is held once more, as the map asks for it.
      const points = first.cells.flatMap((cell, at) =>
        standingOf(cell) === 'within 1 %'
          ? []
          : [{ rpm: axes.across.breakpoints[at % 7]!, kpa: axes.down!.breakpoints[Math.floor(at / 7)]! }],
      );
      const again =
        points.length > 0
          ? [fuellingTable(partLoadDrive({ axes, errors, seed: 60 + revision, holdS: 10, points }).log, axes, typed)]
          : [];
      const told = joinedFuelling([first, ...again])!;
      done = progressOf(told.cells).within1;
      if (done === cells) break;
      fuel = fuel.map((value, cell) => value * proposedMultiplier(told.cells[cell]!));
    }
    expect(done).toBe(cells);
    expect(worst.length).toBeLessThanOrEqual(4);
    worst.slice(1).forEach((value, at) => expect(value).toBeLessThan(worst[at]!));
  });

  it('leaves alone what was not driven, and names it to be driven next', () => {
    const points = [1500, 2000, 2500].map((rpm) => ({ rpm, kpa: 35 }));
    const told = fuellingTable(partLoadDrive({ axes, errors: level(0.08), seed: 2, points }).log, axes, typed);
    const progress = progressOf(told.cells);
    expect(progress.empty).toBeGreaterThan(25);
    told.cells.forEach((cell) => {
      if (knowledgeOf(cell) !== 'known') expect(proposedMultiplier(cell)).toBe(1);
      else expect(proposedMultiplier(cell)).toBeCloseTo(1.064, 2);
    });
    const visit = nextCell(axes, told.cells, told.delay, { across: 2480, down: 36 })!;
    // The load is raised one step at a time, however near a higher one lies.
    expect(visit.down).toBeLessThanOrEqual(50);
    expect(knowledgeOf(told.cells[visit.cell]!)).not.toBe('known');
    expect(visit.holdS).toBeGreaterThanOrEqual(4);
  });

  it('caps a step, and takes nothing from what cannot be told from no error', () => {
    const cell = { error: 0.4, halfWidth: 0.01, spread: 0.004, effectiveCount: 5, samples: 200, seconds: 4 };
    expect(proposedMultiplier(cell)).toBe(1.1);
    expect(proposedMultiplier({ ...cell, error: -0.4 })).toBe(0.9);
    expect(proposedMultiplier({ ...cell, error: 0.012, halfWidth: 0.015 })).toBe(1);
    expect(proposedMultiplier({ ...cell, seconds: 1 })).toBe(1);
    expect(standingOf({ ...cell, error: 0.02, halfWidth: 0.005 })).toBe('beyond 1 %');
    expect(standingOf({ ...cell, error: 0.001, halfWidth: 0.005 })).toBe('within 1 %');
    expect(standingOf({ ...cell, error: 0.03, halfWidth: 0.005 })).toBe('beyond 1 %');
    expect(standingOf({ ...cell, error: 0.029, halfWidth: 0.024 })).toBe('open');
  });

  it('keeps out fuel cut, a probe that stands still and what lies off the table, and says how much of each', () => {
    const { log } = partLoadDrive({ axes, errors: level(0.02), seed: 3 });
    const lambda = log.channels.get('lambda')!.slice();
    const throttle = log.channels.get('throttle')!.slice();
    lambda.fill(1.01, 0, 400);
    for (let index = 1000; index < 1200; index++) [lambda[index], throttle[index]] = [1.45 + 0.001 * (index % 7), 0];
    const rpm = log.engineSpeedRpm.map((value, index) => (index > 4000 && index < 4400 ? 7000 : value));
    const faulty = {
      ...log,
      engineSpeedRpm: rpm,
      channels: new Map([...log.channels, ['lambda', lambda], ['throttle', throttle]] as const),
    };
    const told = fuellingTable(faulty, axes, typed);
    for (const reason of ['probe', 'fuel cut', 'off the table', 'transient', 'settling'] as const)
      expect(told.keptOutS[reason]).toBeGreaterThan(1);
    told.cells.forEach(
      (cell) => knowledgeOf(cell) === 'known' && expect(Math.abs(cell.error - 0.02)).toBeLessThan(0.015),
    );
  });

  it('joins two drives of the same state', () => {
    const drive = (seed: number) => fuellingTable(partLoadDrive({ axes, errors: level(0.02), seed }).log, axes, typed);
    const [one, other] = [drive(5), drive(6)];
    const both = joinedFuelling([one, other])!;
    expect(both.usedS).toBeCloseTo(one.usedS + other.usedS, 6);
    const width = ({ cells }: typeof one) => cells.reduce((sum, { halfWidth }) => sum + halfWidth, 0);
    expect(width(both)).toBeLessThan(0.85 * Math.max(width(one), width(other)));
  });

  it('joins drives that were dealt to the nearest breakpoint without holding neighbours together', () => {
    const nearest = { ...typed, dealing: { by: 'nearest', tolerance: 0.3 } } as const;
    const drive = (seed: number) =>
      fuellingTable(partLoadDrive({ axes, errors: drawnErrors(axes, 9), seed }).log, axes, nearest);
    const both = joinedFuelling([drive(7), drive(8)])!;
    expect(both.cells).toEqual(fitCorners(axes, both.readings, false));
    expect(both.cells).not.toEqual(fitCorners(axes, both.readings, true));
  });

  it('refuses a log without λ, or without what the table is laid over', () => {
    const { log } = partLoadDrive({ axes, errors: level(0), seed: 1, points: [{ rpm: 2000, kpa: 50 }] });
    const without = (name: string) => ({
      ...log,
      channels: new Map([...log.channels].filter(([channel]) => channel !== name)),
    });
    expect(() => fuellingTable(without('lambda'), axes)).toThrow(/no λ/);
    expect(() => fuellingTable(without('manifoldPressure'), axes)).toThrow(/no Manifold pressure/);
  });
});

describe('dealing to cells', () => {
  it('gives whole shares to corners around a point, and nothing off the table', () => {
    const deal = dealerOf(axes, { by: 'corners' });
    const shares = noShares();
    fc.assert(
      fc.property(
        fc.double({ min: 1400, max: 4600, noNaN: true }),
        fc.double({ min: 32, max: 98, noNaN: true }),
        (rpm, kpa) => {
          deal(rpm, kpa, shares);
          const given = Array.from(shares.shares.subarray(0, shares.count));
          expect(given.reduce((sum, share) => sum + share, 0)).toBeCloseTo(1, 9);
          // The shares' own place is the point, held to the table's edge.
          const place = given.reduce(
            (sum, share, at) => sum + share * axes.across.breakpoints[shares.cells[at]! % 7]!,
            0,
          );
          expect(place).toBeCloseTo(Math.max(1500, Math.min(4500, rpm)), 6);
        },
      ),
    );
    deal(6000, 60, shares);
    expect(shares.count).toBe(0);
  });

  it('by the nearest breakpoint takes only what is near one', () => {
    const deal = dealerOf(axes, { by: 'nearest', tolerance: 0.2 });
    const shares = noShares();
    deal(2090, 52, shares);
    expect([shares.count, shares.cells[0]]).toEqual([1, 8]);
    deal(2250, 52, shares);
    expect(shares.count).toBe(0);
  });
});

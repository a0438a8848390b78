import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { Refusal } from '../refusal.ts';
import { crankAssumption, crankKw, crankLossOfCoast, readCrankLoss, writeCrankLoss, type CrankLoss } from './crank.ts';

describe('crank estimate', () => {
  test('15 % of the crank’s power lost: 85 at the wheels are 100; with 3 kW beside it, 82 are', () => {
    expect(crankKw(85, { from: 'assumed', share: 0.15, fixedKw: 0 }, 0)).toBeCloseTo(100, 9);
    expect(crankKw(82, { from: 'assumed', share: 0.15, fixedKw: 3 }, 0)).toBeCloseTo(100, 9);
  });

  test('a coast-down adds its torque at the drum’s speed, and never takes any away', () => {
    const loss: CrankLoss = {
      from: 'coast-down',
      label: 'A6',
      driveline: { aNm: 20, bNmPerRadS: 0.2, cNmPerRadS2: 0 },
    };
    expect(crankKw(90, loss, 100)).toBeCloseTo(90 + (40 * 100) / 1000, 9);
    expect(crankKw(90, { ...loss, driveline: { aNm: -5, bNmPerRadS: 0, cNmPerRadS2: 0 } }, 100)).toBe(90);
    expect(crankAssumption(loss)).toBe('coast-down A6, a lower bound');
  });

  test('what grows with the square of the speed counts, and the machine’s own losses are taken off each part', () => {
    const estimate = (value: number) => ({ value });
    const loss = crankLossOfCoast(
      { aNm: estimate(20), bNmPerRadS: estimate(0.3), cNmPerRadS2: estimate(0.005) },
      { parasitic: { aNm: 5, bNmPerRadS: 0.1, cNmPerRadS2: 0.002 } },
      'A6',
    );
    // 15 + 0.2 · 100 + 0.003 · 100² = 65 N·m at 100 rad/s.
    expect(crankKw(90, loss, 100)).toBeCloseTo(96.5, 9);
    expect(crankKw(90, loss, 200)).toBeCloseTo(90 + (15 + 40 + 120) * 0.2, 9);
  });

  test('what is written is read again', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 500 }), fc.integer({ min: 0, max: 1000 }), (tenths, kwTenths) => {
        const [share, fixedKw] = [tenths / 1000, kwTenths / 10];
        const loss = readCrankLoss(writeCrankLoss(share, fixedKw)) as CrankLoss & { from: 'assumed' };
        expect(loss.share).toBeCloseTo(share, 9);
        expect(loss.fixedKw).toBeCloseTo(fixedKw, 9);
      }),
    );
  });

  test('says what it rests on', () => {
    expect(crankAssumption(readCrankLoss('12.5+3'))).toBe('12.5 % and 3 kW lost, assumed');
    expect(crankAssumption(readCrankLoss('15'))).toBe('15 % lost, assumed');
  });

  test.each(['', 'a lot', '-3', '60', '15+200', '15+', '1e1'])('refuses %j with a sentence', (text) => {
    expect(() => readCrankLoss(text)).toThrow(Refusal);
    expect(() => readCrankLoss(text)).toThrow(/percent/);
  });
});

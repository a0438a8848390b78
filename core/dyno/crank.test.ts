import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { Refusal } from '../refusal.ts';
import { crankAssumption, crankKw, readCrankLoss, writeCrankLoss, type CrankLoss } from './crank.ts';

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

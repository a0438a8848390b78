import { phrasesText } from '../../wording/gain-sentence.ts';
import { describe, expect, test } from '@jest/globals';
import { preparedSweep } from '../../reduction/prepared-sweep.ts';
import { Refusal } from '../../refusal.ts';
import { generatedRun } from '../../testing/generated-run.ts';
import { testDyno, truePowerKw } from '../../testing/test-car.ts';
import { unknownEngine } from '../../log/pull/run-log.ts';
import type { FiguredRun } from '../runs/figured-run.ts';
import { resolvedFigures } from '../resolved-figures.ts';
import type { ResolvedRequest } from '../runs/resolved-request.ts';
import { type BorrowedCurve, borrowedRunCurves } from '../request/borrowed-curve.ts';

const runs = [1, 2, 3].map((id): FiguredRun => ({
  id,
  setupId: 1,
  counted: true,
  sweep: preparedSweep(generatedRun({ seed: id, speedNoise: 0.006 }), testDyno),
  air: undefined,
  engine: unknownEngine,
  conditions: { label: `A${id}`, dyno: testDyno, hasAir: false, startedAt: new Date(Date.UTC(2026, 4, 4, 9, id)) },
}));
const sheet = (over: Partial<BorrowedCurve> = {}): BorrowedCurve => ({
  name: 'maker’s sheet',
  origin: 'brochure',
  scale: 'wheels',
  // 2 kW less than the truth everywhere.
  points: [2500, 3000, 3500, 4000, 4500, 5000, 5500].map((rpm) => [rpm, truePowerKw(rpm) - 2]),
  ...over,
});
const figures = (borrowed: BorrowedCurve, over: Partial<ResolvedRequest> = {}) =>
  resolvedFigures(runs, {
    setups: [{ id: 1, letter: 'A' }],
    baselineId: 1,
    testId: 1,
    againstId: 0,
    borrowed,
    settings: { standard: 'none', share: 1, spanRpm: 300, gridRpm: 25 },
    powerUnit: 'kW',
    ...over,
  });

describe('a borrowed curve', () => {
  const { comparison, borrowed } = figures(sheet(), { atRpm: 4000 });

  test('differences are shown over what both cover', () => {
    expect([comparison!.power.fromRpm, comparison!.power.toRpm]).toEqual([2500, 5500]);
    expect(comparison!.power.gain[comparison!.power.engineSpeedRpm.indexOf(4000)]).toBeCloseTo(2, 0);
    expect(borrowed!.power.engineSpeedRpm[0]).toBe(2500);
  });

  test('nothing is said of how sure they are: no interval, no verdict, no span', () => {
    expect(comparison!.withheld).toBe(true);
    expect(comparison!.rows.every(({ halfWidth, verdict }) => Number.isNaN(halfWidth) && verdict === 'none')).toBe(
      true,
    );
    expect(comparison!.power.clearStretches).toEqual([]);
    expect(comparison!.power.gainHalfWidth.every(Number.isNaN)).toBe(true);
    expect(phrasesText(comparison!.sentence)).toMatch(
      /^A reads \+\d\.\d kW against maker’s sheet from 2,500 to 5,500 rpm, but not like for like, a borrowed curve, for orientation only: no verdict\.$/,
    );
  });

  test('its origin is told, and a curve on the other scale says so', () => {
    expect(comparison!.unlike[0]!.message).toContain('brochure');
    expect(comparison!.unlike.map(({ id }) => id)).not.toContain('other-scale');
    expect(figures(sheet({ scale: 'crank' })).comparison!.unlike.map(({ id }) => id)).toContain('other-scale');
  });

  test('never among the job’s own gains', () => {
    expect(figures(sheet()).setups.every(({ onBaseline, onParent }) => !onBaseline && !onParent)).toBe(true);
  });

  test('one that shares no range with the runs is refused with a sentence', () => {
    expect(
      figures(
        sheet({
          points: [
            [9000, 90],
            [9500, 91],
          ],
        }),
      ).noComparison,
    ).toMatch(/share no range/);
    expect(() =>
      borrowedRunCurves(
        sheet({
          points: [
            [3001, 40],
            [3002, 41],
          ],
        }),
        25,
      ),
    ).toThrow(Refusal);
  });
});

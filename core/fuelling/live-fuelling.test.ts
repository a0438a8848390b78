import { describe, expect, test } from '@jest/globals';
import { drawnErrors, partLoadDrive } from '../testing/part-load-drive.ts';
import type { FuellingAxes } from './axes.ts';
import { fuellingTable, usualFuelling } from './fuelling-table.ts';
import { LiveFuelling } from './live-fuelling.ts';
import { knowledgeOf } from './standing.ts';

const axes: FuellingAxes = {
  across: { channel: 'engineSpeed', breakpoints: [1500, 2000, 2500, 3000, 3500] },
  down: { channel: 'manifoldPressure', breakpoints: [35, 50, 65, 80] },
};
const settings = { ...usualFuelling, delay: { transportS: 0.15, lagS: 0.1 } };
const columns = ['time', 'engineSpeed', 'manifoldPressure', 'lambda', 'lambdaTarget', 'throttle', 'logger:engineSpeed'];

/** A drive row by row, at 100 Hz as a dyno sends them. */
function* rowsOf(seed: number) {
  const { log } = partLoadDrive({ axes, errors: drawnErrors(axes, 3), seed, rateHz: 100, holdS: 6 });
  for (let index = 0; index < log.time.length; index++)
    yield Float64Array.of(
      log.time[index]!,
      log.engineSpeedRpm[index]!,
      ...columns.slice(2, 6).map((name) => log.channels.get(name)![index]!),
      0,
    );
}

describe('a table that fills while driving', () => {
  test('comes to what the whole log shows, and keeps little of it', () => {
    const live = new LiveFuelling(columns, axes, settings);
    let rows = 0;
    let told: ReturnType<LiveFuelling['table']>;
    for (const row of rowsOf(1)) {
      live.push(row);
      if (++rows % 100 === 0) told = live.table();
    }
    told = live.table();
    const whole = fuellingTable(
      partLoadDrive({ axes, errors: drawnErrors(axes, 3), seed: 1, rateHz: 100, holdS: 6 }).log,
      axes,
      settings,
    );
    expect(told!.usedS).toBeGreaterThan(0.93 * whole.usedS);
    expect(told!.usedS).toBeLessThan(1.02 * whole.usedS);
    told!.cells.forEach((cell, at) => {
      expect(knowledgeOf(cell)).toBe('known');
      expect(Math.abs(cell.error - whole.cells[at]!.error)).toBeLessThan(0.004);
    });
  });

  test('grows from nothing, and names where the engine is', () => {
    const live = new LiveFuelling(columns, axes, settings);
    expect(live.table()).toBeUndefined();
    expect(live.latest('engineSpeed')).toBeUndefined();
    let known = 0;
    let rows = 0;
    for (const row of rowsOf(2)) {
      live.push(row);
      if (++rows % 1000 !== 0) continue;
      const now = live.table()!.cells.filter((cell) => knowledgeOf(cell) === 'known').length;
      expect(now).toBeGreaterThanOrEqual(known);
      known = now;
    }
    expect(known).toBeGreaterThan(15);
    expect(live.latest('engineSpeed')).toBeGreaterThan(1000);
    expect(live.latest('lambda')).toBeGreaterThan(0.8);
  });

  test('says what does not come', () => {
    const live = new LiveFuelling(['time', 'engineSpeed'], axes, settings);
    for (let index = 0; index < 10; index++) live.push(Float64Array.of(index / 50, 2000));
    expect(() => live.table()).toThrow(/no λ/);
  });
});

import { describe, expect, test } from '@jest/globals';
import { cruiseFuel, cruiseRun, idleRun, roadDrive, startRun, transientRun } from '../testing/kind-runs.ts';
import { coldStartFigures } from './cold-start.ts';
import { cruiseFigures } from './cruise.ts';
import { idleFigures } from './idle.ts';
import type { RunFigures } from './run-figure.ts';
import { passages, roadCheckFigures } from './road-check.ts';
import { transientFigures } from './transient.ts';

const alone = (own: ReturnType<typeof idleRun>) => ({ own, beside: [] });
const valueOf = ({ figures }: RunFigures, id: string) => figures.find((one) => one.id === id)?.value;
const found = ({ found: list }: RunFigures) => list.map(({ id }) => id);

describe('idle', () => {
  test('a quiet one says its speed and finds nothing, whatever the luck', () => {
    for (let seed = 1; seed <= 20; seed++) {
      const told = idleFigures(alone(idleRun({ seed })));
      expect(found(told)).toEqual([]);
      expect(valueOf(told, 'idle-speed')).toBeCloseTo(860, -1);
      expect(valueOf(told, 'hunting-amplitude')).toBe(0);
      expect(valueOf(told, 'dips')).toBeLessThan(2);
    }
  });

  test('hunting is told with its period and amplitude, not as a misfire', () => {
    for (const periodS of [1.2, 2.3, 5]) {
      const told = idleFigures(alone(idleRun({ seed: 2, swing: { rpm: 50, periodS } })));
      expect(found(told)).toEqual(['idle-hunts']);
      expect(valueOf(told, 'hunting-period')! / periodS).toBeCloseTo(1, 1);
      expect(valueOf(told, 'hunting-amplitude')).toBeCloseTo(50, -1);
    }
  });

  test('a misfire is told by its dips, false air by the mixture', () => {
    const told = idleFigures(alone(idleRun({ seed: 3, dips: 16 })));
    expect(found(told)).toEqual(['idle-dips']);
    expect(valueOf(told, 'dips')).toBeGreaterThan(8);
    expect(found(idleFigures(alone(idleRun({ seed: 4, lambda: 1.09 }))))).toEqual(['idle-lean']);
  });

  test('is refused where it is too short, or the speed was not logged', () => {
    expect(() => idleFigures(alone(idleRun({ seed: 1, seconds: 8 })))).toThrow(/15 s at least/);
    expect(() => idleFigures(alone({ time: Float64Array.of(0, 1), channels: [] }))).toThrow(/logged engine speed/);
  });
});

describe('cold start', () => {
  test('tells cranking, voltage, flare, idle and when it was steady', () => {
    const told = coldStartFigures(alone(startRun({ seed: 1 })));
    expect(found(told)).toEqual([]);
    expect(valueOf(told, 'cranking-time')).toBeCloseTo(0.93, 1);
    expect(valueOf(told, 'lowest-voltage')).toBeCloseTo(10.5, 0);
    expect(valueOf(told, 'start-coolant')).toBeCloseTo(12, 1);
    expect(valueOf(told, 'flare')).toBeGreaterThan(300);
    expect(valueOf(told, 'idle-speed')).toBeCloseTo(1150, -2);
    expect(valueOf(told, 'steady-after')).toBeLessThan(5);
    expect(valueOf(told, 'stalls')).toBe(0);
  });

  test('a weak battery, long cranking and stalls are found', () => {
    const told = coldStartFigures(alone(startRun({ seed: 2, lowestV: 8.4, crankingS: 3.4, stalls: 2 })));
    expect(found(told)).toEqual(['weak-battery', 'long-cranking', 'stalled']);
    expect(valueOf(told, 'stalls')).toBe(2);
  });

  test('the key turned off after the run is no stall, whether it had idled steadily or not; one soon after the start is', () => {
    const cut = (atS: number, offS: number) => {
      const { time, channels } = startRun({ seed: 3 });
      const kept = time.filter((s) => s < atS + offS);
      return {
        time: kept,
        channels: channels.map(({ name, unit, values }) => ({
          name,
          unit,
          values: values
            .slice(0, kept.length)
            .map((value, at) => (name === 'engineSpeed' && kept[at]! > atS ? 0 : value)),
        })),
      };
    };
    expect(valueOf(coldStartFigures(alone(cut(15, 3))), 'stalls')).toBe(0);
    expect(valueOf(coldStartFigures(alone(cut(33, 4))), 'stalls')).toBe(0);
    expect(valueOf(coldStartFigures(alone(cut(6, 12))), 'stalls')).toBe(1);
  });

  test('a recording that begins too late, or without a start, says so', () => {
    const whole = startRun({ seed: 1 });
    const late = {
      time: whole.time.slice(300),
      channels: whole.channels.map((channel) => ({ ...channel, values: channel.values.slice(300) })),
    };
    expect(() => coldStartFigures(alone(late))).toThrow(/turning already/);
    const off = {
      ...whole,
      channels: whole.channels.map((channel) =>
        channel.name === 'engineSpeed' ? { ...channel, values: channel.values.map(() => 0) } : channel,
      ),
    };
    expect(() => coldStartFigures(alone(off))).toThrow(/never turned/);
  });
});

describe('response to the throttle', () => {
  test('times of torque and boost are those that were put in', () => {
    for (const [torqueS, boostS] of [
      [0.15, 0.3],
      [0.3, 0.8],
    ] as const) {
      const { recording, wheels } = transientRun({ seed: 5, torqueS, boostS });
      const told = transientFigures(alone(recording), wheels);
      // Of the way from before; half of the throttle's own step is before its middle.
      expect(valueOf(told, 'torque-90')! - torqueS * Math.log(10)).toBeLessThan(0.1);
      expect(valueOf(told, 'torque-90')! - torqueS * Math.log(10)).toBeGreaterThan(-0.1);
      expect(Math.abs(valueOf(told, 'boost-90')! - boostS * Math.log(10))).toBeLessThan(0.12);
      expect(valueOf(told, 'boost-plateau')).toBeCloseTo(80, -1);
      expect(found(told)).toEqual([]);
    }
    const lazy = transientRun({ seed: 6, boostS: 1.3 });
    expect(found(transientFigures(alone(lazy.recording), lazy.wheels))).toEqual(['late-boost']);
  });

  test('without a step there is nothing to tell', () => {
    const { recording, wheels } = transientRun({ seed: 1 });
    const still = {
      ...recording,
      channels: recording.channels.map((channel) => ({ ...channel, values: channel.values.map(() => 30) })),
    };
    expect(() => transientFigures(alone(still), wheels)).toThrow(/never opened/);
  });
});

describe('cruise', () => {
  test('fuel by the hour, for energy and distance, its interval true under drift', () => {
    let covered = 0;
    const cruises = 60;
    for (let seed = 1; seed <= cruises; seed++) {
      const { recording, wheels } = cruiseRun({ seed });
      const told = cruiseFigures(alone(recording), wheels, cruiseFuel);
      const fuel = told.figures.find(({ id }) => id === 'fuel')!;
      if (Math.abs(fuel.value - (1.2 * 3.6) / 0.75) <= fuel.halfWidth) covered++;
      expect(valueOf(told, 'fuel-per-energy')! / ((1.2 * 3600) / 12)).toBeCloseTo(1, 1);
      expect(valueOf(told, 'fuel-per-distance')! / ((100 * 5.76) / 80)).toBeCloseTo(1, 1);
      expect(found(told)).toEqual([]);
    }
    expect(covered / cruises).toBeGreaterThan(0.88);
  });

  test('without a meter it is an estimate from air and λ; a rich cruise is found', () => {
    const { recording, wheels } = cruiseRun({ seed: 2, metered: false, lambda: 0.9 });
    const told = cruiseFigures(alone(recording), wheels, cruiseFuel);
    expect(told.figures[0]).toMatchObject({ id: 'fuel', label: 'Fuel, estimate from air and λ' });
    expect(found(told)).toEqual(['cruise-rich']);
    const short = cruiseRun({ seed: 3, seconds: 30 });
    expect(() => cruiseFigures(alone(short.recording), short.wheels, cruiseFuel)).toThrow(/from 45 s on/);
    const none = { ...recording, channels: recording.channels.filter(({ name }) => name === 'throttle') };
    expect(() => cruiseFigures(alone(none), wheels, cruiseFuel)).toThrow(/no fuel use can be told/);
  });
});

describe('road check', () => {
  test('times between speeds are means over the passages, whichever way the slope goes', () => {
    const told = roadCheckFigures(alone(roadDrive({ seed: 1, passages: 6, acceleration: 2, slope: 0.15 })));
    const time = told.figures.find(({ id }) => id === 'time-80-120')!;
    const truth = 40 / 3.6 / 2;
    expect(time.label).toBe('80 to 120 km/h, flat out');
    expect(Math.abs(time.value - truth)).toBeLessThan(time.halfWidth);
    expect(valueOf(told, 'passages')).toBe(6);
    expect(time.halfWidth).toBeLessThan(0.15 * truth);
    expect(valueOf(told, 'coolantTemperature')).toBe(92);
    expect(found(told)).toEqual([]);
    expect(valueOf(roadCheckFigures(alone(roadDrive({ seed: 1, throttleLogged: false }))), 'time-80-120')).toBeCloseTo(
      truth,
      0,
    );
  });

  test('one passage has no interval; a passage that is not driven flat out is none', () => {
    const one = roadCheckFigures(alone(roadDrive({ seed: 2, passages: 1 })));
    expect(one.figures.find(({ id }) => id === 'time-60-100')).toMatchObject({
      label: '60 to 100 km/h, flat out',
      halfWidth: NaN,
    });
    const time = Float64Array.from({ length: 200 }, (_, at) => at / 10);
    const rising = time.map((s) => 50 + 4 * s);
    expect(passages(time, rising, undefined, 60, 100)).toEqual([expect.closeTo(10, 6)]);
    expect(
      passages(
        time,
        rising,
        time.map(() => 60),
        60,
        100,
      ),
    ).toEqual([]);
    // Braked in between, and begun above.
    expect(
      passages(
        time,
        rising.map((kmh, at) => (at > 80 && at < 100 ? kmh - 15 : kmh)),
        undefined,
        60,
        100,
      ),
    ).toEqual([]);
    expect(passages(time, rising, undefined, 40, 80)).toEqual([]);
    // Speed that was not read for a while.
    expect(
      passages(
        time,
        rising.map((kmh, at) => (at % 7 === 0 ? NaN : kmh)),
        undefined,
        60,
        100,
      ),
    ).toHaveLength(1);
  });

  test('what runs too hot is found; a drive without anything that is told is refused', () => {
    expect(found(roadCheckFigures(alone(roadDrive({ seed: 3, coolantC: 118, passages: 8 }))))).toEqual([
      'road-coolantTemperature',
    ]);
    expect(() => roadCheckFigures(alone({ time: Float64Array.of(0, 1), channels: [] }))).toThrow(
      /so it has no figures/,
    );
  });
});

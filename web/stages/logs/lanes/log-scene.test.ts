import { keptUnits } from '../../../../core/units/told-units.ts';
import { toldLog } from '../../../log/told-log.ts';
import { ownUnits } from '../../../units/own-units.ts';
import { describe, expect, test } from '@jest/globals';
import type { LoggedChannel, ShownEvent } from '../../../../core/log/view/log-view.ts';
import { readingsAt } from '../../../../core/scene/readings.ts';
import { groupLane, placeOf, seriesOver, wholeOf } from './log-scene.ts';
import type { LogSide } from '../view/log-side.ts';

const x = Float64Array.from({ length: 50 }, (_, index) => 2000 + 100 * index);
const channel = (name: string, unit: string, at: (rpm: number) => number): LoggedChannel => ({
  name,
  unit,
  speed: { x, values: x.map(at) },
  time: { x: x.map((rpm) => 5 + rpm / 1000), values: x.map(at) },
  least: 0,
  most: 1,
});
const side = (label: string, more: number): LogSide => ({
  label,
  colour: 'red',
  log: {
    startS: 7,
    endS: 12,
    channels: [channel('boost', 'kPa', (rpm) => rpm / 100 + more), channel('boostTarget', 'kPa', () => 70)],
  },
});
const group = { id: 'boost', channels: ['boost', 'boostTarget'], ofTheDrum: false };
const event = {
  id: 'boost-overshoot',
  name: 'boost overshoots',
  severity: 'mind',
  fromS: 8,
  toS: 9,
  fromRpm: 3000,
  toRpm: 4000,
  figure: 9,
  unit: 'kPa',
  message: 'Over.',
  channels: ['boost'],
} as const satisfies ShownEvent;
const source = {
  main: side('B1', 5),
  beside: [side('A3', 0)],
  events: [event],
  limits: [{ quantity: 'boost', value: 80, scale: null }],
  axis: 'engine-speed',
  own: ownUnits(keptUnits),
} as const;

describe('a lane of a log', () => {
  test('holds the run over the other, its target dashed and once, limit and mark where they are', () => {
    const lane = groupLane(group, source);
    expect(lane.lines.map(({ id }) => id)).toEqual(['A3', 'B1 boostTarget', 'B1']);
    expect(lane.lines[1]!.dash).toBeDefined();
    expect(lane.unit(lane.valuesWithin([2000, 7000]))).toBe('kPa · Boost target dashed · limit ≤ 80');
    expect(lane.decoration.levels).toEqual([{ value: 80, colour: 'var(--stop)' }]);
    expect(lane.valuesWithin([2000, 7000]).most).toBeGreaterThan(80);
    expect(lane.marks).toMatchObject([{ x: 3500, value: 40, severity: 'mind', why: 'Over.' }]);
    expect(readingsAt(lane, 4000).map(({ label, text }) => [label, text])).toEqual([
      ['A3', '40'],
      ['target', '70'],
      ['B1', '45'],
    ]);
  });

  test('limits, axis and readings stand in the person’s unit', () => {
    const psi = { ...keptUnits, pressure: 'psi' } as const;
    const told = (one: LogSide) => ({ ...one, log: toldLog(one.log, psi, 14.7) });
    const lane = groupLane(group, {
      ...source,
      main: told(source.main),
      beside: source.beside.map(told),
      own: ownUnits(psi),
    });
    expect(lane.unit(lane.valuesWithin([2000, 7000]))).toBe('psi · Boost target dashed · limit ≤ 11.6');
    expect(lane.decoration.levels![0]!.value).toBeCloseTo(11.603, 3);
    expect(readingsAt(lane, 4000).map(({ text }) => text)).toEqual(['5.8', '10.2', '6.5']);
  });

  test('a limit far from everything that was read is told, and does not press the lines flat', () => {
    const lane = groupLane(group, { ...source, limits: [{ quantity: 'boost', value: 900, scale: null }] });
    expect(lane.decoration.levels).toEqual([]);
    expect(lane.valuesWithin([2000, 7000]).most).toBeLessThan(100);
    expect(lane.unit(lane.valuesWithin([2000, 7000]))).toContain('limit ≤ 900');
  });

  test('over time everything counts from the opening', () => {
    const [boost] = source.main.log.channels;
    expect(seriesOver(boost!, 'time', 7).x[0]).toBeCloseTo(0, 9);
    expect(placeOf(event, 'time', 7)).toEqual([1, 2]);
    expect(wholeOf(source.main, 'time')[0]).toBeCloseTo(0, 9);
  });

  test('over road speed a hub has nothing, and no line is drawn', () => {
    const lane = groupLane(group, { ...source, axis: 'road-speed' });
    expect(lane.lines).toEqual([]);
    expect(lane.marks).toEqual([]);
    expect(placeOf({ ...event, roadKmh: [120, 90] }, 'road-speed', 0)).toEqual([90, 120]);
  });
});

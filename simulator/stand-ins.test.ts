import { describe, expect, test } from '@jest/globals';
import { cars, carNamed } from './car.ts';
import { engineAt } from './engine.ts';
import { Chance } from './chance.ts';
import { Heat } from './heat.ts';
import { machines } from './machine.ts';
import { channelsOf, StandInDyno } from './stand-in-dyno.ts';
import { Weather } from './weather.ts';

const air = { temperatureC: 22, dryHpa: 995 };
const torque = (items: Parameters<typeof engineAt>[1], rpm: number, inletC = 30) =>
  engineAt(cars[0]!, items, rpm, { air, inletC });

describe('the car answers to its setup', () => {
  test('advance above 4,000 gains there and nowhere else', () => {
    const advanced = [{ kind: 'ignition', by: 1.5, aboveRpm: 4000 } as const];
    expect(torque(advanced, 5500).torqueNm / torque([], 5500).torqueNm).toBeGreaterThan(1.005);
    expect(torque(advanced, 2500).torqueNm / torque([], 2500).torqueNm).toBeCloseTo(1, 4);
  });

  test('too much advance knocks and loses', () => {
    const wild = torque([{ kind: 'ignition', by: 9 }], 5500);
    expect(wild.knockRetardDeg).toBeGreaterThan(1);
    expect(wild.torqueNm).toBeLessThan(torque([{ kind: 'ignition', by: 4 }], 5500).torqueNm);
  });

  test('a shorter intake moves the pulse up: less below, more above', () => {
    const short = [{ kind: 'intake-length', by: -40 } as const];
    expect(torque(short, 4000).torqueNm).toBeLessThan(torque([], 4000).torqueNm);
    expect(torque(short, 5200).torqueNm).toBeGreaterThan(torque([], 5200).torqueNm);
  });

  test('the same setup run hot gives less, and heat soaks in and leaves', () => {
    expect(torque([], 5000, 50).torqueNm).toBeLessThan(torque([], 5000, 30).torqueNm);
    const heat = new Heat();
    const before = heat.inletC(22);
    for (let second = 0; second < 16; second++) heat.pass(1, 80, 22);
    const hot = heat.inletC(22);
    expect(hot).toBeGreaterThan(before + 3);
    for (let second = 0; second < 900; second++) heat.pass(1, 4, 22);
    expect(heat.inletC(22)).toBeLessThan(before + 2);
  });

  test('a vehicle that is not ours drives the first car', () => {
    expect(carNamed('Ostrel 990 twin').name).toBe('Ostrel 990 twin');
    expect(carNamed('anything else')).toBe(cars[0]);
  });
});

describe('the roller', () => {
  /** Time, drum speed, engine speed and throttle of a whole pull at 100 Hz. */
  function pull(seed: number, vehicle = cars[0]!.name): number[][] {
    const chance = new Chance(seed);
    const roller = new StandInDyno(new Weather(chance), chance);
    roller.configure({ type: 'configure', vehicle, setup: 'A', items: [] });
    roller.driver.begin({ kind: 'pull' });
    const rows: number[][] = [];
    while (roller.driver.busy && rows.length < 8000) {
      roller.pass(0.01);
      rows.push([roller.time, ...roller.read()]);
    }
    return rows;
  }

  test('the same seed plays the same pull, another seed another one', () => {
    expect(pull(3)).toEqual(pull(3));
    expect(pull(4)).not.toEqual(pull(3));
  });

  test('a pull begins at part throttle, opens, reaches its speed, lifts, and comes back', () => {
    const rows = pull(3);
    const open = rows.filter((row) => row[3]! > 95);
    expect(open.length).toBeGreaterThan(1000);
    expect(Math.max(...rows.map((row) => row[2]!))).toBeGreaterThan(6800);
    expect(rows[0]![3]).toBeLessThan(45);
    expect(rows.at(-1)![2]).toBeLessThan(2500);
    expect(rows[0]).toHaveLength(channelsOf(machines['inertia-roller']).length + 1);
  });

  test('after tip-in the driveline shuffles before it settles', () => {
    const rows = pull(3);
    const opened = rows.findIndex((row) => row[3]! > 95);
    const slope = (at: number) => (rows[at + 3]![1]! - rows[at - 3]![1]!) / 0.06;
    const early = Array.from({ length: 25 }, (_, index) => slope(opened - 5 + index));
    const late = Array.from({ length: 25 }, (_, index) => slope(opened + 150 + index));
    const swing = (values: number[]) => Math.max(...values) - Math.min(...values);
    expect(swing(early)).toBeGreaterThan(2 * swing(late));
  });

  test('a twin revs past 10,000', () => {
    expect(Math.max(...pull(5, 'Ostrel 990 twin').map((row) => row[2]!))).toBeGreaterThan(10_500);
  });
});

describe.each(['loaded-roller', 'hub'] as const)('the stand-in %s', (kind) => {
  const machine = machines[kind];
  const channels = channelsOf(machine).map(({ name }) => name);
  const column = (rows: number[][], name: string) => rows.map((row) => row[1 + channels.indexOf(name)]!);

  test('lets the engine rise along its ramp, its load cell telling the rest, and comes back', () => {
    const chance = new Chance(11);
    const dyno = new StandInDyno(new Weather(chance), chance, machine);
    dyno.pass(2);
    dyno.driver.begin({ kind: 'pull' });
    const rows: number[][] = [];
    while (dyno.driver.busy && rows.length < 6000) {
      dyno.pass(0.01);
      rows.push([dyno.time, ...dyno.read()]);
    }
    expect(rows.flat().every(Number.isFinite)).toBe(true);
    expect(rows.length).toBeLessThan(6000);
    const throttle = column(rows, 'throttle');
    const open = rows.filter((_, index) => throttle[index]! > 97).slice(120, -60);
    const rpm = column(open, 'engineSpeed');
    const rate = (rpm.at(-1)! - rpm[0]!) / (open.at(-1)![0]! - open[0]![0]!);
    expect(rate / machine.rampRpmPerS).toBeGreaterThan(0.93);
    expect(rate / machine.rampRpmPerS).toBeLessThan(1.07);
    const load = column(open, kind === 'hub' ? 'absorberTorqueLeft' : 'absorberTorque');
    expect(Math.min(...load)).toBeGreaterThan(30);
    if (kind === 'hub') {
      const right = column(open, 'absorberTorqueRight');
      expect(load.reduce((sum, value) => sum + value, 0)).toBeGreaterThan(right.reduce((sum, value) => sum + value, 0));
    }
  });
});

test('the weather wanders slowly and stays weather', () => {
  const weather = new Weather(new Chance(2));
  const start = weather.air.temperatureC;
  for (let hour = 0; hour < 3600; hour++) weather.pass(1);
  expect(Math.abs(weather.air.temperatureC - start)).toBeLessThan(3);
  expect(weather.dryHpa).toBeGreaterThan(960);
  expect(weather.read().every(Number.isFinite)).toBe(true);
});

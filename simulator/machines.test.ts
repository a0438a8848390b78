import { describe, expect, test } from '@jest/globals';
import { carNamed } from './car.ts';
import { Chance } from './chance.ts';
import { machines, type MachineKind } from './machine.ts';
import { channelsOf, StandInDyno } from './stand-in-dyno.ts';
import { Weather } from './weather.ts';

const coupe = carNamed('Tarrow Six hill-climb coupé');
const minibus = carNamed('Hallam 2.2 diesel minibus');

describe('a set point that is kept', () => {
  const kept = (engineSpeedRpm: number | undefined, loadNm?: number) => {
    const chance = new Chance(6);
    const dyno = new StandInDyno(new Weather(chance), chance, machines['loaded-roller']);
    dyno.pass(2);
    dyno.setLoad(loadNm === undefined ? {} : { loadNm });
    dyno.driver.keep(engineSpeedRpm);
    dyno.pass(8);
    return dyno;
  };

  test('a speed is held under load until the driver is told to stop', () => {
    const dyno = kept(3500);
    expect(dyno.reading().rpm).toBeGreaterThan(3300);
    expect(dyno.reading().rpm).toBeLessThan(3700);
    expect(dyno.reading().throttle).toBeGreaterThan(0.95);
    dyno.driver.stop();
    dyno.pass(20);
    expect(dyno.driver.busy).toBe(false);
  });

  test('a torque is what the load cell reads', () => {
    const dyno = kept(undefined, 120);
    const names = channelsOf(machines['loaded-roller']).map(({ name }) => name);
    const read = Array.from({ length: 50 }, () => {
      dyno.pass(0.02);
      return dyno.read()[names.indexOf('absorberTorque')]!;
    });
    expect(read.reduce((sum, value) => sum + value, 0) / read.length).toBeCloseTo(123, -0.5);
  });

  test('a pull that is asked for ends it', () => {
    const dyno = kept(3500);
    dyno.driver.begin({ kind: 'pull' });
    expect(dyno.driver.keeping).toBe(false);
  });
});

describe('a dyno with two axles', () => {
  const pulled = (kind: MachineKind, car: typeof coupe, faults: string[] = []) => {
    const chance = new Chance(8);
    const dyno = new StandInDyno(new Weather(chance), chance, machines[kind]);
    dyno.configure({ type: 'configure', vehicle: car.name, setup: 'A', items: [] });
    dyno.faults.set(faults);
    dyno.pass(1);
    dyno.driver.begin({ kind: 'pull' });
    const names = channelsOf(machines[kind]).map(({ name }) => name);
    const rows: number[][] = [];
    while (dyno.driver.busy && rows.length < 4000) {
      dyno.pass(0.01);
      if (dyno.driver.pulling) rows.push(dyno.read());
    }
    return (name: string) => rows.map((row) => row[names.indexOf(name)]!);
  };
  const sum = (values: number[]) => values.reduce((total, value) => total + value, 0);

  test('shares the torque of a car that drives both, and leaves drums standing that are not driven', () => {
    const both = pulled('two-axles', minibus);
    expect(sum(both('absorberTorqueFront')) / sum(both('absorberTorqueRear'))).toBeCloseTo(0.4 / 0.6, 1);
    const rear = pulled('two-axles', coupe);
    expect(Math.max(...rear('rollerSpeedFront'))).toBe(0);
    expect(Math.max(...rear('rollerSpeedRear'))).toBeGreaterThan(100);
    const four = pulled('four-hubs', minibus);
    const loads = ['FrontLeft', 'FrontRight', 'RearLeft', 'RearRight'].map((place) =>
      sum(four(`absorberTorque${place}`)),
    );
    expect(loads[0]! / sum(loads)).toBeCloseTo(0.2, 1);
    expect(loads[0]!).toBeGreaterThan(loads[1]!);
  });

  test('has its front drums fall behind when that fault is played', () => {
    const quotient = (faults: string[]) => {
      const of = pulled('two-axles', minibus, faults);
      return Math.min(...of('rollerSpeedFront').map((value, index) => value / of('rollerSpeedRear')[index]!));
    };
    expect(quotient([])).toBeGreaterThan(0.995);
    expect(quotient(['axle slip'])).toBeLessThan(0.97);
  });
});

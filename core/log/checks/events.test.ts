import { written } from '../../sentence/sentence.ts';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { loggedRun, logFaults } from '../../testing/logged-run.ts';
import { chance } from '../../testing/chance.ts';
import { brokenLimits } from '../../limits/broken-limits.ts';
import type { Limit, LimitQuantity } from '../../limits/limit.ts';
import { logEvents } from './events.ts';
import { notLogged } from '../pull/not-logged.ts';
import { logExtremes, reachIn } from './extremes.ts';

const seeds = Array.from({ length: 12 }, (_, index) => 501 + index);
const ids = (seed: number, fault?: (typeof logFaults)[number]) => logEvents(loggedRun(seed, fault)).map(({ id }) => id);

describe('events in a log', () => {
  test('healthy pulls of petrol, turbo and diesel raise nothing', () => {
    for (const seed of [...seeds, ...seeds.map((seed) => seed + 1000)]) expect([seed, ids(seed)]).toEqual([seed, []]);
  });

  test('readings that are missing here and there raise nothing, in no channel', () => {
    for (const seed of [...seeds, ...seeds.map((seed) => seed + 2000)]) {
      const log = loggedRun(seed);
      const random = chance(seed);
      for (const values of log.channels.values())
        for (let index = 0; index < values.length; index++)
          if (random() < 0.01) values.fill(NaN, index, Math.min(values.length, index + 1 + Math.floor(4 * random())));
      const found = logEvents(log);
      expect([seed, found.map(({ id, message }) => [id, written(message)])]).toEqual([seed, []]);
    }
  });

  test('a log that ends within the pull is told, with where, and what it saw is judged as ever', () => {
    for (const seed of seeds) {
      const log = loggedRun(seed);
      const endS = log.startS + 0.7 * (log.endS - log.startS);
      for (const values of log.channels.values())
        log.time.forEach((at, index) => at > endS && values.fill(NaN, index, index + 1));
      const [event, ...others] = logEvents(log);
      expect([seed, others.map(({ id }) => id)]).toEqual([seed, []]);
      expect(event).toMatchObject({ id: 'log-ends', severity: 'mind' });
      expect(written(event!.message)).toMatch(
        / and \d+ more end at \d,\d+ rpm, before the pull does: nothing is known/,
      );
    }
  });

  test('a blower whose boost climbs with speed overshoots nothing and falls from nothing', () => {
    for (const seed of seeds)
      expect([seed, logEvents(loggedRun(seed, undefined, 'blower')).map(({ id }) => id)]).toEqual([seed, []]);
  });

  test('a diesel has no knock, and its mixture is not missed', () => {
    expect(notLogged(['boost'], { ignition: 'compression' })).toEqual([
      'rail pressure',
      'exhaust temperature',
      'the battery',
    ]);
    expect(notLogged(['lambda', 'batteryVoltage'], { ignition: 'spark' })).toEqual(['knock', 'fuel pressure']);
  });

  test('an electric drive is judged by nothing that burns, and misses none of it', () => {
    expect(notLogged([], { ignition: 'electric' })).toEqual([]);
    for (const fault of logFaults) {
      const log = loggedRun(501, fault);
      const found = logEvents({ ...log, engine: { ...log.engine, ignition: 'electric', limits: {} } });
      expect([fault, found.filter(({ id }) => id !== 'low-battery' && id !== 'log-ends').map(({ id }) => id)]).toEqual([
        fault,
        [],
      ]);
    }
  });

  test('boost that falls without a target is no end of the turbo; with one it is told against that', () => {
    const taper = (seed: number) => logEvents(loggedRun(seed, 'boost-taper')).find(({ id }) => id === 'boost-taper')!;
    const said = seeds.map((seed) => written(taper(seed).message));
    expect(said.some((words) => /below its target .*has reached its end\.$/.test(words))).toBe(true);
    for (const words of said.filter((words) => !words.includes('below its target')))
      expect(words).toMatch(/Its target was not logged: .* cannot be told\.$/);
  });

  test.each(logFaults)('%s is found, and little else', (fault) => {
    const found = seeds.map((seed) => ids(seed, fault));
    expect(found.filter((ids) => ids.includes(fault)).length).toBeGreaterThanOrEqual(seeds.length - 1);
    const strangers = found.flat().filter((id) => id !== fault);
    expect(strangers.length).toBeLessThanOrEqual(2);
  });

  test('each event says where, by how much and which channels explain it', () => {
    const [event] = logEvents(loggedRun(501, 'fuel-pressure-sag'));
    expect(event).toMatchObject({ id: 'fuel-pressure-sag', severity: 'stop', unit: 'kPa' });
    expect(written(event!.message)).toMatch(/sags by \d+ kPa against the manifold from \d,\d+ rpm/);
    expect(event!.fromRpm).toBeLessThan(event!.toRpm);
    expect(event!.channels).toContain('lambda');
  });

  test('fuel pressure is held against what its regulator holds', () => {
    const log = loggedRun(501, undefined, 'turbo');
    const { time, startS, endS } = log;
    const share = time.map((at) => Math.min(1, Math.max(0, (at - startS) / (endS - startS))));
    const pulling = time.map((at) => Number(at >= startS - 0.4 && at <= endS));
    // Vacuum before the opening, 100 kPa from early on, 40 at the top.
    const boost = time.map((_, index) =>
      pulling[index] ? 100 * Math.min(1, 6 * share[index]! + 0.3) - 150 * Math.max(0, share[index]! - 0.6) : -60,
    );
    const sags = (
      fuelPressure: Float64Array,
      over: Partial<(typeof log)['engine']> = {},
      more: [string, Float64Array][] = [['boost', boost]],
    ) =>
      logEvents({
        ...log,
        engine: { ...log.engine, ...over },
        channels: new Map([['fuelPressure', fuelPressure], ...more]),
      }).filter(({ id }) => id === 'fuel-pressure-sag');
    const following = boost.map((kpa) => 300 + kpa);
    // A reading that never moves would be a dead sensor's.
    const flat = boost.map((_, index) => 380 + 2 * Math.sin(index));
    // It falls with boost, as it must; and it stays, as it must where nothing refers to the manifold.
    expect(sags(following)).toEqual([]);
    expect(sags(flat)).toEqual([]);
    // It stays while boost is up: with a regulator that follows, known from the car's record, that is what is missing.
    const [early] = sags(
      boost.map((kpa, index) => flat[index]! - 80 + Math.min(kpa, 40)),
      { fuelRegulation: 'manifold' },
    );
    expect(early!.figure).toBeGreaterThan(25);
    expect(written(early!.message)).toMatch(/against the manifold/);
    // Falling with boost in a returnless system is a sag, known from the record or from the step at the opening.
    const falling = share.map((at, index) => flat[index]! - 150 * Math.max(0, at - 0.6));
    expect(sags(falling)).toHaveLength(1);
    expect(sags(falling, { fuelRegulation: 'constant' })[0]!.figure).toBeCloseTo(60, -1);
    // Without any manifold pressure a fall is held against the pressure itself.
    expect(sags(falling, {}, [])).toHaveLength(1);
    // A target says what is wanted, whatever else there is; one that nobody logged expects nothing.
    expect(
      sags(falling, {}, [
        ['boost', boost],
        ['fuelPressureTarget', falling],
      ]),
    ).toEqual([]);
    expect(written(sags(falling, {}, [['fuelPressureTarget', flat]])[0]!.message)).toMatch(/below its target/);
    expect(sags(falling, { fuelRegulation: 'target' })).toEqual([]);
  });

  test('a limit of the job comes before what is usual', () => {
    const log = loggedRun(504, undefined, 'turbo');
    const strict = { ...log, engine: { ...log.engine, limits: { injectorDuty: 40, boost: 50 } } };
    expect(logEvents(strict).map(({ id }) => id)).toEqual(expect.arrayContaining(['injector-duty', 'limit-boost']));
  });

  test('oil pressure is held against the job’s limit, and said with what it was before where none is written', () => {
    const log = loggedRun(507);
    const limited = (oilPressure: number) => logEvents({ ...log, engine: { ...log.engine, limits: { oilPressure } } });
    expect(limited(200)).toEqual([]);
    const [event] = limited(300);
    expect(event).toMatchObject({
      id: 'oil-pressure-low',
      severity: 'stop',
      unit: 'kPa',
      channels: ['oilPressure', 'oilTemperature'],
    });
    expect(written(event!.message)).toMatch(
      /Oil pressure is down to 2\d\d kPa from \d,\d+ to \d,\d+ rpm \(the limit is 300 kPa\)/,
    );
    const [fallen] = logEvents(loggedRun(507, 'oil-pressure-low'));
    expect(written(fallen!.message)).toMatch(/after \d+ kPa at lower speed/);
    expect(fallen!.fromRpm).toBeGreaterThan(2500);
  });

  test('every logged quantity with a limit is held against it, engine speed too', () => {
    const log = loggedRun(507);
    const limited = (limits: Record<string, number>) => logEvents({ ...log, engine: { ...log.engine, limits } });
    const [fast] = limited({ engineSpeed: 5000 });
    expect(fast).toMatchObject({ id: 'limit-engineSpeed', severity: 'stop', unit: 'rpm' });
    expect(written(fast!.message)).toMatch(/^Engine speed reaches \d,\d{3} rpm: the limit is 5,000 rpm\.$/);
    expect(limited({ engineSpeed: 9000 })).toEqual([]);
    expect(written(limited({ oilPressure: 250, batteryVoltage: 14.5 })[0]!.message)).toMatch(
      /^Battery falls to 13\.\d V from \d,\d+ to \d,\d+ rpm: the limit is 14\.5 V\.$/,
    );
    const [rich] = limited({ richLambda: 1.5 });
    expect(rich).toMatchObject({ id: 'limit-richLambda', channels: ['lambda'] });
  });

  test('a floor that is crossed is no sag: each is told by itself', () => {
    const log = loggedRun(507);
    const floor = logEvents({ ...log, engine: { ...log.engine, limits: { fuelPressure: 900 } } });
    expect(floor.map(({ id }) => id)).toEqual(['limit-fuelPressure']);
    const sagging = loggedRun(507, 'fuel-pressure-sag');
    const both = logEvents({ ...sagging, engine: { ...sagging.engine, limits: { fuelPressure: 900 } } });
    expect(both.map(({ id }) => id)).toEqual(expect.arrayContaining(['fuel-pressure-sag', 'limit-fuelPressure']));
  });

  test('a limit that nobody set is said to be a usual one', () => {
    const [duty] = logEvents(loggedRun(501, 'injector-duty'));
    expect(written(duty!.message)).toContain('usual limit 90 %, not set in this job');
    const [lean] = logEvents(loggedRun(501, 'lean'));
    expect(written(lean!.message)).toMatch(/usual limit, not set in this job|leaner than its target/);
  });

  test('a diesel is not judged as petrol', () => {
    const log = loggedRun(505, 'lean', 'turbo');
    const asDiesel = { ...log, engine: { ...log.engine, ignition: 'compression' as const } };
    expect(logEvents(asDiesel).map(({ id }) => id)).not.toContain('lean');
  });

  test('channels that are not there say nothing', () => {
    expect(logEvents({ ...loggedRun(506, 'knock'), channels: new Map() })).toEqual([]);
  });
});

describe('one list of limits', () => {
  const quantities = [
    'lambda',
    'richLambda',
    'knockRetard',
    'injectorDuty',
    'oilPressure',
    'fuelPressure',
    'boost',
    'engineSpeed',
    'batteryVoltage',
    'intakeTemperature',
  ] as const;
  const faults = [undefined, ...logFaults.filter((fault) => !fault.startsWith('sensor'))];

  test('what the log tells of limits is what the run’s list holds, whatever was drawn', () => {
    fc.assert(
      fc.property(
        fc.nat({ max: 4000 }),
        fc.constantFrom(...faults),
        fc.dictionary(fc.constantFrom(...quantities), fc.double({ min: 0.6, max: 1.4, noNaN: true }), { maxKeys: 6 }),
        (seed, fault, shares) => {
          const log = loggedRun(seed, fault);
          const extremes = logExtremes(log);
          // Limits near what was reached, on either side of it.
          const limits: Limit[] = Object.entries(shares).flatMap(([name, share]) => {
            const quantity = name as LimitQuantity;
            const reached = reachIn(extremes)({ quantity, value: 0, scale: null })?.reading;
            return reached === undefined ? [] : [{ quantity, value: reached * share, scale: null }];
          });
          const engine = {
            ...log.engine,
            limits: Object.fromEntries(limits.map(({ quantity, value }) => [quantity, value])),
          };
          const listed = brokenLimits(limits, reachIn(extremes), engine);
          const told = logEvents({ ...log, engine }).flatMap(({ limit, severity }) =>
            limit ? [{ limit, severity }] : [],
          );
          expect(new Set(told.map(({ limit }) => limit))).toEqual(new Set(listed.map(({ quantity }) => quantity)));
          expect(told.every(({ severity }) => severity === 'stop')).toBe(true);
        },
      ),
      { numRuns: 300 },
    );
  });

  test('a sensor that stands still breaks no limit, and what follows the lift does not either', () => {
    const dead = loggedRun(501, 'sensor-dead');
    const lean = { ...dead, engine: { ...dead.engine, limits: { lambda: 0.7 } } };
    expect(logEvents(lean).map(({ id }) => id)).toEqual(['sensor-dead']);
    const log = loggedRun(504, undefined, 'turbo');
    const after = log.channels.get('lambda')!.map((value, index) => (log.time[index]! > log.endS ? 1.4 : value));
    const lifted = { ...log, channels: new Map([...log.channels, ['lambda', after]]) };
    expect(logEvents(lifted)).toEqual(logEvents(log));
  });
});

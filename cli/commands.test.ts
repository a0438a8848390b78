import { beforeAll, describe, expect, test } from '@jest/globals';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { comparisonJson } from '../contract/files/comparison-json.ts';
import { writeRecordingCsv } from '../core/exchange/recordings/write-csv.ts';
import { generatedRun } from '../core/testing/generated-run.ts';
import { steppedDyno, steppedRatio, steppedRun } from '../core/testing/stepped-run.ts';
import { testDyno, usualTorque } from '../core/testing/test-car.ts';
import { airCommand } from './air.ts';
import { coastDownCommand } from './coast-down.ts';
import { compareCommand } from './compare.ts';
import { stepsCommand } from './steps.ts';

const folder = mkdtempSync(join(tmpdir(), 'suvok-commands-'));
const path = (name: string) => join(folder, name);
const air = { temperatureC: 24, pressureHpa: 1008, relativeHumidityPct: 45 };
const sides = ['--baseline', 'A1', 'A2', 'A3', '--test', 'B1', 'B2', 'B3'].map((word) =>
  word.startsWith('--') ? word : path(`${word}.csv`),
);
const dyno = ['--dyno', path('dyno.json')];

beforeAll(() => {
  const factors: Record<string, number> = { A1: 0.998, A2: 1, A3: 1.002, B1: 1.018, B2: 1.02, B3: 1.022 };
  Object.entries(factors).forEach(([name, factor], seed) => {
    const run = generatedRun({ seed, speedNoise: 0.008, drumTorque: (rpm) => factor * usualTorque(rpm) });
    writeFileSync(path(`${name}.csv`), writeRecordingCsv(run));
    writeFileSync(path(`${name}.air.json`), JSON.stringify(air));
  });
  writeFileSync(path('dyno.json'), JSON.stringify(testDyno));
  writeFileSync(path('other.json'), JSON.stringify({ ...testDyno, inertiaKgM2: 55 }));
  writeFileSync(path('air.json'), JSON.stringify(air));
  writeFileSync(path('steps.csv'), writeRecordingCsv(steppedRun({ speedsRpm: [2500, 3500], dwellS: 4 })));
  writeFileSync(path('stepped.json'), JSON.stringify(steppedDyno));
  const light = { ...testDyno, inertiaKgM2: 8 };
  writeFileSync(path('light.json'), JSON.stringify(light));
  writeFileSync(
    path('coast.csv'),
    writeRecordingCsv(generatedRun({ dyno: light, rateHz: 50, coastS: 30, drumTorque: () => 200, speedNoise: 0.01 })),
  );
});

describe('suvok compare', () => {
  test('a gain of 2 % is found, in the form of the contract, with air beside each recording', () => {
    const found = comparisonJson.parse(compareCommand([...sides, ...dyno, '--band', '3000-5600']));
    const [band] = found.bands;
    expect(found.bands).toHaveLength(1);
    expect(band).toMatchObject({ fromRpm: 3000, toRpm: 5600, verdict: 'gain' });
    expect(band!.percent).toBeCloseTo(2, 0);
    expect(band!.lowKw!).toBeGreaterThan(0);
    expect(band!.highKw!).toBeGreaterThan(band!.meanKw!);
    expect(found.gain.lowKw).toHaveLength(found.gain.engineSpeedRpm.length);
    expect(found.sentence).toMatch(/^The test makes .* kW more than the baseline/);
    expect(found.runs.every((run) => Math.abs(run.factor - 0.9926) < 0.0005)).toBe(true);
    expect(found.likeForLike).toEqual([]);
    // Three runs a side whose order nobody told: a drift over three runs is allowed for.
    expect(found.smallestDetectableKw! / found.spreadKw!).toBeCloseTo(3.5, 1);
    expect(found.smallestDetectableKw!).toBeGreaterThan(found.leastSignificantKw!);
  });

  test('the two sides swapped: every sign turned', () => {
    const swapped = [...sides.slice(4), ...sides.slice(0, 4)].map((word) =>
      word === '--test' ? '--baseline' : word === '--baseline' ? '--test' : word,
    );
    const [there, back] = [sides, swapped].map((words) => compareCommand([...words, ...dyno, '--smoothing', '300']));
    expect(back!.bands[0]!.meanKw).toBeCloseTo(-there!.bands[0]!.meanKw!, 6);
    expect(back!.bands[0]!.verdict).toBe('loss');
  });

  test('several bands, one dyno and air for all or one each, and no air at all', () => {
    const many = compareCommand([
      ...sides,
      ...dyno,
      '--band',
      '2500-3500',
      '--band=4000-6000',
      '--air',
      path('air.json'),
    ]);
    expect(many.bands.map(({ fromRpm }) => fromRpm)).toEqual([2500, 4000]);
    const each = compareCommand([...sides, '--dyno', ...Array.from({ length: 6 }, () => path('dyno.json'))]);
    expect(each.bands[0]!.verdict).toBe('gain');
    const mixed = compareCommand([
      ...sides,
      '--dyno',
      ...Array.from({ length: 6 }, (_, at) => path(at ? 'dyno.json' : 'other.json')),
    ]);
    expect(mixed.bands[0]!.verdict).toBe('withheld');
    expect(mixed.likeForLike.map(({ id }) => id)).toContain('other-dyno');
  });

  test('what nobody said is told to be assumed, and nothing of what was said', () => {
    const told = (...more: string[]) => compareCommand([...sides, ...dyno, ...more]).assumed!.join(' ');
    expect(told()).toContain('no drift');
    const airs = ['--air', path('air.json')];
    writeFileSync(path('air.json'), JSON.stringify({ temperatureC: 31, pressureHpa: 1002, relativeHumidityPct: 48 }));
    expect(told(...airs)).toMatch(/^Standard: SAE J1349, for none was named\. Engine: nothing was said of it/);
    const diesel = compareCommand([...sides, ...dyno, ...airs, '--engine', 'diesel']);
    expect(diesel.standard).toBe('iso-1585-ci');
    expect(diesel.assumed!.join(' ')).toMatch(/Standard: ISO 1585, diesel.* Diesel: turbocharged, engine factor 0\.3/);
    expect(told(...airs, '--engine', 'petrol', '--standard', 'din-70020')).not.toMatch(/Standard|Engine|Diesel/);
  });

  test('single runs have an interval that rests on the usual spread', () => {
    const printed = comparisonJson.parse(
      compareCommand(['--baseline', path('A1.csv'), '--test', path('B1.csv'), ...dyno]),
    );
    expect(printed.spreadFrom).toBe('assumed');
    expect(printed.assumed).toContainEqual(
      expect.stringMatching(/^Spread of repeats: 0\.40 % of power, up to 0\.65 %/),
    );
    const { meanKw, lowKw, highKw } = printed.bands[0] as { meanKw: number; lowKw: number; highKw: number };
    expect(lowKw).toBeLessThan(meanKw);
    expect(highKw - lowKw).toBeLessThan(10);
  });

  test.each<[string[], RegExp]>([
    [['--test', 'x.csv'], /--baseline/],
    [['--baseline', 'x.csv'], /--test/],
    [['stray.csv', ...sides], /belongs to no side/],
    [[...sides, ...dyno, '--look', '1.5'], /--look takes a whole number/],
    [[...sides], /--dyno/],
    [[...sides, ...dyno, '--band', '5000'], /two speeds/],
    [[...sides, ...dyno, '--band', '500-900'], /do not all cover 500 to 900/],
    [[...sides, '--dyno', path('dyno.json'), path('dyno.json')], /2 times for 6 runs/],
    [[...sides, ...dyno, '--colour', 'red'], /no option --colour/],
    [[...sides, ...dyno, '--standard'], /--standard needs a value/],
    [['--baseline', path('steps.csv'), '--test', path('B1.csv'), ...dyno], /steps\.csv: /],
  ])('%j is refused in a sentence', (words, sentence) => {
    expect(() => compareCommand(words)).toThrow(sentence);
  });
});

describe('suvok air', () => {
  test('the check values of the standards', () => {
    const found = airCommand(['--temperature', '31', '--pressure', '1002', '--humidity', '48']);
    expect(found.vapourPressureHpa).toBeCloseTo(21.58, 1);
    expect(found.dryPressureHpa).toBeCloseTo(980.42, 1);
    expect(found.densityKgM3).toBeCloseTo(1.1383, 4);
    expect(found.densityAltitudeM).toBeCloseTo(758, -0.5);
    expect(found.factors['sae-j1349']!.factor).toBeCloseTo(1.0235, 3);
    expect(found.factors['din-70020']!.factor).toBeCloseTo(1.0298, 4);
  });

  test('units at the edge, one standard, and a sea-level pressure with its altitude', () => {
    const [si, other] = [
      ['--temperature', '24', '--pressure', '1008', '--humidity', '45'],
      ['--temperature', '75.2F', '--pressure', '100.8 kPa', '--humidity=45%'],
    ].map((words) => airCommand([...words, '--standard', 'std-j607']));
    expect(other!.factors['std-j607']!.factor).toBeCloseTo(si!.factors['std-j607']!.factor, 5);
    expect(Object.keys(si!.factors)).toEqual(['std-j607']);
    const high = airCommand([
      '--temperature',
      '20',
      '--sea-level-pressure',
      '1013.25',
      '--altitude',
      '1600',
      '--humidity',
      '30',
    ]);
    expect(high.air.pressureHpa).toBeCloseTo(834.9, 0);
  });

  test.each<[string[], RegExp]>([
    [['--temperature', '24', '--pressure', '1008'], /--humidity/],
    [['--temperature', 'warm', '--pressure', '1008', '--humidity', '40'], /number of °C/],
    [['--temperature', '24', '--pressure', '29', '--humidity', '40'], /outside 300 to 1200/],
    [['--temperature', '24kPa', '--pressure', '1008', '--humidity', '40'], /number of °C/],
  ])('%j is refused in a sentence', (words, sentence) => expect(() => airCommand(words)).toThrow(sentence));
});

test('suvok steps: mean, scatter, settling and count of each hold', () => {
  const { holds, correction } = stepsCommand([
    path('steps.csv'),
    '--dyno',
    path('stepped.json'),
    '--ratio',
    String(steppedRatio),
    '--air',
    path('air.json'),
  ]);
  expect(holds.map((hold) => Math.round(hold.engineSpeedRpm.mean / 100) * 100)).toEqual([2500, 3500]);
  expect(holds[0]!.powerKw.mean / holds[0]!.uncorrectedPowerKw.mean).toBeCloseTo(correction.factor, 4);
  expect(holds.every((hold) => hold.count > 100 && hold.settlingS >= 0 && hold.powerKw.halfWidth > 0)).toBe(true);
  expect(() => stepsCommand([path('A1.csv'), ...dyno, '--least', '3'])).toThrow(/A1\.csv: Nothing .* held steady/);
});

test('suvok coastdown: coefficients and losses with intervals that hold the truth', () => {
  const found = coastDownCommand([path('coast.csv'), '--dyno', path('light.json')]);
  const truth = (speed: number) => 5 + 0.05 * speed + 0.0005 * speed ** 2;
  for (const { speedRadS, torqueNm } of found.losses) {
    expect(torqueNm.value / truth(speedRadS)).toBeCloseTo(1, 1);
    expect(torqueNm.low).toBeLessThan(torqueNm.high);
  }
  const heavier = coastDownCommand([path('coast.csv'), '--dyno', path('light.json'), '--driveline-inertia', '2']);
  expect(heavier.losses[2]!.torqueNm.value / found.losses[2]!.torqueNm.value).toBeCloseTo(1.25, 2);
  expect(() => coastDownCommand([path('steps.csv'), '--dyno', path('light.json')])).toThrow(/steps\.csv: No coast/);
});

import { beforeAll, describe, expect, test } from '@jest/globals';
import { execFile } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { curveJson } from '../contract/files/curve.ts';
import { writeRecordingCsv } from '../core/exchange/recordings/write-csv.ts';
import { generatedRun } from '../core/testing/generated-run.ts';
import { testDyno } from '../core/testing/test-car.ts';
import { answered, type Answered } from './command-line.ts';

const folder = mkdtempSync(join(tmpdir(), 'suvok-cli-'));
const path = (name: string) => join(folder, name);

const suvok = (...words: string[]) => answered(words);

/** The same as a program. */
async function program(...words: string[]): Promise<Answered> {
  try {
    const { stdout, stderr } = await promisify(execFile)(process.execPath, ['launch/run.cjs', 'cli/main.ts', ...words]);
    return { code: 0, out: stdout, error: stderr };
  } catch (failure) {
    const { code, stdout, stderr } = failure as { code: 1 | 2; stdout: string; stderr: string };
    return { code, out: stdout, error: stderr };
  }
}

beforeAll(() => {
  writeFileSync(path('run.csv'), writeRecordingCsv(generatedRun({ speedNoise: 0.01 })));
  writeFileSync(
    path('slow.csv'),
    'time [s],rollerSpeed [rad/s]\n' + Array.from({ length: 50 }, (_, row) => `${row / 10},60\n`).join(''),
  );
  writeFileSync(path('dyno.json'), JSON.stringify(testDyno));
  writeFileSync(path('air.json'), JSON.stringify({ temperatureC: 31, pressureHpa: 1002, relativeHumidityPct: 48 }));
  writeFileSync(path('bad.json'), JSON.stringify({ ...testDyno, inertiaKgM2: -1 }));
});

describe('suvok reduce', () => {
  test('prints one JSON object in the form of the contract', async () => {
    const { code, out, error } = await suvok(
      'reduce',
      path('run.csv'),
      '--dyno',
      path('dyno.json'),
      '--air',
      path('air.json'),
      '--smoothing',
      '150',
    );
    expect([code, error]).toEqual([0, '']);
    const curve = curveJson.parse(JSON.parse(out));
    expect(curve.correction).toEqual({ standard: 'sae-j1349', factor: 1.023455, valid: true });
    expect(curve.smoothing).toEqual({ spanRpm: 150, auto: false });
    expect(curve.powerKw).toHaveLength(curve.engineSpeedRpm.length);
    expect(curve.powerKw[40]! / curve.uncorrectedPowerKw[40]!).toBeCloseTo(1.0235, 4);
  });

  test('without air nothing is corrected and the checks say so', async () => {
    const curve = curveJson.parse(
      JSON.parse((await suvok('reduce', path('run.csv'), '--dyno', path('dyno.json'), '--grid', '50')).out),
    );
    expect(curve.correction.factor).toBe(1);
    expect(curve.checks.map((check) => check.id)).toContain('air-missing');
    expect(curve.assumed).toEqual([expect.stringMatching(/^No correction: /)]);
    expect(curve.smoothing.auto).toBe(true);
    expect(curve.engineSpeedRpm[1]! - curve.engineSpeedRpm[0]!).toBe(50);
  });

  test.each([
    [['reduce', 'nowhere.csv', '--dyno', path('dyno.json')], /no such file/],
    [['reduce', path('run.csv')], /--dyno/],
    [['reduce', path('run.csv'), '--dyno', path('bad.json')], /bad\.json.*inertiaKgM2/],
    [['reduce', path('run.csv'), '--dyno', path('run.csv')], /not JSON/],
    [['reduce', path('run.csv'), '--dyno', path('dyno.json'), '--standard', 'home-made'], /no standard "home-made"/],
    [['reduce', path('run.csv'), '--dyno', path('dyno.json'), '--smoothing', '-5'], /--smoothing/],
    [['reduce', path('slow.csv'), '--dyno', path('dyno.json'), '--ratio', '3.4'], /No sweep/],
    [['reduce', path('slow.csv'), '--dyno', path('dyno.json')], /engineSpeed/],
    [['polish'], /no command "polish"/],
    [['reduce', '--colour', 'red'], /colour/],
  ])('%j: exit code 2 and one line', async (words, sentence) => {
    const { code, out, error } = await suvok(...words);
    expect([code, out]).toEqual([2, '']);
    expect(error).toMatch(sentence);
    expect(error.trim().split('\n')).toHaveLength(1);
  });

  test('as a program it says the same on its two outputs, with its exit code', async () => {
    for (const words of [['air', '--help'], ['polish']]) expect(await program(...words)).toEqual(await suvok(...words));
  });

  test('--help tells every command and its options, and asks for nothing else', async () => {
    const { code, out, error } = await suvok('--help');
    expect([code, error]).toEqual([0, '']);
    for (const word of ['reduce', 'compare', 'steps', 'coastdown', 'air', '--band', '--driveline-inertia'])
      expect(out).toContain(word);
    expect((await suvok('compare', '--help')).out).not.toContain('coastdown');
  });
});

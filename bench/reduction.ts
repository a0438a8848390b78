import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { dynoFile } from '../contract/files/machine-and-air.ts';
import { readRecordingCsv } from '../core/exchange/recordings/read-csv.ts';
import { interpolate } from '../core/numerics/interpolation.ts';
import { spanLimits } from '../core/smoothing/span.ts';
import type { Recording } from '../core/recording/recording.ts';
import { curveOf, usualGridRpm } from '../core/figures/runs/corrected-curve.ts';
import { preparedSweep } from '../core/reduction/prepared-sweep.ts';
import { resolvedSpan } from '../core/reduction/auto-span.ts';
import { generatedRun } from '../core/testing/generated-run.ts';
import { testDyno } from '../core/testing/test-car.ts';
import type { Figure } from './figure.ts';

const settings = { standard: 'none', share: 1, gridRpm: usualGridRpm } as const;

/** A recording of 15 s at 1 kHz with 12 channels. */
export function largeRecording(): Recording {
  const run = generatedRun({ rateHz: 1000, speedNoise: 0.03, coastS: 4 });
  const to = run.time.findIndex((at) => at > 15.5);
  const cut = {
    time: run.time.slice(0, to),
    channels: run.channels.map((channel) => ({ ...channel, values: channel.values.slice(0, to) })),
  };
  while (cut.channels.length < 12)
    cut.channels.push({ name: `channel${cut.channels.length}`, unit: '', values: cut.time.map(Math.sin) });
  return cut;
}

/** The middle of several timings, ms; the first ones, in which the engine warms up, do not count. */
function middleMs(work: () => void): number {
  const times = Array.from({ length: 25 }, () => {
    const start = performance.now();
    work();
    return performance.now() - start;
  });
  return times.slice(5).sort((a, b) => a - b)[10]!;
}

export function reductionTimes(): Figure[] {
  const recording = largeRecording();
  const reduce = (smoothing: number | 'auto') => {
    const sweep = preparedSweep(recording, testDyno);
    curveOf(sweep, undefined, { ...settings, spanRpm: resolvedSpan(smoothing, [sweep]) });
  };
  const runs = Array.from({ length: 30 }, (_, seed) =>
    preparedSweep(generatedRun({ speedNoise: 0.012, seed }), testDyno),
  );
  let span = 100;
  return [
    { name: 'reduce 15 s, 1 kHz, 12 channels, span given', value: middleMs(() => reduce(200)), unit: 'ms', budget: 15 },
    { name: 'the same, auto resolved', value: middleMs(() => reduce('auto')), unit: 'ms' },
    {
      name: 'recompute 30 runs after a smoothing change',
      value: middleMs(() => {
        span += 10;
        for (const run of runs) curveOf(run, undefined, { ...settings, spanRpm: span });
      }),
      unit: 'ms',
      budget: 60,
    },
  ];
}

/** RMS and peak error against the known truths, in % of the peak, with auto smoothing. */
export function caseErrors(folder: string): Figure[] {
  if (!existsSync(folder)) return [];
  return readdirSync(folder).flatMap((name) => {
    const text = (file: string) => readFileSync(join(folder, name, file), 'utf8');
    const { recording } = readRecordingCsv(text('run.csv'));
    const sweep = preparedSweep(recording, dynoFile.parse(JSON.parse(text('dyno.json'))));
    const spanRpm = resolvedSpan('auto', [sweep]);
    const { engineSpeedRpm, uncorrectedPowerKw } = curveOf(sweep, undefined, { ...settings, spanRpm });
    const truth = text('truth.csv')
      .trim()
      .split('\n')
      .slice(1)
      .map((line) => line.split(',').map(Number) as [number, number]);
    const peak = Math.max(...truth.map(([, kw]) => kw));
    const covered = truth.filter(([rpm]) => rpm >= engineSpeedRpm[0]! && rpm <= engineSpeedRpm.at(-1)!);
    const squares = covered.map(([rpm, kw]) => (interpolate(engineSpeedRpm, uncorrectedPowerKw, rpm) - kw) ** 2);
    const rms = (100 * Math.sqrt(squares.reduce((sum, value) => sum + value, 0) / squares.length)) / peak;
    const found = Math.max(...Array.from(uncorrectedPowerKw));
    return [
      {
        name: `${name}: RMS error, auto ${spanLimits(spanRpm).join(' to ')} rpm, ${covered.length} of ${truth.length} points`,
        value: rms,
        unit: '% of peak',
        budget: 0.25,
      },
      { name: `${name}: peak error`, value: Math.abs(100 * (found / peak - 1)), unit: '%', budget: 0.4 },
    ];
  });
}

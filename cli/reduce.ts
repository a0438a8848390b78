import type { CurveJson } from '../contract/files/curve.ts';
import { curveToJson } from '../core/exchange/results/curve-json.ts';
import { usualGridRpm } from '../core/figures/runs/corrected-curve.ts';
import { curveOfRun, loneRun } from '../core/figures/curve-of-run.ts';
import { readingOf } from '../core/figures/runs/reading.ts';
import { Refusal } from '../core/refusal.ts';
import { airOf, dynoOf, positive, recordingFile, runOfFile, shareOf, smoothingOf } from './input.ts';
import { correctingOf } from './assumed.ts';
import { sortedWords, wordOf } from './words.ts';

export const reduceUsage = `suvok reduce RUN.csv --dyno DYNO.json [--air AIR.json] [--ratio N]
             [--standard ID] [--share PERCENT] [--smoothing RPM|auto|0] [--grid RPM] [--engine petrol|diesel|electric]
    One recording to one curve of power and torque over engine speed, with what the checks found.`;

/**
 * `suvok reduce`: one recording to one curve.
 * @throws Refusal with a sentence for every kind of bad input
 */
export function reduceCommand(words: readonly string[]): CurveJson {
  const sorted = sortedWords(words, ['dyno', 'air', 'ratio', 'standard', 'share', 'smoothing', 'grid', 'engine']);
  const [file, ...more] = sorted.before;
  if (!file) throw new Refusal('Name the recording: suvok reduce RUN.csv --dyno DYNO.json');
  if (more.length > 0) throw new Refusal(`One recording at a time: "${more[0]}" is one too many.`);
  const dyno = dynoOf(wordOf(sorted, 'dyno'));
  const air = airOf(wordOf(sorted, 'air'));
  const smoothing = smoothingOf(wordOf(sorted, 'smoothing'));
  const ratio = wordOf(sorted, 'ratio');
  const grid = wordOf(sorted, 'grid');
  const share = shareOf(wordOf(sorted, 'share'));
  const gridRpm = grid === undefined ? usualGridRpm : positive('grid', grid);
  const { standard, ignition, assumed } = correctingOf(sorted, air !== undefined);
  const { job, run } = loneRun(
    runOfFile(1, '', { dyno, air, engineToDrumRatio: ratio === undefined ? null : positive('ratio', ratio) }),
    ignition ?? null,
  );
  const readings = new Map([[run.id, readingOf(run, recordingFile(file))]]);
  const curve = curveOfRun(job, run, { standard, share, smoothing, gridRpm }, readings);
  return { ...curveToJson(curve, smoothing === 'auto'), assumed };
}

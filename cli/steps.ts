import { correctionOf } from '../core/air/correction.ts';
import { round } from '../core/exchange/results/curve-json.ts';
import { Refusal } from '../core/refusal.ts';
import { steadyHolds, usualStepSettings } from '../core/run-kinds/steady-holds.ts';
import type { MeanOfSamples } from '../core/statistics/mean-of-samples.ts';
import { about, airOf, dynoOf, positive, recordingFile, shareOf } from './input.ts';
import { correctingOf } from './assumed.ts';
import { sortedWords, wordOf } from './words.ts';

export const stepsUsage = `suvok steps RUN.csv --dyno DYNO.json [--air AIR.json] [--ratio N] [--standard ID] [--share PERCENT]
            [--least SECONDS] [--steady PERCENT] [--engine petrol|diesel|electric]
    The steady holds of a step test: mean, standard deviation, 95 % interval of the mean, settling time and count of
    each. A hold changes speed by less than --steady (1) percent a second for at least --least (1.5) seconds.`;

/** `suvok steps`: the steady holds of a step test. */
export function stepsCommand(words: readonly string[]) {
  const sorted = sortedWords(words, ['dyno', 'air', 'ratio', 'standard', 'share', 'least', 'steady', 'engine']);
  const [file, ...more] = sorted.before;
  if (!file) throw new Refusal('Name the recording: suvok steps RUN.csv --dyno DYNO.json');
  if (more.length > 0) throw new Refusal(`One recording at a time: "${more[0]}" is one too many.`);
  const number = (name: string) => {
    const text = wordOf(sorted, name);
    return text === undefined ? undefined : positive(name, text);
  };
  const dyno = dynoOf(wordOf(sorted, 'dyno'));
  const air = airOf(wordOf(sorted, 'air'));
  const said = correctingOf(sorted, air !== undefined);
  const correction = correctionOf(said.standard, air, shareOf(wordOf(sorted, 'share')));
  const steady = number('steady');
  const settings = {
    leastS: number('least') ?? usualStepSettings.leastS,
    steadyShare: steady === undefined ? usualStepSettings.steadyShare : steady / 100,
  };
  const holds = about(file, () => steadyHolds(recordingFile(file), dyno, number('ratio'), settings));
  const { standard, factor, valid } = correction;
  return {
    correction: { standard, factor: round(factor, 6), valid },
    assumed: said.assumed,
    holds: holds.map((hold) => ({
      startS: round(hold.startS, 3),
      endS: round(hold.endS, 3),
      settlingS: round(hold.settlingS, 3),
      count: hold.count,
      engineSpeedRpm: figures(hold.engineSpeedRpm, 1),
      powerKw: figures(hold.powerKw, factor),
      uncorrectedPowerKw: figures(hold.powerKw, 1),
      torqueNm: figures(hold.torqueNm, factor),
    })),
  };
}

function figures({ mean, sd, halfWidth }: MeanOfSamples, factor: number) {
  return { mean: round(factor * mean, 4), sd: round(factor * sd, 4), halfWidth: round(factor * halfWidth, 4) };
}

import { responseTo } from '../core/response/response.ts';
import { responseRuns } from '../core/testing/response-runs.ts';
import { attributionOf } from '../core/comparison/attribution.ts';
import { bandDifference } from '../core/comparison/comparison.ts';
import { simulatedExperiment } from '../core/testing/simulated-experiment.ts';
import type { Figure } from './figure.ts';

const count = 1000;

/** How often the intervals of an optimum and of a ladder's steps hold the truth, over drawn experiments. */
export function responseRates(): Figure[] {
  let held = 0;
  let tops = 0;
  let withTop = 0;
  for (let seed = 1; seed <= count; seed++) {
    const optimum = 1.2 + (seed % 9) * 0.3;
    const runs = responseRuns({
      seed,
      levels: [0, 1.5, 3, 4.5],
      runsEach: 2 + (seed % 3),
      optimum,
      lossPerUnit2: 0.004,
      standardDeviation: 0.003,
    });
    const found = responseTo(runs, undefined, { label: 'ignition', unit: '°' });
    if (!('whole' in found)) continue;
    tops++;
    const top = found.whole.optimum;
    if (top) withTop++;
    if (!top || (optimum >= top.fromX - 0.02 && optimum <= top.toX + 0.02)) held++;
  }
  let steps = 0;
  let stepsHeld = 0;
  for (let seed = 1; seed <= count / 2; seed++) {
    const gains = [0, 0.008, 0.008, 0.02];
    const setups = gains.map((gain, index) => ({
      id: index + 1,
      letter: 'ABCD'[index]!,
      parentId: index === 0 ? null : index,
      change: 'change',
      items: [],
      runs: simulatedExperiment({
        seed: seed * 97 + 13 * index,
        runs: 3,
        otherRuns: 1,
        standardDeviation: 0.004,
        gain: () => gain,
      }).test,
    }));
    const runsOf = (id: number) => setups[id - 1]!.runs;
    const found = attributionOf(setups, 4, (testId, againstId, from, to) =>
      bandDifference([runsOf(testId), runsOf(againstId)], from, to),
    )!;
    found.steps.slice(1).forEach(({ gain }, index) => {
      steps++;
      const truth = (gains[index + 1]! - gains[index]!) * found.steps[0]!.meanKw;
      if (Math.abs(gain!.difference - truth) <= gain!.halfWidth) stepsHeld++;
    });
  }
  return [
    { name: 'response: 95 % interval holds the true optimum', value: (100 * held) / tops, unit: '% (93 to 97)' },
    { name: 'response: a top is found among the levels', value: (100 * withTop) / tops, unit: '%' },
    {
      name: 'steps: 95 % intervals hold the true gain of a step',
      value: (100 * stepsHeld) / steps,
      unit: '% (93 to 97)',
    },
  ];
}

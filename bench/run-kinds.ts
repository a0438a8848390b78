import { judgeKind } from '../core/judgement/kind-judgement.ts';
import { coldStartFigures } from '../core/run-kinds/cold-start.ts';
import { cruiseFigures } from '../core/run-kinds/cruise.ts';
import { idleFigures } from '../core/run-kinds/idle.ts';
import type { RunFigures } from '../core/run-kinds/run-figure.ts';
import { transientFigures } from '../core/run-kinds/transient.ts';
import { cruiseFuel, cruiseRun, idleRun, startRun, transientRun } from '../core/testing/kind-runs.ts';
import { drawnTest, waysOfLogging } from '../core/testing/null-tests.ts';
import type { Figure } from './figure.ts';

const runs = 100;
/** Drawn for each way of logging. */
const cars = 300;

const idle = (over: Partial<Parameters<typeof idleRun>[0]>) => (seed: number) =>
  idleFigures({ own: idleRun({ seed, ...over }), beside: [] });
const start = (over: Partial<Parameters<typeof startRun>[0]>) => (seed: number) =>
  coldStartFigures({ own: startRun({ seed, ...over }), beside: [] });
const response = (boostS: number) => (seed: number) => {
  const { recording, wheels } = transientRun({ seed, boostS });
  return transientFigures({ own: recording, beside: [] }, wheels);
};
const cruise = (over: Partial<Parameters<typeof cruiseRun>[0]>) => (seed: number) => {
  const { recording, wheels } = cruiseRun({ seed, ...over });
  return cruiseFigures({ own: recording, beside: [] }, wheels, cruiseFuel);
};

/** Faults of the kinds of run with figures of their own: how often each is found, and found where it is not; and savings. */
export function kindRates(): Figure[] {
  const share = (make: (seed: number) => RunFigures, id: string) =>
    Array.from({ length: runs }, (_, seed) => make(seed + 1)).filter(({ found }) => found.some((one) => one.id === id))
      .length;
  const faults = [
    ['idle-hunts', idle({}), idle({ swing: { rpm: 40, periodS: 2.1 } })],
    ['idle-dips', idle({}), idle({ dips: 16 })],
    ['idle-lean', idle({}), idle({ lambda: 1.08 })],
    ['weak-battery', start({}), start({ lowestV: 8.8 })],
    ['long-cranking', start({}), start({ crankingS: 3.2 })],
    ['stalled', start({}), start({ stalls: 1 })],
    ['late-boost', response(0.6), response(1.2)],
    ['cruise-rich', cruise({}), cruise({ lambda: 0.91 })],
  ] as const;
  return [
    ...faults.flatMap(([id, sound, faulty]): Figure[] => [
      { name: `${id}: false alarms on ${runs} sound runs`, value: share(sound, id), unit: '%', budget: 1 },
      { name: `${id}: hits on ${runs} faulty runs`, value: share(faulty, id), unit: '%' },
    ]),
    {
      name: 'saving of nothing that is claimed, one cruise of 3 min a side',
      value: claimedSavings(1.2),
      unit: '%',
      budget: 5,
    },
    { name: 'saving of 6 % that is claimed, likewise', value: claimedSavings(1.128), unit: '%' },
    ...waysOfLogging.flatMap(([kind, name, how]): Figure[] => {
      const claims = (changed: boolean) =>
        Array.from({ length: cars }, (_, car) => drawnTest(kind, how, car + 1, changed)).filter(({ figures }) =>
          figures.some(({ claim }) => claim),
        ).length /
        (cars / 100);
      return [
        {
          name: `${kind}, ${name}: any false claim, 2 + 2 runs of ${cars} cars`,
          value: claims(false),
          unit: '%',
          budget: 5,
        },
        { name: `${kind}, ${name}: a large change that is claimed`, value: claims(true), unit: '%' },
      ];
    }),
  ];
}

function claimedSavings(gramsPerS: number): number {
  let claimed = 0;
  for (let seed = 1; seed <= runs; seed++) {
    const before = { label: 'A1', figures: cruise({})(seed).figures };
    const after = { label: 'B1', figures: cruise({ gramsPerS })(seed + 1000).figures };
    const { figures } = judgeKind('cruise', [before], [after], []);
    if (figures.some(({ id, claim }) => id === 'fuel' && claim !== null)) claimed++;
  }
  return (100 * claimed) / runs;
}

import { judgeKind, type KindJudgement, type KindRun } from '../judgement/kind-judgement.ts';
import { coldStartFigures } from '../run-kinds/cold-start.ts';
import { idleFigures } from '../run-kinds/idle.ts';
import { roadCheckFigures } from '../run-kinds/road-check.ts';
import type { RunFigures } from '../run-kinds/run-figure.ts';
import { transientFigures } from '../run-kinds/transient.ts';
import { loggedDrive, loggedIdle, loggedResponse, loggedStart, type HowLogged } from './logged-tests.ts';

type Made = (car: number, run: number, how: HowLogged, changed: boolean) => RunFigures;

/** Kinds of tests, each made of a drawn car's run; a changed car is plainly worse, or faster on the road. */
export const drawnKinds = {
  'cold-start': (car, run, how, changed) =>
    coldStartFigures({ own: loggedStart(car, run, how, changed ? { cranksS: 1 } : {}), beside: [] }),
  'road-check': (car, run, how, changed) =>
    roadCheckFigures({ own: loggedDrive(car, run, how, changed ? { faster: 0.12 } : {}), beside: [] }),
  idle: (car, run, how, changed) =>
    idleFigures({ own: loggedIdle(car, run, how, changed ? { spreads: 3 } : {}), beside: [] }),
  transient: (car, run, how, changed) => {
    const { recording, wheels } = loggedResponse(car, run, how, changed ? { slowerS: 0.6 } : {});
    return transientFigures({ own: recording, beside: [] }, wheels);
  },
} as const satisfies Record<string, Made>;

/** How each kind is logged: fast and slow, smooth, stepped and noisy. */
export const waysOfLogging: readonly (readonly [kind: keyof typeof drawnKinds, name: string, how: HowLogged])[] = [
  ['cold-start', '50 Hz', { rateHz: 50, noise: { engineSpeed: 3, batteryVoltage: 0.02 } }],
  ['cold-start', '20 Hz, steps of 10 rpm and 0.1 V', { rateHz: 20, steps: { engineSpeed: 10, batteryVoltage: 0.1 } }],
  ['cold-start', '10 Hz', { rateHz: 10, noise: { engineSpeed: 3, batteryVoltage: 0.02 } }],
  ['cold-start', '5 Hz, steps of 25 rpm and 0.1 V', { rateHz: 5, steps: { engineSpeed: 25, batteryVoltage: 0.1 } }],
  ['road-check', '100 Hz, 0.3 km/h of noise', { rateHz: 100, noise: { roadSpeed: 0.3 } }],
  ['road-check', '10 Hz, steps of 1 km/h', { rateHz: 10, steps: { roadSpeed: 1 } }],
  ['road-check', '50 Hz, steps of 1 km/h', { rateHz: 50, steps: { roadSpeed: 1 } }],
  ['road-check', '2 Hz', { rateHz: 2, noise: { roadSpeed: 0.05 } }],
  ['idle', '50 Hz', { rateHz: 50 }],
  ['idle', '10 Hz, steps of 10 rpm and 0.01 λ', { rateHz: 10, steps: { engineSpeed: 10, lambda: 0.01 } }],
  ['transient', '100 Hz', { rateHz: 100, noise: { boost: 0.6 } }],
  ['transient', '25 Hz, steps of 1 kPa', { rateHz: 25, steps: { boost: 1 } }],
];

/** Two runs against two of one drawn car, the second two changed or not. */
export function drawnTest(kind: keyof typeof drawnKinds, how: HowLogged, car: number, changed: boolean): KindJudgement {
  const make: Made = drawnKinds[kind];
  const side = (runs: readonly number[], isChanged: boolean): KindRun[] =>
    runs.map((run) => ({ label: `R${run}`, figures: make(car, run, how, isChanged).figures }));
  return judgeKind(kind, side([1, 2], false), side([3, 4], changed), []);
}

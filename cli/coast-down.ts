import { coastDown, lossAt, type Estimate } from '../core/run-kinds/coast-down.ts';
import { round } from '../core/exchange/results/curve-json.ts';
import { Refusal } from '../core/refusal.ts';
import { about, dynoOf, positive, recordingFile } from './input.ts';
import { sortedWords, wordOf } from './words.ts';

export const coastDownUsage = `suvok coastdown RUN.csv --dyno DYNO.json [--driveline-inertia KGM2]
    Loss torque a + b·ω + c·ω² from a coast (clutch out or neutral at top speed), coefficients with 95 % intervals.
    --driveline-inertia is what turns with the drum beside it, at the drum's speed: state it for a coast with the
    car's wheels on. The losses already in DYNO.json are not subtracted. Load-dependent losses are not in a coast.`;

/** Speeds at which the loss is told, as shares of the coast. */
const places = [0, 0.25, 0.5, 0.75, 1];

/** `suvok coastdown`: what the machine, or machine and driveline, lose while turning. */
export function coastDownCommand(words: readonly string[]) {
  const sorted = sortedWords(words, ['dyno', 'driveline-inertia']);
  const [file, ...more] = sorted.before;
  if (!file) throw new Refusal('Name the recording: suvok coastdown RUN.csv --dyno DYNO.json');
  if (more.length > 0) throw new Refusal(`One recording at a time: "${more[0]}" is one too many.`);
  const dyno = dynoOf(wordOf(sorted, 'dyno'));
  const extra = wordOf(sorted, 'driveline-inertia');
  const found = about(file, () =>
    coastDown(recordingFile(file), dyno, extra === undefined ? 0 : positive('driveline-inertia', extra)),
  );
  return {
    aNm: interval(found.aNm),
    bNmPerRadS: interval(found.bNmPerRadS),
    cNmPerRadS2: interval(found.cNmPerRadS2),
    inertiaKgM2: found.inertiaKgM2,
    coast: {
      startS: round(found.startS, 3),
      endS: round(found.endS, 3),
      fromRadS: round(found.fromRadS, 2),
      toRadS: round(found.toRadS, 2),
      samples: found.samples,
    },
    residualRadS: round(found.residualRadS, 5),
    losses: places.map((place) => {
      const speedRadS = found.toRadS + place * (found.fromRadS - found.toRadS);
      const torqueNm = lossAt(found, speedRadS);
      return {
        speedRadS: round(speedRadS, 2),
        torqueNm: interval(torqueNm),
        powerKw: round((torqueNm.value * speedRadS) / 1000, 4),
      };
    }),
  };
}

function interval({ value, low, high }: Estimate) {
  return { value: significant(value), low: significant(low), high: significant(high) };
}

function significant(value: number): number {
  return Number(value.toPrecision(6));
}

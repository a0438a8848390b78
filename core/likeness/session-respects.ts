import { otherRangeRpm } from '../curve/covered-range.ts';
import { spokenRpm } from '../units/spoken.ts';
import { mountedAnew } from './mountings.ts';
import { all, known, type LikeForLikeInput, type RunConditions, type Unlikeness } from './run-conditions.ts';

export function shortRange({ test, baseline }: LikeForLikeInput): Unlikeness | undefined {
  const sides = [ranged(test), ranged(baseline)] as const;
  if (sides.some((side) => side.length === 0)) return undefined;
  const [a, b] = [sharedBy(sides[0]), sharedBy(sides[1])];
  const [below, above] = [a[0] - b[0], a[1] - b[1]];
  if (Math.abs(below) < otherRangeRpm && Math.abs(above) < otherRangeRpm) return undefined;
  return {
    id: 'other-range',
    severity: Math.abs(above) >= otherRangeRpm ? 'mind' : 'note',
    fromRpm: Math.max(a[0], b[0]),
    toRpm: Math.min(a[1], b[1]),
    message: `The runs cover different ranges: ${rangeWords(a)} against ${rangeWords(b)}.`,
    matters: 'peaks of runs that end at different speeds are not alike',
    remedy: 'Read the common range and the bands, not the peaks; they are limited to what both cover.',
  };
}

/** The one run that makes the range smaller that all share, where its own side has others that reach farther. */
export function shortRun({ test, baseline }: LikeForLikeInput): Unlikeness | undefined {
  const sides = [ranged(test), ranged(baseline)];
  const runs = sides.flat();
  const shared = sharedBy(runs);
  const [shortest] = sides
    .filter((side) => side.length > 1)
    .flat()
    .map((run) => ({ run, without: sharedBy(runs.filter((other) => other !== run)) }))
    .map(({ run, without }) => ({ run, without, lost: shared[0] - without[0] + without[1] - shared[1] }))
    .sort((a, b) => b.lost - a.lost);
  if (!shortest || shortest.lost < otherRangeRpm) return undefined;
  const { run, without } = shortest;
  const left = shared[1] > shared[0] ? `share ${rangeWords(shared)}` : 'share no range at all';
  return {
    id: 'short-run',
    severity: 'mind',
    labels: [run.label],
    message: `${run.label} covers only ${rangeWords([run.fromRpm, run.toRpm])}: with it the runs ${left}, without it ${rangeWords(without)}.`,
    matters: 'what lies outside of the shared range is judged by nobody',
    remedy: `Set ${run.label} aside if it was cut short, or record it again.`,
  };
}

type Ranged = RunConditions & { fromRpm: number; toRpm: number };

/** The runs whose range is known. */
const ranged = (runs: readonly RunConditions[]) =>
  runs.filter((run): run is Ranged => run.fromRpm !== undefined && run.toRpm !== undefined);

const sharedBy = (runs: readonly Ranged[]) =>
  [Math.max(...runs.map(({ fromRpm }) => fromRpm)), Math.min(...runs.map(({ toRpm }) => toRpm))] as const;

const rangeWords = ([from, to]: readonly [number, number]) => `${spokenRpm(from)} to ${spokenRpm(to)} rpm`;

/** A baseline of one run: everything is held against a reading that nothing confirms. */
export function loneBaseline(baseline: readonly Pick<RunConditions, 'label'>[]): Unlikeness | undefined {
  const [only, ...more] = baseline;
  if (!only || more.length > 0) return undefined;
  return {
    id: 'lone-baseline',
    severity: 'mind',
    message: `What it is held against is one run, ${only.label}: nothing tells how far it would read another time.`,
    matters: 'a single run is off by 0.5 to 1 % as easily as not, and every gain with it',
    remedy: 'Record two more of the same setup, back to back.',
  };
}

export function remount(input: LikeForLikeInput): Unlikeness | undefined {
  const runs = all(input).map(({ startedAt, remounted, bay }) => ({ atMs: startedAt?.getTime(), remounted, bay }));
  if (!mountedAnew(runs)) return undefined;
  const said = runs.some(({ remounted }) => remounted);
  const moved = new Set(known(runs.map(({ bay }) => bay))).size > 1;
  const apart = moved
    ? 'The runs were made in different bays, strapped anew'
    : said
      ? 'The car was strapped anew between the runs'
      : 'The runs are more than 12 hours apart';
  return {
    id: 'remount',
    severity: input.remountKnown ? 'note' : 'stop',
    message: input.remountKnown
      ? `${apart}; the spread from mounting to mounting, as this dyno has shown it, is counted in.`
      : `${apart}; spread from strapping the car anew is not known, so no verdict is given.`,
    matters: 'a new strapping moves a reading by 0.5 to 2 %',
    ...(input.remountKnown ? {} : { remedy: 'Run the baseline setup again in this session and compare with that.' }),
  };
}

export function severalItems({ changes = [] }: LikeForLikeInput): Unlikeness | undefined {
  const items = changes.reduce((sum, step) => sum + step.items, 0);
  if (items < 2) return undefined;
  const listed = changes.map((step) => `${step.letter} ${step.change}`).join('; ');
  const inOne = changes.length === 1;
  return {
    id: 'several-items',
    severity: 'mind',
    figure: items,
    unit: 'items',
    message: inOne
      ? `One step changes ${items} things (${listed}): what each of them gave cannot be split.`
      : `The setups differ in ${changes.length} steps (${listed}): the gain belongs to them together.`,
    matters: 'one item may give what another takes',
    remedy: inOne ? 'Take one item back and run again.' : 'Compare each setup with its parent.',
  };
}

export function order({ drift, test, baseline }: LikeForLikeInput): Unlikeness | undefined {
  if (!drift || drift.separable || test.length < 2 || baseline.length < 2) return undefined;
  const evident = drift.pValue < 0.05;
  return {
    id: 'not-bracketed',
    severity: evident ? 'mind' : 'note',
    message: evident
      ? 'The runs drift from one to the next, and the baseline was not repeated after the change: drift and change cannot be told apart.'
      : 'The baseline was not repeated after the change: a steady drift would look the same as a gain.',
    matters: 'a drift of half the spread per run makes a gain out of nothing one time in six',
    remedy: 'Return to the earlier setup for one run after the last, or alternate.',
  };
}

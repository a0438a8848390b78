import { meanOf } from '../numerics/mean.ts';
import type { RunFigure } from '../run-kinds/run-figure.ts';
import type { ComparedKind } from '../run-kinds/figures-of-kind.ts';
import { holm } from '../statistics/holm.ts';
import { figureDifference, ownProbability, type FigureDifference, type ReadFigure } from './kind-difference.ts';

/** A run of a kind with figures of its own. */
export interface KindRun {
  label: string;
  figures: readonly RunFigure[];
}

/** One figure of two setups, with what may be said of its difference. */
export interface JudgedFigure {
  id: string;
  label: string;
  unit: string;
  digits: number;
  before: number;
  after: number;
  /** After less before, and the half width of its 95 % interval; NaN where nothing tells one. */
  difference: number;
  halfWidth: number;
  /** Whether it is one that a claim may be made of; other figures are circumstances. */
  asked: boolean;
  /** What is claimed of it, with the chance of any false claim of the kind kept below 5 %. */
  claim: 'less' | 'more' | null;
  /** Whether the claim is what is wanted; null where nothing is claimed, or neither way is wanted. */
  good: boolean | null;
}

export interface KindJudgement {
  kind: ComparedKind;
  before: string[];
  after: string[];
  figures: JudgedFigure[];
  /** Why nothing is claimed at all, or what is to be borne in mind; in words. */
  caveats: { severity: 'mind' | 'stop'; text: string }[];
  /** What would settle it, in words. */
  next: string | null;
}

/** Wheel power and road speed of two cruises may differ by this share before their fuel says nothing of a saving. */
const equalShare = 0.01;
/** Standard deviation of a cruise's fuel from one warm-up to the next, as a share: assumed, for a run's own blocks and runs back to back do not hold it. */
const usualFuelDrift = 0.006;
/** A saving of this share is what people ask about. */
const askedSaving = 0.03;
/** Two starts are equally cold within so many °C. */
const equalColdC = 4;
/**
 * Judges a kind of run before and after: each figure by the difference of the
 * setups' means with the spread of repeats (all setups' together; never less than
 * what one run's own interval allows), all figures of the kind together by Holm's
 * rule. One run a side has no spread: nothing is claimed, except of a cruise,
 * whose blocks count its drift.
 *
 * @param alike runs of other setups, a list each: they tell of the spread
 */
export function judgeKind(
  kind: ComparedKind,
  before: readonly KindRun[],
  after: readonly KindRun[],
  alike: readonly (readonly KindRun[])[],
): KindJudgement {
  const ids = [...new Set(after.flatMap(({ figures }) => figures.map(({ id }) => id)))].filter((id) => id !== timeId);
  const compared = ids.flatMap((id) => {
    const [first, second] = [valuesOf(before, id), valuesOf(after, id)];
    const shape = after.flatMap(({ figures }) => figures).find((one) => one.id === id);
    if (!shape || first.length === 0 || second.length === 0) return [];
    return [
      {
        shape,
        ...figureDifference(
          kind,
          shape,
          first,
          second,
          alike.map((runs) => valuesOf(runs, id)),
        ),
      },
    ];
  });
  const [unlike, widened] = likeness(kind, compared);
  const judged = compared.map((one) => ({ ...one, ...widened(one) }));
  const asked = judged.map(({ shape }) => shape.better !== null);
  const called = holm(judged.map(({ pValue }, at) => (asked[at] && unlike.length === 0 ? pValue : NaN)));
  const figures = judged.map(({ shape, before: was, after: is, difference, halfWidth, pValue }, at): JudgedFigure => {
    const claim = called[at] ? (difference < 0 ? 'less' : 'more') : null;
    const { id, label, unit, digits, better } = shape;
    return {
      id,
      label,
      unit,
      digits,
      before: was,
      after: is,
      difference,
      halfWidth,
      asked: asked[at] === true && !Number.isNaN(pValue),
      claim,
      good: claim && better ? claim === better : null,
    };
  });
  const single = before.length === 1 && after.length === 1 && alike.every((runs) => runs.length < 2);
  const caveats: KindJudgement['caveats'] = unlike.map((text) => ({ severity: 'stop' as const, text }));
  if (single && kind !== 'cruise')
    caveats.push({
      severity: 'stop',
      text: 'One run a side: how much repeats differ is not known, so nothing is claimed; ± is the noise within each run alone. Repeat it once more on either side.',
    });
  if (single && kind === 'cruise' && figures.some(({ claim }) => claim))
    caveats.push({
      severity: 'mind',
      text: 'One cruise a side: its own drift is in the interval, another warm-up or day is not. Go back to the first setup and drive it once more.',
    });
  return {
    kind,
    before: labels(before),
    after: labels(after),
    figures,
    caveats,
    next: nextWords(kind, figures, before, after),
  };
}

/** How long a cruise was, which is no figure of the car. */
const timeId = 'minutes';

const labels = (runs: readonly KindRun[]) => runs.map(({ label }) => label);

const valuesOf = (runs: readonly KindRun[], id: string): ReadFigure[] =>
  runs.flatMap(({ figures }) => figures.filter((one) => one.id === id && !Number.isNaN(one.value)));

type Compared = FigureDifference & { shape: RunFigure };

/** Why the sides are not alike, and by how much more each figure is uncertain for what they differ in. */
function likeness(
  kind: ComparedKind,
  compared: readonly Compared[],
): [string[], (one: Compared) => Partial<FigureDifference>] {
  const of = (id: string) => compared.find(({ shape }) => shape.id === id);
  const unlike: string[] = [];
  if (kind === 'cold-start') {
    const cold = of('start-coolant');
    if (cold && Math.abs(cold.difference) > equalColdC)
      unlike.push(
        `Not equally cold: ${cold.before.toFixed(0)} against ${cold.after.toFixed(0)} °C at the start. Nothing is claimed; let it cool as long again.`,
      );
  }
  if (kind !== 'cruise') return [unlike, () => ({})];
  let share = 0;
  for (const [id, name] of [
    ['wheel-power', 'wheel power'],
    ['road-speed', 'road speed'],
  ] as const) {
    const found = of(id);
    if (!found) continue;
    const off = Math.abs(found.difference) / found.before;
    if (off > equalShare)
      unlike.push(
        `Not at equal ${name}: ${found.before.toFixed(2)} against ${found.after.toFixed(2)} ${found.shape.unit}. Fuel at another ${name} says nothing of a saving.`,
      );
    else if (id === 'wheel-power') share = off;
  }
  // Fuel follows power: what the sides differ in power, fuel may differ for that alone. And from one warm-up to the next it drifts.
  const drift = 1.96 * Math.SQRT2 * usualFuelDrift;
  return [
    unlike,
    ({ shape, difference, halfWidth, before }) => {
      if (!shape.id.startsWith('fuel')) return {};
      const wider = Math.hypot(halfWidth, drift * before) + share * before;
      return { halfWidth: wider, pValue: ownProbability(difference, wider) };
    },
  ];
}

function nextWords(
  kind: ComparedKind,
  figures: readonly JudgedFigure[],
  before: readonly KindRun[],
  after: readonly KindRun[],
): string | null {
  if (kind !== 'cruise') return null;
  const fuel = figures.find(({ id }) => id === 'fuel');
  if (!fuel || fuel.claim || Number.isNaN(fuel.halfWidth)) return null;
  const aim = askedSaving * fuel.before;
  if (fuel.halfWidth <= aim) return 'A saving of 3 % would have been shown.';
  // The interval narrows with the root of the time.
  const factor = (fuel.halfWidth / aim) ** 2 - 1;
  const runs = Math.max(before.length, after.length);
  return `To show 3 % it needs about ${Math.max(1, Math.ceil(factor * runs * minutesOf(before)))} min more a side.`;
}

/** A cruise is as long as it says; where it does not, a minute and a half. */
function minutesOf(runs: readonly KindRun[]): number {
  const told = runs.flatMap(({ figures }) => figures.filter(({ id }) => id === timeId).map(({ value }) => value));
  return told.length > 0 ? meanOf(told) : 1.5;
}

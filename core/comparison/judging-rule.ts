import type { RunCurve } from './run-curve.ts';

/** How many runs of a setup were planned, and when that was stated; undefined where it is not known. */
export interface StatedPlan {
  runs: number;
  statedAtMs?: number | undefined;
}

/**
 * Which of the two rules a pair is judged by. *Planned*: the numbers of runs
 * were stated before the first run of the test, so that the interval is that of
 * one look. *Every look*: somebody may have looked after every run, and each
 * look is paid for.
 */
export type JudgingRule =
  | {
      kind: 'planned';
      /** Runs still missing of either side; with any, nothing is claimed yet. */
      missing: { test: number; baseline: number };
      /** The runs there were when the plan was full; undefined while it is not. */
      atCompletion?: { test: RunCurve[]; baseline: RunCurve[] } | undefined;
      /** Runs made since. */
      further: number;
    }
  | { kind: 'every-look'; look: number };

/** One look at what there is, nothing further: as for files that are handed over once. */
export function oneLook(test: readonly RunCurve[], baseline: readonly RunCurve[]): JudgingRule {
  return {
    kind: 'planned',
    missing: { test: 0, baseline: 0 },
    atCompletion: { test: [...test], baseline: [...baseline] },
    further: 0,
  };
}

/**
 * The rule that holds for a pair.
 * @param plans of the test setup and the baseline; undefined where none was stated
 */
export function ruleFor(
  test: readonly RunCurve[],
  baseline: readonly RunCurve[],
  plans: { test?: StatedPlan | undefined; baseline?: StatedPlan | undefined },
): JudgingRule {
  const { test: plan } = plans;
  const firstMs = Math.min(...test.map(({ atMs }) => atMs ?? Infinity));
  if (!plan || (plan.statedAtMs !== undefined && plan.statedAtMs > firstMs)) return everyLook(test, baseline);
  const wanted = { test: plan.runs, baseline: plans.baseline?.runs ?? plan.runs };
  const missing = {
    test: Math.max(0, wanted.test - test.length),
    baseline: Math.max(0, wanted.baseline - baseline.length),
  };
  if (missing.test + missing.baseline > 0) return { kind: 'planned', missing, further: 0 };
  const times = (runs: readonly RunCurve[]) => runs.map(({ atMs }) => atMs ?? 0).sort((a, b) => a - b);
  const fullMs = Math.max(times(test)[wanted.test - 1]!, times(baseline)[wanted.baseline - 1]!);
  const known = [...test, ...baseline].every(({ atMs }) => atMs !== undefined);
  const until = (runs: readonly RunCurve[], count: number) =>
    known ? runs.filter(({ atMs = Infinity }) => atMs <= fullMs) : runs.slice(0, count);
  const atCompletion = { test: until(test, wanted.test), baseline: until(baseline, wanted.baseline) };
  const further = test.length + baseline.length - atCompletion.test.length - atCompletion.baseline.length;
  return { kind: 'planned', missing, atCompletion, further };
}

/** Looks so far: one after each run since both sides had one. Without times, as many as there could have been. */
function everyLook(test: readonly RunCurve[], baseline: readonly RunCurve[]): JudgingRule {
  const all = [...test, ...baseline];
  const most = all.length - 1;
  if (all.some(({ atMs }) => atMs === undefined)) return { kind: 'every-look', look: Math.max(1, most) };
  const times = (runs: readonly RunCurve[]) => runs.flatMap(({ atMs }) => atMs ?? []);
  const bothMs = Math.max(Math.min(...times(test)), Math.min(...times(baseline)));
  return { kind: 'every-look', look: Math.max(1, times(all).filter((atMs) => atMs >= bothMs).length) };
}

// Chosen by bench/experiments.ts.
/** A plan that is carried out has this share of the chance of a wrong claim; going on afterwards the rest. */
export const plannedShare = 0.94;

/**
 * The share of the chance of a wrong claim that a look has: they add up to 1
 * over all looks there can ever be (the bound that the sum of the chances is),
 * most for the first few, so that no number of looks makes more wrong claims.
 * After Lan and DeMets, Biometrika 70 (1983) 659: chance spent look by look.
 *
 * @param look 1 for the first
 */
export function shareOfLook(look: number): number {
  return (4 * look) / ((look + 1) * (look + 2) * (look + 3));
}

/** A probability in units that 5 % is claimed at whatever the rule: larger the more looks there are to pay for. */
export function paidFor(rule: JudgingRule, pNow: number, pAtCompletion: number = pNow): number {
  const now = pNow / shareNow(rule);
  if (rule.kind === 'every-look' || rule.further === 0) return now;
  return Math.min(now, Math.max(pAtCompletion / plannedShare, pNow));
}

/** Share of the chance of a wrong claim that this look has, apart from that of the look at the full plan. */
export function shareNow(rule: JudgingRule): number {
  if (rule.kind === 'every-look') return shareOfLook(rule.look);
  return rule.further === 0 ? plannedShare : (1 - plannedShare) * shareOfLook(rule.further);
}

/** Whether anything may be claimed at all yet. */
export function mayClaim(rule: JudgingRule): boolean {
  return rule.kind === 'every-look' || rule.missing.test + rule.missing.baseline === 0;
}

/** Probability of the interval that is shown: whatever the looks, 95 % of what is ever shown holds. */
export function levelOf(rule: JudgingRule): number {
  return rule.kind === 'every-look' ? 1 - 0.05 * shareOfLook(rule.look) : 0.95;
}

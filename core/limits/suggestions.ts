import { burnsFuel, sparks, type EngineKind } from '../engine/engine-kind.ts';
import type { Limit, LimitQuantity } from './limit.ts';

/** What is known of an engine when limits are thought of. */
export interface EngineFacts {
  ignition: EngineKind | null;
  boosted: boolean;
  /** Percent by volume; null when not known. */
  ethanolPct: number | null;
}

/** A limit that is often used, with its reason: a suggestion, not active until added. */
export interface LimitSuggestion extends Limit {
  reason: string;
}

/** What is taken back beyond this, °, is knock, whatever a job has written. */
export const usualKnockDeg = 3;

/**
 * Usual starting points by ignition and fuel. They are cautious customs of
 * the trade for road engines in sound state, not properties of this engine:
 * the maker's and the builder's figures come first.
 */
export function limitSuggestions({ ignition, boosted, ethanolPct }: EngineFacts): LimitSuggestion[] {
  const suggest = (quantity: LimitQuantity, value: number, reason: string): LimitSuggestion => ({
    quantity,
    value,
    scale: null,
    reason,
  });
  const heat = [
    suggest('coolantTemperature', 105, 'hotter than this, stop and cool down'),
    suggest('oilTemperature', 130, 'oil thins and films break above it'),
  ];
  if (ignition === 'compression') {
    return [
      suggest('smokeLambda', 1.15, 'below it a diesel smokes; petrol limits do not apply'),
      suggest('exhaustTemperature', 750, 'before the turbine, for minutes at a time'),
      ...heat,
    ];
  }
  // A motor's limits are its maker's alone.
  if (!burnsFuel(ignition)) return [];
  const alcohol = isAlcohol(ethanolPct);
  return [
    suggest(
      'lambda',
      leanestLambda({ boosted, ethanolPct }),
      `leaner than this at full load is a risk${alcohol ? `, on ${Math.round(ethanolPct ?? 0)} % ethanol` : ' on petrol'}`,
    ),
    suggest('knockRetard', usualKnockDeg, 'more than this taken back is knock, not caution'),
    suggest(
      'injectorDuty',
      90,
      alcohol ? 'ethanol needs up to 43 % more volume' : 'no room is left to enrich above it',
    ),
    ...(boosted ? [suggest('exhaustTemperature', 950, 'before the turbine')] : []),
    suggest('intakeTemperature', boosted ? 65 : 50, 'knock comes earlier in hot air'),
    ...heat,
  ];
}

/** The leanest λ at full load that a spark engine is usually allowed. @param ethanolPct by volume, null when not known */
export function leanestLambda({ boosted, ethanolPct }: { boosted: boolean; ethanolPct: number | null }): number {
  if (boosted) return isAlcohol(ethanolPct) ? 0.88 : 0.86;
  return isAlcohol(ethanolPct) ? 0.92 : 0.9;
}

/** Limits that every run is held against where its job has none of the kind: knock, which neither a diesel nor a motor takes back. */
export function usualLimits({ ignition }: Pick<EngineFacts, 'ignition'>): Limit[] {
  return sparks(ignition) ? [{ quantity: 'knockRetard', value: usualKnockDeg, scale: null }] : [];
}

const isAlcohol = (ethanolPct: number | null) => ethanolPct !== null && ethanolPct >= 50;

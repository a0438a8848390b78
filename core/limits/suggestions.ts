import type { Limit, LimitQuantity } from './limit.ts';

/** What is known of an engine when limits are thought of. */
export interface EngineFacts {
  ignition: 'spark' | 'compression' | null;
  boosted: boolean;
  /** Percent by volume; null when not known. */
  ethanolPct: number | null;
}

/** A limit that is often used, with its reason: a suggestion, nobody's word. */
export interface LimitSuggestion extends Limit {
  reason: string;
}

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
  const alcohol = ethanolPct !== null && ethanolPct >= 50;
  return [
    suggest(
      'lambda',
      boosted ? (alcohol ? 0.88 : 0.86) : alcohol ? 0.92 : 0.9,
      `leaner than this at full load is a risk${alcohol ? `, on ${Math.round(ethanolPct)} % ethanol` : ' on petrol'}`,
    ),
    suggest('knockRetard', 3, 'more than this taken back is knock, not caution'),
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

import { stoichiometricOf } from '../../fuel/blend.ts';
import type { Quantity } from '../../sentence/sentence.ts';
import type { RunLog } from './run-log.ts';

/** A reading of λ that readers may be told as an air–fuel ratio of what this run burnt. */
export function mixtureOf({ engine }: Pick<RunLog, 'engine'>, lambda: number): Quantity {
  return {
    value: lambda,
    unit: 'λ',
    stoichiometric: stoichiometricOf(engine.ignition, engine.ethanolPct).ratio,
    named: true,
  };
}

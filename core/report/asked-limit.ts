import type { LimitChange } from '../figures/runs/limits-of-runs.ts';
import { limitQuantities, type LimitQuantity } from '../limits/limit.ts';
import { difference, quantity, say, type Sentence } from '../sentence/sentence.ts';
import { differenceUnit } from '../units/told-units.ts';

/** By which words an owner asks for a quantity other than power. */
const asked: Partial<Record<LimitQuantity, RegExp>> = {
  boost: /\bboost\b.*\b(reach|hold|overshoot|spike)/,
  knockRetard: /\bknock/,
  injectorDuty: /\binjector/,
  fuelPressure: /\bfuel pressure/,
  railPressure: /\brail pressure/,
  oilPressure: /\boil pressure/,
  intakeTemperature: /\b(intake|inlet|charge)[a-z -]*temperature/,
  coolantTemperature: /\b(coolant|water) temperature/,
  oilTemperature: /\boil temperature/,
  exhaustTemperature: /\bexhaust (gas )?temperature/,
};

/** What is known of the quantity that a question names, where it names one that the job has a limit for. */
export function askedLimit(question: string, changes: readonly LimitChange[]): LimitChange | undefined {
  const words = question.toLowerCase();
  return changes.find((change) => asked[change.quantity]?.test(words));
}

/** The readings of both sides as a sentence: what was read, and no claim. */
export function askedWords({ quantity: of, before, after, ...change }: LimitChange, later: string): Sentence {
  const { label, unit, side } = limitQuantities[of];
  const told = difference(change.difference, change.halfWidth, differenceUnit(unit), 1);
  return say`${label} at its ${side}: ${quantity(before, unit)} as arrived, ${quantity(after, unit)} ${later === 'delivered' ? 'as delivered' : 'with the last setup'} (${told}).`;
}

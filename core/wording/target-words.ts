import { standards } from '../air/correction.ts';
import { unitOfFigure, type AskedFigure } from '../curve/asked-figure.ts';
import { quantityRange, say, withHalfWidth, type Quantity, type Sentence } from '../sentence/sentence.ts';
import type { Target, TargetFigures, TargetOfSetup } from '../targets/target.ts';

/** An engine speed as somebody typed it. */
const typed = (rpm: number) => rpm.toLocaleString('en-GB');

/** Such as “mean power from 2,000 to 4,000 rpm”. */
export function askedWords({ quantity: of, fromRpm, toRpm }: AskedFigure): Sentence {
  if (of.startsWith('peak') || (fromRpm === null && toRpm === null)) return of;
  if (of.endsWith(' at')) return say`${of} ${typed(fromRpm ?? 0)} rpm`;
  if (toRpm === null) return say`${of} from ${typed(fromRpm ?? 0)} rpm on`;
  return fromRpm === null
    ? say`${of} up to ${typed(toRpm)} rpm`
    : say`${of} from ${typed(fromRpm)} to ${typed(toRpm)} rpm`;
}

/** What is wanted, such as “peak power at least 100 kW at the wheels”. */
export function targetName(target: Omit<Target, 'id'>): Sentence {
  return say`${askedWords(target)} at least ${wantedWords(target)}`;
}

/** The figure that is wanted, with its scale and the standard that it is wanted under. */
export function wantedWords(target: Omit<Target, 'id'>): Sentence {
  const there = wantedThere(target);
  const under = standardWords(target);
  return under === '' ? there : say`${there}, ${under}`;
}

/** The figure that is wanted, with its scale. */
export function wantedThere({ quantity: of, value, scale }: Omit<Target, 'id'>): Sentence {
  const figure: Quantity = { value, unit: unitOfFigure(of), digits: 1, as: 'step' };
  if (scale === null) return say`${figure}`;
  return scale === 'wheels' ? say`${figure} at the wheels` : say`${figure} at the crank`;
}

/** The standard that it is wanted under; empty where it has none. */
export const standardWords = ({ standard }: Pick<Target, 'standard'>): string =>
  standard === null ? '' : standards[standard].name;

/** A figure that was made, with its interval where there is one. */
export function madeWords({ quantity: of }: Pick<Target, 'quantity'>, { made, halfWidth }: TargetOfSetup): Sentence {
  return made === undefined ? '–' : withHalfWidth(made, halfWidth, unitOfFigure(of), 1);
}

/** Where a setup stands against a target, in a few words. */
export function standingWords(target: Target, { here }: Pick<TargetFigures, 'here'>, of: TargetOfSetup): Sentence {
  const unit = unitOfFigure(target.quantity);
  const { made, standing, halfWidth } = of;
  if (standing === 'no air') return 'its standard asks for the air, and no run has any';
  if (made === undefined) return 'not driven there, or not recorded';
  if (!here) return 'of another scale than what is shown';
  if (standing === 'reached') return 'reached';
  const missing = here[0] - made;
  if (standing === 'short') return say`${{ value: missing, unit, digits: 1 }} short`;
  if (halfWidth === undefined) return 'one run: not told yet';
  return missing > 0
    ? say`${{ value: missing, unit, digits: 1 }} short, within its interval`
    : 'not told yet: within its interval';
}

/** With what a target of the crank is taken to read at the wheels, where that is estimated. */
export function withReading(
  stands: Sentence,
  { quantity: of }: Target,
  { here }: Pick<TargetFigures, 'here'>,
): Sentence {
  if (!here || here[0] === here[1]) return stands;
  return say`${stands}: would read ${quantityRange(here[0], here[1], unitOfFigure(of))} here, by the usual losses`;
}

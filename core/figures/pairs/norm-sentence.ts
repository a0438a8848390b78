import { convert, type PowerUnit } from '../../units/units.ts';
import { meanOf } from '../../numerics/mean.ts';
import type { BorrowedCurve } from '../request/borrowed-curve.ts';

/** What a setup's runs reached, beside a norm that is known by one figure. */
export interface NormPeaks {
  /** The setup's letter. */
  letter: string;
  /** Power peaks of its counted runs, kW, on the scale that is shown. */
  peaksKw: readonly number[];
  shown: 'crank' | 'wheels';
  unit: PowerUnit;
}

/** How far a setup is from a norm: the plain difference, and no verdict, for nobody knows how the norm was measured. */
export function normSentence(
  { name, origin, scale, peakKw }: Pick<BorrowedCurve, 'name' | 'origin' | 'scale'> & { peakKw: number },
  { letter, peaksKw, shown, unit }: NormPeaks,
): string {
  const write = (kw: number) => convert(kw, 'kW', unit).toFixed(1);
  const at = (where: 'crank' | 'wheels') => (where === 'crank' ? 'at the crank' : 'at the wheels');
  const norm = `“${name}” is ${write(peakKw)} ${unit} ${at(scale)} (${origin})`;
  if (peaksKw.length === 0) return `${letter} has no run that counts. ${norm}.`;
  const own = meanOf(peaksKw);
  const peak = `${letter} peaks at ${write(own)} ${unit} ${at(shown)}`;
  if (scale !== shown)
    return `${peak}; ${norm}: between crank and wheels lie 10 to 25 %, so these cannot be held against each other. ${scale === 'crank' ? 'Show an estimate for the crank' : 'Show the figures at the wheels'} to compare.`;
  const difference = own - peakKw;
  const share = Math.abs((100 * difference) / peakKw).toFixed(1);
  const word =
    Math.abs(difference) < 0.05
      ? 'just'
      : `${write(Math.abs(difference))} ${unit} (${share} %) ${difference < 0 ? 'below' : 'above'}`;
  return `${peak}, ${word} the norm. ${norm}: for orientation, no verdict.`;
}

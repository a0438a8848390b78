import type { JudgedFigure } from '../judgement/kind-judgement.ts';
import type { RunFigure } from '../run-kinds/run-figure.ts';
import { signed, trueMinus } from './figures.ts';

/** A value with its digits. */
export const figureText = ({ value, digits }: Pick<RunFigure, 'value' | 'digits'>): string => trueMinus(value.toFixed(digits)); // prettier-ignore

/** `± 0.12`; nothing where one run tells none. */
export const widthText = ({ halfWidth, digits }: Pick<RunFigure, 'halfWidth' | 'digits'>): string =>
  Number.isFinite(halfWidth) ? ` ± ${halfWidth.toFixed(digits)}` : '';

/** `−0.30 ± 0.12 s` */
export function differenceText({ difference, halfWidth, digits, unit }: JudgedFigure): string {
  return `${signed(trueMinus(difference.toFixed(digits)))}${widthText({ halfWidth, digits })}${unit ? ` ${unit}` : ''}`;
}

/** What may be said of a difference. */
export function verdictWord({ claim, good, asked }: JudgedFigure): string {
  if (!asked) return '';
  if (!claim) return 'not shown';
  const way = claim === 'less' ? 'less, shown' : 'more, shown';
  return good === null ? way : `${way}: ${good ? 'better' : 'worse'}`;
}

import type { PlaneFigures, PlaneRange } from '../response/plane-figures.ts';
import type { PlaneItem } from '../response/plane.ts';
import type { PlanePoint } from '../response/surface-fit.ts';
import { levelWords } from '../response/level-words.ts';
import { say, type Sentence } from '../sentence/sentence.ts';
import { formatDifference, formatTenths } from './figures.ts';

const levelAt = ({ startX, step, unit }: PlaneItem, steps: number) => levelWords(startX + steps * step, unit);

/** `ignition +1.5°, boost +12 kPa` */
export function placeSentence(
  { plane: { across, down } }: Pick<PlaneFigures, 'plane'>,
  { u, v }: PlanePoint,
): Sentence {
  return say`${across.label} ${levelAt(across, u)}, ${down.label} ${levelAt(down, v)}`;
}

/** A share with its interval: `+1.2 ± 0.4 %`. */
export const shareWords = (share: number, halfWidth: number): string =>
  `${formatDifference(100 * share, 100 * halfWidth).whole} %`;

/** What is recommended: the gentlest that keeps almost all. */
export function gentlestSentence(figures: PlaneFigures, { gentlest, best, heldBy }: PlaneRange): Sentence {
  const value = `${shareWords(gentlest.value - 1, gentlest.halfWidth)} on the beginning`;
  const same = gentlest.u === best.u && gentlest.v === best.v;
  const most =
    heldBy.length > 0
      ? `the best that ${heldBy.join(' and ').toLowerCase()} ${heldBy.length > 1 ? 'allow' : 'allows'}`
      : 'the best';
  return say`${placeSentence(figures, gentlest)}: ${value}. ${same ? `Nothing gentler keeps 99.5 % of ${most}.` : `It keeps 99.5 % of ${most}, with confidence.`}`;
}

/** What to try next, and why. */
export function nextSentence(figures: PlaneFigures, { next, mayGain }: PlaneRange): Sentence {
  if (!next) return 'Another setting would tell next to nothing: what is known is enough.';
  const why = next.why === 'best may lie there' ? 'the best may lie there' : 'little is known there';
  return say`${placeSentence(figures, next)}: ${why}, and up to ${formatTenths(100 * mayGain)} % may still be found. One step from what was tried, and inside every limit that was read.`;
}

import type { PlaneFigures, PlaneRange } from '../response/plane-figures.ts';
import type { PlaneItem } from '../response/plane.ts';
import type { PlanePoint } from '../response/surface-fit.ts';
import { levelWords } from '../response/level-words.ts';
import { say, type Sentence } from '../sentence/sentence.ts';

const levelAt = ({ startX, step, unit }: PlaneItem, steps: number) => levelWords(startX + steps * step, unit);

/** `ignition +1.5°, boost +12 kPa` */
export function placeSentence(
  { plane: { across, down } }: Pick<PlaneFigures, 'plane'>,
  { u, v }: PlanePoint,
): Sentence {
  return say`${across.label} ${levelAt(across, u)}, ${down.label} ${levelAt(down, v)}`;
}

const percent = (share: number) => (100 * share).toFixed(1);

/** What is recommended: the gentlest that keeps almost all. */
export function gentlestSentence(figures: PlaneFigures, { gentlest, best }: PlaneRange): Sentence {
  const value = `${percent(gentlest.value - 1)} ± ${percent(gentlest.halfWidth)} % on the beginning`
    .replace(/^-/, '−')
    .replace(/^(?=\d)/, '+');
  const same = gentlest.u === best.u && gentlest.v === best.v;
  return say`${placeSentence(figures, gentlest)}: ${value}. ${same ? 'Nothing gentler keeps 99.5 % of the best that the limits allow.' : 'It keeps 99.5 % of the best that the limits allow, with confidence.'}`;
}

/** What to try next, and why. */
export function nextSentence(figures: PlaneFigures, { next, mayGain }: PlaneRange): Sentence {
  if (!next) return 'Another setting would tell next to nothing: what is known is enough.';
  const why = next.why === 'best may lie there' ? 'the best may lie there' : 'little is known there';
  return say`${placeSentence(figures, next)}: ${why}, and up to ${percent(mayGain)} % may still be found. One step from what was tried, and inside every limit that was read.`;
}

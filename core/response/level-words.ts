import { say, type Sentence } from '../sentence/sentence.ts';

/** A level as it is said: `+12 kPa`, `0.88`. */
export function levelWords(x: number, unit: string): Sentence {
  return say`${{ value: x, unit, as: 'level' }}`;
}

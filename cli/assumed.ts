import { standards, type StandardId } from '../core/air/correction.ts';
import { usualStandard } from '../core/air/usual-standard.ts';
import type { EngineKind } from '../core/engine/engine-kind.ts';
import type { SpreadPrior } from '../core/statistics/spread-prior.ts';
import { formatShare } from '../core/units/spoken.ts';
import { ignitionOf, standardNamed } from './input.ts';
import { wordOf, type Words } from './words.ts';

/** What was said of correction and engine, and what was taken for what was not. */
export interface Correcting {
  standard: StandardId;
  ignition: EngineKind | undefined;
  /** In sentences. */
  assumed: string[];
}

/** The standard that was named, else the usual one of the engine. @param hasAir where there is none nothing is corrected */
export function correctingOf(words: Words, hasAir: boolean): Correcting {
  const [named, engine] = [wordOf(words, 'standard'), wordOf(words, 'engine')];
  const ignition = ignitionOf(engine);
  const standard = named === undefined ? usualStandard('sae-j1349', ignition) : standardNamed(named);
  return { standard, ignition, assumed: assumedOf(standard, ignition, { hasAir, isNamed: named !== undefined }) };
}

/** What stands behind a correction that nobody said. */
export function assumedOf(
  standard: StandardId,
  ignition: EngineKind | undefined,
  { hasAir, isNamed }: { hasAir: boolean; isNamed: boolean },
): string[] {
  if (!hasAir)
    return standard === 'none' ? [] : ['No correction: the air of the runs was not given, or not of all of them.'];
  const { name } = standards[standard];
  return [
    ...(isNamed ? [] : [`Standard: ${name}, for none was named.`]),
    ...(ignition === undefined && standard !== 'none'
      ? ['Engine: nothing was said of it, so whether the standard suits it was not looked at.']
      : []),
    ...(standard === 'iso-1585-ci'
      ? ['Diesel: turbocharged, engine factor 0.3; its induction and its fuel a cycle cannot be given here.']
      : []),
  ];
}

/** What a comparison rests on that its runs do not tell. */
export const assumedSpreadWords = ({ from, share, upperShare = share }: SpreadPrior): string[] =>
  from === 'assumed'
    ? [
        `Spread of repeats: ${formatShare(share)} of power, up to ${formatShare(upperShare)}, where the runs themselves tell too little.`,
      ]
    : [];

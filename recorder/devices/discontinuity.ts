import type { Discontinuity } from '../spool/records.ts';

const isGap = (found: Discontinuity): found is { missing: number; atS: number } => 'missing' in found;

/** What is said of a run's breaks: those of one kind together, however many there are. */
export function discontinuityRemarks(found: readonly Discontinuity[]): string[] {
  const gaps = found.filter(isGap);
  const missing = gaps.reduce((sum, gap) => sum + gap.missing, 0);
  const [first, last] = [gaps[0], gaps[gaps.length - 1]];
  const where =
    first === last
      ? `at ${first?.atS.toFixed(2)} s`
      : `in ${gaps.length} places from ${first?.atS.toFixed(2)} to ${last?.atS.toFixed(2)} s`;
  const jumps = found.flatMap((jump) => (isGap(jump) ? [] : [jump]));
  const [jump] = jumps;
  return [
    ...(missing > 0 ? [`${missing} frame${missing === 1 ? ' is' : 's are'} missing ${where}.`] : []),
    ...(jump
      ? [
          `The instrument's clock went back${jumps.length > 1 ? ` ${jumps.length} times, first` : ''} from ${jump.backFromS.toFixed(2)} to ${jump.atS.toFixed(2)} s.`,
        ]
      : []),
  ];
}

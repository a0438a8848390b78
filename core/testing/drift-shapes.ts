import { chance, normal } from './chance.ts';

/** Shapes that the drift of a day may have. */
export const driftShapes = ['none', 'rise', 'sag', 'saturating', 'step', 'random walk'] as const;
export type DriftShape = (typeof driftShapes)[number];

/**
 * How far each run of a day has drifted, in units of the spread: *rise* and *sag* go on steadily; *saturating* is as
 * steep at first and has done two thirds of it after four runs; *step* moves three runs' worth at once; *random walk*
 * moves by so much a run, either way.
 * @param perRun the most, or for the random walk the standard deviation, of a run to the next
 */
export function driftPath(shape: DriftShape, runs: number, perRun: number, seed: number): number[] {
  const random = chance(seed * 7877 + 5);
  const noise = normal(random);
  const way = random() < 0.5 ? -1 : 1;
  const stepAt = 1 + Math.floor(random() * (runs - 1));
  let walked = 0;
  return Array.from({ length: runs }, (_, place) => {
    switch (shape) {
      case 'none':
        return 0;
      case 'rise':
        return perRun * place;
      case 'sag':
        return -perRun * place;
      case 'saturating':
        return way * perRun * 4 * (1 - Math.exp(-place / 4));
      case 'step':
        return place >= stepAt ? way * 3 * perRun : 0;
      case 'random walk':
        return place === 0 ? 0 : (walked += perRun * noise());
    }
  });
}

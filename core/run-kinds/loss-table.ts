import { lossAt, type CoastDown, type Estimate } from './coast-down.ts';

/** Loss at a drum speed, with its 95 % interval. */
export interface LossPoint {
  speedRadS: number;
  torqueNm: Estimate;
  powerKw: Estimate;
}

/** Losses at a few round speeds over the coast, the fastest first. */
export function lossTable(coast: CoastDown, points = 5): LossPoint[] {
  const step = (coast.fromRadS - coast.toRadS) / (points - 1);
  return Array.from({ length: points }, (_, index) => {
    const speedRadS = coast.fromRadS - index * step;
    const torqueNm = lossAt(coast, speedRadS);
    const kw = (nm: number) => (nm * speedRadS) / 1000;
    return {
      speedRadS,
      torqueNm,
      powerKw: { value: kw(torqueNm.value), low: kw(torqueNm.low), high: kw(torqueNm.high) },
    };
  });
}

import type { PlanePoint } from '../response/surface-fit.ts';
import { chance, normal } from './chance.ts';

/** A surface of power over two items with a limit across it, drawn by chance; physics of nobody's, for tests only. */
export interface DrawnSurface {
  /** Share of the power at the beginning. */
  power: (point: PlanePoint) => number;
  /** 0 at the beginning, 1 at the limit. */
  limited: (point: PlanePoint) => number;
  /** The greatest power within the reach and the limit. */
  best: number;
  readPower: (point: PlanePoint) => number;
  readLimited: (point: PlanePoint) => number;
}

export function drawnSurface(seed: number, reach: number, noise: number): DrawnSurface {
  const random = chance(seed * 7919 + 11);
  const gauss = normal(random);
  const between = (from: number, to: number) => from + (to - from) * random();
  const [bu, bv] = [between(-0.5, 3), between(-1.5, 2.5)];
  const [cu, cv] = [between(0.0015, 0.007), between(0.0015, 0.007)];
  const cross = between(-0.5, 0.5) * Math.sqrt(cu * cv);
  const drop = ({ u, v }: PlanePoint) => cu * (u - bu) ** 2 + cv * (v - bv) ** 2 + cross * (u - bu) * (v - bv);
  const at0 = drop({ u: 0, v: 0 });
  const power = (point: PlanePoint) => 1 + at0 - drop(point);
  const [gu, gv] = [between(0.05, 0.5), between(-0.25, 0.3)];
  const [gu2, gv2] = [between(0, 0.05), between(0, 0.04)];
  const limited = ({ u, v }: PlanePoint) => gu * u + gv * v + gu2 * u * u + gv2 * v * v;
  let best = -Infinity;
  for (let u = -reach; u <= reach; u += 0.05)
    for (let v = -reach; v <= reach; v += 0.05) if (limited({ u, v }) <= 1) best = Math.max(best, power({ u, v }));
  return {
    power,
    limited,
    best,
    readPower: (point) => power(point) * (1 + noise * gauss()),
    readLimited: (point) => limited(point) + 0.02 * gauss(),
  };
}

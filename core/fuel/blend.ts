import type { EngineKind } from '../engine/engine-kind.ts';
import { Refusal } from '../refusal.ts';

/**
 * Densities kg/L and stoichiometric air–fuel ratios by mass of what blends
 * are made of; petrol as without ethanol.
 */
export const petrol = { densityKgL: 0.745, airFuelRatio: 14.7 } as const;
export const ethanol = { densityKgL: 0.789, airFuelRatio: 9.0 } as const;
export const diesel = { densityKgL: 0.835, airFuelRatio: 14.5 } as const;

/** A volume of petrol with ethanol in it: litres, and percent by volume. */
export interface Blend {
  litres: number;
  ethanolPct: number;
}

/** What volumes of blends make together; volumes add (they shrink by less than 0.5 %). */
export function mixed(...parts: readonly Blend[]): Blend {
  const litres = parts.reduce((sum, part) => sum + part.litres, 0);
  if (!(litres > 0)) return { litres: 0, ethanolPct: parts.at(-1)?.ethanolPct ?? 0 };
  return { litres, ethanolPct: parts.reduce((sum, part) => sum + part.litres * part.ethanolPct, 0) / litres };
}

/** Stoichiometric air–fuel ratio by mass of a blend: mass-weighted. E10 14.1, E85 9.8. */
export function stoichiometricRatio(ethanolPct: number): number {
  const share = ethanolPct / 100;
  const [e, p] = [share * ethanol.densityKgL, (1 - share) * petrol.densityKgL];
  return (e * ethanol.airFuelRatio + p * petrol.airFuelRatio) / (e + p);
}

/** What a reading of λ is told as an air–fuel ratio with, and what that rests on, in words. */
export interface Stoichiometric {
  ratio: number;
  fuel: string;
}

/**
 * The stoichiometric ratio of what an engine was run on.
 * @param ethanolPct percent by volume; null where nobody knows it: petrol is assumed, and said so
 */
export function stoichiometricOf(ignition: EngineKind | null, ethanolPct: number | null): Stoichiometric {
  if (ignition === 'compression') return { ratio: diesel.airFuelRatio, fuel: 'diesel' };
  if (ethanolPct === null) return { ratio: petrol.airFuelRatio, fuel: 'petrol assumed' };
  return {
    ratio: stoichiometricRatio(ethanolPct),
    fuel: ethanolPct < 0.5 ? 'petrol' : `${Math.round(ethanolPct)} % ethanol`,
  };
}

/** The mixture ratio and the density of what an engine burns. @param ethanolPct null where nobody knows it: petrol is assumed */
export function burntFuel(ignition: EngineKind | null, ethanolPct: number | null) {
  const { ratio } = stoichiometricOf(ignition, ethanolPct);
  if (ignition === 'compression') return { stoichiometric: ratio, densityKgL: diesel.densityKgL };
  const share = (ethanolPct ?? 0) / 100;
  return { stoichiometric: ratio, densityKgL: share * ethanol.densityKgL + (1 - share) * petrol.densityKgL };
}

/**
 * How much more volume a blend needs than another for the same air, as a
 * factor: 85 % against petrol 1.43, 70 % 1.33. It scales injector pulse and
 * consumption alike.
 */
export function volumeFactor(ethanolPct: number, fromPct = 0): number {
  const airPerLitre = (percent: number) => {
    const share = percent / 100;
    return share * ethanol.densityKgL * ethanol.airFuelRatio + (1 - share) * petrol.densityKgL * petrol.airFuelRatio;
  };
  return airPerLitre(fromPct) / airPerLitre(ethanolPct);
}

/** How to reach an ethanol content: what to drain first, and what to add. */
export interface BlendPlan {
  drainLitres: number;
  addLitres: number;
  result: Blend;
}

/**
 * The volume of one fuel to add so that the tank reaches a content; where it
 * would not fit, the least that has to be drained first.
 *
 * @param tank what is in it, residue in lines and pump included
 * @param tankLitres what it holds
 * @param adding ethanol content of the fuel at hand, percent
 * @throws Refusal when that fuel cannot bring the tank there
 */
export function planForTarget(tank: Blend, tankLitres: number, adding: number, targetPct: number): BlendPlan {
  if (Math.abs(tank.ethanolPct - targetPct) < 0.05 && tank.litres > 0)
    return { drainLitres: 0, addLitres: 0, result: tank };
  const reachable = tank.litres <= 0 ? adding === targetPct : (adding - targetPct) * (targetPct - tank.ethanolPct) > 0;
  if (!reachable) {
    throw new Refusal(
      tank.litres > 0 && adding === targetPct
        ? `Adding ${adding} % only comes nearer to ${targetPct} % while ${round(tank.ethanolPct)} % is in the tank: drain it first, or add a stronger fuel.`
        : `A fuel of ${adding} % cannot bring ${round(tank.ethanolPct)} % to ${targetPct} %: choose one on the other side of the target.`,
    );
  }
  const addPerLitre = (targetPct - tank.ethanolPct) / (adding - targetPct);
  const kept = Math.min(tank.litres, tankLitres / (1 + addPerLitre));
  const addLitres = tank.litres > 0 ? kept * addPerLitre : tankLitres;
  return {
    drainLitres: tank.litres - kept,
    addLitres,
    result: mixed({ litres: kept, ethanolPct: tank.ethanolPct }, { litres: addLitres, ethanolPct: adding }),
  };
}

const round = (value: number) => Math.round(value * 10) / 10;

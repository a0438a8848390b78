import { usualLoss, wheelRange } from '../dyno/usual-loss.ts';
import type { MachineKind } from '../dyno/dyno-profile.ts';
import { convert, type PowerUnit } from '../units/units.ts';

export type Plausible = 'plausible' | 'less' | 'more';

/** A figure that somebody told of a car, and what it would read on the dyno. */
export interface ToldFigure {
  whose: 'factory rating' | 'claim';
  /** Who claims it; empty where nobody is named. */
  source: string;
  kw: number;
  /** Null: nobody said; taken to be the crank's. */
  scale: 'wheels' | 'crank' | null;
  /** At the wheels here, kW; both ends the same for a figure of the wheels. */
  here: readonly [least: number, most: number];
  /** What was measured as the car arrived, held against it; absent where nothing was. */
  verdict?: Plausible;
}

/** What is written of a car that tells of its power. */
export interface ToldOfCar {
  car: { factoryKw: number | null };
  claimedValue: number | null;
  claimedUnit: PowerUnit;
  claimedScale: 'crank' | 'wheels' | null;
  claimedSource: string;
}

/** Whether a reading with its interval fits an expected range, all in kW at the wheels. */
export function plausible(readKw: number, halfWidthKw: number, [least, most]: readonly [number, number]): Plausible {
  if (readKw + halfWidthKw < least) return 'less';
  return readKw - halfWidthKw > most ? 'more' : 'plausible';
}

/**
 * Rating and claim with what they would read on a machine, for orientation: never a baseline.
 * @param arrived what the car made as it came, kW at the wheels
 */
export function toldFigures(
  { car: { factoryKw }, claimedValue, claimedUnit, claimedScale, claimedSource }: ToldOfCar,
  kind: MachineKind,
  arrived: { kw: number; halfWidthKw?: number | undefined } | undefined,
): ToldFigure[] {
  const told = (figure: Omit<ToldFigure, 'here' | 'verdict'>): ToldFigure => {
    const here = figure.scale === 'wheels' ? ([figure.kw, figure.kw] as const) : wheelRange(figure.kw, kind);
    return { ...figure, here, ...(arrived && { verdict: plausible(arrived.kw, arrived.halfWidthKw ?? 0, here) }) };
  };
  return [
    ...(factoryKw === null ? [] : [told({ whose: 'factory rating', source: '', kw: factoryKw, scale: 'crank' })]),
    ...(claimedValue === null
      ? []
      : [
          told({
            whose: 'claim',
            source: claimedSource,
            kw: convert(claimedValue, claimedUnit, 'kW'),
            scale: claimedScale,
          }),
        ]),
  ];
}

/** Percent that are usually lost from crank to dyno, for the sentence that says so. */
export const usualLossPercent = (kind: MachineKind): readonly [number, number] => [
  Math.round(100 * usualLoss[kind][0]),
  Math.round(100 * usualLoss[kind][1]),
];

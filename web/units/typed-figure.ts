import type { Told } from '../../core/units/told-units.ts';

/** A quantity as it stands in a field to be written over: as it is kept, or with four figures of another unit. */
export function typedFigure(kept: number, { unit, of }: Told, keptIn: string): string {
  return unit === keptIn || unit === '' ? String(kept) : String(Number(of(kept).toPrecision(4)));
}

/** What somebody typed, as it is kept: without the noise of the arithmetic. */
export function keptFigure(typed: number, { unit, kept }: Told, keptIn: string): number {
  return unit === keptIn || unit === '' ? typed : Number(kept(typed).toPrecision(9));
}

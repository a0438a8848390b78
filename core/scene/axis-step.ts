import type { Told } from '../units/told-units.ts';

/** Steps from figure to figure that read well, times a power of ten. */
const steps = [1, 2, 5, 10];

/** How far apart the figures of an axis stand, in its own unit: four to eight of them, each a round one. */
export function axisStep([from, to]: readonly [number, number]): number {
  const rough = (to - from) / 8;
  const ten = 10 ** Math.floor(Math.log10(rough));
  return (steps.find((step) => step * ten >= rough * 0.999) ?? 10) * ten;
}

/** Where an axis has figures, round ones as they are told, and how these are written. */
export function ticksOf(
  [from, to]: readonly [number, number],
  { of, kept }: Pick<Told, 'of' | 'kept'>,
): { place: number; figure: string }[] {
  const step = axisStep([of(from), of(to)]);
  const first = Math.ceil(of(from) / step - 1e-9);
  return Array.from({ length: Math.max(0, Math.floor(of(to) / step + 1e-9) - first + 1) }, (_, index) => {
    const figure = Number(((first + index) * step).toFixed(6));
    return { place: kept(figure), figure: figure.toLocaleString('en-GB') };
  });
}

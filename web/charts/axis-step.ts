/** Steps from figure to figure that read well, times a power of ten. */
const steps = [1, 2, 5, 10];

/** How far apart the figures of an axis stand, in its own unit: four to eight of them, each a round one. */
export function axisStep([from, to]: readonly [number, number]): number {
  const rough = (to - from) / 8;
  const ten = 10 ** Math.floor(Math.log10(rough));
  return (steps.find((step) => step * ten >= rough * 0.999) ?? 10) * ten;
}

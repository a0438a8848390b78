/** How far apart the figures of an engine-speed axis stand, rpm: whole thousands, less when a short range is looked at. */
export function speedStep([from, to]: readonly [number, number]): number {
  const width = to - from;
  return width > 2600 ? 1000 : width > 1200 ? 500 : width > 500 ? 200 : 100;
}
